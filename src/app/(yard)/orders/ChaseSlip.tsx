'use client';

import type { ChaseMail as Mail } from '@/queries/orders/chasing';
import { useAnswer } from '@/ui/acting/useAnswer';
import { useKey } from '@/ui/frame/keys';
import { Slip } from '@/ui/kit/Slip';
import { counted } from '@/core/words';

type Props = {
  readonly numbers: readonly string[];
  readonly busy: boolean;
  readonly onSend: () => void;
  readonly onClose: () => void;
};

/** What suppliers are asked, read before it goes. */
export default function ChaseSlip({ numbers, busy, onSend, onClose }: Props) {
  const [only] = numbers;
  useKey('Ctrl+Enter', 'Send now', onSend, !busy);
  return (
    <Slip
      open
      onClose={onClose}
      title={numbers.length === 1 ? `Chase ${only}` : `Chase ${counted(numbers.length, 'order')}`}
      detail={`Nothing on the ${numbers.length === 1 ? 'order' : 'orders'} changes.`}
      foot={
        <div className="flex justify-end gap-2">
          <button type="button" className="btn" onClick={onClose}>
            Cancel
          </button>
          <button type="button" className="btn btn-main" disabled={busy} onClick={onSend}>
            {busy ? 'Sending…' : numbers.length === 1 ? 'Send now' : `Send ${counted(numbers.length, 'email')}`}
          </button>
        </div>
      }
    >
      {numbers.map((number) => (
        <ChaseMail key={number} number={number} />
      ))}
    </Slip>
  );
}

function ChaseMail({ number }: { readonly number: string }) {
  const mail = useAnswer<Mail>(`/orders/${number}/chase`);
  if (mail === undefined) return <p className="text-ink-2">Writing the email…</p>;
  if (mail.refused !== undefined) return <p className="mb-4 text-brick">{mail.refused}</p>;
  return (
    <section aria-label={`Email for ${number}`} className="mb-5 border-b border-line-2 pb-4 last:border-0">
      <p>
        <span className="text-ink-2">To</span>{' '}
        {mail.recipients.join(', ') || <span className="text-brick">no email address: add one to the supplier</span>}
      </p>
      {mail.copyTo !== '' && (
        <p>
          <span className="text-ink-2">Copy to</span> {mail.copyTo}
        </p>
      )}
      <p className="mt-2 font-semibold">{mail.subject}</p>
      <p className="mt-1 text-[14px] whitespace-pre-line">{mail.body}</p>
    </section>
  );
}
