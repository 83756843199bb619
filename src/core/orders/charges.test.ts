import fc from 'fast-check';
import { minor, type UnitPrice } from '../money/money';
import { PAR } from '../money/rate';
import type { TaxCode } from '../money/tax';
import { ONE, quantity, SAME_UNIT, type Quantity } from '../quantity/quantity';
import { shareWeight } from '../quantity/weight';
import { allowanceOn, lessDiscount, pricesOf, SPREADS, type Spread } from './charges';
import { draftFaults, orderTotals, sendingFaults, valueOrder, withDiscounts, type OrderLine } from './order';

const vat: TaxCode = { id: 1, name: 'VAT 20 %', category: 'S', rate: 2000, recoverable: 10_000 };
const zero: TaxCode = { id: 2, name: 'Zero', category: 'Z', rate: 0, recoverable: 10_000 };
const terms = { currency: 'GBP', companyCurrency: 'GBP', rate: PAR };
const price = (n: number) => Math.round(n * 10_000) as UnitPrice;
const line = (change: Partial<OrderLine> = {}): OrderLine => ({
  kind: 'goods',
  description: 'Tube',
  quantity: quantity(100_000),
  unit: 'MTR',
  factor: SAME_UNIT,
  shareUnit: 'MTR',
  price: price(10),
  priceQuantity: 1,
  grossPrice: null,
  discount: 0,
  free: false,
  taxCodeId: 1,
  chargeKind: null,
  chargeCodeId: null,
  spread: 'value',
  weight: null,
  splits: [{ jobId: 7, costCodeId: 3, needId: null, quantity: quantity(100_000) }],
  ...change,
});
const charge = (change: Partial<OrderLine> = {}) =>
  line({
    kind: 'charge',
    chargeKind: 'carriage',
    description: 'Carriage',
    quantity: ONE,
    unit: 'C62',
    price: price(30),
    splits: [],
    ...change,
  });
const forJob = (jobId: number, q: Quantity, change: Partial<OrderLine> = {}) =>
  line({ quantity: q, splits: [{ jobId, costCodeId: 3, needId: null, quantity: q }], ...change });
const codes = (lines: readonly OrderLine[]) => draftFaults(lines, 'GBP').map((f) => f.code);

describe('a discount', () => {
  it.each([
    [9.85, 1250, 8.6188],
    [100, 10_000, 0],
    [0.0512, 700, 0.0476],
    [0.0001, 5000, 0.0001],
    [-4, 2500, -3],
  ])('makes %d less %d hundredths of a percent %d', (gross, discount, net) =>
    expect(lessDiscount(price(gross), discount)).toBe(price(net)),
  );

  it('lies between the price that is typed and the one that is paid, and on a charge is none of its own', () => {
    expect(pricesOf({ kind: 'goods', price: price(10), discount: 500 })).toEqual({
      price: price(9.5),
      grossPrice: price(10),
    });
    expect(pricesOf({ kind: 'goods', price: null, discount: 500 })).toEqual({ price: null, grossPrice: null });
    expect(pricesOf({ kind: 'charge', price: null, discount: 500 })).toEqual({ price: null, grossPrice: null });
  });

  it('on the order is a share of the lines that carry its tax, and moves with them', () => {
    const discount = charge({ chargeKind: 'discount', description: 'Discount', price: null, discount: 725 });
    const lines = [line(), line({ taxCodeId: 2, price: price(50) }), charge(), discount];
    expect(withDiscounts(lines, 'GBP').at(-1)?.price).toBe(price(-7.25));
    const totals = orderTotals(lines, [vat, zero], 'GBP');
    expect([totals.lines, totals.charges, totals.net, totals.tax]).toEqual([60_000, 2275, 62_275, 2455]);
    expect(allowanceOn(minor(10_001), 5000)).toBe(-5001);
  });

  it('says what it may be', () => {
    expect(codes([line({ discount: 10_001 })])).toEqual(['line.discount']);
    expect(codes([line({ discount: 10_000, price: price(0), grossPrice: price(10) })])).toEqual([]);
  });
});

describe('a price of nothing', () => {
  const faults = (change: Partial<OrderLine>) =>
    sendingFaults([line({ price: price(0), ...change })], 'GBP', 'a@b.example').map((f) => f.code);
  it('has to be meant', () => {
    expect(faults({})).toEqual(['line.free']);
    expect(faults({ free: true })).toEqual([]);
  });
});

describe('a charge', () => {
  const spread = (by: Spread, lines: OrderLine[]) =>
    valueOrder([...lines, charge({ spread: by })], [vat], terms)
      .at(-1)
      ?.splits.map((s) => [s.jobId, s.value]);
  const lead = forJob(1, quantity(20_000), { price: price(300), weight: quantity(500_000), description: 'Ballast' });
  const foam = forJob(2, quantity(100_000), { price: price(60), weight: quantity(10_000), description: 'Foam' });

  it('of 30.00 follows value, number or weight', () => {
    expect(spread('value', [lead, foam])).toEqual([
      [1, 1500],
      [2, 1500],
    ]);
    expect(spread('quantity', [lead, foam])).toEqual([
      [1, 500],
      [2, 2500],
    ]);
    // 2 of 50 kg and 10 of 1 kg: 100 kg and 10 kg.
    expect(spread('weight', [lead, foam])).toEqual([
      [1, 2727],
      [2, 273],
    ]);
  });

  it('is shared out by the amounts that a person says', () => {
    const parts = [
      { jobId: 1, costCodeId: 9, needId: null, quantity: ONE, amount: minor(2200) },
      { jobId: null, costCodeId: null, needId: null, quantity: ONE, amount: minor(800) },
    ];
    const own = charge({ spread: 'amounts', splits: parts });
    const [valued] = valueOrder([own], [vat], terms);
    expect(valued?.splits.map((s) => [s.jobId, s.costCodeId, s.value])).toEqual([
      [1, 9, 2200],
      [null, null, 800],
    ]);
    expect(codes([own])).toEqual([]);
    expect(codes([charge({ spread: 'amounts', splits: parts.slice(1) })])).toEqual(['split.sum']);
    expect(codes([charge({ spread: 'amounts' })])).toEqual(['line.split']);
    expect(codes([charge({ spread: 'amounts', splits: parts.map((p) => ({ ...p, amount: minor(0) })) })])).toEqual([
      'split.amount',
    ]);
  });

  it('by weight needs a weight of every part', () => {
    expect(codes([lead, line(), charge({ spread: 'weight' })])).toEqual(['charge.weight']);
    expect(codes([lead, charge({ spread: 'weight' })])).toEqual([]);
  });

  it('adds up to itself, however it is shared out', () => {
    const goods = fc.record({
      job: fc.integer({ min: 1, max: 4 }),
      q: fc.integer({ min: 1, max: 5_000_000 }),
      price: fc.integer({ min: 0, max: 9_000_000 }),
      weight: fc.integer({ min: 1, max: 900_000 }),
    });
    fc.assert(
      fc.property(
        fc.array(goods, { minLength: 1, maxLength: 6 }),
        fc.integer({ min: -900_000, max: 900_000 }),
        fc.constantFrom(...SPREADS.filter((s) => s !== 'amounts')),
        (all, amount, by) => {
          const lines = all.map((g) =>
            forJob(g.job, quantity(g.q), { price: g.price as UnitPrice, weight: quantity(g.weight) }),
          );
          const own = charge({ spread: by, price: (amount * 100) as UnitPrice });
          const valued = valueOrder([...lines, own], [vat], terms).at(-1);
          expect(valued?.splits.reduce((sum, s) => sum + s.value, 0)).toBe(amount);
        },
      ),
    );
  });
});

describe('the weight of a unit', () => {
  it('follows the item’s own unit where there is an exact way', () => {
    const tube = { unit: 'MTR', weight: quantity(18_000) };
    expect(shareWeight(tube, 'MTR')).toBe(18_000);
    expect(shareWeight(tube, 'MMT')).toBe(18);
    expect(shareWeight(tube, 'C62')).toBeNull();
    expect(shareWeight({ unit: 'MTR', weight: null }, 'MTR')).toBeNull();
  });
});
