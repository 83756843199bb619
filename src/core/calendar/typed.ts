import { WAYS, locale } from '../locale/locale';
import { done, refusal, refused, type Result } from '../result';
import { asDay, isoWeekday, plusDays, plusWorkdays, type Calendar, type Day } from './workdays';

/** Whether a day without its year, or a weekday, means the next one or the last one. */
export type Towards = 'ahead' | 'back';

const WEEK = 7;
const WORDS: Readonly<Record<string, number>> = { yesterday: -1, today: 0, tomorrow: 1 };

const folded = (text: string): string => text.normalize('NFD').replaceAll(/\p{M}/gu, '').toLowerCase();

/** Which of the names, in the company's language or in English, begins with what is typed. */
function named(
  typed: string,
  nameOf: (k: number, language: 'en-GB' | undefined) => string,
  count: number,
  least: number,
) {
  if (typed.length < least) return undefined;
  const fits = (k: number) =>
    ([undefined, 'en-GB'] as const).some((language) => folded(nameOf(k, language)).startsWith(typed));
  const at = Array.from({ length: count }, (_, k) => k).filter(fits);
  return at.length === 1 ? at[0] : undefined;
}

const words = (language: 'en-GB' | undefined) => WAYS[language ?? locale().language].words.localize;
const monthOf = (typed: string) => named(typed, (k, l) => words(l).month(k as 0, { width: 'wide' }), 12, 3);
/** ISO weekday of a name; date-fns counts from Sunday. */
const weekdayOf = (typed: string) => {
  const at = named(typed, (k, l) => words(l).day(k as 0, { width: 'wide' }), WEEK, 2);
  return at === undefined ? undefined : at === 0 ? WEEK : at;
};

const dayOf = (year: number, month: number, day: number): Day | undefined =>
  asDay(`${year}-${String(month).padStart(2, '0')}-${String(day).padStart(2, '0')}`);

/** A day of a month whose year is not said: the next one from today on, or the last one up to today. */
function nearest(today: Day, towards: Towards, candidates: readonly (Day | undefined)[]): Day | undefined {
  const days = candidates.filter((d) => d !== undefined).sort();
  return towards === 'ahead' ? days.find((d) => d >= today) : days.findLast((d) => d <= today);
}

function inFigures(parts: readonly string[], today: Day, towards: Towards): Day | undefined {
  const [first = 0, second = 0] = parts.map(Number);
  const [day, month] = WAYS[locale().language].figures.startsWith('MM') ? [second, first] : [first, second];
  return inYear(day, month, parts[2], today, towards);
}

function inYear(day: number, month: number, year: string | undefined, today: Day, towards: Towards): Day | undefined {
  if (year !== undefined && year !== '')
    return dayOf(year.length === 2 ? 2000 + Number(year) : Number(year), month, day);
  const now = Number(today.slice(0, 4));
  // The 29th of February is up to eight years away.
  return nearest(
    today,
    towards,
    Array.from({ length: 17 }, (_, k) => dayOf(now - 8 + k, month, day)),
  );
}

function dayOfMonth(day: number, today: Day, towards: Towards): Day | undefined {
  const now = Number(today.slice(0, 4)) * 12 + Number(today.slice(5, 7)) - 1;
  const months = [-2, -1, 0, 1, 2].map((k) => now + k);
  return nearest(
    today,
    towards,
    months.map((m) => dayOf(Math.floor(m / 12), (m % 12) + 1, day)),
  );
}

function steps(sign: string, count: number, unit: string, today: Day, calendar: Calendar): Day {
  const n = sign === '+' ? count : -count;
  return unit === 'w' ? plusWorkdays(today, n, calendar) : plusDays(today, n);
}

function weekdayFrom(today: Day, weekday: number, which: string, towards: Towards): Day {
  if (which !== '') {
    const monday = plusDays(today, 1 - isoWeekday(today));
    return plusDays(monday, (which === 'next' ? WEEK : -WEEK) + weekday - 1);
  }
  const ahead = (weekday - isoWeekday(today) + WEEK) % WEEK;
  return plusDays(today, towards === 'ahead' ? ahead || WEEK : ahead - WEEK);
}

/**
 * Reads a day as a person types it. `15` is the coming 15th, `15 may` and `15/5` that of the coming May, `fri` the coming
 * Friday and `next fri` that of next week; `+5` is in five days, `+5w` in five working days; `today`, `tomorrow` and
 * `yesterday` are what they are. Looking back, the last such day is meant. Figures stand in the company's order.
 *
 * @returns null for nothing typed
 * @example readTypedDay('fri', '2026-05-12' as Day, calendar) // value '2026-05-15'
 * @example readTypedDay('+5w', '2026-05-12' as Day, calendar) // value '2026-05-19'
 */
export function readTypedDay(
  typed: string,
  today: Day,
  calendar: Calendar,
  towards: Towards = 'ahead',
): Result<Day | null> {
  const text = folded(typed)
    .trim()
    .replaceAll(/[\s,]+/g, ' ')
    .replaceAll(/\.(?= |$)/g, '');
  if (text === '') return done(null);
  const day = text.length > 40 ? undefined : understood(text, today, calendar, towards);
  return day !== undefined
    ? done(day)
    : refused(refusal('day.wrong', `“${typed.trim().slice(0, 40)}” isn’t a date. Type 15, 15 may, fri, +5 or +5w.`));
}

function understood(text: string, today: Day, calendar: Calendar, towards: Towards): Day | undefined {
  const iso = asDay(text);
  if (iso !== undefined) return iso;
  const word = WORDS[text];
  if (word !== undefined) return plusDays(today, word);
  const step = /^([+-])(\d{1,3})([dw]?)$/.exec(text);
  if (step !== null) return steps(step[1] ?? '', Number(step[2]), step[3] ?? '', today, calendar);
  if (/^\d{1,2}$/.test(text)) return dayOfMonth(Number(text), today, towards);
  const figures = /^(\d{1,2})[./-](\d{1,2})(?:[./-](\d{4}|\d{2})?)?$/.exec(text);
  if (figures !== null)
    return inFigures(
      figures.slice(1).filter((p) => p !== undefined),
      today,
      towards,
    );
  const parts = text.split(' ');
  return byName(parts, today, towards) ?? byName(withoutWeekday(parts), today, towards);
}

/** “Fri 15 May” says its weekday only to be sure. */
const withoutWeekday = ([first = '', ...rest]: readonly string[]): readonly string[] =>
  rest.length > 1 && weekdayOf(first) !== undefined ? rest : [];

function byName(parts: readonly string[], today: Day, towards: Towards): Day | undefined {
  const [first = '', second = '', third] = parts;
  if (parts.length === 0 || parts.length > 3) return undefined;
  const [which, weekday] = parts.length === 1 ? ['', weekdayOf(first)] : [first, weekdayOf(second)];
  if (weekday !== undefined && third === undefined && ['', 'next', 'last'].includes(which))
    return weekdayFrom(today, weekday, which, towards);
  const [day, name] = /^\d/.test(first) ? [first, second] : [second, first];
  const month = monthOf(name);
  if (month === undefined || !/^\d{1,2}(st|nd|rd|th)?$/.test(day)) return undefined;
  if (third !== undefined && !/^(\d{4}|\d{2})$/.test(third)) return undefined;
  return inYear(Number.parseInt(day, 10), month + 1, third, today, towards);
}
