'use client';

import { useEffect, useRef, useState } from 'react';
import type { Quantity } from '@/core/quantity/quantity';
import type { CountRow } from '@/queries/counts';
import { useAct } from '@/ui/useAct';
import { useAgain } from '@/ui/useAgain';
import { useDraft } from '@/ui/useDraft';
import { countLines } from '../../../../acts';

/** A count of a line that the server has not answered yet. */
type Waiting = {
  readonly lineId: number;
  readonly was: Quantity | null;
  readonly counted: Quantity | null;
  readonly before: boolean;
};

/**
 * The counts of a sheet as they are made: each stands on the sheet and in the browser at once, and is sent one after the
 * other, so that none is lost when they come fast or the network goes.
 */
export function useCounts(countId: number, rows: readonly CountRow[]) {
  const draft = useDraft<readonly Waiting[]>(`count ${countId}`, []);
  const waiting = useRef(draft.value);
  // What was answered, until the sheet says the same.
  const answered = useRef(new Map<number, Quantity | null>());
  const lost = useRef(false);
  const busy = useRef(false);
  const [offline, setOffline] = useState(false);
  const act = useAct(countLines, { onLost: () => (lost.current = true) });
  useEffect(() => {
    waiting.current = draft.value;
  }, [draft.value]);
  useEffect(() => {
    for (const r of rows) if (answered.current.get(r.id) === r.counted) answered.current.delete(r.id);
  }, [rows]);

  const keep = (next: readonly Waiting[]) => {
    waiting.current = next;
    draft.set(next);
    if (next.length === 0) draft.drop();
  };
  const countedOf = (row: Pick<CountRow, 'id' | 'counted'>): Quantity | null => {
    const last = waiting.current.findLast((w) => w.lineId === row.id);
    if (last !== undefined) return last.counted;
    return answered.current.has(row.id) ? (answered.current.get(row.id) ?? null) : row.counted;
  };
  const send = async () => {
    if (busy.current) return;
    busy.current = true;
    for (;;) {
      const [next] = waiting.current;
      if (next === undefined) break;
      lost.current = false;
      const { lineId, counted } = next;
      const done = await act.run({ countId, lines: [next] });
      if (!done && lost.current) break;
      // What was refused stands as the sheet says, and so does what was counted on top of it.
      if (done) answered.current.set(lineId, counted);
      else answered.current.delete(lineId);
      keep(waiting.current.filter((w) => w !== next && (done || w.lineId !== lineId)));
    }
    setOffline(waiting.current.length > 0);
    busy.current = false;
  };
  useAgain(() => void send());

  return {
    rows: rows.map((r) => ({ ...r, counted: countedOf(r) })),
    waiting: draft.value.length,
    offline,
    fault: offline ? undefined : act.refusals[0]?.message,
    countedOf,
    put: (row: Pick<CountRow, 'id' | 'counted'>, counted: Quantity | null, before = false) => {
      keep([...waiting.current, { lineId: row.id, was: countedOf(row), counted, before }]);
      void send();
    },
  };
}
