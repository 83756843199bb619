'use client';

import { useState } from 'react';
import { AreaField, Faults } from '@/ui/kit/Field';
import { TakeOut } from '@/ui/kit/TakeOut';
import { useAct } from '@/ui/acting/useAct';
import { acts } from '../../actions';

const KINDS = { contract: 'a contract', repair: 'a repair', make: 'a make job' } as const;
type Kind = keyof typeof KINDS;

/** What is looked over before work starts, one point a line, by kind of job. */
export function ReviewPoints({ points }: { readonly points: Readonly<Record<Kind, readonly string[]>> }) {
  return (
    <section aria-labelledby="review-points" className="mt-8">
      <h2 id="review-points" className="flex flex-wrap items-baseline gap-x-4 text-[16px]">
        Pre-start checks <TakeOut list="review-lists" />
      </h2>
      <p className="mb-2 text-ink-2">
        One per line. Nothing can be ordered for a job until these are ticked on its plan, or waived with a reason.
      </p>
      <div className="grid gap-4 sm:grid-cols-3">
        {(Object.keys(KINDS) as Kind[]).map((kind) => (
          <Points key={kind} kind={kind} points={points[kind]} />
        ))}
      </div>
    </section>
  );
}

function Points({ kind, points }: { readonly kind: Kind; readonly points: readonly string[] }) {
  const saved = points.join('\n');
  const [typed, setTyped] = useState(saved);
  const act = useAct(acts.saveReviewPoints, { said: () => 'Saved' });
  const read = typed
    .split('\n')
    .map((p) => p.trim())
    .filter(Boolean);
  return (
    <div>
      <AreaField label={`For ${KINDS[kind]}`} rows={5} value={typed} onChange={(e) => setTyped(e.target.value)} />
      <Faults messages={act.refusals.map((r) => r.message)} />
      <button
        type="button"
        className="btn btn-plain mt-2"
        disabled={act.busy || read.join('\n') === saved}
        onClick={() => void act.run({ kind, points: read })}
      >
        Save for {KINDS[kind]}
      </button>
    </div>
  );
}
