import { plusWorkdays, type Calendar, type Day } from '../calendar/workdays';
import type { BomBranch, Offset } from './bom';

/** When a piece of work starts and ends; either may not be known. */
export type Span = { readonly startsOn: Day | null; readonly endsOn: Day | null };

const before = (day: Day, n: number, calendar: Calendar): Day => (n === 0 ? day : plusWorkdays(day, -n, calendar));
const after = (day: Day, n: number, calendar: Calendar): Day => (n === 0 ? day : plusWorkdays(day, n, calendar));

/** Work that takes so many working days: what is not known of its start or end follows from the other. */
export const spanOf = ({ startsOn, endsOn }: Span, makingDays: number, calendar: Calendar): Span => ({
  startsOn: startsOn ?? (endsOn === null ? null : before(endsOn, makingDays, calendar)),
  endsOn: endsOn ?? (startsOn === null ? null : after(startsOn, makingDays, calendar)),
});

const neededIn = (span: Span, { days, from }: Offset, calendar: Calendar): Day | null => {
  const day = from === 'start' ? span.startsOn : span.endsOn;
  if (day === null) return null;
  return from === 'start' ? after(day, days, calendar) : before(day, days, calendar);
};

export type Dated = {
  readonly neededOn: Day | null;
  /** When its own making starts; null for what is not made. */
  readonly startsOn: Day | null;
};

/**
 * The day each part is needed: so many working days after the start of the work that takes it, or before its end. A part
 * that is made ends on the day it is needed, and starts as many working days before as its making takes.
 *
 * @param parts - as `explode` gives them, each after the one above it
 * @param span - of the whole work
 * @returns a day for each part, in order
 */
export function datesOf(parts: readonly BomBranch[], span: Span, calendar: Calendar): Dated[] {
  const spans: Span[] = [];
  return parts.map(({ parent, line, bom }, k) => {
    const neededOn = neededIn(parent === undefined ? span : (spans[parent] ?? span), line.offset, calendar);
    const own = spanOf({ startsOn: null, endsOn: neededOn }, bom?.makingDays ?? 0, calendar);
    spans[k] = own;
    return { neededOn, startsOn: line.gotBy === 'made' ? own.startsOn : null };
  });
}
