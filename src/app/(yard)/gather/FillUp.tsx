'use client';

import { useState } from 'react';
import { ungrouped } from '@/core/locale/locale';
import { formatAmount, formatMoney, signOf } from '@/core/money/money';
import { formatQuantity, parseQuantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import type { BelowLevel, FillUp as Found } from '@/queries/buying/fillUp';
import type { BundleView } from '@/queries/buying/gather';
import type { NeedLine } from '@/queries/buying/needLine';
import { Slip } from '@/ui/kit/Slip';
import { Tags } from '@/ui/kit/Tags';
import { useAnswer } from '@/ui/acting/useAnswer';
import { useYard } from '@/ui/frame/YardContext';
import type { StockPicks } from './picks';

type Props = {
  readonly bundle: BundleView;
  readonly picked: readonly number[];
  readonly stock: StockPicks;
  readonly onNeed: (need: NeedLine, on: boolean) => void;
  readonly onStock: (item: BelowLevel, text: string) => void;
  readonly onClose: () => void;
};

/** What else could ride along on an order: what is needed later, and what stores run low of. */
export default function FillUp({ bundle, picked, stock, onNeed, onStock, onClose }: Props) {
  const { currency, day } = useYard();
  // What is picked here stays in the list, so that it can be put back.
  const [before] = useState(picked);
  const found = useAnswer<Found>('/gather/fill-up', JSON.stringify({ supplierId: bundle.supplierId, picked: before }));
  const { toFree } = bundle;
  const nothing = found !== undefined && found.needs.length + found.stock.length === 0;
  return (
    <Slip
      open
      onClose={onClose}
      title={`Top up ${bundle.supplier} order`}
      detail={
        <span aria-live="polite">
          {formatMoney(bundle.goods, bundle.currency)} goods value
          {toFree !== null && toFree > 0 && ` · ${formatMoney(toFree, bundle.currency)} more for free carriage`}
          {toFree === 0 && ' · free carriage'}
          {bundle.belowMinimum > 0 &&
            ` · ${formatMoney(bundle.belowMinimum, bundle.currency)} below their minimum order`}
        </span>
      }
    >
      {found === undefined && <p className="text-ink-2">Looking for lines to add…</p>}
      {nothing && <p className="text-ink-2">Nothing else to buy from them, and none of their stock items is low.</p>}
      {found !== undefined && found.needs.length > 0 && (
        <fieldset>
          <legend className="mb-1 text-[15px] font-semibold">Also to buy from them</legend>
          {found.needs.map((n) => (
            <label key={n.id} className="flex items-baseline gap-2 border-b border-line-2 py-1.5">
              <input
                type="checkbox"
                className="box self-center"
                checked={picked.includes(n.id)}
                onChange={(e) => onNeed(n, e.target.checked)}
              />
              <span className="min-w-0 flex-1">
                <b className="font-semibold">{n.description}</b> {formatQuantity(n.open)} {unitOf(n.unit).short}{' '}
                <Tags tags={n.tags} />
                <span className="block text-[12.5px] text-ink-2">
                  <span className="mono font-bold">{n.job}</span> {n.code} · {day(n.neededOn)}
                </span>
              </span>
              <span>
                {n.buying === null ? '–' : `${signOf(currency)}\u202f${formatAmount(n.buying.value, currency)}`}
              </span>
            </label>
          ))}
        </fieldset>
      )}
      {found !== undefined && found.stock.length > 0 && (
        <fieldset className="mt-4">
          <legend className="mb-1 text-[15px] font-semibold">Below minimum stock</legend>
          {found.stock.map((s) => {
            const text = stock[s.itemId]?.text;
            const wrong = text !== undefined && !parseQuantity(text).ok;
            return (
              <div key={s.itemId} className="flex items-center gap-2 border-b border-line-2 py-1.5">
                <input
                  type="checkbox"
                  className="box"
                  aria-label={`Buy ${s.name} for stores`}
                  checked={text !== undefined}
                  onChange={(e) => onStock(s, e.target.checked ? ungrouped(formatQuantity(s.below)) : '')}
                />
                <span className="min-w-0 flex-1">
                  <b className="font-semibold">{s.name}</b> <span className="mono text-ink-2">{s.number}</span>
                  <span className="block text-[12.5px] text-ink-2">{s.words}</span>
                </span>
                <input
                  aria-label={`Quantity of ${s.name} for stores`}
                  aria-invalid={wrong}
                  inputMode="decimal"
                  className="field field-small !w-[76px] text-right aria-[invalid=true]:border-brick"
                  value={text ?? ''}
                  placeholder={formatQuantity(s.below)}
                  onChange={(e) => onStock(s, e.target.value)}
                />
                <span className="w-[34px] text-ink-2">{unitOf(s.unit).short}</span>
              </div>
            );
          })}
        </fieldset>
      )}
    </Slip>
  );
}
