import { isWorkday, plusDays, plusWorkdays, workdaysBetween, type Calendar, type Day } from './workdays';

/** How long a supplier takes, in working days of its own. */
export type Lead = { readonly days: number; readonly calendar: Calendar };

/** Days on which somebody is closed, both ends with it. */
export type Closed = { readonly fromDay: Day; readonly untilDay: Day };

/**
 * The working time of a supplier: the company's, with a week of its own where it has one, and closed when it says so.
 * Days off of the company's country count for it too.
 */
export function calendarOf(company: Calendar, week: ReadonlySet<number> | null, closed: readonly Closed[]): Calendar {
  if (week === null && closed.length === 0) return company;
  const off = new Set(company.off);
  for (const { fromDay, untilDay } of closed)
    for (let day = fromDay; day <= untilDay; day = plusDays(day, 1)) off.add(day);
  return { week: week ?? company.week, off };
}

/** The working day on which something needed on a day has to be there: the day itself, or the one before a day off. */
const lastWorkday = (day: Day, calendar: Calendar): Day =>
  isWorkday(day, calendar) ? day : plusWorkdays(day, -1, calendar);

const workdaysBefore = (day: Day, n: number, calendar: Calendar): Day => {
  const from = lastWorkday(day, calendar);
  return n === 0 ? from : plusWorkdays(from, -n, calendar);
};

/**
 * The day goods have to be at the dock: the needed day less receiving days, in working days. A need on a day off counts
 * from the working day before it.
 */
export const wantedBy = (needed: Day, receivingDays: number, calendar: Calendar): Day =>
  workdaysBefore(needed, receivingDays, calendar);

/** Last day to order: the needed day less receiving days and the supplier's lead time, each in its own working days. */
export const orderBy = (needed: Day, lead: Lead, receivingDays: number, calendar: Calendar): Day =>
  workdaysBefore(wantedBy(needed, receivingDays, calendar), lead.days, lead.calendar);

/**
 * The supplier's working days by which a line misses its day when ordered on `today`, or on its next working day; 0 when
 * the last day to order has not passed.
 */
export function daysLate(needed: Day, lead: Lead, receivingDays: number, today: Day, calendar: Calendar): number {
  const last = orderBy(needed, lead, receivingDays, calendar);
  return today <= last ? 0 : workdaysBetween(last, plusWorkdays(today, 0, lead.calendar), lead.calendar);
}

/** So many working days after a day; what happens on a day off happens on the next working day. */
const workdaysAfter = (day: Day, n: number, calendar: Calendar): Day =>
  plusWorkdays(plusWorkdays(day, 0, calendar), n, calendar);

/** The day something can be used that comes on a day: after receiving, in the company's working days. */
export const readyAfter = (comes: Day, receivingDays: number, calendar: Calendar): Day =>
  workdaysAfter(comes, receivingDays, calendar);

/** The day something comes that is ordered on `today`, or on the supplier's next working day. */
export const comesOn = (today: Day, { days, calendar }: Lead): Day => workdaysAfter(today, days, calendar);
