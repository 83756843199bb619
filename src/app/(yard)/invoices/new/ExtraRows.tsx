'use client';

import { X } from 'lucide-react';
import { useFieldArray } from 'react-hook-form';
import { signOf } from '@/core/money/money';
import { FOLLOWS, ORDERS_JOBS, STORES, type InvoiceText, type ExtraText } from '@/core/records/invoice';
import type { Named } from '@/core/records/typed';
import type { InvoiceFormView } from '@/queries/invoices/invoices';
import type { Choice } from '@/queries/frame/choices';
import { ChoiceField, TextField } from '@/ui/kit/Field';
import { PickField } from '@/ui/kit/PickField';
import { NumberField } from '@/ui/kit/NumberField';
import type { ActForm } from '@/ui/acting/useActForm';

/** Beside all other jobs, and beside all codes. */
const ALSO_TO: readonly Choice[] = [
  { ...ORDERS_JOBS, detail: 'by value' },
  { ...STORES, detail: '' },
];
const ALSO_CODE: readonly Choice[] = [{ ...FOLLOWS, detail: '' }];

type Props = {
  readonly view: InvoiceFormView;
  readonly form: ActForm<InvoiceText>;
  /** The cost code that freight is charged to. */
  readonly freight: Named | null;
};

/** Lines of an invoice that were not ordered: carriage, a fee, a discount. */
export function ExtraRows({ view: { order, taxes }, form, freight }: Props) {
  const rows = useFieldArray({ control: form.control, name: 'extras' });
  const another = (): ExtraText => ({
    description: '',
    net: '',
    taxCodeId: String(taxes[0]?.id ?? ''),
    to: ORDERS_JOBS,
    code: freight,
  });
  return (
    <div className="mt-2">
      <ul aria-label="Not on the order">
        {rows.fields.map((row, k) => {
          const [to, code] = [form.pick(`extras.${k}.to`), form.pick(`extras.${k}.code`)];
          const spread = to.value?.id === ORDERS_JOBS.id;
          return (
            <li
              key={row.id}
              className="grid grid-cols-2 items-start gap-x-3 gap-y-1 border-b border-line-2 py-1.5 sm:grid-cols-[2fr_1.5fr_1.5fr_110px_150px_24px]"
            >
              <TextField label="Not on order" className="max-sm:col-span-2" {...form.text(`extras.${k}.description`)} />
              <PickField kind="job" label="Charged to" also={ALSO_TO} {...to} />
              {to.value?.id === STORES.id ? (
                <span />
              ) : (
                <PickField
                  kind="costCode"
                  label="Cost code"
                  also={spread ? ALSO_CODE : []}
                  {...code}
                  value={code.value ?? (spread ? FOLLOWS : null)}
                />
              )}
              <NumberField label={`Net ${signOf(order.currency)}`} {...form.text(`extras.${k}.net`)} />
              <ChoiceField label="Tax" {...form.text(`extras.${k}.taxCodeId`)}>
                {taxes.map((t) => (
                  <option key={t.id} value={t.id}>
                    {t.name}
                  </option>
                ))}
              </ChoiceField>
              <button
                type="button"
                aria-label={`Remove line ${k + 1}`}
                onClick={() => rows.remove(k)}
                className="mt-6 rounded p-1 text-ink-2 hover:text-brick"
              >
                <X size={16} />
              </button>
            </li>
          );
        })}
      </ul>
      <button type="button" className="step mt-2" onClick={() => rows.append(another())}>
        + Line not ordered
      </button>
    </div>
  );
}
