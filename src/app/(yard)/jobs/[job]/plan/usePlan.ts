'use client';

import { useEffect, useMemo, useState } from 'react';
import type { Day } from '@/core/calendar/workdays';
import type { PlannedWork } from '@/core/planning/plan';
import { counted } from '@/core/words';
import type { Ahead } from '@/queries/buying/planAhead';
import type { PlanRow, PlanView } from '@/queries/buying/plan';
import { ask, asJson } from '@/ui/acting/ask';
import { useAct, useOnce } from '@/ui/acting/useAct';
import { acts } from '../../../../actions';

export type PlanJob = {
  readonly id: number;
  readonly number: string;
  readonly kind: string;
  readonly live: boolean;
  readonly startsOn: Day | null;
};

/** What planning anew would do, asked once the page stands and again after every change. */
export function useAhead(job: PlanJob, plan: PlanView): Ahead | undefined {
  const [ahead, setAhead] = useState<Ahead>();
  useEffect(() => {
    const stop = new AbortController();
    const body = JSON.stringify({ jobId: job.id });
    void ask<Ahead>(`/jobs/${job.number}/plan/ahead`, asJson(body, stop.signal)).then(
      (found) => found !== undefined && setAhead(found),
    );
    return () => stop.abort();
  }, [job.id, job.number, plan]);
  return ahead;
}

/** Which branches are folded, and the rows that show. */
export function useFolding(rows: readonly PlanRow[]) {
  const [closed, setClosed] = useState<ReadonlySet<string>>(new Set());
  const parents = useMemo(() => new Set(rows.flatMap((r) => r.parent ?? [])), [rows]);
  const shown = useMemo(() => {
    const hidden = new Set<string>();
    return rows.filter(({ key, parent }) => {
      const away = parent !== null && (hidden.has(parent) || closed.has(parent));
      if (away) hidden.add(key);
      return !away;
    });
  }, [rows, closed]);
  const fold = (key: string) => {
    const next = new Set(closed);
    if (!next.delete(key)) next.add(key);
    setClosed(next);
  };
  return { closed, parents, shown, fold };
}

/** What can be done with lines of a plan; `onDone` after each of them. */
export function usePlanActs(jobId: number, version: number, onDone: () => void) {
  const once = useOnce();
  const reserving = useAct(acts.reserve, {
    said: ({ lines }) => `Stock reserved for ${counted(lines, 'line')}`,
    onDone: () => {
      once.renew();
      onDone();
    },
  });
  const letting = useAct(acts.unreserve, { said: () => 'Unreserved: now available to others', onDone });
  const leaving = useAct(acts.leaveOut, { onDone });
  const working = useAct(acts.chooseWork, { onDone });
  const running = [reserving, letting, leaving, working];
  return {
    leaving,
    busy: running.some((a) => a.busy),
    fault: running.flatMap((a) => (a.clash ? [a.clash.message] : a.refusals.map((r) => r.message)))[0],
    reserve: (needIds: readonly number[]) =>
      void reserving.run({ once: once.key(), jobId, needIds: needIds.slice(0, 1000) }),
    unreserve: (needIds: number[]) => void letting.run({ jobId, needIds }),
    /** Leaves branches out, for a reason; without one they are in again. */
    leaveOut: (lineIds: number[], reason: string | null) => void leaving.run({ jobId, version, lineIds, reason }),
    work: (lineId: number, work: PlannedWork) => void working.run({ jobId, version, lineId, work }),
  };
}
