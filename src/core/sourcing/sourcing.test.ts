import fc from 'fast-check';
import { minor, type UnitPrice } from '../money/money';
import { fromSupplierUnit, quantity } from '../quantity/quantity';
import { bundle, carriageOn, isEarned, lineFor, type PickedNeed } from './bundle';
import { anyQuantity, priceFor, priceInUnit, quantityToOrder, type PartTerms } from './terms';

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
  kind: 'goods',
  unit: 'MTR',
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
    expect(line).toMatchObject({ price: { price: p(6.9), unit: 'MTR' }, net: 34_500, added: 0 });
    expect(line.splits.map((s) => [s.needId, s.quantity])).toEqual([
      [1, q(30)],
      [2, q(20)],
    ]);
  });

  it('sends what packs add to stores for a stocked item, else to the last job', () => {
    expect(lineFor([need(1, 14, { stocked: true })], 'GBP').splits.map((s) => [s.jobId, s.quantity])).toEqual([
      [10, q(14)],
      [null, q(6)],
    ]);
    expect(lineFor([need(1, 14)], 'GBP').splits.map((s) => [s.jobId, s.needId, s.quantity])).toEqual([
      [10, 1, q(14)],
      [10, null, q(6)],
    ]);
    expect(lineFor([need(1, 110, { terms: reel, stocked: true })], 'GBP')).toMatchObject({
      added: q(10),
      amount: { quantity: q(2) },
      shareUnit: 'MTR',
    });
  });

  it('turns an estimate for a metre into one for a reel, and refuses what cannot be turned', () => {
    const unlisted = { ...reel, prices: [] };
    const metre = { price: p(8), priceQuantity: 1, unit: 'MTR' };
    const line = lineFor([need(1, 110, { terms: unlisted, estimate: metre })], 'GBP');
    expect([line.price, line.net]).toEqual([{ price: p(480), priceQuantity: 1, unit: 'XRL' }, 96_000]);
    expect(priceInUnit(metre, 'KGM', undefined)).toBeUndefined();
  });

  it('asks for whole reels when they are drafted, packs or none', () =>
    expect(quantityToOrder(q(70), { ...reel, pack: q(0) })).toMatchObject({ quantity: q(2), extra: 8333 }));

  it('falls back on the estimate, and says so when there is no price at all', () => {
    const bare = { terms: anyQuantity('MTR') };
    expect(
      lineFor([need(1, 2, { ...bare, estimate: { price: p(5), priceQuantity: 1, unit: 'MTR' } })], 'GBP').net,
    ).toBe(1000);
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
          expect(line.splits.reduce((sum, s) => sum + s.quantity, 0)).toBe(
            fromSupplierUnit(line.amount.quantity, terms.factor),
          );
          expect(line.splits.filter((s) => s.needId !== null).map((s) => s.quantity)).toEqual(buys);
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
    const earned = (is: boolean, goods: number) =>
      isEarned({ chargeKind: is ? 'carriage' : 'other' }, minor(goods), carriage);
    expect([earned(true, 40_000), earned(true, 39_999), earned(false, 40_000)]).toEqual([true, false, false]);
    expect(isEarned({ chargeKind: 'carriage' }, minor(1e8), { charge: minor(900), freeFrom: null })).toBe(false);
  });

  it('know every supplier', () => expect(() => bundle([need(1, 1, { supplierId: 9 })], suppliers)).toThrow(RangeError));
});
