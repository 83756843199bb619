import Holidays from 'date-holidays';
import type { Day } from '@/core/calendar/workdays';

/** Countries whose public holidays are known, by ISO 3166-1 code; with regions after a dash. */
export const holidayCountries = (): { readonly code: string; readonly name: string }[] => {
  const holidays = new Holidays();
  return Object.entries(holidays.getCountries('en'))
    .flatMap(([code, name]) => [
      { code, name },
      ...Object.entries(holidays.getStates(code, 'en') ?? {}).map(([region, of]) => ({
        code: `${code}-${region}`,
        name: `${name}, ${of}`,
      })),
    ])
    .sort((a, b) => a.name.localeCompare(b.name));
};

/** The public holidays of a country in some years, one for each day. */
export function publicHolidays(
  country: string,
  years: readonly number[],
): { readonly day: Day; readonly name: string }[] {
  const [code = '', region] = country.split('-');
  const calendar = region === undefined ? new Holidays(code) : new Holidays(code, region);
  const found = years.flatMap((year) => calendar.getHolidays(year) ?? []).filter((h) => h.type === 'public');
  return [
    ...new Map(found.map((h) => [h.date.slice(0, 10), { day: h.date.slice(0, 10) as Day, name: h.name }])).values(),
  ];
}
