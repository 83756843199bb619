'use client';

import { JOB_KIND_NAMES } from '@/core/jobs/states';
import { useRouter } from 'next/navigation';
import { jobForm, type JobText } from '@/core/records/job';
import type { Choice } from '@/queries/frame/choices';
import { useKey } from '@/ui/frame/keys';
import { DateField } from '@/ui/kit/DateField';
import { ChoiceField, TextField } from '@/ui/kit/Field';
import { PickField } from '@/ui/kit/PickField';
import { Fact, Shelf, ShelfMain } from '@/ui/kit/Shelf';
import { needsCorrecting } from '@/ui/kit/RecordForm';
import { useActForm } from '@/ui/acting/useActForm';
import { acts } from '../../../actions';

type Props = {
  readonly lead: Choice | null;
  readonly nextNumber: string;
};

export function NewJob({ lead, nextNumber }: Props) {
  const router = useRouter();
  const form = useActForm({
    read: () => jobForm,
    start: {
      number: nextNumber,
      name: '',
      shortName: '',
      kind: 'contract',
      customer: '',
      leadId: lead,
      site: '',
      startsOn: '',
      dueOn: '',
    } as JobText,
    keep: 'a new job',
    act: acts.openJob,
    input: (read, once) => ({ once, ...read }),
    said: (made) => `Job ${made.number} created`,
    onDone: (made) => router.push(`/jobs/${made.number}/quote`),
  });
  const { typed, busy } = form;
  useKey('Ctrl+Enter', 'Create job', form.save);
  return (
    <form
      noValidate
      onSubmit={(e) => {
        e.preventDefault();
        form.save();
      }}
      className="grid max-w-[760px] gap-x-6 gap-y-4 sm:grid-cols-6"
    >
      <p className="text-ink-2 sm:col-span-6">
        A job starts with its quote. Create the job, enter or import the quote lines, and mark the quote won when the
        customer accepts.
      </p>
      <TextField label="Number" className="sm:col-span-1" required {...form.text('number')} />
      <TextField
        label="Name"
        className="sm:col-span-5"
        required
        autoFocus
        placeholder="e.g. Gearbox overhaul, pilot cutter"
        {...form.text('name')}
      />
      <PickField
        kind="customer"
        label="Customer"
        className="sm:col-span-3"
        required
        value={null}
        free={{ text: typed.customer, onText: (customer) => form.put('customer', customer) }}
        onPick={(customer) => customer !== null && form.put('customer', customer.name)}
        fault={form.faultAt('customer')}
      />
      <ChoiceField label="Type" className="sm:col-span-1" {...form.text('kind')}>
        {Object.entries(JOB_KIND_NAMES).map(([k, words]) => (
          <option key={k} value={k}>
            {words}
          </option>
        ))}
      </ChoiceField>
      <PickField kind="person" label="Job lead" className="sm:col-span-2" required {...form.pick('leadId')} />
      <TextField
        label="Short name (shown on the rail)"
        className="sm:col-span-3"
        maxLength={28}
        {...form.text('shortName')}
      />
      <TextField label="Site or bay" className="sm:col-span-3" {...form.text('site')} />
      <DateField label="Starts" className="sm:col-span-3" {...form.day('startsOn')} />
      <DateField label="Due" className="sm:col-span-3" {...form.day('dueOn')} />
      <button type="submit" className="sr-only">
        Create job
      </button>
      <Shelf
        facts={
          <>
            <Fact strong>New job {typed.number}</Fact>
            {form.kept && <Fact>Unsaved entries from last time</Fact>}
          </>
        }
        fault={form.refusals[0]?.message ?? needsCorrecting(form.firstFault)}
      >
        <ShelfMain disabled={busy} onClick={form.save} hint="Ctrl ↵">
          Create job
        </ShelfMain>
      </Shelf>
    </form>
  );
}
