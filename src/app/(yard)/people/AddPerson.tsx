'use client';

import { useState } from 'react';
import { ROLE_NAMES, ROLES, type Role } from '@/core/people/rights';
import { Faults, TextField } from '@/ui/kit/Field';
import { useAct, useOnce } from '@/ui/useAct';
import { addPerson } from '../../acts';

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
  const toggle = (role: Role, on: boolean) =>
    set({ ...text, roles: on ? [...text.roles, role] : text.roles.filter((r) => r !== role) });
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
      <fieldset className="flex flex-wrap gap-x-5 gap-y-1 sm:col-span-3">
        <legend className="field-label">Roles</legend>
        {ROLES.map((r) => (
          <label key={r} className="flex items-center gap-1.5">
            <input type="checkbox" checked={text.roles.includes(r)} onChange={(e) => toggle(r, e.target.checked)} />{' '}
            {ROLE_NAMES[r]}
          </label>
        ))}
      </fieldset>
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
