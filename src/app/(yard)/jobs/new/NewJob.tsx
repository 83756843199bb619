'use client';

import { useRouter } from 'next/navigation';
import { JOB_KINDS } from '@/queries/jobs';
import { useKey } from '@/ui/keys';
import { ChoiceField, TextField } from '@/ui/kit/Field';
import { Fact, Shelf, ShelfMain } from '@/ui/kit/Shelf';
import { useAct, useOnce } from '@/ui/useAct';
import { useDraft } from '@/ui/useDraft';
import { openJob } from '../../../acts';

type Props = {
  readonly leads: readonly { id: number; name: string }[];
  readonly customers: readonly string[];
  readonly nextNumber: string;
};

export function NewJob({ leads, customers, nextNumber }: Props) {
  const router = useRouter();
  const once = useOnce();
  const draft = useDraft('new job', {
    number: nextNumber,
    name: '',
    shortName: '',
    kind: 'contract' as keyof typeof JOB_KINDS,
    customer: '',
    leadId: String(leads[0]?.id ?? ''),
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
  const submit = () => void run({ ...draft.value, leadId: Number(draft.value.leadId), once: once.key() });
  useKey('Ctrl+Enter', 'Open the job', submit);
  const bind = (name: keyof typeof draft.value) => ({
    name,
    value: draft.value[name],
    onChange: (e: { target: { value: string } }) => draft.set((now) => ({ ...now, [name]: e.target.value })),
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
      <TextField label="Customer" className="sm:col-span-3" list="customers" required {...bind('customer')} />
      <datalist id="customers">
        {customers.map((c) => (
          <option key={c} value={c} />
        ))}
      </datalist>
      <ChoiceField label="Kind" className="sm:col-span-1" {...bind('kind')}>
        {Object.entries(JOB_KINDS).map(([k, words]) => (
          <option key={k} value={k}>
            {words}
          </option>
        ))}
      </ChoiceField>
      <ChoiceField label="Lead" className="sm:col-span-2" {...bind('leadId')}>
        {leads.map((l) => (
          <option key={l.id} value={l.id}>
            {l.name}
          </option>
        ))}
      </ChoiceField>
      <TextField label="Short name, for its tab" className="sm:col-span-3" maxLength={28} {...bind('shortName')} />
      <TextField label="Site or bay" className="sm:col-span-3" {...bind('site')} />
      <TextField label="Starts" type="date" className="sm:col-span-3" {...bind('startsOn')} />
      <TextField label="Due" type="date" className="sm:col-span-3" {...bind('dueOn')} />
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
