import fc from 'fast-check';
import { LANGUAGES, usualFor, writeAs, type Language } from '../locale/locale';
import { readTypedDay, type Towards } from './typed';
import { dayInFigures, formatDay, isoWeekday, MON_TO_FRI, plusDays, type Day } from './workdays';

const TODAY = '2026-05-12' as Day; // a Tuesday
const CALENDAR = { week: MON_TO_FRI, off: new Set(['2026-05-25']) };
const read = (text: string, towards: Towards = 'ahead', today = TODAY) => {
  const day = readTypedDay(text, today, CALENDAR, towards);
  return day.ok ? day.value : day.refusals.map((r) => r.code);
};
afterEach(() => writeAs(usualFor('en-GB')));

describe('a day typed in short', () => {
  it.each([
    ['', null],
    ['today', '2026-05-12'],
    ['Tomorrow', '2026-05-13'],
    ['yesterday', '2026-05-11'],
    ['12', '2026-05-12'],
    ['15', '2026-05-15'],
    ['11', '2026-06-11'],
    ['31', '2026-05-31'],
    ['15 may', '2026-05-15'],
    ['may 15', '2026-05-15'],
    ['11 May', '2027-05-11'],
    ['29 feb', '2028-02-29'],
    ['1st jan 27', '2027-01-01'],
    ['15 Sept 2027', '2027-09-15'],
    ['Fri 15 May', '2026-05-15'],
    ['15/5', '2026-05-15'],
    ['5/6', '2026-06-05'],
    ['5.6.27', '2027-06-05'],
    ['5-6-2027', '2027-06-05'],
    ['2026-08-01', '2026-08-01'],
    ['fri', '2026-05-15'],
    ['tue', '2026-05-19'],
    ['mon', '2026-05-18'],
    ['next mon', '2026-05-18'],
    ['next fri', '2026-05-22'],
    ['last fri', '2026-05-08'],
    ['+5', '2026-05-17'],
    ['+5d', '2026-05-17'],
    ['-3', '2026-05-09'],
    ['+5w', '2026-05-19'],
    // Monday the 25th is a day off.
    ['+9w', '2026-05-26'],
    ['-1w', '2026-05-11'],
  ])('“%s” is %s', (text, day) => expect(read(text)).toBe(day));

  it.each([
    ['12', '2026-05-12'],
    ['13', '2026-04-13'],
    ['31', '2026-03-31'],
    ['1 jun', '2025-06-01'],
    ['fri', '2026-05-08'],
    ['tue', '2026-05-05'],
    ['29 feb', '2024-02-29'],
  ])('looking back, “%s” is %s', (text, day) => expect(read(text, 'back')).toBe(day));

  it.each([
    '32',
    '0',
    '31/4/2026',
    '30 feb',
    'ma 15',
    'ju',
    'soon',
    'next',
    '15 may 1999',
    '1.2.3.4',
    '+',
    'x'.repeat(500),
  ])('“%s” is none', (text) => expect(read(text)).toEqual(['day.wrong']));

  it('stands in the company’s order when it is in figures', () => {
    writeAs(usualFor('en-US'));
    expect(read('5/6/2027')).toBe('2027-05-06');
    expect(read('13/6/2027')).toEqual(['day.wrong']);
    writeAs(usualFor('de-DE'));
    expect(read('5.6.2027')).toBe('2027-06-05');
  });

  it.each([
    ['de-DE', '3. März', '2027-03-03'],
    ['de-DE', 'Fr', '2026-05-15'],
    ['fr-FR', '14 août', '2026-08-14'],
    ['fr-FR', 'mar', '2026-05-19'],
    ['fr-FR', '3 fri', ['day.wrong']],
    ['fr-FR', 'jui 3', ['day.wrong']],
    ['fr-FR', 'next ven', '2026-05-22'],
    ['en-US', 'Dec 24', '2026-12-24'],
  ] as [Language, string, unknown][])('in %s, “%s” is %s', (language, text, day) => {
    writeAs(usualFor(language));
    expect(read(text)).toEqual(day);
  });

  it('is read back from every way in which a day is written, in every language', () => {
    const day = fc.integer({ min: -300, max: 4000 }).map((n) => plusDays(TODAY, n));
    for (const language of LANGUAGES) {
      writeAs(usualFor(language));
      fc.assert(
        fc.property(day, (d) => {
          expect(read(dayInFigures(d))).toBe(d);
          expect(read(formatDay(d, '2001-01-01' as Day))).toBe(d);
        }),
      );
    }
  });

  it('by its weekday is that weekday, within a week', () => {
    const names = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'];
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 6 }), fc.integer({ min: 0, max: 800 }), (k, n) => {
        const today = plusDays(TODAY, n);
        const ahead = read(names[k] ?? '', 'ahead', today) as Day;
        const back = read(names[k] ?? '', 'back', today) as Day;
        expect([isoWeekday(ahead), isoWeekday(back)]).toEqual([k + 1, k + 1]);
        expect(ahead > today && ahead <= plusDays(today, 7) && back < today && back >= plusDays(today, -7)).toBe(true);
      }),
    );
  });
});
