'use client';

import { useRef } from 'react';
import type { Key, Picks } from './column';

/** Picks rows in the order they stand: one, all from the last one up to it, or all of a group. */
export function usePicking<Row>(picks: Picks<Row> | undefined, keyOf: (row: Row) => Key, rows: readonly Row[]) {
  const last = useRef(-1);
  const isPicked = (row: Row): boolean => picks?.picked.has(keyOf(row)) ?? false;
  const put = (chosen: readonly Row[], on: boolean) => {
    if (picks === undefined) return;
    const next = new Set(picks.picked);
    for (const row of chosen.filter(picks.may)) {
      if (on) next.add(keyOf(row));
      else next.delete(keyOf(row));
    }
    picks.onPick(next);
  };
  /** Picks a row or puts it back; as a stretch, all from the last one up to it. */
  const pick = (index: number, stretch: boolean) => {
    const row = rows[index];
    if (picks === undefined || row === undefined || !picks.may(row)) return;
    const from = stretch && last.current >= 0 ? last.current : index;
    put(rows.slice(Math.min(from, index), Math.max(from, index) + 1), !isPicked(row));
    last.current = index;
  };
  return { isPicked, pick, put };
}
