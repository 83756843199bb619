'use client';

import { X } from 'lucide-react';
import { signOf } from '@/core/money/money';
import { UNITS, unitOf } from '@/core/quantity/units';
import { DateField } from '@/ui/kit/DateField';
import { ChoiceField, TextField } from '@/ui/kit/Field';
import { NumberField } from '@/ui/kit/NumberField';
import { partsOf, withQuantity, type LineText, type SplitText } from '@/ui/orderText';
import type { OrderFormChoices } from './OrderPage';

type Props = {
  readonly line: LineText;
  readonly index: number;
  readonly choices: OrderFormChoices;
  readonly currency: string;
  readonly faultAt: (field: string) => string | undefined;
  readonly onChange: (line: LineText | undefined) => void;
};

/** One line of an order being changed: goods and services with their splits, a charge with where it goes. */
export function LineForm({ line, index, choices, currency, faultAt, onChange }: Props) {
  const n = index + 1;
  const bind = (
    name: 'description' | 'theirNumber' | 'unit' | 'price' | 'priceQuantity' | 'taxCodeId' | 'chargeCodeId',
  ) => ({
    value: line[name],
    onChange: (e: { target: { value: string } }) => onChange({ ...line, [name]: e.target.value }),
    fault: faultAt(name),
  });
  const bindDay = {
    value: line.wantedOn,
    onDay: (wantedOn: string) => onChange({ ...line, wantedOn }),
    fault: faultAt('wantedOn'),
  };
  const charge = line.kind === 'charge';
  return (
    <li aria-label={`Line ${n}`} className="border-b border-line py-3">
      <div className="grid grid-cols-2 items-start gap-x-3 gap-y-2 sm:grid-cols-[22px_2fr_1.2fr_84px_96px_92px_54px_124px_28px]">
        <span className="pt-6 text-ink-2 max-sm:hidden">{n}</span>
        <TextField
          label={charge ? 'Charge' : line.kind === 'service' ? 'Service' : 'Description'}
          className="max-sm:col-span-2"
          {...bind('description')}
        />
        {charge ? (
          <ChoiceField label="Charged to" className="sm:col-span-3" {...bind('chargeCodeId')}>
            <option value="">the lines’ own codes</option>
            {choices.codes.map((c) => (
              <option key={c.id} value={c.id}>
                {c.code} {c.name}, by value
              </option>
            ))}
          </ChoiceField>
        ) : (
          <TextField label="Their number" inputClass="mono" {...bind('theirNumber')} />
        )}
        {!charge && (
          <NumberField
            label="Quantity"
            value={line.quantity}
            onChange={(e) => onChange(withQuantity(line, e.target.value))}
            fault={faultAt('quantity')}
          />
        )}
        {!charge && (
          <ChoiceField label="Unit" {...bind('unit')}>
            {UNITS.map((u) => (
              <option key={u.code} value={u.code}>
                {u.short || u.name}
              </option>
            ))}
          </ChoiceField>
        )}
        <NumberField label={charge ? `Amount ${signOf(currency)}` : `Price ${signOf(currency)}`} {...bind('price')} />
        {charge ? (
          <span className="max-sm:hidden" />
        ) : (
          <TextField label="Per" inputMode="numeric" inputClass="text-right" {...bind('priceQuantity')} />
        )}
        <ChoiceField label="Tax" {...bind('taxCodeId')}>
          {choices.taxes.map((t) => (
            <option key={t.id} value={t.id}>
              {t.name}
            </option>
          ))}
        </ChoiceField>
        <button
          type="button"
          aria-label={`Take line ${n} off`}
          title="Take the line off; what it covers goes back to the buy list"
          onClick={() => onChange(undefined)}
          className="mt-6 rounded p-1 text-ink-2 hover:text-brick"
        >
          <X size={16} />
        </button>
      </div>
      {!charge && (
        <div className="mt-2 flex flex-wrap items-start gap-x-8 gap-y-2 sm:pl-[34px]">
          <DateField label="Wanted" className="w-[170px]" {...bindDay} />
          <Splits
            line={line}
            choices={choices}
            fault={faultAt('splits')}
            onChange={(splits) => onChange({ ...line, splits })}
          />
        </div>
      )}
    </li>
  );
}

function Splits({
  line,
  choices,
  fault,
  onChange,
}: {
  line: LineText;
  choices: OrderFormChoices;
  fault: string | undefined;
  onChange: (splits: readonly SplitText[]) => void;
}) {
  const change = (k: number, part: Partial<SplitText>) =>
    onChange(line.splits.map((s, j) => (j === k ? { ...s, ...part } : s)));
  const { unit } = partsOf(line);
  const look = 'h-[28px] rounded-md border border-line bg-glaze px-1.5';
  return (
    <div className="min-w-[280px] flex-1">
      <div className="field-label">Charged to</div>
      {line.splits.map((s, k) => (
        <div key={k} className="mb-1 flex flex-wrap items-center gap-2">
          <select
            aria-label={`Job of part ${k + 1}`}
            className={`${look} w-[180px]`}
            value={s.jobId}
            onChange={(e) => change(k, { jobId: e.target.value, needId: null })}
          >
            <option value="">Stores</option>
            {choices.jobs.map((j) => (
              <option key={j.id} value={j.id}>
                {j.number} {j.shortName}
              </option>
            ))}
          </select>
          {s.jobId !== '' && (
            <select
              aria-label={`Cost code of part ${k + 1}`}
              className={`${look} w-[180px]`}
              value={s.costCodeId}
              onChange={(e) => change(k, { costCodeId: e.target.value })}
            >
              <option value="">cost code…</option>
              {choices.codes.map((c) => (
                <option key={c.id} value={c.id}>
                  {c.code} {c.name}
                </option>
              ))}
            </select>
          )}
          <input
            aria-label={`Quantity of part ${k + 1}`}
            inputMode="decimal"
            className={`${look} w-[84px] text-right`}
            value={s.quantity}
            onChange={(e) => change(k, { quantity: e.target.value })}
          />
          {unit !== line.unit && <span className="text-ink-2">{unitOf(unit).short || unitOf(unit).name}</span>}
          {s.needId !== null && <span className="tag">from its buy list</span>}
          {line.splits.length > 1 && (
            <button
              type="button"
              aria-label={`Remove part ${k + 1}`}
              onClick={() => onChange(line.splits.filter((_, j) => j !== k))}
              className="rounded p-0.5 text-ink-2 hover:text-brick"
            >
              <X size={14} />
            </button>
          )}
        </div>
      ))}
      {fault !== undefined && (
        <p role="alert" className="field-fault">
          {fault}
        </p>
      )}
      <button
        type="button"
        className="step text-[13px]"
        onClick={() => onChange([...line.splits, { jobId: '', costCodeId: '', needId: null, quantity: '' }])}
      >
        + part for another job
      </button>
    </div>
  );
}
