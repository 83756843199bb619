'use client';

import { isCharge } from '@/core/orders/kinds';
import { CHARGE_NAMES, SPREAD_NAMES, SPREADS, type Spread } from '@/core/orders/charges';
import { useState } from 'react';
import { ungrouped } from '@/core/locale/locale';
import { formatPrice, parsePrice, type UnitPrice } from '@/core/money/money';
import { withoutTax, withTax, type TaxCode } from '@/core/money/tax';
import { addQ, formatQuantity, fromSupplierUnit, NONE, parseQuantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import { named } from '@/ui/entry/column';
import { NOT_CHOSEN } from '@/ui/entry/reading';
import { ChoiceField, TextField } from '@/ui/kit/Field';
import { PickField } from '@/ui/kit/PickField';
import { partsOf, type LineText } from '@/ui/orders/orderLineText';
import { AtHand } from '../../_shared/buying/AtHand';

type Props = {
  readonly line: LineText;
  readonly taxes: readonly TaxCode[];
  readonly currency: string;
  readonly faultAt: (field: string) => string | undefined;
  /** What was paid for it before, and what its quote has. */
  readonly past: readonly string[];
  readonly onPart: () => void;
  readonly onPut: (change: Partial<LineText>) => void;
};

/** What else a line says, and what of it is still to share among jobs. */
export function LineDetail(props: Props) {
  const { line, taxes, faultAt, onPut } = props;
  return (
    <div className="grid gap-y-2">
      {isCharge(line) ? <Sharing {...props} /> : <Parts {...props} />}
      {line.itemId !== null && <AtHand itemId={line.itemId} />}
      {props.past.length > 0 && <p className="text-[12.5px] text-ink-2">{props.past.join(' · ')}</p>}
      <div className="flex flex-wrap items-end gap-x-3 gap-y-2">
        {!isCharge(line) && (
          <>
            <TextField
              label="Note to supplier"
              className="min-w-[130px] flex-1"
              inputClass="field-small"
              maxLength={200}
              placeholder="e.g. cut to length"
              value={line.note}
              onChange={(e) => onPut({ note: e.target.value })}
              fault={faultAt('note')}
            />
            <PickField
              kind="place"
              label="Deliver line to"
              small
              className="w-[140px]"
              placeholder="as order"
              value={line.place}
              onPick={(place) => onPut({ place: place && named(place) })}
            />
            <TextField
              label="Supplier’s item no."
              className="w-[108px]"
              inputClass="mono field-small"
              value={line.theirNumber}
              onChange={(e) => onPut({ theirNumber: e.target.value })}
              fault={faultAt('theirNumber')}
            />
            <TextField
              label="Price per"
              className="w-[70px]"
              inputClass="text-right field-small"
              inputMode="numeric"
              value={line.priceQuantity}
              onChange={(e) => onPut({ priceQuantity: e.target.value })}
              fault={faultAt('priceQuantity')}
            />
          </>
        )}
        {!isCharge(line) && <TaxedPrice {...props} />}
        {(!isCharge(line) || line.chargeKind === 'discount') && (
          <TextField
            label="Discount %"
            className="w-[76px]"
            inputClass="text-right field-small"
            inputMode="decimal"
            value={line.discount}
            onChange={(e) => onPut({ discount: e.target.value })}
            fault={faultAt('discount')}
          />
        )}
        <ChoiceField
          label="Tax"
          small
          className="w-[124px]"
          value={line.taxCodeId}
          onChange={(e) => onPut({ taxCodeId: e.target.value })}
          fault={faultAt('taxCodeId')}
        >
          {taxes.map((t) => (
            <option key={t.id} value={t.id}>
              {t.name}
            </option>
          ))}
        </ChoiceField>
      </div>
    </div>
  );
}

/** The line's price with its tax, for who has it so from the supplier; the order keeps it without. */
function TaxedPrice({ line, taxes, currency, onPut }: Props) {
  const [typed, setTyped] = useState<string>();
  const rate = taxes.find((t) => t.id === Number(line.taxCodeId))?.rate ?? 0;
  const price = parsePrice(line.price);
  const written = (p: UnitPrice) => ungrouped(formatPrice(p, currency));
  const put = (text: string) => {
    setTyped(text);
    const read = parsePrice(text);
    if (read.ok) onPut({ price: written(withoutTax(read.value, rate)), free: false });
  };
  return (
    <TextField
      label="Price incl. tax"
      className="w-[90px]"
      inputClass="text-right field-small"
      inputMode="decimal"
      value={typed ?? (price.ok ? written(withTax(price.value, rate)) : '')}
      onChange={(e) => put(e.target.value)}
      onBlur={() => setTyped(undefined)}
      fault={
        typed === undefined || parsePrice(typed).ok || typed.trim() === '' ? undefined : 'Type a price like 12.50.'
      }
    />
  );
}

/** How goods are shared among jobs, and whether they cost anything. */
function Parts({ line, onPart, onPut }: Props) {
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
      <button type="button" className="step" onClick={onPart}>
        + Split to another job or stores
      </button>
      <span className="mr-auto text-ink-2">{sharedWords(line)}</span>
      <label className="flex items-center gap-1.5">
        <input
          type="checkbox"
          className="box"
          checked={line.free}
          onChange={(e) => onPut(e.target.checked ? { free: true, price: '0', discount: '' } : { free: false })}
        />
        free of charge
      </label>
    </div>
  );
}

/** How a charge is shared among jobs. */
function Sharing({ line, onPart, onPut, faultAt }: Props) {
  const share = (spread: Spread) =>
    onPut({
      spread,
      ...(spread === 'amounts'
        ? {
            splits: [{ job: NOT_CHOSEN, code: NOT_CHOSEN, needId: null, quantity: '1', amount: line.price }],
          }
        : { splits: [] }),
    });
  return (
    <div className="flex flex-wrap items-end gap-x-4 gap-y-2">
      <ChoiceField
        label={`${CHARGE_NAMES[line.chargeKind]} allocated`}
        className="w-[160px]"
        value={line.spread}
        onChange={(e) => share(e.target.value as Spread)}
        fault={faultAt('spread')}
      >
        {SPREADS.map((s) => (
          <option key={s} value={s}>
            {SPREAD_NAMES[s]}
          </option>
        ))}
      </ChoiceField>
      {line.spread === 'amounts' && (
        <button type="button" className="step pb-1.5" onClick={onPart}>
          + Split to another job or stores
        </button>
      )}
    </div>
  );
}

/** How much of a line its parts share out already. */
function sharedWords(line: LineText): string {
  const whole = parseQuantity(line.quantity);
  const parts = line.splits.map((s) => parseQuantity(s.quantity));
  if (!whole.ok || parts.some((p) => !p.ok)) return '';
  const { unit, factor } = partsOf(line);
  const of = fromSupplierUnit(whole.value, factor);
  const shared = addQ(NONE, ...parts.flatMap((p) => (p.ok ? [p.value] : [])));
  return `${formatQuantity(shared)} of ${formatQuantity(of)} ${unitOf(unit).short}`.trimEnd() + ' allocated';
}
