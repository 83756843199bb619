'use client';

import { ungrouped } from '@/core/locale/locale';
import Link from '@/ui/Link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { isCurrency } from '@/core/money/currencies';
import { formatAmount, parseMoney, signOf, type Minor } from '@/core/money/money';
import type { TaxCode } from '@/core/money/tax';
import type { Supplier } from '@/store/tables';
import { AreaField, ChoiceField, TextField } from '@/ui/kit/Field';
import { RecordForm } from '@/ui/kit/RecordForm';
import { useAct, useOnce } from '@/ui/useAct';
import { useDraft } from '@/ui/useDraft';
import { saveSupplier } from '../../acts';

type Props = {
  readonly supplier: Supplier | undefined;
  readonly companyCurrency: string;
  readonly taxes: readonly TaxCode[];
};

export function SupplierForm({ supplier: s, companyCurrency, taxes }: Props) {
  const router = useRouter();
  const money = (n: Minor | null | undefined, currency: string) =>
    n == null ? '' : ungrouped(formatAmount(n, currency));
  const fresh = {
    name: s?.name ?? '',
    contact: s?.contact ?? '',
    email: s?.email ?? '',
    address: s?.address ?? '',
    currency: s?.currency ?? companyCurrency,
    paymentDays: String(s?.paymentDays ?? 30),
    leadDays: String(s?.leadDays ?? 5),
    carriage: money(s?.carriage, s?.currency ?? companyCurrency),
    carriageFreeFrom: money(s?.carriageFreeFrom, s?.currency ?? companyCurrency),
    taxCodeId: String(s?.taxCodeId ?? taxes[0]?.id ?? ''),
    carrier: s?.carrier ?? '',
  };
  const draft = useDraft(`supplier ${s?.id ?? 'new'}`, { version: s?.version ?? 0, text: fresh });
  const { text } = draft.value;
  const [local, setLocal] = useState<Readonly<Record<string, string>>>({});
  const once = useOnce();
  const act = useAct(saveSupplier, {
    said: () => `${text.name} is saved`,
    stay: true,
    onDone: ({ id }) => {
      once.renew();
      draft.drop();
      router.push(`/suppliers/${id}`);
    },
  });
  const submit = (over?: number) => {
    const faults: Record<string, string> = {};
    const currency = isCurrency(text.currency.toUpperCase()) ? text.currency.toUpperCase() : companyCurrency;
    const amount = (field: 'carriage' | 'carriageFreeFrom') => {
      if (text[field].trim() === '') return null;
      const read = parseMoney(text[field], currency);
      if (!read.ok) faults[field] = read.refusals[0]?.message ?? '';
      return read.ok ? read.value : null;
    };
    const [carriage, carriageFreeFrom] = [amount('carriage') ?? (0 as Minor), amount('carriageFreeFrom')];
    setLocal(faults);
    if (Object.keys(faults).length > 0) return;
    void act.run({
      once: once.key(),
      id: s?.id ?? null,
      version: over ?? draft.value.version,
      name: text.name,
      contact: text.contact,
      email: text.email.trim(),
      address: text.address,
      currency: text.currency.toUpperCase(),
      paymentDays: text.paymentDays,
      leadDays: text.leadDays,
      carriage,
      carriageFreeFrom,
      taxCodeId: Number(text.taxCodeId),
      carrier: text.carrier,
    });
  };
  const bind = (name: keyof typeof text) => ({
    name,
    value: text[name],
    onChange: (e: { target: { value: string } }) =>
      draft.set((now) => ({ ...now, text: { ...now.text, [name]: e.target.value } })),
    fault: local[name] ?? act.faultAt(name),
  });
  const sign = signOf(text.currency.toUpperCase());
  return (
    <RecordForm
      title={s?.name ?? 'Add a supplier'}
      what="supplier"
      name={text.name}
      draft={draft}
      act={act}
      onSave={submit}
    >
      <div className="grid max-w-[860px] gap-3 sm:grid-cols-6">
        <TextField label="Name" className="sm:col-span-3" required {...bind('name')} />
        <TextField label="Contact" className="sm:col-span-3" {...bind('contact')} />
        <TextField label="E-mail that orders go to" type="email" className="sm:col-span-3" {...bind('email')} />
        <TextField label="Carrier" className="sm:col-span-3" {...bind('carrier')} />
        <AreaField label="Address" rows={3} className="sm:col-span-3" {...bind('address')} />
        <div className="grid grid-cols-2 gap-3 sm:col-span-3">
          <TextField label="Currency" maxLength={3} {...bind('currency')} />
          {isCurrency(text.currency.toUpperCase()) && text.currency.toUpperCase() !== companyCurrency && (
            <p className="self-end pb-1.5 text-ink-2">
              at the day’s{' '}
              <Link href="/rates" className="step">
                exchange rate
              </Link>
            </p>
          )}
          <ChoiceField label="Usual tax" {...bind('taxCodeId')}>
            {taxes.map((t) => (
              <option key={t.id} value={t.id}>
                {t.name}
              </option>
            ))}
          </ChoiceField>
          <TextField label="Payment, days from invoice" inputMode="numeric" {...bind('paymentDays')} />
        </div>
        <TextField
          label="Lead time, working days"
          inputMode="numeric"
          className="sm:col-span-2"
          {...bind('leadDays')}
        />
        <TextField
          label={`Carriage ${sign}`}
          inputMode="decimal"
          className="sm:col-span-2"
          placeholder="none"
          {...bind('carriage')}
        />
        <TextField
          label={`Carriage free from ${sign}`}
          inputMode="decimal"
          className="sm:col-span-2"
          placeholder="never"
          {...bind('carriageFreeFrom')}
        />
      </div>
    </RecordForm>
  );
}
