'use client';

import { personForm } from '@/core/records/person';
import type { PersonView } from '@/queries/people/people';
import { TextField } from '@/ui/kit/Field';
import { RecordForm } from '@/ui/kit/RecordForm';
import { useActForm } from '@/ui/acting/useActForm';
import { acts } from '../../../actions';
import { Roles } from '../Roles';

/** A person's name and what they do; the e-mail address is what they sign in with, and stays. */
export function PersonForm({ person }: { person: PersonView }) {
  const form = useActForm({
    read: () => personForm,
    start: { name: person.name, roles: [...person.roles], version: person.version },
    act: acts.changePerson,
    input: (read) => ({ personId: person.id, ...read }),
    said: (_, typed) => `${typed.name} saved`,
  });
  return (
    <RecordForm
      title={person.name}
      what="person"
      name={form.typed.name}
      form={form}
      onVersion={(version) => form.put('version', version)}
    >
      <div className="grid max-w-[760px] gap-4 sm:grid-cols-3">
        <TextField label="Name" required {...form.text('name')} />
        <TextField label="Email" value={person.email} readOnly hint="Used to sign in" />
        <Roles chosen={form.typed.roles} onChange={(roles) => form.put('roles', roles)} fault={form.faultAt('roles')} />
      </div>
    </RecordForm>
  );
}
