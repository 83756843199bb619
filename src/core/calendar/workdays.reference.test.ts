import { addBusinessDays, differenceInBusinessDays, format, isWeekend, parseISO } from 'date-fns';
import Holidays from 'date-holidays';
import fc from 'fast-check';
import {
  daysLate,
  formatDay,
  howFar,
  isWorkday,
  MON_TO_FRI,
  orderBy,
  plusDays,
  plusWorkdays,
  wantedBy,
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

describe('ordering in time', () => {
  it('orders early enough for lead time and receiving', () =>
    expect(orderBy('2026-03-13' as Day, 4, 1, plain)).toBe('2026-03-06'));

  it('wants goods at the dock in time to be received, and on the day itself when that takes none', () => {
    expect(wantedBy('2026-03-09' as Day, 1, plain)).toBe('2026-03-06');
    expect(wantedBy('2026-03-09' as Day, 0, plain)).toBe('2026-03-09');
  });

  it('counts a need on a day off from the working day before it', () => {
    expect(wantedBy('2026-03-08' as Day, 0, plain)).toBe('2026-03-06');
    expect(wantedBy('2026-03-08' as Day, 1, plain)).toBe('2026-03-05');
    expect(orderBy('2026-03-08' as Day, 0, 0, plain)).toBe('2026-03-06');
    expect(daysLate('2026-03-08' as Day, 0, 0, '2026-03-07' as Day, plain)).toBe(1);
  });

  it('agrees on late for the need and late for the dock on every day of three years of holidays', () => {
    const calendar = new Holidays('GB', 'ENG');
    const off = [2025, 2026, 2027].flatMap((y) => calendar.getHolidays(y)).map((h) => h.date.slice(0, 10));
    const england: Calendar = { week: MON_TO_FRI, off: new Set(off) };
    let compared = 0;
    const wrong: string[] = [];
    for (let n = 0; n < 1095; n += 1) {
      const needed = plusDays('2025-01-01' as Day, n);
      for (const lead of [0, 1, 4])
        for (const receiving of [0, 1, 2])
          for (const ahead of [0, 1, 2, 3, 5, 8]) {
            const today = plusDays(needed, -ahead);
            const dock = wantedBy(needed, receiving, england);
            const late = daysLate(needed, lead, receiving, today, england);
            const same = daysLate(dock, lead, 0, today, england) === late;
            if (!same || late > 0 !== today > orderBy(needed, lead, receiving, england))
              wrong.push(`${needed} on ${today}, ${lead} + ${receiving}`);
            compared += 1;
          }
    }
    expect(wrong).toEqual([]);
    expect(compared).toBe(1095 * 54);
  });

  it('calls an order late for its need exactly when it is late for the dock', () =>
    fc.assert(
      fc.property(day, day, fc.nat(15), fc.nat(3), (today, needed, lead, receiving) =>
        expect(daysLate(wantedBy(needed, receiving, plain), lead, 0, today, plain) > 0).toBe(
          daysLate(needed, lead, receiving, today, plain) > 0,
        ),
      ),
    ));

  it('tells how late an order of today arrives', () => {
    expect(daysLate('2026-03-05' as Day, 12, 1, '2026-02-23' as Day, plain)).toBe(5);
    expect(daysLate('2026-03-31' as Day, 4, 1, '2026-02-23' as Day, plain)).toBe(0);
  });

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
