'use client';

import { useRef } from 'react';
import { formatMoney, type Minor } from '@/core/money/money';
import type { BundleView, GatherView } from '@/queries/buying/gather';
import { useKey } from '@/ui/frame/keys';
import { EffectList } from '@/ui/jobs/EffectList';
import { counted } from '@/core/words';
import type { StockPicks } from './picks';

function carriageInWords({ carriage, freeFrom, toFree, currency }: BundleView): { words: string; good: boolean } {
  const money = (a: Minor) => formatMoney(a, currency).replace(/\.00$/, '');
  if (carriage === 0) {
    const earned = toFree === 0 && freeFrom !== null;
    return { words: earned ? `Free carriage (over ${money(freeFrom)})` : 'No carriage charge', good: true };
  }
  const more = toFree === null || toFree === 0 ? '' : ` · ${money(toFree)} more for free carriage`;
  return { words: `Carriage ${money(carriage)}${more}`, good: false };
}

function BundleCard({
  bundle: b,
  onJoin,
  stock,
  onFill,
}: {
  bundle: BundleView;
  onJoin: (orderId: number) => void;
  stock: StockPicks;
  onFill: () => void;
}) {
  const { currency } = b;
  const riding = Object.values(stock).filter((s) => s.supplierId === b.supplierId);
  const carriage = carriageInWords(b);
  const care = [
    b.late > 0 && `${counted(b.late, 'line')} arrive${b.late === 1 ? 's' : ''} late`,
    b.unpriced > 0 && `${b.unpriced} with no price`,
  ]
    .filter(Boolean)
    .join(' · ');
  return (
    <li className="rounded-lg border border-line bg-glaze px-3 py-2.5">
      <div className="flex items-baseline justify-between gap-2">
        <span className="font-title text-[15px] font-bold">{b.supplier}</span>
        <span className="font-bold whitespace-nowrap">{formatMoney(b.into === null ? b.goods : b.adds, currency)}</span>
      </div>
      <div className="text-[12.5px] text-ink-2">
        {counted(b.lines, 'line')}
        {b.jobs.length > 0 && ` · job${b.jobs.length === 1 ? '' : 's'} ${b.jobs.join(', ')}`}
        {riding.length > 0 && ` · ${riding.length} for stores`}
      </div>
      {b.drafts.length > 0 && (
        <select
          aria-label={`Where the lines for ${b.supplier} go`}
          className="mt-1 h-[26px] w-full rounded-md border border-line bg-glaze px-1 text-[13px]"
          value={b.into?.id ?? 0}
          onChange={(e) => onJoin(Number(e.target.value))}
        >
          <option value={0}>New order</option>
          {b.drafts.map((d) => (
            <option key={d.id} value={d.id}>
              Add to {d.number}
              {d.state === 'heldOpen' ? ' (held open)' : ''}, {formatMoney(d.net, currency)}
            </option>
          ))}
        </select>
      )}
      {b.freeFrom !== null && (
        <div aria-hidden className="mt-1.5 h-[5px] overflow-hidden rounded bg-line-2">
          <div
            className={`rise h-full rounded ${carriage.good ? 'bg-enamel' : 'bg-amber'}`}
            style={{ width: `${Math.min(b.goods / b.freeFrom, 1) * 100}%` }}
          />
        </div>
      )}
      <div className={`mt-1 text-[12.5px] font-semibold ${carriage.good ? 'text-enamel' : 'text-amber'}`}>
        {carriage.words}
      </div>
      {b.belowMinimum > 0 && (
        <div className="text-[12.5px] font-semibold text-amber">
          {formatMoney(b.belowMinimum, currency)} below their minimum order
        </div>
      )}
      {b.breaks.map((ahead) => (
        <div key={ahead.words} className={`text-[12.5px] ${ahead.saves ? 'font-semibold text-enamel' : 'text-ink-2'}`}>
          {ahead.words}
        </div>
      ))}
      <button type="button" className="step text-[12.5px]" onClick={onFill}>
        Top up
      </button>
      {care !== '' && <div className="text-[12.5px] font-semibold text-brick">{care}</div>}
      {b.added.map((words) => (
        <div key={words} className="mt-1 border-t border-line-2 pt-1 text-[12.5px]">
          {words}
        </div>
      ))}
    </li>
  );
}

function madeOf(bundles: readonly BundleView[]): string {
  const joined = bundles.filter((b) => b.into !== null).length;
  const made = bundles.length - joined;
  const drafts = counted(joined, 'draft');
  if (made === 0) return `Added to ${drafts}`;
  return `${counted(made, 'order')} to draft${joined === 0 ? '' : `, added to ${drafts}`}`;
}

/** At the right of Gather: the orders that the picks make, and what those do to the jobs, before anything is made. */
export function GatherPlan({
  view,
  picked,
  onJoin,
  stock,
  onFill,
}: {
  view: GatherView | undefined;
  picked: number;
  onJoin: (supplierId: number, orderId: number) => void;
  stock: StockPicks;
  onFill: (supplierId: number) => void;
}) {
  const orders = useRef<HTMLUListElement>(null);
  const bundles = picked === 0 ? [] : (view?.bundles ?? []);
  useKey(
    'O',
    'Go to the orders to draft',
    () => orders.current?.querySelector<HTMLElement>('select, button')?.focus(),
    bundles.length > 0,
  );
  if (view === undefined || bundles.length === 0) {
    return (
      <>
        <h2 className="mb-2 text-[16px]">Orders</h2>
        <p className="text-ink-2">
          Tick lines, or press <span className="kbd">Space</span> on one. Lines for the same supplier become one order,
          each still charged to its own job.
        </p>
      </>
    );
  }
  return (
    <>
      <h2 className="mb-2 text-[16px]" aria-live="polite">
        {madeOf(bundles)}
      </h2>
      <ul ref={orders} className="grid gap-2">
        {bundles.map((b) => (
          <BundleCard
            key={b.supplierId}
            bundle={b}
            onJoin={(orderId) => onJoin(b.supplierId, orderId)}
            stock={stock}
            onFill={() => onFill(b.supplierId)}
          />
        ))}
      </ul>
      <h2 className="mt-4 mb-1 text-[16px]">Effect on job budgets</h2>
      <EffectList effects={view.effects} />
    </>
  );
}
