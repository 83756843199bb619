import { addBusinessDays, differenceInBusinessDays, format, isWeekend, parseISO } from 'date-fns';
import Holidays from 'date-holidays';
import fc from 'fast-check';
import {
  formatDay,
  howFar,
  isWorkday,
  MON_TO_FRI,
  plusDays,
  plusWorkdays,
  workdaysBetween,
  type Calendar,
  type Day,
} from './workdays';

const plain: Calendar = { week: MON_TO_FRI, off: new Set() };
const day = fc.integer({ min: 0, max: 7000 }).map((n) => plusDays('2015-01-01' as Day, n));
const workday = day.filter((d) => isWorkday(d, plain));

describe('working days, with date-fns as second opinion', () => {
  it('counts on as addBusinessDays does', () => {
    fc.assert(
      fc.property(
        workday,
        fc.integer({ min: -200, max: 200 }).filter((n) => n !== 0),
        (d, n) => expect(plusWorkdays(d, n, plain)).toBe(format(addBusinessDays(parseISO(d), n), 'yyyy-MM-dd')),
      ),
    );
  });

  it('counts between as differenceInBusinessDays does', () => {
    fc.assert(
      fc.property(workday, workday, (a, b) =>
        expect(workdaysBetween(a, b, plain)).toBe(differenceInBusinessDays(parseISO(b), parseISO(a)) + 0),
      ),
    );
  });

  it('moves from a day off to the next working day', () =>
    expect(plusWorkdays('2026-03-07' as Day, 0, plain)).toBe('2026-03-09'));
});

describe('working days, counted one by one', () => {
  const weeks = fc.subarray([1, 2, 3, 4, 5, 6, 7], { minLength: 1 }).map((w): ReadonlySet<number> => new Set(w));
  const daysOff = fc.array(fc.nat(200), { maxLength: 60 });
  const start = '2026-01-01' as Day;
  const open = (d: Day, { week, off }: Calendar) =>
    week.has(((new Date(`${d}T00:00Z`).getUTCDay() + 6) % 7) + 1) && !off.has(d);
  it('are as many, and lead to the same day, whatever the week and the days off', () => {
    fc.assert(
      fc.property(weeks, daysOff, fc.nat(200), fc.integer({ min: -40, max: 40 }), (week, off, at, n) => {
        const calendar: Calendar = { week, off: new Set(off.map((k) => plusDays(start, k))) };
        const from = plusDays(start, at);
        let [to, left] = [from, Math.abs(n)];
        while (n === 0 && !open(to, calendar)) to = plusDays(to, 1);
        while (left > 0) {
          to = plusDays(to, Math.sign(n));
          if (open(to, calendar)) left -= 1;
        }
        expect(plusWorkdays(from, n, calendar)).toBe(to);
        expect(isWorkday(from, calendar)).toBe(open(from, calendar));
        if (n >= 0) expect(workdaysBetween(from, to, calendar)).toBe(n === 0 && to > from ? 1 : n);
      }),
    );
  });

  it('are counted over the longest stretch there is', () => {
    const plain: Calendar = { week: MON_TO_FRI, off: new Set() };
    expect(workdaysBetween('2000-01-03' as Day, '2100-12-31' as Day, plain)).toBe(26_349);
    expect(plusWorkdays('2000-01-03' as Day, 26_349, plain)).toBe('2100-12-31');
  });
});

describe('holidays, with date-holidays as the source of days off', () => {
  const bank = new Holidays('GB', 'ENG')
    .getHolidays(2026)
    .filter((h) => h.type === 'public')
    .map((h) => h.date.slice(0, 10));
  const england: Calendar = { week: MON_TO_FRI, off: new Set(bank) };

  it('passes over Good Friday, the weekend and Easter Monday', () =>
    expect(plusWorkdays('2026-04-02' as Day, 1, england)).toBe('2026-04-07'));

  it('has as many working days in 2026 as there are weekdays that are no bank holiday', () => {
    const weekdays = Array.from({ length: 365 }, (_, k) => plusDays('2026-01-01' as Day, k)).filter(
      (d) => !isWeekend(parseISO(d)) && !bank.includes(d),
    );
    expect(workdaysBetween('2025-12-31' as Day, '2026-12-31' as Day, england)).toBe(weekdays.length);
  });

  it('undoes itself', () => {
    fc.assert(
      fc.property(
        workday.filter((d) => isWorkday(d, england)),
        fc.integer({ min: 1, max: 60 }),
        (d, n) => expect(plusWorkdays(plusWorkdays(d, n, england), -n, england)).toBe(d),
      ),
    );
  });
});

describe('how far away a day is', () => {
  it('says how far away a day is', () => {
    const today = '2026-03-03' as Day;
    expect(howFar(today, today, plain)).toBe('today');
    expect(howFar('2026-03-09' as Day, today, plain)).toBe('in 4 working days');
    expect(howFar('2026-02-28' as Day, today, plain)).toBe('3 days late');
    expect(howFar('2026-03-07' as Day, '2026-03-06' as Day, plain)).toBe('in 1 day');
    expect(howFar('2026-03-09' as Day, '2026-03-07' as Day, plain)).toBe('in 1 working day');
    expect(howFar('2026-04-14' as Day, today, plain)).toBe('in 6 weeks');
    expect(formatDay(today, today)).toBe('Tue 3 Mar');
    expect(formatDay('2027-03-03' as Day, today)).toBe('Wed 3 Mar 2027');
  });
});
