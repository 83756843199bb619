import { dayInFigures, formatDay, type Day } from '../calendar/workdays';
import { formatDecimal, parseDecimal } from '../money/decimal';
import { grouped } from '../words';
import { LANGUAGES, ungrouped, usualFor, WAYS, writeAs, type Language } from './locale';

/** Second opinion: Unicode CLDR, by way of Intl. */
const cldr = (language: Language, options: Intl.DateTimeFormatOptions) =>
  new Intl.DateTimeFormat(language, { timeZone: 'UTC', ...options });
const letters = (text: string) => text.replaceAll(/[.,]/g, '').replaceAll(/\s+/g, ' ').trim();

afterEach(() => writeAs(usualFor('en-GB')));

describe.each(LANGUAGES)('in %s', (language) => {
  beforeEach(() => writeAs(usualFor(language)));

  it('a day in figures is that of Intl', () => {
    for (const day of ['2026-03-03', '2026-12-31', '2027-01-09'])
      expect(dayInFigures(day as Day)).toBe(
        cldr(language, { day: '2-digit', month: '2-digit', year: 'numeric' }).format(new Date(day)),
      );
  });

  it('a day in words has the weekday, day and month of Intl, in its order', () => {
    for (let month = 1; month <= 12; month += 1) {
      const day = `2026-${String(month).padStart(2, '0')}-0${(month % 7) + 1}` as Day;
      const parts = cldr(language, { weekday: 'short', day: 'numeric', month: 'short' }).formatToParts(new Date(day));
      const theirs = parts.filter((p) => p.type !== 'literal').map((p) => letters(p.value));
      const ours = letters(formatDay(day, day)).split(' ');
      expect(ours.map((w) => w.slice(0, 3))).toEqual(theirs.map((w) => w.slice(0, 3)));
    }
  });

  it('a number has the marks of Intl', () => {
    const intl = new Intl.NumberFormat(language, { minimumFractionDigits: 2 });
    expect(formatDecimal(123_456_789, 2)).toBe(intl.format(1_234_567.89));
    expect(grouped(1_234_567)).toBe(new Intl.NumberFormat(language).format(1_234_567));
    expect(parseDecimal(intl.format(1_234_567.89), { places: 2 })).toEqual({ ok: true, value: 123_456_789 });
    expect(parseDecimal(ungrouped(intl.format(1_234_567.89)), { places: 2 })).toEqual({ ok: true, value: 123_456_789 });
  });

  it('a week begins as Unicode says', () => {
    type Weeks = { weekInfo?: { firstDay: number }; getWeekInfo?: () => { firstDay: number } };
    const known = new Intl.Locale(language) as unknown as Weeks;
    expect(WAYS[language].firstDay).toBe((known.getWeekInfo?.() ?? known.weekInfo)?.firstDay);
  });
});

/** From memory; how such dates and amounts are commonly written. */
it.each([
  ['en-GB', 'Tue 3 Mar', '03/03/2026', '1,234.50'],
  ['en-US', 'Tue, Mar 3', '03/03/2026', '1,234.50'],
  ['en-AU', 'Tue 3 Mar', '03/03/2026', '1,234.50'],
  ['de-DE', 'Di 3. März', '03.03.2026', '1.234,50'],
  ['fr-FR', 'mar. 3 mars', '03/03/2026', '1\u202f234,50'],
] as [Language, string, string, string][])('%s writes %s, %s and %s', (language, told, figures, amount) => {
  writeAs(usualFor(language));
  const day = '2026-03-03' as Day;
  expect([formatDay(day, day), dayInFigures(day), formatDecimal(123_450, 2)]).toEqual([told, figures, amount]);
});
