'use client';

import { useState } from 'react';
import type { Role } from '@/core/people/rights';
import { Faults, TextField } from '@/ui/kit/Field';
import { useAct, useOnce } from '@/ui/useAct';
import { addPerson } from '../../acts';
import { Roles } from './Roles';

const FRESH = { name: '', email: '', password: '', roles: [] as readonly Role[] };

export function AddPerson() {
  const [text, set] = useState(FRESH);
  const once = useOnce();
  const { run, busy, refusals, faultAt } = useAct(addPerson, {
    said: () => `${text.name} can sign in`,
    onDone: () => {
      once.renew();
      set(FRESH);
    },
  });
  const bind = (name: 'name' | 'email' | 'password') => ({
    name,
    value: text[name],
    onChange: (e: { target: { value: string } }) => set({ ...text, [name]: e.target.value }),
    fault: faultAt(name),
  });
  return (
    <form
      className="mt-6 grid max-w-[760px] gap-3 sm:grid-cols-3"
      onSubmit={(e) => {
        e.preventDefault();
        void run({ once: once.key(), ...text, roles: [...text.roles] });
      }}
    >
      <h2 className="text-[16px] sm:col-span-3">Add a person</h2>
      <TextField label="Name" required {...bind('name')} />
      <TextField label="E-mail" type="email" required autoComplete="off" {...bind('email')} />
      <TextField label="First password" type="password" required autoComplete="new-password" {...bind('password')} />
      <Roles chosen={text.roles} onChange={(roles) => set({ ...text, roles })} />
      <div className="flex items-center gap-4 sm:col-span-3">
        <button type="submit" disabled={busy} className="btn btn-main">
          Add person
        </button>
        <Faults
          messages={refusals
            .filter((r) => !['name', 'email', 'password'].includes(r.field ?? ''))
            .map((r) => r.message)}
        />
      </div>
    </form>
  );
}
