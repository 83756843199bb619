'use client';

import { useState } from 'react';
import { counted } from '@/core/words';
import type { ReviewView } from '@/queries/orders/reviews';
import { Faults } from '@/ui/kit/Field';
import { ReasonQuestion } from '@/ui/kit/Reason';
import { useAct } from '@/ui/acting/useAct';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../../../actions';

type Props = { readonly jobId: number; readonly review: ReviewView };

/** What is looked over before work starts; with a point open nothing is ordered, unless that is waived with a reason. */
export function Review({ jobId, review }: Props) {
  const { day, may } = useYard();
  const tick = useAct(acts.tickPoint);
  const [asking, setAsking] = useState(false);
  const waive = useAct(acts.waiveReview, { onDone: () => setAsking(false) });
  const { points, waived, waivedBy } = review;
  if (points.length === 0) return null;
  const open = points.filter((p) => p.day === null).length;
  const mayTick = may('win quotes');
  return (
    <section aria-labelledby="before-work">
      <h2 id="before-work" className="mt-6 mb-1 border-b border-ink pb-1 text-[17px]">
        Pre-start checks{' '}
        {open > 0 && (
          <span className={`tag align-[3px] font-text ${waived === null ? 'tag-care' : ''}`}>
            {counted(open, 'point')} open
          </span>
        )}
      </h2>
      <Faults
        messages={[...tick.refusals, ...waive.refusals.filter((r) => r.field === undefined)].map((r) => r.message)}
      />
      <ul>
        {points.map((p) => (
          <li key={p.id} className="flex items-center justify-between gap-4 border-b border-line-2 py-1.5">
            <label className="flex items-center gap-2">
              <input
                type="checkbox"
                className="size-[15px] accent-[var(--copper)]"
                disabled={!mayTick || tick.busy}
                checked={p.day !== null}
                onChange={(e) => void tick.run({ jobId, pointId: p.id, ticked: e.target.checked })}
              />
              {p.words}
            </label>
            <span className="text-ink-2">{p.day === null ? 'open' : `${p.who}, ${day(p.day)}`}</span>
          </li>
        ))}
      </ul>
      {open > 0 && (
        <p className="mt-1.5 text-ink-2">
          {waived === null
            ? 'Tick these before anything is ordered for this job. '
            : `Waived by ${waivedBy}: ${waived}. `}
          {mayTick && (
            <button
              type="button"
              className="step"
              disabled={waive.busy}
              onClick={() => (waived === null ? setAsking(true) : void waive.run({ jobId, reason: null }))}
            >
              {waived === null ? 'Order anyway…' : 'Reinstate checks'}
            </button>
          )}
        </p>
      )}
      {asking && (
        <ReasonQuestion
          title="Order with checks open"
          words="Orders can go for this job although some checks are open. Your name and reason are recorded."
          keep="Cancel"
          go="Order anyway"
          act={waive}
          onClose={() => setAsking(false)}
          onGo={(reason) => void waive.run({ jobId, reason })}
        />
      )}
    </section>
  );
}
