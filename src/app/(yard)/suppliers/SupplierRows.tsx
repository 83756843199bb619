'use client';

import { X } from 'lucide-react';
import type { ReactNode } from 'react';
import { useFieldArray } from 'react-hook-form';
import type { SupplierText } from '@/core/records/supplier';
import { DateField } from '@/ui/kit/DateField';
import { AreaField, TextField } from '@/ui/kit/Field';
import type { ActForm } from '@/ui/acting/useActForm';

type Form = { readonly form: ActForm<SupplierText> };

const TakeRow = ({ label, onTake }: { label: string; onTake: () => void }) => (
  <button
    type="button"
    aria-label={label}
    className="mt-[26px] size-[24px] rounded p-0.5 text-ink-2 hover:text-brick"
    onClick={onTake}
  >
    <X size={16} />
  </button>
);

function Rows({
  title,
  more,
  onMore,
  children,
}: {
  title: string;
  more: string;
  onMore: () => void;
  children: ReactNode;
}) {
  return (
    <section className="mt-5 max-w-[860px]" aria-label={title}>
      <h2 className="mb-1 text-[16px]">{title}</h2>
      {children}
      <button type="button" className="step" onClick={onMore}>
        {more}
      </button>
    </section>
  );
}

const ROW = 'grid grid-cols-[1fr_24px] items-start gap-x-3 gap-y-1 border-b border-line-2 py-1.5';

/** People at a supplier, beside the one that orders go to. */
export function ContactRows({ form }: Form) {
  const rows = useFieldArray({ control: form.control, name: 'contacts' });
  const none = { name: '', whatFor: '', email: '', phone: '', getsOrders: false };
  return (
    <Rows title="Other contacts" more="+ Contact" onMore={() => rows.append(none)}>
      {rows.fields.map((row, k) => (
        <div key={row.id} className={ROW}>
          <div className="grid gap-x-3 gap-y-1 sm:grid-cols-4">
            <TextField label="Who" {...form.text(`contacts.${k}.name`)} />
            <TextField label="For" placeholder="e.g. claims, accounts" {...form.text(`contacts.${k}.whatFor`)} />
            <TextField label="Email" type="email" {...form.text(`contacts.${k}.email`)} />
            <TextField label="Telephone" type="tel" {...form.text(`contacts.${k}.phone`)} />
            <label className="flex items-center gap-1.5 max-phone:mt-1 max-phone:mb-4 sm:col-span-4">
              <input
                type="checkbox"
                className="box"
                checked={form.typed.contacts[k]?.getsOrders ?? false}
                onChange={(e) => form.put(`contacts.${k}.getsOrders`, e.target.checked)}
              />
              receives orders
            </label>
          </div>
          <TakeRow label={`Remove contact ${k + 1}`} onTake={() => rows.remove(k)} />
        </div>
      ))}
    </Rows>
  );
}

/** Where else a supplier is found. */
export function AddressRows({ form }: Form) {
  const rows = useFieldArray({ control: form.control, name: 'addresses' });
  return (
    <Rows title="Other addresses" more="+ Address" onMore={() => rows.append({ whatFor: '', address: '' })}>
      {rows.fields.map((row, k) => (
        <div key={row.id} className={ROW}>
          <div className="grid gap-x-3 gap-y-1 sm:grid-cols-[1fr_2fr]">
            <TextField label="For" placeholder="e.g. collections, returns" {...form.text(`addresses.${k}.whatFor`)} />
            <AreaField label="Address" rows={2} {...form.text(`addresses.${k}.address`)} />
          </div>
          <TakeRow label={`Remove address ${k + 1}`} onTake={() => rows.remove(k)} />
        </div>
      ))}
    </Rows>
  );
}

/** When a supplier is closed beyond the days off of the country. */
export function ClosedRows({ form }: Form) {
  const rows = useFieldArray({ control: form.control, name: 'closed' });
  return (
    <Rows title="Closed" more="+ Closure" onMore={() => rows.append({ fromDay: '', untilDay: '', words: '' })}>
      {rows.fields.map((row, k) => (
        <div key={row.id} className={ROW}>
          <div className="grid gap-x-3 gap-y-1 sm:grid-cols-3">
            <DateField label="From" {...form.day(`closed.${k}.fromDay`)} />
            <DateField label="To" {...form.day(`closed.${k}.untilDay`)} />
            <TextField label="Reason" placeholder="e.g. works shutdown" {...form.text(`closed.${k}.words`)} />
          </div>
          <TakeRow label={`Remove closure ${k + 1}`} onTake={() => rows.remove(k)} />
        </div>
      ))}
    </Rows>
  );
}
