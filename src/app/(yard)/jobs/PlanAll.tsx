'use client';

import { counted } from '@/core/words';
import { ShelfPlain } from '@/ui/kit/Shelf';
import { useAct, useOnce } from '@/ui/acting/useAct';
import { acts } from '../../actions';

/** Plans every job anew that buys its shortfall, in one step. */
export function PlanAll({ jobs }: { readonly jobs: number }) {
  const once = useOnce();
  const act = useAct(acts.planAll, {
    said: ({ moved, jobs: of, lines }) =>
      moved === 0
        ? `No changes in ${counted(lines, 'line')}`
        : `${counted(moved, 'line')} changed on ${counted(of, 'job')}`,
    onDone: () => once.renew(),
  });
  return (
    <ShelfPlain disabled={act.busy} onClick={() => void act.run({ once: once.key() })}>
      {act.busy ? `Replanning ${counted(jobs, 'job')}…` : 'Replan all jobs'}
    </ShelfPlain>
  );
}
