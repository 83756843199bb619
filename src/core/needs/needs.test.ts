import { todayByCode } from './today';
import fc from 'fast-check';
import { MON_TO_FRI, type Calendar, type Day } from '../calendar/workdays';
import { minor, type UnitPrice } from '../money/money';
import { quantity } from '../quantity/quantity';
import type { SplitState } from '../tab/stages';
import { coverage, NOTHING_FROM_STOCK, openOf, plannedOf } from './coverage';
import { cutFault, moveSurplus } from './surplus';
import { obstaclesOf, wordsFor, type BuyingFacts } from './obstacles';

const q = (n: number) => quantity(n * 10_000);
const split = (change: Partial<SplitState> = {}): SplitState => ({
  commitment: 'sent',
  ordered: q(10),
  value: minor(1000),
  received: q(0),
  invoiced: q(0),
  claimed: q(0),
  givenUp: q(0),
  invoicedAmount: minor(0),
  ...change,
});

describe('coverage of a need', () => {
  it.each([
    ['nothing bought', [], 12],
    ['a part drafted', [split({ commitment: 'drafted', ordered: q(5) })], 7],
    ['a part on order', [split()], 2],
    ['cancelled', [split({ commitment: 'cancelled' })], 12],
    ['closed short at what came', [split({ commitment: 'closedShort', received: q(4) })], 8],
    ['closed short at what is invoiced', [split({ commitment: 'closedShort', received: q(4), invoiced: q(6) })], 6],
    ['more than needed', [split(), split()], 0],
    ['six ordered, eight came and are kept', [split({ ordered: q(6), received: q(8) })], 4],
    [
      'closed short while an invoice claims more',
      [split({ commitment: 'closedShort', received: q(4), claimed: q(6) })],
      6,
    ],
  ] as const)('%s leaves %d open', (_, splits, open) => expect(openOf(coverage(q(12), splits))).toBe(q(open)));

  it('tells drafted from ordered', () => {
    expect(coverage(q(12), [split({ commitment: 'drafted', ordered: q(3) }), split({ ordered: q(4) })])).toMatchObject({
      drafted: q(3),
      ordered: q(4),
    });
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
              parts.map((p) => split({ ordered: quantity(p) })),
            ),
          );
          expect(open).toBeGreaterThanOrEqual(0);
          expect(open).toBeLessThanOrEqual(needed);
        },
      ),
    );
  });

  it('is planned at the open quantity’s estimate, and at nothing without a price', () => {
    const c = coverage(q(12), [split({ ordered: q(4) })]);
    expect(plannedOf(c, { price: 25_000 as UnitPrice, priceQuantity: 1, tax: null }, 'GBP').planned).toBe(2000);
    expect(plannedOf(c, { price: null, priceQuantity: 1, tax: null }, 'GBP').planned).toBe(0);
    expect(
      plannedOf({ ...c, reserved: q(8) }, { price: 25_000 as UnitPrice, priceQuantity: 1, tax: null }, 'GBP', {
        ...NOTHING_FROM_STOCK,
        cost: minor(1234),
      }).planned,
    ).toBe(1234);
  });
});

describe('tax in the plan', () => {
  it('is there already when it cannot be recovered: 120.00 at 20 % plans 144.00', () => {
    const estimate = { price: 1_000_000 as UnitPrice, priceQuantity: 1, tax: { rate: 2000, recoverable: 0 } };
    expect(plannedOf(coverage(quantity(12_000), []), estimate, 'GBP').planned).toBe(14_400);
    const half = { ...estimate, tax: { rate: 2000, recoverable: 5000 } };
    expect(plannedOf(coverage(quantity(12_000), []), half, 'GBP').planned).toBe(13_200);
  });
});

describe('cutting a need below what is bought for it', () => {
  const need = { description: 'Hose', covered: q(9) };
  it('asks what becomes of the rest', () => {
    expect(cutFault(need, q(5), undefined, 'm')?.message).toBe(
      '9 m of Hose are already drafted or ordered. Choose where the surplus 4 m goes: keep on the job, or stores.',
    );
    expect([cutFault(need, q(9), undefined, 'm'), cutFault(need, q(5), 'job', 'm')]).toEqual([undefined, undefined]);
  });

  const owned = (id: number, change: Partial<SplitState>) => ({ id, ...split(change) });
  it('gives drafts to stores before orders', () => {
    const moves = moveSurplus(
      [owned(1, {}), owned(2, { commitment: 'drafted', ordered: q(3), value: minor(100) })],
      q(5),
    );
    expect(moves.ok && moves.value).toEqual([
      { splitId: 2, keep: 0, move: q(3) },
      { splitId: 1, keep: q(8), move: q(2) },
    ]);
  });

  it('never takes what is in or invoiced', () => {
    const moves = moveSurplus([owned(1, { received: q(7), invoiced: q(8) })], q(5));
    expect(moves.ok ? moves.value : moves.refusals[0]?.code).toBe('need.in');
  });
});

describe('what stands in the way of buying', () => {
  const calendar: Calendar = { week: MON_TO_FRI, off: new Set() };
  const facts: BuyingFacts = {
    supplierId: 1,
    hasPrice: true,
    hasRate: true,
    hasUnit: true,
    hasItem: true,
    mayBeBought: true,
    agreed: true,
    freeInStores: quantity(0),
    unit: 'MTR',
    aboveQuote: minor(0),
    currency: 'GBP',
    neededOn: '2026-05-20' as Day,
    lead: { days: 4, calendar },
  };
  const words = (change: Partial<BuyingFacts>) =>
    obstaclesOf({ ...facts, ...change }, '2026-05-12' as Day, 1, calendar).map(wordsFor);

  it.each([
    ['nothing', {}, []],
    ['no supplier', { supplierId: null }, ['no supplier']],
    ['no price', { hasPrice: false }, ['no price']],
    ['no item number', { hasItem: false }, ['no item number']],
    ['no exchange rate', { hasRate: false }, ['no exchange rate']],
    ['a unit that does not fit', { hasUnit: false }, ['unit doesn’t match item']],
    ['a part that not for purchase', { mayBeBought: false }, ['not for purchase']],
    ['what the customer has not accepted', { agreed: false }, ['not accepted yet']],
    ['what lies in stores already', { freeInStores: q(6) }, ['6 m in stock']],
    ['a price above the quote’s', { aboveQuote: minor(13_800) }, ['£ 138.00 above quote']],
    ['a price below the quote’s', { aboveQuote: minor(-1) }, []],
    ['a lead time that misses by a day', { lead: { days: 6, calendar } }, ['1 day late']],
    ['a long lead time', { lead: { days: 10, calendar } }, ['5 days late']],
    ['no date, so nothing to miss', { neededOn: null, lead: { days: 99, calendar } }, []],
    ['no supplier, so no lead time', { supplierId: null, lead: null }, ['no supplier']],
  ] as const)('%s', (_, change, expected) => expect(words(change)).toEqual(expected));
});

it('today’s prices are told by cost code, where they differ from what is planned', () => {
  const line = (code: string, price: number | null, more: number) => ({
    ...{ code, codeName: `Code ${code}`, open: q(2), priceQuantity: 1, more: minor(more) },
    price: price === null ? null : ((price * 10_000) as never),
  });
  expect(todayByCode([line('03', 5, 138), line('01', 4, -20), line('03', null, 12), line('02', 7, 0)], 'GBP')).toEqual([
    { code: '01', name: 'Code 01', planned: 800, more: -20 },
    { code: '03', name: 'Code 03', planned: 1000, more: 150 },
  ]);
});
