import Holidays from 'date-holidays';
import fc from 'fast-check';
import { calendarOf, comesOn, daysLate, orderBy, readyAfter, wantedBy } from './lead';
import { isWorkday, MON_TO_FRI, plusDays, workdaysBetween, type Calendar, type Day } from './workdays';

const plain: Calendar = { week: MON_TO_FRI, off: new Set() };
const day = fc.integer({ min: 0, max: 7000 }).map((n) => plusDays('2015-01-01' as Day, n));
const days = (n: number, calendar = plain) => ({ days: n, calendar });

describe('ordering in time', () => {
  it('orders early enough for lead time and receiving', () =>
    expect(orderBy('2026-03-13' as Day, days(4), 1, plain)).toBe('2026-03-06'));

  it('wants goods at the dock in time to be received, and on the day itself when that takes none', () => {
    expect(wantedBy('2026-03-09' as Day, 1, plain)).toBe('2026-03-06');
    expect(wantedBy('2026-03-09' as Day, 0, plain)).toBe('2026-03-09');
  });

  it('counts a need on a day off from the working day before it', () => {
    expect(wantedBy('2026-03-08' as Day, 0, plain)).toBe('2026-03-06');
    expect(wantedBy('2026-03-08' as Day, 1, plain)).toBe('2026-03-05');
    expect(orderBy('2026-03-08' as Day, days(0), 0, plain)).toBe('2026-03-06');
    expect(daysLate('2026-03-08' as Day, days(0), 0, '2026-03-07' as Day, plain)).toBe(1);
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
            const late = daysLate(needed, days(lead, england), receiving, today, england);
            const same = daysLate(dock, days(lead, england), 0, today, england) === late;
            if (!same || late > 0 !== today > orderBy(needed, days(lead, england), receiving, england))
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
        expect(daysLate(wantedBy(needed, receiving, plain), days(lead), 0, today, plain) > 0).toBe(
          daysLate(needed, days(lead), receiving, today, plain) > 0,
        ),
      ),
    ));

  it('tells how late an order of today arrives', () => {
    expect(daysLate('2026-03-05' as Day, days(12), 1, '2026-02-23' as Day, plain)).toBe(5);
    expect(daysLate('2026-03-31' as Day, days(4), 1, '2026-02-23' as Day, plain)).toBe(0);
  });

  describe('from a supplier with working days of its own', () => {
    // Works Monday to Thursday, and is closed from Mon 16 to Fri 20 March 2026.
    const closed = [{ fromDay: '2026-03-16' as Day, untilDay: '2026-03-20' as Day }];
    const theirs = calendarOf(plain, new Set([1, 2, 3, 4]), closed);

    it('counts its lead time in them, and receiving in ours', () => {
      // Needed Tue 24: at the dock on Mon 23; four of its days before are Thu 12, Wed 11, Tue 10, Mon 9.
      expect(orderBy('2026-03-24' as Day, days(4, theirs), 1, plain)).toBe('2026-03-09');
      expect(daysLate('2026-03-24' as Day, days(4, theirs), 1, '2026-03-11' as Day, plain)).toBe(2);
      // Ordered on Thu 12 it comes two of its days later, on Tue 24, and can be used on Wed 25.
      expect(comesOn('2026-03-12' as Day, days(2, theirs))).toBe('2026-03-24');
      expect(readyAfter('2026-03-24' as Day, 1, plain)).toBe('2026-03-25');
      expect(readyAfter('2026-03-24' as Day, 0, plain)).toBe('2026-03-24');
    });

    it('is the company’s calendar where it has none of its own', () => expect(calendarOf(plain, null, [])).toBe(plain));

    it('never makes it possible to order later than an open supplier would', () =>
      fc.assert(
        fc.property(day, fc.nat(40), fc.nat(3), (needed, lead, receiving) =>
          expect(
            orderBy(needed, days(lead, theirs), receiving, plain) <= orderBy(needed, days(lead), receiving, plain),
          ).toBe(true),
        ),
      ));

    it('is there in time exactly when it is not late, on whatever day it is asked', () =>
      fc.assert(
        fc.property(day, day, fc.nat(12), fc.nat(3), fc.boolean(), (needed, today, lead, receiving, own) => {
          const of = days(lead, own ? theirs : plain);
          const ready = readyAfter(comesOn(today, of), receiving, plain);
          expect(daysLate(needed, of, receiving, today, plain) > 0).toBe(ready > needed);
        }),
        { numRuns: 2000 },
      ));

    it('gives the supplier its lead time exactly: an order of the last day comes in time, one of the day after does not', () =>
      fc.assert(
        fc.property(day, fc.nat(40), fc.nat(3), (needed, lead, receiving) => {
          const dock = wantedBy(needed, receiving, plain);
          const last = orderBy(needed, days(lead, theirs), receiving, plain);
          expect(isWorkday(last, theirs)).toBe(true);
          expect(comesOn(last, days(lead, theirs)) <= dock).toBe(true);
          expect(workdaysBetween(last, dock, theirs)).toBeGreaterThanOrEqual(lead);
          const next = comesOn(plusDays(last, 1), days(0, theirs));
          if (lead > 0) expect(comesOn(next, days(lead, theirs)) > dock).toBe(true);
        }),
      ));
  });
});
