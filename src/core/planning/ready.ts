import { comesOn, readyAfter, type Lead } from '../calendar/lead';
import type { Calendar, Day } from '../calendar/workdays';

/** What a need that keeps work from starting waits for. */
export type Awaited = {
  readonly description: string;
  /** The day all that is on order for it is promised, or wanted; null when no day is known. */
  readonly promisedOn: Day | null;
  /** Whether some of it is not ordered yet. */
  readonly toOrder: boolean;
  /** How long its supplier takes; null where none is chosen. */
  readonly lead: Lead | null;
};

export type Readiness =
  | { readonly kind: 'complete' }
  /** Everything that is missing has a day: as it is promised, or would come if it were ordered today. */
  | { readonly kind: 'on'; readonly day: Day; readonly promised: boolean; readonly last: readonly string[] }
  /** Some of what is missing has no day. */
  | { readonly kind: 'unknown'; readonly without: readonly string[] };

/** The day an awaited need can be used: the last of what is promised, what would come if ordered today, and receiving. */
function dayOf({ promisedOn, toOrder, lead }: Awaited, today: Day, receivingDays: number, calendar: Calendar) {
  if ((toOrder && lead === null) || (!toOrder && promisedOn === null)) return undefined;
  const ordered = toOrder && lead !== null ? comesOn(today, lead) : today;
  // What was promised for a day that has passed can come today at the earliest.
  const arrives = [promisedOn ?? today, ordered, today].sort().at(-1) ?? today;
  return readyAfter(arrives, receivingDays, calendar);
}

/**
 * When the material of a piece of work is complete.
 * @param awaited - its needs that are not in, not there for it in stores, and not issued
 */
export function readinessOf(
  awaited: readonly Awaited[],
  today: Day,
  receivingDays: number,
  calendar: Calendar,
): Readiness {
  if (awaited.length === 0) return { kind: 'complete' };
  const dated = awaited.map((a) => ({ ...a, day: dayOf(a, today, receivingDays, calendar) }));
  const without = dated.filter((a) => a.day === undefined).map((a) => a.description);
  if (without.length > 0) return { kind: 'unknown', without };
  const day =
    dated
      .flatMap((a) => a.day ?? [])
      .sort()
      .at(-1) ?? today;
  return {
    kind: 'on',
    day,
    promised: dated.every((a) => !a.toOrder),
    last: dated.filter((a) => a.day === day).map((a) => a.description),
  };
}
