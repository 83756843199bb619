import type { Day } from '../calendar/workdays';
import { addQ, type Quantity } from '../quantity/quantity';
import { movements, NOWHERE, type Balance, type Movement } from './postings';
import type { SplitState } from './stages';

/** Where something stood at the end of a day, and until the next day that is kept of it. */
type OnDay = { readonly day: Day };

/** What is kept of a day, of those in their order: the last of it or before; undefined where there was nothing yet. */
export const inForce = <T extends OnDay>(kept: readonly T[], day: Day): T | undefined =>
  kept.findLast((k) => k.day <= day);

/** What came of a part of an order, or went away, beyond what was known of it; in the need's unit. */
export type More = { readonly received: Quantity; readonly givenUp: Quantity };

/** A part as it would have stood had it been known. What came of it keeps it from having been called off. */
export function hadCome<T extends SplitState>(state: T, more: More): T {
  const received = addQ(state.received, more.received);
  return {
    ...state,
    received,
    givenUp: addQ(state.givenUp, more.givenUp),
    commitment: state.commitment === 'cancelled' && received > 0 ? 'closedShort' : state.commitment,
  };
}

/**
 * What is posted on earlier days, so that each of them shows what it would have shown.
 *
 * @param days - in their order: the day it holds from, and each later one on which something of it moved
 * @param differs - how much more stands on a day than was known
 */
export function datedBack(days: readonly Day[], differs: (day: Day) => readonly Balance[]): (Movement & OnDay)[] {
  let before = NOWHERE;
  return days.flatMap((day) => {
    const now = differs(day);
    const moved = movements(before, now).map((m) => ({ ...m, day }));
    before = now;
    return moved;
  });
}
