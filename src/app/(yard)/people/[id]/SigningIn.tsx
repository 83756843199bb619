'use client';

import { useState } from 'react';
import { RESET_HOURS } from '@/core/people/signingIn';
import { counted } from '@/core/words';
import type { PersonView } from '@/queries/people';
import { Faults } from '@/ui/kit/Field';
import { useAct } from '@/ui/useAct';
import { setActive, startReset } from '../../../acts';

/** Whether a person is let in, and how they come by a new password. */
export function SigningIn({ person }: { person: PersonView }) {
  const ref = { personId: person.id, version: person.version };
  const isIn = person.active === 1;
  const [link, setLink] = useState<string>();
  const letIn = useAct(setActive, {
    said: () => (isIn ? `${person.name} is let in no more` : `${person.name} can sign in again`),
  });
  const reset = useAct(startReset, { onDone: ({ token }) => setLink(`${window.location.origin}/reset/${token}`) });
  return (
    <>
      <h2 className="mb-1 text-[16px]">Signing in</h2>
      <p className="text-ink-2">
        {isIn ? `${counted(person.signIns, 'sign-in')} at this moment.` : 'Let in no more. What they did stays theirs.'}
      </p>
      <div className="mt-3 grid gap-2">
        {isIn && (
          <button type="button" className="btn btn-plain" disabled={reset.busy} onClick={() => void reset.run(ref)}>
            Make a link for a new password
          </button>
        )}
        {link !== undefined && (
          <div className="rounded-lg border border-line bg-glaze-2 p-2">
            <p className="text-[12.5px] text-ink-2">
              Hand this to {person.name}. It works once, within {RESET_HOURS} hours, and is not shown again.
            </p>
            <code className="mono block text-[12.5px] break-all" aria-label="Link">
              {link}
            </code>
          </div>
        )}
        <button
          type="button"
          className="btn btn-plain"
          disabled={letIn.busy}
          onClick={() => void letIn.run({ ...ref, active: !isIn })}
        >
          {isIn ? 'Let in no more' : 'Let in again'}
        </button>
      </div>
      <Faults messages={[...letIn.refusals, ...reset.refusals].map((r) => r.message)} />
      {(letIn.clash ?? reset.clash) && <Faults messages={['Somebody else changed this person. Look again.']} />}
    </>
  );
}
