'use client';

import type { Role } from '@/core/people/rights';
import { newPersonFields } from '@/core/records/person';
import { Faults, TextField } from '@/ui/kit/Field';
import { useActForm } from '@/ui/acting/useActForm';
import { acts } from '../../actions';
import { Roles } from './Roles';

export function AddPerson() {
  const form = useActForm({
    read: () => newPersonFields,
    start: { name: '', email: '', password: '', roles: [] as Role[] },
    act: acts.addPerson,
    input: (read, once) => ({ once, ...read }),
    said: (_, typed) => `${typed.name} added`,
    onDone: (_, restart) => restart(),
  });
  return (
    <form
      noValidate
      className="mt-6 grid max-w-[760px] gap-3 sm:grid-cols-3"
      onSubmit={(e) => {
        e.preventDefault();
        form.save();
      }}
    >
      <h2 className="text-[16px] sm:col-span-3">New person</h2>
      <TextField label="Name" required {...form.text('name')} />
      <TextField label="Email" type="email" required autoComplete="off" {...form.text('email')} />
      <TextField
        label="First password"
        type="password"
        required
        autoComplete="new-password"
        {...form.text('password')}
      />
      <Roles chosen={form.typed.roles} onChange={(roles) => form.put('roles', roles)} fault={form.faultAt('roles')} />
      <div className="flex items-center gap-4 sm:col-span-3">
        <button type="submit" disabled={form.busy} className="btn btn-main">
          Add person
        </button>
        <Faults messages={form.refusals.map((r) => r.message)} />
      </div>
    </form>
  );
}
