'use client';

import { counted } from '@/core/words';
import { ShelfPlain } from '@/ui/kit/Shelf';
import { useAct, useOnce } from '@/ui/useAct';
import { planAll } from '../../acts';

/** Plans every job anew that buys its shortfall, in one step. */
export function PlanAll({ jobs }: { readonly jobs: number }) {
  const once = useOnce();
  const act = useAct(planAll, {
    said: ({ moved, jobs: of, lines }) =>
      moved === 0
        ? `Nothing moved: ${counted(lines, 'line')} stand as they did`
        : `${counted(moved, 'line')} of ${counted(of, 'job')} moved`,
    onDone: () => once.renew(),
  });
  return (
    <ShelfPlain disabled={act.busy} onClick={() => void act.run({ once: once.key() })}>
      {act.busy ? `Planning ${counted(jobs, 'job')}…` : 'Plan all anew'}
    </ShelfPlain>
  );
}
