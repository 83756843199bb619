'use client';

import Link from '@/ui/kit/Link';
import { useRouter } from 'next/navigation';
import { z } from 'zod';
import { isCurrency } from '@/core/money/currencies';
import { signOf, ZERO } from '@/core/money/money';
import { DATA_FILES, supplierForm, type SupplierText } from '@/core/records/supplier';
import type { TaxCode } from '@/core/money/tax';
import type { SupplierLists } from '@/queries/items/suppliers';
import type { Supplier } from '@/store/tables';
import { AreaField, ChoiceField, TextField } from '@/ui/kit/Field';
import { RecordForm } from '@/ui/kit/RecordForm';
import { WeekField } from '@/ui/kit/WeekField';
import { useActForm } from '@/ui/acting/useActForm';
import { acts } from '../../actions';
import { AddressRows, ClosedRows, ContactRows } from './SupplierRows';

type Props = {
  readonly supplier: Supplier | undefined;
  readonly lists: SupplierLists | undefined;
  /** The company’s working week, which a supplier has unless it says otherwise. */
  readonly week: readonly number[];
  readonly companyCurrency: string;
  readonly taxes: readonly TaxCode[];
};

const NUMBERS = {
  paymentDays: true,
  leadDays: true,
  overDelivery: true,
  carriage: true,
  carriageFreeFrom: true,
  minimumOrder: true,
  taxCodeId: true,
} as const;

/** What stands in the form of a supplier; a new one pays and delivers as most do. */
const startOf = ({ supplier: s, lists, companyCurrency: currency, taxes }: Props): SupplierText => ({
  version: s?.version ?? 0,
  name: s?.name ?? '',
  contact: s?.contact ?? '',
  email: s?.email ?? '',
  address: s?.address ?? '',
  currency: s?.currency ?? currency,
  carrier: s?.carrier ?? '',
  terms: s?.terms ?? '',
  delivers: s?.delivers ?? '',
  dataFiles: DATA_FILES.filter((d) => s?.dataFiles.split(',').includes(d)),
  week: s?.week?.split(',').map(Number) ?? null,
  contacts: lists?.contacts.map((c) => ({ ...c })) ?? [],
  addresses: lists?.addresses.map((a) => ({ ...a })) ?? [],
  closed: lists?.closed.map((c) => ({ ...c })) ?? [],
  ...z.encode(supplierForm(s?.currency ?? currency, currency).pick(NUMBERS), {
    paymentDays: s?.paymentDays ?? 30,
    leadDays: s?.leadDays ?? 5,
    overDelivery: s?.overDelivery ?? null,
    carriage: s?.carriage ?? ZERO,
    carriageFreeFrom: s?.carriageFreeFrom ?? null,
    minimumOrder: s?.minimumOrder ?? null,
    taxCodeId: s?.taxCodeId ?? taxes[0]?.id ?? 0,
  }),
});

export function SupplierForm(props: Props) {
  const { supplier: s, companyCurrency, taxes, week } = props;
  const router = useRouter();
  const form = useActForm({
    read: (typed: SupplierText) => supplierForm(typed.currency, companyCurrency),
    start: startOf(props),
    keep: `supplier ${s?.id ?? 'new'}`,
    act: acts.saveSupplier,
    input: (read, once) => ({ once, id: s?.id ?? null, ...read }),
    said: (_, typed) => `${typed.name} saved`,
    onDone: ({ id }) => router.push(`/suppliers/${id}`),
    stay: true,
  });
  const code = form.typed.currency.toUpperCase();
  const sign = signOf(code);
  return (
    <RecordForm
      title={s?.name ?? 'New supplier'}
      what="supplier"
      name={form.typed.name}
      form={form}
      onVersion={(version) => form.put('version', version)}
    >
      <div className="grid max-w-[860px] gap-3 sm:grid-cols-6">
        <TextField label="Name" className="sm:col-span-3" required {...form.text('name')} />
        <TextField label="Contact" className="sm:col-span-3" {...form.text('contact')} />
        <TextField label="Order email" type="email" className="sm:col-span-3" {...form.text('email')} />
        <TextField label="Carrier" className="sm:col-span-3" {...form.text('carrier')} />
        <AreaField label="Address" rows={3} className="sm:col-span-3" {...form.text('address')} />
        <div className="grid grid-cols-2 gap-3 sm:col-span-3">
          <TextField label="Currency" maxLength={3} {...form.text('currency')} />
          {isCurrency(code) && code !== companyCurrency && (
            <p className="self-end pb-1.5 text-ink-2">
              at the day’s{' '}
              <Link href="/rates" className="step">
                exchange rate
              </Link>
            </p>
          )}
          <ChoiceField label="Usual tax" {...form.text('taxCodeId')}>
            {taxes.map((t) => (
              <option key={t.id} value={t.id}>
                {t.name}
              </option>
            ))}
          </ChoiceField>
          <TextField label="Payment terms (days from invoice)" inputMode="numeric" {...form.text('paymentDays')} />
        </div>
        <AreaField
          label="Agreed terms"
          rows={2}
          className="sm:col-span-3"
          placeholder="e.g. discounts, retention, returns"
          {...form.text('terms')}
        />
        <AreaField
          label="Supplies"
          rows={2}
          className="sm:col-span-3"
          placeholder="e.g. plate, tube, profiles cut to length"
          {...form.text('delivers')}
        />
        <TextField
          label="Lead time (working days)"
          inputMode="numeric"
          className="sm:col-span-2"
          {...form.text('leadDays')}
        />
        <TextField
          label={`Carriage ${sign}`}
          inputMode="decimal"
          className="sm:col-span-2"
          placeholder="none"
          {...form.text('carriage')}
        />
        <TextField
          label={`Free carriage from ${sign}`}
          inputMode="decimal"
          className="sm:col-span-2"
          placeholder="never"
          {...form.text('carriageFreeFrom')}
        />
        <TextField
          label="Over-delivery allowed, %"
          inputMode="decimal"
          className="sm:col-span-2"
          placeholder="company default"
          {...form.text('overDelivery')}
        />
        <TextField
          label={`Minimum order ${sign}`}
          inputMode="decimal"
          className="sm:col-span-2"
          placeholder="any"
          {...form.text('minimumOrder')}
        />
        <div className="sm:col-span-4">
          <WeekField
            legend="Working days"
            week={form.typed.week ?? week}
            onWeek={(days) => form.put('week', String(days.toSorted()) === String(week) ? null : days)}
            fault={form.faultAt('week')}
          />
        </div>
        <fieldset className="sm:col-span-3">
          <legend className="field-label">Data files sent with each order</legend>
          <div className="flex gap-5">
            {DATA_FILES.map((d) => (
              <label key={d} className="flex items-center gap-1.5 max-phone:mb-1">
                <input
                  type="checkbox"
                  className="box"
                  checked={form.typed.dataFiles?.includes(d) ?? false}
                  onChange={(e) =>
                    form.put(
                      'dataFiles',
                      DATA_FILES.filter((k) => (k === d ? e.target.checked : form.typed.dataFiles?.includes(k))),
                    )
                  }
                />
                {d.toUpperCase()}
              </label>
            ))}
          </div>
        </fieldset>
        {s !== undefined && (
          <div className="self-end max-phone:my-4 sm:col-span-3">
            <Link href={`/words?supplier=${s.id}`} className="step">
              Email wording for this supplier
            </Link>
          </div>
        )}
      </div>
      <ClosedRows form={form} />
      <ContactRows form={form} />
      <AddressRows form={form} />
    </RecordForm>
  );
}
