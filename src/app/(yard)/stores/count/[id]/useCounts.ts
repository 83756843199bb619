'use client';

import { useEffect, useRef, useState } from 'react';
import type { Quantity } from '@/core/quantity/quantity';
import type { CountRow } from '@/queries/stores/counts';
import { useAct } from '@/ui/acting/useAct';
import { useAgain } from '@/ui/acting/useAgain';
import { useDraft } from '@/ui/acting/useDraft';
import { acts } from '../../../../actions';

/** A count of a line that the server has not answered yet. */
type Waiting = {
  readonly lineId: number;
  readonly was: Quantity | null;
  readonly counted: Quantity | null;
  readonly before: boolean;
};

type Answered = ReadonlyMap<number, Quantity | null>;

/**
 * The counts of a sheet as they are made: each stands on the sheet and in the browser at once, and is sent one after the
 * other, so that none is lost when they come fast or the network goes.
 */
export function useCounts(countId: number, rows: readonly CountRow[]) {
  const draft = useDraft<readonly Waiting[]>(`count ${countId}`, []);
  // What was answered, until the sheet says the same.
  const [answered, setAnswered] = useState<Answered>(new Map());
  const now = useRef({ waiting: draft.value, answered });
  useEffect(() => {
    now.current = { waiting: draft.value, answered };
  }, [draft.value, answered]);
  useEffect(() => {
    // eslint-disable-next-line react-hooks/set-state-in-effect -- what the server says is known only with its rows
    setAnswered((were) => new Map([...were].filter(([id, q]) => rows.some((r) => r.id === id && r.counted !== q))));
  }, [rows]);
  const lost = useRef(false);
  const running = useRef<Promise<void>>(undefined);
  const [offline, setOffline] = useState(false);
  const act = useAct(acts.countLines, { onLost: () => (lost.current = true) });

  const keep = (waiting: readonly Waiting[], known = now.current.answered) => {
    now.current = { waiting, answered: known };
    draft.set(waiting);
    setAnswered(known);
    if (waiting.length === 0) draft.drop();
  };
  const work = async () => {
    for (;;) {
      const { waiting, answered: before } = now.current;
      const [next] = waiting;
      if (next === undefined) break;
      lost.current = false;
      const { lineId, counted } = next;
      const done = await act.run({ countId, lines: [next] });
      if (!done && lost.current) break;
      const known = new Map(before);
      if (done) known.set(lineId, counted);
      else known.delete(lineId);
      // What was refused stands as the sheet says, and so does what was counted on top of it.
      keep(
        now.current.waiting.filter((w) => w !== next && (done || w.lineId !== lineId)),
        known,
      );
    }
    setOffline(now.current.waiting.length > 0);
  };
  const send = () => (running.current ??= work().finally(() => (running.current = undefined)));
  useAgain(() => void send());

  const countedNow = (row: Line) => countedOf(row, now.current.waiting, now.current.answered);
  return {
    rows: rows.map((r) => ({ ...r, counted: countedOf(r, draft.value, answered) })),
    waiting: draft.value.length,
    offline,
    fault: offline ? undefined : act.refusals[0]?.message,
    /** What is counted of a line by now: codes come faster than the page is drawn. */
    countedNow,
    put: (row: Line, counted: Quantity | null, before = false) => {
      keep([...now.current.waiting, { lineId: row.id, was: countedNow(row), counted, before }]);
      void send();
    },
    /** Whether all was answered, once what is under way is. */
    settled: async () => {
      await send();
      return now.current.waiting.length === 0;
    },
  };
}

type Line = Pick<CountRow, 'id' | 'counted'>;

function countedOf(row: Line, waiting: readonly Waiting[], answered: Answered): Quantity | null {
  const last = waiting.findLast((w) => w.lineId === row.id);
  if (last !== undefined) return last.counted;
  const known = answered.get(row.id);
  return known === undefined ? row.counted : known;
}
