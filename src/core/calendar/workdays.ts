import { format, isValid, parseISO } from 'date-fns';
import type { Brand } from '../brand';
import { locale, WAYS } from '../locale/locale';
import { counted } from '../words';

/** A calendar day as ISO 8601 text, 2026-03-03. Days compare as text. */
export type Day = Brand<string, 'Day'>;

/** The company's working time: ISO weekdays (1 is Monday) and days off. */
export type Calendar = { readonly week: ReadonlySet<number>; readonly off: ReadonlySet<string> };

export const MON_TO_FRI: ReadonlySet<number> = new Set([1, 2, 3, 4, 5]);

/** @returns the day, or undefined when the text is no calendar day from 2000 to 2100 */
export function asDay(text: string): Day | undefined {
  if (!/^2[01]\d{2}-\d{2}-\d{2}$/.test(text) || text > '2100-12-31') return undefined;
  return isValid(parseISO(text)) ? (text as Day) : undefined;
}

const MS_A_DAY = 86_400_000;
// Lists ask for hundreds of dates at a time, so days are counted as numbers since 1970, without the local time zone.
const toNumber = (day: Day): number =>
  Date.UTC(Number(day.slice(0, 4)), Number(day.slice(5, 7)) - 1, Number(day.slice(8, 10))) / MS_A_DAY;
const toDay = (n: number): Day => new Date(n * MS_A_DAY).toISOString().slice(0, 10) as Day;

export const plusDays = (day: Day, n: number): Day => toDay(toNumber(day) + n);

/** A calendar laid out for counting: how many working days each part of a week has, and the days off among them. */
type Layout = {
  /** Working days in the first 0 to 7 days of a week that begins on Monday. */
  readonly upTo: readonly number[];
  /** Days off that would be working days, in their order. */
  readonly off: readonly number[];
};

const MONDAY = 4; // 5 January 1970
const weekday = (n: number): number => (((n - MONDAY) % 7) + 7) % 7;

/** @returns 1 for Monday to 7 for Sunday */
export const isoWeekday = (day: Day): number => weekday(toNumber(day)) + 1;

const layouts = new WeakMap<Calendar, Layout>();

function layoutOf(calendar: Calendar): Layout {
  const known = layouts.get(calendar);
  if (known !== undefined) return known;
  const { week } = calendar;
  if (week.size === 0)
    throw new RangeError('Your working week has no days. Choose at least one under Company and calendar.');
  const upTo = [0, 1, 2, 3, 4, 5, 6, 7].map((n) => [1, 2, 3, 4, 5, 6, 7].filter((d) => d <= n && week.has(d)).length);
  const off = [...calendar.off].map((d) => toNumber(d as Day)).filter((n) => week.has(weekday(n) + 1));
  const layout = { upTo, off: off.sort((x, y) => x - y) };
  layouts.set(calendar, layout);
  return layout;
}

/** How many of the sorted numbers are no larger than n. */
function countUpTo(n: number, sorted: readonly number[]): number {
  let [low, high] = [0, sorted.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((sorted[middle] ?? 0) > n) high = middle;
    else low = middle + 1;
  }
  return low;
}

/** Working days up to a day and with it, from a Monday long ago: by whole weeks, less the days off. */
function workdaysUpTo(n: number, { upTo, off }: Layout): number {
  const weeks = Math.floor((n - MONDAY) / 7);
  return weeks * (upTo[7] ?? 0) + (upTo[weekday(n) + 1] ?? 0) - countUpTo(n, off);
}

export function isWorkday(day: Day, calendar: Calendar): boolean {
  const layout = layoutOf(calendar);
  const n = toNumber(day);
  return workdaysUpTo(n, layout) > workdaysUpTo(n - 1, layout);
}

/**
 * The day n working days after (or, when n is negative, before) a day. The day itself is not counted.
 * n = 0 gives the day itself if it is a working day, else the next one.
 *
 * @throws RangeError when the company's week has no working day
 * @example plusWorkdays('2026-03-06' as Day, 1, calendar) // Monday '2026-03-09'
 */
export function plusWorkdays(day: Day, n: number, calendar: Calendar): Day {
  const layout = layoutOf(calendar);
  const from = toNumber(day);
  const sought = n > 0 ? workdaysUpTo(from, layout) + n : workdaysUpTo(from - 1, layout) + n + 1;
  // A day has at most one working day, so a jump by as many days as are missing never goes too far.
  let at = from;
  for (let missing = sought - workdaysUpTo(at, layout); missing > 0; missing = sought - workdaysUpTo(at, layout))
    at += missing;
  if (n < 0)
    for (let over = workdaysUpTo(at - 1, layout) - sought; over >= 0; over = workdaysUpTo(at - 1, layout) - sought)
      at -= over + 1;
  return toDay(at);
}

/**
 * Working days from one day to another, the first not counted; negative when `to` is earlier.
 * @example workdaysBetween('2026-03-06' as Day, '2026-03-10' as Day, calendar) // 2
 */
export function workdaysBetween(from: Day, to: Day, calendar: Calendar): number {
  const layout = layoutOf(calendar);
  return workdaysUpTo(toNumber(to), layout) - workdaysUpTo(toNumber(from), layout);
}

/**
 * A day as the company tells it, with its year when that is not this one.
 * @example formatDay('2026-03-03' as Day, '2026-01-10' as Day) // 'Tue 3 Mar'
 */
export function formatDay(day: Day, today: Day): string {
  const { told, toldWithYear, words } = WAYS[locale().language];
  return format(parseISO(day), day.slice(0, 4) === today.slice(0, 4) ? told : toldWithYear, { locale: words });
}

/** The month of a day, with its year when that is not this one. @example 'Mar' */
export function monthOf(day: Day, today: Day): string {
  const same = day.slice(0, 4) === today.slice(0, 4);
  return format(parseISO(day), same ? 'MMM' : 'MMM yyyy', { locale: WAYS[locale().language].words });
}

/** @example dayInFigures('2026-03-03' as Day) // '03/03/2026' */
export const dayInFigures = (day: Day): string => format(parseISO(day), WAYS[locale().language].figures);

/** How far away a day is: “today”, “in 4 working days”, “in 2 days” over a weekend, “3 days late”, “in 6 weeks”. */
export function howFar(day: Day, today: Day, calendar: Calendar): string {
  const days = toNumber(day) - toNumber(today);
  if (days === 0) return 'today';
  if (days < 0) return `${counted(-days, 'day')} late`;
  if (days > 28) return `in ${counted(Math.round(days / 7), 'week')}`;
  const working = workdaysBetween(today, day, calendar);
  return working === 0 ? `in ${counted(days, 'day')}` : `in ${counted(working, 'working day')}`;
}
