import fc from 'fast-check';
import type { Day } from '../calendar/workdays';
import { minor, type Minor } from '../money/money';
import { changeFaults, kindOf, leastFrom, partsOf, totalOf, type ChangeLine, type BudgetsBefore } from './change';

const line = (costCodeId: number | null, amount: number): ChangeLine => ({ costCodeId, amount: minor(amount) });

const TODAY = '2026-05-12' as Day;
const standing = (change: Partial<BudgetsBefore> = {}): BudgetsBefore => ({
  job: '412',
  closed: false,
  openedOn: '2026-03-01' as Day,
  budgets: new Map<number, Minor>([[1, minor(10_000)]]),
  contingency: minor(5000),
  currency: 'GBP',
  ...change,
});
const codes = (lines: readonly ChangeLine[], day = TODAY, change: Partial<BudgetsBefore> = {}) =>
  changeFaults({ lines, day }, standing(change), TODAY, () => '01 Hull').map((f) => f.code);

describe('a budget change', () => {
  it.each([
    ['money that comes', [line(1, 100)], 'change', 100],
    ['money that goes', [line(1, -100)], 'change', -100],
    ['money transferred between cost codes', [line(1, -100), line(2, 100)], 'move', 0],
    ['money held back', [line(1, -100), line(null, 100)], 'holdBack', 0],
    ['money released', [line(1, 100), line(null, -100)], 'release', 0],
    ['new money that is held back', [line(null, 100)], 'change', 100],
  ] as const)('of %s', (_, lines, kind, total) => expect([kindOf(lines), totalOf(lines)]).toEqual([kind, total]));

  it.each([
    ['nothing', [], TODAY, {}, ['change.empty']],
    ['a code twice', [line(1, 1), line(1, 2)], TODAY, {}, ['change.twice']],
    ['the whole budget of a code', [line(1, -10_000)], TODAY, {}, []],
    ['more than the budget of a code', [line(1, -10_001)], TODAY, {}, ['change.below']],
    ['anything of a code without a budget', [line(2, -1)], TODAY, {}, ['change.below']],
    ['more than is held back', [line(null, -5001)], TODAY, {}, ['change.below']],
    ['a day to come', [line(1, 1)], '2026-05-13' as Day, {}, ['change.day']],
    ['a day before the budget was opened', [line(1, 1)], '2026-02-28' as Day, {}, ['change.day']],
    ['any day while there is no budget', [line(1, 1)], '2026-02-28' as Day, { openedOn: null }, []],
    ['a job that is closed', [line(1, 1)], TODAY, { closed: true }, ['job.closed']],
  ] as const)('of %s', (_, lines, day, change, expected) => expect(codes(lines, day, change)).toEqual(expected));

  it('lets a budget that is below zero rise', () =>
    expect(codes([line(1, 5)], TODAY, { budgets: new Map([[1, minor(-10)]]) })).toEqual([]));

  it('never takes a budget below zero, and adds up to what it does to budgets and to what is held back', () => {
    const any = fc.array(
      fc.tuple(fc.option(fc.integer({ min: 1, max: 3 }), { nil: null }), fc.integer({ min: -20_000, max: 20_000 })),
      { maxLength: 4 },
    );
    fc.assert(
      fc.property(any, (tried) => {
        const lines = tried.map(([code, amount]) => line(code, amount));
        const { budget, contingency: held } = partsOf(lines);
        expect(budget + held).toBe(totalOf(lines));
        if (codes(lines).length > 0) return;
        for (const { costCodeId, amount } of lines) {
          const before = costCodeId === null ? 5000 : costCodeId === 1 ? 10_000 : 0;
          expect(before + amount).toBeGreaterThanOrEqual(0);
        }
      }),
    );
  });
});

describe('the least that a budget comes to from a day on', () => {
  const moved = [
    { day: '2026-03-01' as Day, amount: minor(100) },
    { day: '2026-03-09' as Day, amount: minor(-60) },
    { day: '2026-03-05' as Day, amount: minor(30) },
    { day: '2026-03-20' as Day, amount: minor(500) },
  ];
  it.each([
    ['2026-02-01', 0],
    ['2026-03-01', 70],
    ['2026-03-06', 70],
    ['2026-03-09', 70],
    ['2026-03-20', 570],
    ['2026-12-31', 570],
  ])('on %s is %d', (day, least) => expect(leastFrom(moved, day as Day)).toBe(least));
  it('of nothing is nothing', () => expect(leastFrom([], TODAY)).toBe(0));
});
