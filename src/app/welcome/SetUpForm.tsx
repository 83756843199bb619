'use client';

import { useRouter } from 'next/navigation';
import type { z } from 'zod';
import { foundingFields } from '@/core/records/company';
import type { FoundingCountry } from '@/formats/taxes';
import { AreaField, ChoiceField, Faults, TextField } from '@/ui/kit/Field';
import type { Answer } from '@/ui/acting/useAct';
import { useActForm } from '@/ui/acting/useActForm';
import { setUp } from '../actions/signingIn';

type FoundingInput = z.output<typeof foundingFields>;

const FRESH = {
  company: '',
  address: '',
  companyEmail: '',
  country: 'GB',
  currency: 'GBP',
  costCodes: '01 Materials\n02 Bought parts\n03 Subcontract\n04 Hire\n09 Freight and sundries',
  owner: '',
  email: '',
  password: '',
};

const found = async (input: FoundingInput): Promise<Answer<null>> => {
  const { refusals } = await setUp(input);
  return { data: refusals.length === 0 ? { status: 'done', value: null } : { status: 'refused', refusals } };
};

export function SetUpForm({ countries }: { readonly countries: readonly FoundingCountry[] }) {
  const router = useRouter();
  const form = useActForm({
    read: () => foundingFields,
    start: FRESH,
    keep: 'set up',
    secret: 'password',
    act: found,
    input: (read) => read,
    onDone: () => router.replace('/'),
  });
  /** A country brings its currency along; it can be changed after. */
  const settle = (country: string) => {
    form.put('country', country);
    const currency = countries.find((c) => c.code === country)?.currency;
    if (currency) form.put('currency', currency);
  };
  return (
    <form
      noValidate
      onSubmit={(e) => {
        e.preventDefault();
        form.save();
      }}
      className="grid gap-x-8 gap-y-3 sm:grid-cols-2"
    >
      <TextField label="Company" required {...form.text('company')} />
      <TextField label="Your name" required {...form.text('owner')} />
      <AreaField label="Address, printed on orders" rows={3} required {...form.text('address')} />
      <div className="grid content-start gap-3">
        <TextField
          label="Your email, to sign in"
          type="email"
          autoComplete="username"
          required
          {...form.text('email')}
        />
        <TextField
          label="Password (10 characters or more)"
          type="password"
          autoComplete="new-password"
          required
          {...form.text('password')}
        />
      </div>
      <TextField label="Order email (sender)" type="email" required {...form.text('companyEmail')} />
      <ChoiceField
        label="Country (sets taxes and public holidays)"
        {...form.text('country')}
        onChange={(e) => settle(e.target.value)}
      >
        {countries.map((c) => (
          <option key={c.code} value={c.code}>
            {c.name}
          </option>
        ))}
      </ChoiceField>
      <TextField label="Currency (ISO 4217)" required maxLength={3} {...form.text('currency')} />
      <AreaField label="Cost codes, one per line" rows={6} className="sm:col-span-2" {...form.text('costCodes')} />
      <div className="flex items-center justify-end gap-4 sm:col-span-2">
        <Faults messages={form.refusals.map((r) => r.message)} />
        <button type="submit" disabled={form.busy} className="btn btn-main">
          {form.busy ? 'Setting up…' : 'Create company'}
        </button>
      </div>
    </form>
  );
}
