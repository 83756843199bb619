import ical, { ICalCalendarMethod } from 'ical-generator';
import type { Day } from '@/core/calendar/workdays';

export type Expected = {
  /** Stays the same for the same thing, so that a calendar moves it instead of showing it twice. */
  readonly id: string;
  readonly day: Day;
  readonly title: string;
  readonly words: string;
  readonly place: string;
};

/** Writes days on which something is expected as a calendar (iCalendar, RFC 5545): an event without a time for each. */
export function calendarFeed(name: string, domain: string, stamp: string, expected: readonly Expected[]): string {
  const calendar = ical({
    name,
    method: ICalCalendarMethod.PUBLISH,
    prodId: { company: 'Kettle Tab', product: 'deliveries', language: 'EN' },
    ttl: 3600,
  });
  for (const { id, day, title, words, place } of expected)
    calendar.createEvent({
      id: `${id}@${domain}`,
      // At noon, so that no difference of zones moves it to another day.
      start: new Date(`${day}T12:00:00`),
      allDay: true,
      stamp: new Date(stamp),
      summary: title,
      description: words,
      location: place,
    });
  return calendar.toString();
}
