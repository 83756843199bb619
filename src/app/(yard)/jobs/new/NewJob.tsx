'use client';

import { useRouter } from 'next/navigation';
import { JOB_KINDS } from '@/queries/jobs';
import type { Thing } from '@/queries/things';
import { useKey } from '@/ui/keys';
import { DateField } from '@/ui/kit/DateField';
import { ChoiceField, TextField } from '@/ui/kit/Field';
import { PickField } from '@/ui/kit/PickField';
import { Fact, Shelf, ShelfMain } from '@/ui/kit/Shelf';
import { useAct, useOnce } from '@/ui/useAct';
import { useDraft } from '@/ui/useDraft';
import { openJob } from '../../../acts';

type Props = {
  readonly lead: Thing | null;
  readonly nextNumber: string;
};

export function NewJob({ lead, nextNumber }: Props) {
  const router = useRouter();
  const once = useOnce();
  const draft = useDraft('a new job', {
    number: nextNumber,
    name: '',
    shortName: '',
    kind: 'contract' as keyof typeof JOB_KINDS,
    customer: '',
    lead,
    site: '',
    startsOn: '',
    dueOn: '',
  });
  const { run, busy, refusals, faultAt } = useAct(openJob, {
    said: (made) => `Job ${made.number} is open`,
    onDone: (made) => {
      draft.drop();
      router.push(`/jobs/${made.number}/quote`);
    },
  });
  const submit = () => {
    const { lead: led, ...text } = draft.value;
    void run({ ...text, leadId: led?.id ?? 0, once: once.key() });
  };
  useKey('Ctrl+Enter', 'Open the job', submit);
  const bind = (name: Exclude<keyof typeof draft.value, 'lead'>) => ({
    name,
    value: draft.value[name],
    onChange: (e: { target: { value: string } }) => draft.set((now) => ({ ...now, [name]: e.target.value })),
    fault: faultAt(name),
  });
  const bindDay = (name: 'startsOn' | 'dueOn') => ({
    name,
    value: draft.value[name],
    onDay: (day: string) => draft.set((now) => ({ ...now, [name]: day })),
    fault: faultAt(name),
  });
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        submit();
      }}
      className="grid max-w-[760px] gap-x-6 gap-y-4 sm:grid-cols-6"
    >
      <p className="text-ink-2 sm:col-span-6">
        A job starts with its quote: open it, bring the quote’s lines in, and mark the quote won once the customer says
        yes.
      </p>
      <TextField label="Number" className="sm:col-span-1" required {...bind('number')} />
      <TextField
        label="Name"
        className="sm:col-span-5"
        required
        autoFocus
        placeholder="What is done, to what"
        {...bind('name')}
      />
      <PickField
        kind="customer"
        label="Customer"
        className="sm:col-span-3"
        required
        value={null}
        free={{ text: draft.value.customer, onText: (customer) => draft.set((now) => ({ ...now, customer })) }}
        onPick={(customer) => customer !== null && draft.set((now) => ({ ...now, customer: customer.name }))}
        fault={faultAt('customer')}
      />
      <ChoiceField label="Kind" className="sm:col-span-1" {...bind('kind')}>
        {Object.entries(JOB_KINDS).map(([k, words]) => (
          <option key={k} value={k}>
            {words}
          </option>
        ))}
      </ChoiceField>
      <PickField
        kind="person"
        label="Lead"
        className="sm:col-span-2"
        required
        value={draft.value.lead}
        onPick={(led) => draft.set((now) => ({ ...now, lead: led }))}
        fault={faultAt('leadId')}
      />
      <TextField label="Short name, for its tab" className="sm:col-span-3" maxLength={28} {...bind('shortName')} />
      <TextField label="Site or bay" className="sm:col-span-3" {...bind('site')} />
      <DateField label="Starts" className="sm:col-span-3" {...bindDay('startsOn')} />
      <DateField label="Due" className="sm:col-span-3" {...bindDay('dueOn')} />
      <button type="submit" className="sr-only">
        Open the job
      </button>
      <Shelf
        facts={
          <>
            <Fact strong>New job {draft.value.number}</Fact>
            {draft.kept && <Fact>kept from before</Fact>}
          </>
        }
        fault={
          refusals.find((r) => r.field === undefined || r.field === '')?.message ??
          (refusals.length > 0 ? 'Something is missing above.' : undefined)
        }
      >
        <ShelfMain disabled={busy} onClick={submit} hint="^↵">
          Open job
        </ShelfMain>
      </Shelf>
    </form>
  );
}
