'use client';

import { X } from 'lucide-react';
import { parseMoney, signOf, type Minor } from '@/core/money/money';
import type { InvoiceFormView } from '@/queries/invoices';
import type { Thing } from '@/queries/things';
import { named, type Named } from '@/ui/entry/column';
import { ChoiceField, TextField } from '@/ui/kit/Field';
import { PickField } from '@/ui/kit/PickField';
import { NumberField } from '@/ui/kit/NumberField';

/** The jobs of the order, and stores, beside all other jobs. */
export const ORDERS_JOBS: Thing = { id: -1, number: '', name: 'the order’s jobs', detail: 'by value' };
export const STORES: Thing = { id: 0, number: '', name: 'stores', detail: '' };
/** No code of its own: it follows those of the lines. */
const FOLLOWS: Thing = { id: 0, number: '', name: 'the lines’ own codes', detail: '' };

/** Something on a bill that was not ordered, as it is typed. */
export type ExtraText = {
  readonly key: string;
  readonly description: string;
  readonly amount: string;
  readonly taxCodeId: string;
  readonly to: Named | null;
  readonly code: Named | null;
};

export const newExtra = (count: number, taxCodeId: number, freight: Named | null): ExtraText => ({
  key: `new ${count}`,
  description: '',
  amount: '',
  taxCodeId: String(taxCodeId),
  to: ORDERS_JOBS,
  code: freight,
});

type To =
  { kind: 'jobs'; costCodeId: number | null } | { kind: 'job'; jobId: number; costCodeId: number } | { kind: 'stores' };

/** Reads what was typed; a row with neither words nor amount is left out. */
export function readExtras(texts: readonly ExtraText[], currency: string) {
  const faults: Record<string, string> = {};
  const extras = texts.flatMap((t) => {
    if (t.description.trim() === '' && t.amount.trim() === '') return [];
    const net = parseMoney(t.amount, currency);
    if (t.description.trim() === '') faults[`${t.key}.description`] = 'Say what it is for.';
    if (!net.ok) faults[`${t.key}.amount`] = net.refusals[0]?.message ?? '';
    const code = t.code === null || t.code.id === FOLLOWS.id ? null : t.code.id;
    const job = t.to?.id ?? ORDERS_JOBS.id;
    if (t.to === null) faults[`${t.key}.to`] = 'Say what it is charged to.';
    if (job > 0 && code === null) faults[`${t.key}.costCodeId`] = 'Choose a cost code for the job.';
    const to: To =
      job === STORES.id
        ? { kind: 'stores' }
        : job > 0
          ? { kind: 'job', jobId: job, costCodeId: code ?? 0 }
          : { kind: 'jobs', costCodeId: code };
    const value = net.ok ? net.value : (0 as Minor);
    return [{ description: t.description, net: value, taxCodeId: Number(t.taxCodeId), to }];
  });
  return { extras, faults };
}

type Props = {
  readonly view: InvoiceFormView;
  readonly extras: readonly ExtraText[];
  readonly faultAt: (key: string) => string | undefined;
  readonly onChange: (extras: readonly ExtraText[]) => void;
  readonly onAdd: () => void;
};

/** Lines of a bill that were not ordered: carriage, a fee, a discount. */
export function ExtraRows({ view, extras, faultAt, onChange, onAdd }: Props) {
  const { order, taxes } = view;
  const change = (key: string, part: Partial<ExtraText>) =>
    onChange(extras.map((e) => (e.key === key ? { ...e, ...part } : e)));
  return (
    <div className="mt-2">
      <ul aria-label="What was not ordered">
        {extras.map((e, k) => {
          const bind = (name: 'description' | 'amount' | 'taxCodeId') => ({
            value: e[name],
            onChange: (event: { target: { value: string } }) => change(e.key, { [name]: event.target.value }),
            fault: faultAt(`${e.key}.${name}`),
          });
          return (
            <li
              key={e.key}
              className="grid grid-cols-2 items-start gap-x-3 gap-y-1 border-b border-line-2 py-1.5 sm:grid-cols-[2fr_1.5fr_1.5fr_110px_150px_24px]"
            >
              <TextField label="Not ordered" className="max-sm:col-span-2" {...bind('description')} />
              <PickField
                kind="job"
                label="Charged to"
                also={[ORDERS_JOBS, STORES]}
                value={e.to}
                onPick={(to) => change(e.key, { to: to && named(to) })}
                fault={faultAt(`${e.key}.to`)}
              />
              {e.to?.id === STORES.id ? (
                <span />
              ) : (
                <PickField
                  kind="costCode"
                  label="Cost code"
                  also={e.to?.id === ORDERS_JOBS.id ? [FOLLOWS] : []}
                  value={e.code ?? (e.to?.id === ORDERS_JOBS.id ? FOLLOWS : null)}
                  onPick={(code) => change(e.key, { code: code && named(code) })}
                  fault={faultAt(`${e.key}.costCodeId`)}
                />
              )}
              <NumberField label={`Net ${signOf(order.currency)}`} {...bind('amount')} />
              <ChoiceField label="Tax" {...bind('taxCodeId')}>
                {taxes.map((t) => (
                  <option key={t.id} value={t.id}>
                    {t.name}
                  </option>
                ))}
              </ChoiceField>
              <button
                type="button"
                aria-label={`Take line ${k + 1} that was not ordered off`}
                onClick={() => onChange(extras.filter((x) => x.key !== e.key))}
                className="mt-6 rounded p-1 text-ink-2 hover:text-brick"
              >
                <X size={16} />
              </button>
            </li>
          );
        })}
      </ul>
      <button type="button" className="step mt-2" onClick={onAdd}>
        + Something that was not ordered
      </button>
    </div>
  );
}
