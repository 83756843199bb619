import { addDays, differenceInCalendarDays, format, getISODay, isValid, parseISO } from 'date-fns';
import type { Brand } from '../brand';

/** A calendar day as ISO 8601 text, 2026-03-03. Days compare as text. */
export type Day = Brand<string, 'Day'>;

/** The company's working time: ISO weekdays (1 is Monday) and days off. */
export type Calendar = { readonly week: ReadonlySet<number>; readonly off: ReadonlySet<string> };

export const MON_TO_FRI: ReadonlySet<number> = new Set([1, 2, 3, 4, 5]);

/** @returns the day, or undefined when the text is no calendar day */
export function asDay(text: string): Day | undefined {
  return /^\d{4}-\d{2}-\d{2}$/.test(text) && isValid(parseISO(text)) ? (text as Day) : undefined;
}

export const plusDays = (day: Day, n: number): Day => format(addDays(parseISO(day), n), 'yyyy-MM-dd') as Day;

export const isWorkday = (day: Day, calendar: Calendar): boolean =>
  calendar.week.has(getISODay(parseISO(day))) && !calendar.off.has(day);

/**
 * The day n working days after (or, when n is negative, before) a day. The day itself is not counted.
 * n = 0 gives the day itself if it is a working day, else the next one.
 *
 * @throws RangeError when the company's week has no working day
 * @example plusWorkdays('2026-03-06' as Day, 1, calendar) // Monday '2026-03-09'
 */
export function plusWorkdays(day: Day, n: number, calendar: Calendar): Day {
  if (calendar.week.size === 0) throw new RangeError('The company week has no working day.');
  const step = n < 0 ? -1 : 1;
  let at = day;
  let left = Math.abs(n);
  if (n === 0) while (!isWorkday(at, calendar)) at = plusDays(at, 1);
  while (left > 0) {
    at = plusDays(at, step);
    if (isWorkday(at, calendar)) left -= 1;
  }
  return at;
}

/**
 * Working days from one day to another, the first not counted; negative when `to` is earlier.
 * @example workdaysBetween('2026-03-06' as Day, '2026-03-10' as Day, calendar) // 2
 */
export function workdaysBetween(from: Day, to: Day, calendar: Calendar): number {
  if (to < from) return -workdaysBetween(to, from, calendar);
  let count = 0;
  for (let at = from; at < to; ) {
    at = plusDays(at, 1);
    if (isWorkday(at, calendar)) count += 1;
  }
  return count;
}

/** Last day to order: the needed day less receiving days and lead time, all in working days. */
export const orderBy = (needed: Day, leadDays: number, receivingDays: number, calendar: Calendar): Day =>
  plusWorkdays(needed, -(leadDays + receivingDays), calendar);

/** Working days by which a line misses its day when ordered on `today`; 0 when it does not. */
export function daysLate(needed: Day, leadDays: number, receivingDays: number, today: Day, calendar: Calendar): number {
  return Math.max(0, workdaysBetween(needed, plusWorkdays(today, leadDays + receivingDays, calendar), calendar));
}

/** @example formatDay('2026-03-03' as Day, '2026-01-10' as Day) // 'Tue 3 Mar' */
export const formatDay = (day: Day, today: Day): string =>
  format(parseISO(day), day.slice(0, 4) === today.slice(0, 4) ? 'EEE d MMM' : 'EEE d MMM yyyy');

const counted = (n: number, word: string) => `${n} ${word}${n === 1 ? '' : 's'}`;

/** How far away a day is: “today”, “in 4 working days”, “3 days late”, “in 6 weeks”. */
export function howFar(day: Day, today: Day, calendar: Calendar): string {
  const days = differenceInCalendarDays(parseISO(day), parseISO(today));
  if (days === 0) return 'today';
  if (days < 0) return `${counted(-days, 'day')} late`;
  if (days > 28) return `in ${counted(Math.round(days / 7), 'week')}`;
  return `in ${counted(workdaysBetween(today, day, calendar), 'working day')}`;
}
