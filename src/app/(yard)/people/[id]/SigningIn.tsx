'use client';

import { useState } from 'react';
import { RESET_HOURS } from '@/core/people/signingIn';
import { counted } from '@/core/words';
import type { PersonView } from '@/queries/people/people';
import { Faults } from '@/ui/kit/Field';
import { useAct } from '@/ui/acting/useAct';
import { acts } from '../../../actions';

/** Whether a person is let in, and how they come by a new password. */
export function SigningIn({ person }: { person: PersonView }) {
  const ref = { personId: person.id, version: person.version };
  const isIn = person.active === 1;
  const [link, setLink] = useState<string>();
  const letIn = useAct(acts.setActive, {
    said: () => (isIn ? `Access of ${person.name} removed` : `Access of ${person.name} restored`),
  });
  const reset = useAct(acts.startReset, { onDone: ({ token }) => setLink(`${window.location.origin}/reset/${token}`) });
  return (
    <>
      <h2 className="mb-1 text-[16px]">Signing in</h2>
      <p className="text-ink-2">
        {isIn
          ? `Signed in on ${counted(person.signIns, 'device')}.`
          : 'Remove access. Their history stays under their name.'}
      </p>
      <div className="mt-3 grid gap-2">
        {isIn && (
          <button type="button" className="btn btn-plain" disabled={reset.busy} onClick={() => void reset.run(ref)}>
            Create password link
          </button>
        )}
        {link !== undefined && (
          <div className="rounded-lg border border-line bg-glaze-2 p-2">
            <p className="text-[12.5px] text-ink-2">
              Give this link to {person.name}. It works once, within {RESET_HOURS} hours, and won’t be shown again.
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
          {isIn ? 'Remove access' : 'Restore access'}
        </button>
      </div>
      <Faults messages={[...letIn.refusals, ...reset.refusals].map((r) => r.message)} />
      {(letIn.clash ?? reset.clash) && (
        <Faults messages={['Someone else has changed this person. Refresh the page, then try again.']} />
      )}
    </>
  );
}
