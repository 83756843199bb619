'use client';

import { useState } from 'react';
import { counted } from '@/core/words';
import { Faults, TextField } from '@/ui/kit/Field';
import { useAct } from '@/ui/useAct';
import { changePassword } from '../../acts';

const FRESH = { old: '', password: '' };

export function ChangePassword({ keep }: { keep: number }) {
  const [text, set] = useState(FRESH);
  const { run, busy, refusals, faultAt } = useAct(changePassword, {
    said: ({ ended }) =>
      ended === 0 ? 'The password is changed' : `The password is changed; ${counted(ended, 'other sign-in')} ended`,
    onDone: () => set(FRESH),
  });
  const bind = (name: keyof typeof FRESH) => ({
    name,
    type: 'password',
    required: true,
    value: text[name],
    onChange: (e: { target: { value: string } }) => set({ ...text, [name]: e.target.value }),
    fault: faultAt(name),
  });
  return (
    <form
      className="grid gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        void run({ ...text, keep });
      }}
    >
      <h2 className="text-[16px]">Change your password</h2>
      <TextField label="Present password" autoComplete="current-password" {...bind('old')} />
      <TextField
        label="New password"
        autoComplete="new-password"
        hint="At least 10 characters. Your other sign-ins end."
        {...bind('password')}
      />
      <Faults messages={refusals.filter((r) => !['old', 'password'].includes(r.field ?? '')).map((r) => r.message)} />
      <button type="submit" disabled={busy} className="btn btn-main justify-center">
        Change it
      </button>
    </form>
  );
}
