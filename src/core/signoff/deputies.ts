import type { Day } from '../calendar/workdays';
import { refusal, type Refusal } from '../result';

/** Who signs for whom, on days from one to another, both included. */
export type Deputy = {
  readonly personId: number;
  readonly deputyId: number;
  readonly fromDay: Day;
  readonly toDay: Day;
};

const meet = (a: Deputy, b: Deputy) => a.fromDay <= b.toDay && b.fromDay <= a.toDay;

/** Everybody who signs for a person on a day: the deputies, and theirs while they are away too. */
export function deputiesOf(personId: number, deputies: readonly Deputy[], day: Day): ReadonlySet<number> {
  const found = new Set<number>();
  const look = (id: number) => {
    for (const d of deputies)
      if (
        d.personId === id &&
        d.fromDay <= day &&
        day <= d.toDay &&
        d.deputyId !== personId &&
        !found.has(d.deputyId)
      ) {
        found.add(d.deputyId);
        look(d.deputyId);
      }
  };
  look(personId);
  return found;
}

/**
 * Why somebody cannot be named as a deputy: of oneself, with days that end before they begin, or round a circle, where
 * in the end one would sign for oneself.
 */
export function deputyFault(fresh: Deputy, known: readonly Deputy[]): Refusal | undefined {
  if (fresh.deputyId === fresh.personId)
    return refusal('deputy.self', 'Choose someone other than yourself.', 'deputyId');
  if (fresh.toDay < fresh.fromDay)
    return refusal('deputy.days', 'The last date is before the first. Correct one of them.', 'toDay');
  const seen = new Set<number>();
  /** Whether somebody who signs for this person, on a day when the fresh one holds, is signed for by them. */
  const circles = (id: number): boolean =>
    known.some((d) => {
      if (d.personId !== id || !meet(d, fresh) || seen.has(d.deputyId)) return false;
      seen.add(d.deputyId);
      return d.deputyId === fresh.personId || circles(d.deputyId);
    });
  return circles(fresh.deputyId)
    ? refusal(
        'deputy.circle',
        'On some of these dates they would sign for each other. Choose someone else.',
        'deputyId',
      )
    : undefined;
}
