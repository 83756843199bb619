'use client';

import Link from '@/ui/Link';
import { useRouter } from 'next/navigation';
import { z } from 'zod';
import { isCurrency } from '@/core/money/currencies';
import { signOf, ZERO } from '@/core/money/money';
import { supplierForm, type SupplierText } from '@/core/records/supplier';
import type { TaxCode } from '@/core/money/tax';
import type { Supplier } from '@/store/tables';
import { AreaField, ChoiceField, TextField } from '@/ui/kit/Field';
import { RecordForm } from '@/ui/kit/RecordForm';
import { useActForm } from '@/ui/useActForm';
import { saveSupplier } from '../../acts';

type Props = {
  readonly supplier: Supplier | undefined;
  readonly companyCurrency: string;
  readonly taxes: readonly TaxCode[];
};

const NUMBERS = { paymentDays: true, leadDays: true, carriage: true, carriageFreeFrom: true, taxCodeId: true } as const;

/** What stands in the form of a supplier; a new one pays and delivers as most do. */
const startOf = (s: Supplier | undefined, currency: string, taxId: number | undefined): SupplierText => ({
  version: s?.version ?? 0,
  name: s?.name ?? '',
  contact: s?.contact ?? '',
  email: s?.email ?? '',
  address: s?.address ?? '',
  currency: s?.currency ?? currency,
  carrier: s?.carrier ?? '',
  ...z.encode(supplierForm(s?.currency ?? currency, currency).pick(NUMBERS), {
    paymentDays: s?.paymentDays ?? 30,
    leadDays: s?.leadDays ?? 5,
    carriage: s?.carriage ?? ZERO,
    carriageFreeFrom: s?.carriageFreeFrom ?? null,
    taxCodeId: s?.taxCodeId ?? taxId ?? 0,
  }),
});

export function SupplierForm({ supplier: s, companyCurrency, taxes }: Props) {
  const router = useRouter();
  const form = useActForm({
    read: (typed: SupplierText) => supplierForm(typed.currency, companyCurrency),
    start: startOf(s, companyCurrency, taxes[0]?.id),
    keep: `supplier ${s?.id ?? 'new'}`,
    act: saveSupplier,
    input: (read, once) => ({ once, id: s?.id ?? null, ...read }),
    said: (_, typed) => `${typed.name} is saved`,
    onDone: ({ id }) => router.push(`/suppliers/${id}`),
    stay: true,
  });
  const code = form.typed.currency.toUpperCase();
  const sign = signOf(code);
  return (
    <RecordForm
      title={s?.name ?? 'Add a supplier'}
      what="supplier"
      name={form.typed.name}
      form={form}
      onVersion={(version) => form.put('version', version)}
    >
      <div className="grid max-w-[860px] gap-3 sm:grid-cols-6">
        <TextField label="Name" className="sm:col-span-3" required {...form.text('name')} />
        <TextField label="Contact" className="sm:col-span-3" {...form.text('contact')} />
        <TextField label="E-mail that orders go to" type="email" className="sm:col-span-3" {...form.text('email')} />
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
          <TextField label="Payment, days from invoice" inputMode="numeric" {...form.text('paymentDays')} />
        </div>
        <TextField
          label="Lead time, working days"
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
          label={`Carriage free from ${sign}`}
          inputMode="decimal"
          className="sm:col-span-2"
          placeholder="never"
          {...form.text('carriageFreeFrom')}
        />
      </div>
    </RecordForm>
  );
}
