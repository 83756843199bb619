import fc from 'fast-check';
import { minor, type UnitPrice } from '../money/money';
import { quantity } from '../quantity/quantity';
import { bundle, carriageOn, isEarned, lineFor, type PickedNeed } from './bundle';
import { anyQuantity, priceFor, quantityToOrder, type PartTerms } from './terms';

const q = (n: number) => quantity(Math.round(n * 10_000));
const p = (n: number) => Math.round(n * 10_000) as UnitPrice;
const reel: PartTerms = {
  unit: 'XRL',
  factor: { many: 60, one: 1 },
  minimum: q(0),
  pack: q(1),
  prices: [{ from: q(0), price: p(177), priceQuantity: 1 }],
};
const bar: PartTerms = {
  unit: 'MTR',
  factor: { many: 1, one: 1 },
  minimum: q(20),
  pack: q(5),
  prices: [
    { from: q(0), price: p(7.4), priceQuantity: 1 },
    { from: q(50), price: p(6.9), priceQuantity: 1 },
  ],
};
const need = (needId: number, buy: number, change: Partial<PickedNeed> = {}): PickedNeed => ({
  needId,
  jobId: needId * 10,
  costCodeId: 3,
  supplierId: 1,
  sameAs: 'bar',
  stocked: false,
  buy: q(buy),
  terms: bar,
  estimate: null,
  ...change,
});

describe('quantity to order', () => {
  it.each([
    ['110 m in reels of 60 m', 110, reel, { quantity: q(2), wanted: 18_334, extra: 1666 }],
    ['below the minimum', 6, bar, { quantity: q(20), wanted: q(6), extra: q(14) }],
    ['up to the next pack', 21, bar, { quantity: q(25), wanted: q(21), extra: q(4) }],
    ['just a pack', 25, bar, { quantity: q(25), wanted: q(25), extra: q(0) }],
    ['any quantity', 7.25, anyQuantity('MTR'), { quantity: q(7.25), wanted: q(7.25), extra: q(0) }],
  ] as const)('%s', (_, short, terms, expected) => expect(quantityToOrder(q(short), terms)).toEqual(expected));

  it('is never short, never below the minimum, and always whole packs', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e7 }), (n) => {
        const { quantity: ordered, wanted } = quantityToOrder(quantity(n), bar);
        expect(ordered).toBeGreaterThanOrEqual(wanted);
        expect(ordered).toBeGreaterThanOrEqual(bar.minimum);
        expect(ordered % bar.pack).toBe(0);
      }),
    );
  });

  it('chooses the price break by the quantity', () => {
    expect(priceFor(q(49.9999), bar.prices)?.price).toBe(p(7.4));
    expect(priceFor(q(50), bar.prices)?.price).toBe(p(6.9));
    expect(priceFor(q(1), [{ from: q(5), price: p(1), priceQuantity: 1 }])).toBeUndefined();
  });
});

describe('one line for several jobs', () => {
  it('takes the price break of the whole line and keeps a split for each need', () => {
    const line = lineFor([need(1, 30), need(2, 20)], 'GBP');
    expect(line).toMatchObject({ price: p(6.9), net: 34_500, added: 0 });
    expect(line.splits.map((s) => [s.needId, s.quantity, s.net])).toEqual([
      [1, q(30), 20_700],
      [2, q(20), 13_800],
    ]);
  });

  it('sends what packs add to stores for a stocked item, else to the last job', () => {
    expect(lineFor([need(1, 14, { stocked: true })], 'GBP').splits.map((s) => [s.jobId, s.quantity])).toEqual([
      [10, q(14)],
      [null, q(6)],
    ]);
    expect(lineFor([need(1, 14)], 'GBP').splits.map((s) => [s.jobId, s.quantity, s.covers])).toEqual([
      [10, q(20), q(14)],
    ]);
    expect(lineFor([need(1, 110, { terms: reel, stocked: true })], 'GBP').added).toBe(q(10));
  });

  it('falls back on the estimate, and says so when there is no price at all', () => {
    const bare = { terms: anyQuantity('MTR') };
    expect(lineFor([need(1, 2, { ...bare, estimate: { price: p(5), priceQuantity: 1 } })], 'GBP').net).toBe(1000);
    expect(lineFor([need(1, 2, bare)], 'GBP').price).toBeNull();
  });

  it('never loses a piece or a penny on the way', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 1e6 }), { minLength: 1, maxLength: 8 }),
        fc.boolean(),
        fc.constantFrom(bar, reel),
        (buys, stocked, terms) => {
          const line = lineFor(
            buys.map((b, k) => need(k + 1, 1, { buy: quantity(b), stocked, terms })),
            'GBP',
          );
          expect(line.splits.reduce((sum, s) => sum + s.quantity, 0)).toBe(line.amount.quantity);
          expect(line.splits.reduce((sum, s) => sum + s.net, 0)).toBe(line.net);
          expect(line.splits.reduce((sum, s) => sum + s.covers, 0)).toBe(buys.reduce((a, b) => a + b, 0));
        },
      ),
    );
  });
});

describe('bundles', () => {
  const suppliers = new Map([
    [1, { currency: 'GBP', carriage: { charge: minor(2500), freeFrom: minor(40_000) } }],
    [2, { currency: 'EUR', carriage: { charge: minor(900), freeFrom: null } }],
  ]);

  it('make one order for each supplier, and one line for the same part', () => {
    const made = bundle([need(1, 30), need(2, 5, { supplierId: 2, sameAs: 'other' }), need(3, 20)], suppliers);
    expect(made.map((b) => [b.supplierId, b.lines.length, b.goods, b.carriage])).toEqual([
      [1, 1, 34_500, 2500],
      [2, 1, 14_800, 900],
    ]);
  });

  it('carry free from the limit on', () => {
    const carriage = { charge: minor(2500), freeFrom: minor(40_000) };
    expect([39_999, 40_000].map((g) => carriageOn(minor(g), carriage))).toEqual([2500, 0]);
    expect(carriageOn(minor(1_000_000), { charge: minor(900), freeFrom: null })).toBe(900);
  });

  it('know the carriage that an order no longer owes, and no other charge', () => {
    const carriage = { charge: minor(2500), freeFrom: minor(40_000) };
    const earned = (kind: string, net: number, goods: number) =>
      isEarned({ kind, net: minor(net) }, minor(goods), carriage);
    expect(earned('charge', 2500, 40_000)).toBe(true);
    expect(earned('charge', 2500, 39_999)).toBe(false);
    expect(earned('charge', 3000, 40_000)).toBe(false);
    expect(earned('goods', 2500, 40_000)).toBe(false);
    expect(isEarned({ kind: 'charge', net: minor(900) }, minor(1e8), { charge: minor(900), freeFrom: null })).toBe(
      false,
    );
  });

  it('know every supplier', () => expect(() => bundle([need(1, 1, { supplierId: 9 })], suppliers)).toThrow(RangeError));
});
