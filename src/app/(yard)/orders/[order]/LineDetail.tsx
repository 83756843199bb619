'use client';

import type { TaxCode } from '@/core/money/tax';
import { addQ, formatQuantity, fromSupplierUnit, NONE, parseQuantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import { ChoiceField, TextField } from '@/ui/kit/Field';
import { partsOf, type LineText } from '@/ui/orderText';

type Props = {
  readonly line: LineText;
  readonly taxes: readonly TaxCode[];
  readonly faultAt: (field: string) => string | undefined;
  readonly onPart: () => void;
  readonly onPut: (change: Partial<LineText>) => void;
};

/** What else a line says, and what of it is still to share among jobs. */
export function LineDetail({ line, taxes, faultAt, onPart, onPut }: Props) {
  return (
    <div className="flex flex-wrap items-end gap-x-4 gap-y-2">
      {line.kind !== 'charge' && (
        <>
          <button type="button" className="step pb-1.5" onClick={onPart}>
            + part for another job, or stores
          </button>
          <span className="mr-auto pb-1.5 text-ink-2">{sharedWords(line)}</span>
          <TextField
            label="Their number"
            className="w-[130px]"
            inputClass="mono field-small"
            value={line.theirNumber}
            onChange={(e) => onPut({ theirNumber: e.target.value })}
            fault={faultAt('theirNumber')}
          />
          <TextField
            label="Price is for"
            className="w-[78px]"
            inputClass="text-right field-small"
            inputMode="numeric"
            value={line.priceQuantity}
            onChange={(e) => onPut({ priceQuantity: e.target.value })}
            fault={faultAt('priceQuantity')}
          />
        </>
      )}
      <ChoiceField
        label="Tax"
        className="w-[150px]"
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
  return `${formatQuantity(shared)} of ${formatQuantity(of)} ${unitOf(unit).short}`.trimEnd() + ' shared out';
}
