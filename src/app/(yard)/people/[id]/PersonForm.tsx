'use client';

import { useState } from 'react';
import type { PersonView } from '@/queries/people';
import { TextField } from '@/ui/kit/Field';
import { RecordForm } from '@/ui/kit/RecordForm';
import { useAct } from '@/ui/useAct';
import { changePerson } from '../../../acts';
import { Roles } from '../Roles';

/** A person's name and what they do; the e-mail address is what they sign in with, and stays. */
export function PersonForm({ person }: { person: PersonView }) {
  const fresh = { name: person.name, roles: person.roles };
  const [text, set] = useState(fresh);
  const act = useAct(changePerson, { said: () => `${text.name} is saved` });
  const save = (over = person.version) =>
    void act.run({ personId: person.id, version: over, name: text.name, roles: [...text.roles] });
  return (
    <RecordForm
      title={person.name}
      what="person"
      name={text.name}
      draft={{ kept: false, restart: () => set(fresh) }}
      act={act}
      onSave={save}
    >
      <div className="grid max-w-[760px] gap-4 sm:grid-cols-3">
        <TextField
          label="Name"
          name="name"
          required
          value={text.name}
          onChange={(e) => set({ ...text, name: e.target.value })}
          fault={act.faultAt('name')}
        />
        <TextField label="E-mail" value={person.email} readOnly hint="What they sign in with" />
        <Roles chosen={text.roles} onChange={(roles) => set({ ...text, roles })} />
      </div>
    </RecordForm>
  );
}
