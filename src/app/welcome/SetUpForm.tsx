'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { Refusal } from '@/core/result';
import { AreaField, Faults, TextField } from '@/ui/kit/Field';
import { useDraft } from '@/ui/useDraft';
import { setUp } from '../acts/signing';

const FRESH = {
  company: '',
  address: '',
  companyEmail: '',
  currency: 'GBP',
  costCodes: '01 Materials\n02 Bought parts\n03 Subcontract\n04 Hire\n09 Freight and sundries',
  owner: '',
  email: '',
};

export function SetUpForm() {
  const router = useRouter();
  const { value, set, drop } = useDraft('set up', FRESH);
  const [password, setPassword] = useState('');
  const [refusals, setRefusals] = useState<readonly Refusal[]>([]);
  const [busy, setBusy] = useState(false);
  const bind = (name: keyof typeof FRESH) => ({
    name,
    value: value[name],
    onChange: (e: { target: { value: string } }) => set((now) => ({ ...now, [name]: e.target.value })),
    fault: refusals.find((r) => r.field === name)?.message,
  });
  const submit = async () => {
    setBusy(true);
    const answer = await setUp({ ...value, password });
    setBusy(false);
    setRefusals(answer.refusals);
    if (answer.refusals.length > 0) return;
    drop();
    router.replace('/');
  };
  return (
    <form action={submit} className="grid gap-x-8 gap-y-3 sm:grid-cols-2">
      <TextField label="Company" required {...bind('company')} />
      <TextField label="Your name" required {...bind('owner')} />
      <AreaField label="Address, as it stands on orders" rows={3} required {...bind('address')} />
      <div className="grid content-start gap-3">
        <TextField
          label="Your e-mail, to sign in with"
          type="email"
          autoComplete="username"
          required
          {...bind('email')}
        />
        <TextField
          label="Password, 10 characters or more"
          type="password"
          autoComplete="new-password"
          required
          value={password}
          onChange={(e) => setPassword(e.target.value)}
          fault={refusals.find((r) => r.field === 'password')?.message}
        />
      </div>
      <TextField label="E-mail that orders come from" type="email" required {...bind('companyEmail')} />
      <TextField label="Currency, ISO 4217" required maxLength={3} {...bind('currency')} />
      <AreaField label="Cost codes, one on each line" rows={6} className="sm:col-span-2" {...bind('costCodes')} />
      <div className="flex items-center justify-end gap-4 sm:col-span-2">
        <Faults messages={refusals.filter((r) => r.field === undefined).map((r) => r.message)} />
        <button type="submit" disabled={busy} className="btn btn-main">
          {busy ? 'Setting up…' : 'Set up and begin'}
        </button>
      </div>
    </form>
  );
}
