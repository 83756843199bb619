import fc from 'fast-check';
import { MON_TO_FRI, type Calendar, type Day } from '../calendar/workdays';
import { minor, type UnitPrice } from '../money/money';
import { quantity } from '../quantity/quantity';
import { coverage, coveredBy, openOf, plannedOf, type CoveringSplit } from './coverage';
import { obstaclesOf, wordsFor, type BuyingFacts } from './obstacles';

const q = (n: number) => quantity(n * 10_000);
const split = (change: Partial<CoveringSplit> = {}): CoveringSplit => ({
  commitment: 'sent',
  ordered: q(10),
  covers: q(10),
  value: minor(1000),
  received: q(0),
  billed: q(0),
  billedAmount: minor(0),
  ...change,
});

describe('coverage of a need', () => {
  it.each([
    ['nothing bought', [], 12],
    ['a part drafted', [split({ commitment: 'drafted', covers: q(5) })], 7],
    ['a part on order', [split()], 2],
    ['called off', [split({ commitment: 'calledOff' })], 12],
    ['closed short at what came', [split({ commitment: 'closedShort', received: q(4) })], 8],
    ['closed short at what is billed', [split({ commitment: 'closedShort', received: q(4), billed: q(6) })], 6],
    ['more than needed', [split({ covers: q(10) }), split({ covers: q(10) })], 0],
  ] as const)('%s leaves %d open', (_, splits, open) => expect(openOf(coverage(q(12), splits))).toBe(q(open)));

  it('tells drafted from ordered', () => {
    expect(coverage(q(12), [split({ commitment: 'drafted', covers: q(3) }), split({ covers: q(4) })])).toMatchObject({
      drafted: q(3),
      ordered: q(4),
    });
  });

  it('counts in the need’s own unit when a reel is closed short', () => {
    const reels = split({ commitment: 'closedShort', ordered: q(2), covers: q(110), received: q(1) });
    expect(coveredBy(reels)).toBe(q(55));
  });

  it('is never below none, and never more open than is needed', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 1e7 }),
        fc.array(fc.integer({ min: 1, max: 1e7 }), { maxLength: 5 }),
        (needed, parts) => {
          const open = openOf(
            coverage(
              quantity(needed),
              parts.map((p) => split({ covers: quantity(p) })),
            ),
          );
          expect(open).toBeGreaterThanOrEqual(0);
          expect(open).toBeLessThanOrEqual(needed);
        },
      ),
    );
  });

  it('is planned at the open quantity’s estimate, and at nothing without a price', () => {
    const c = coverage(q(12), [split({ covers: q(4) })]);
    expect(plannedOf(c, { price: 25_000 as UnitPrice, priceQuantity: 1 }, 'GBP').planned).toBe(2000);
    expect(plannedOf(c, { price: null, priceQuantity: 1 }, 'GBP').planned).toBe(0);
    expect(
      plannedOf({ ...c, reserved: q(8) }, { price: 25_000 as UnitPrice, priceQuantity: 1 }, 'GBP', minor(1234)).planned,
    ).toBe(1234);
  });
});

describe('what stands in the way of buying', () => {
  const calendar: Calendar = { week: MON_TO_FRI, off: new Set() };
  const facts: BuyingFacts = {
    supplierId: 1,
    hasPrice: true,
    hasItem: true,
    neededOn: '2026-05-20' as Day,
    leadDays: 4,
  };
  const words = (change: Partial<BuyingFacts>) =>
    obstaclesOf({ ...facts, ...change }, '2026-05-12' as Day, 1, calendar).map(wordsFor);

  it.each([
    ['nothing', {}, []],
    ['no supplier', { supplierId: null }, ['no supplier']],
    ['no price', { hasPrice: false }, ['no price']],
    ['no item number', { hasItem: false }, ['no item number']],
    ['a lead time that misses by a day', { leadDays: 6 }, ['1 day too late']],
    ['a long lead time', { leadDays: 10 }, ['5 days too late']],
    ['no date, so nothing to miss', { neededOn: null, leadDays: 99 }, []],
    ['no supplier, so no lead time', { supplierId: null, leadDays: 99 }, ['no supplier']],
  ] as const)('%s', (_, change, expected) => expect(words(change)).toEqual(expected));
});
