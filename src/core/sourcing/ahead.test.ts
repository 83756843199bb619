import fc from 'fast-check';
import { lineNet, minor, type UnitPrice } from '../money/money';
import { quantity, type Quantity } from '../quantity/quantity';
import { breakAhead } from './ahead';
import { anyQuantity, priceFor, quantityToOrder, type PartTerms } from './terms';
import { todaysPrice } from './today';

const q = (n: number): Quantity => quantity(n * 10_000);
const price = (n: number) => Math.round(n * 10_000) as UnitPrice;
const at = (from: number, n: number) => ({ from: q(from), price: price(n), priceQuantity: 1 });
const terms = (change: Partial<PartTerms> = {}): PartTerms => ({
  ...anyQuantity('C62'),
  prices: [at(0, 10), at(20, 8.5), at(100, 7)],
  ...change,
});

describe('the next price break', () => {
  it.each([
    ['is told where more costs less', 18, terms(), { more: q(2), costs: minor(-1000) }],
    ['is told where it is near, though it costs more', 15, terms(), { more: q(5), costs: minor(2000) }],
    ['is not told where it is far away', 12, terms(), undefined],
    ['is reached by whole packs', 18, terms({ pack: q(12) }), { more: q(6), costs: minor(2400) }],
    ['is none beyond the last', 100, terms(), undefined],
    ['is none where no price holds for so little', 1, terms({ prices: [at(5, 10), at(6, 9)] }), undefined],
    ['is none without prices', 5, terms({ prices: [] }), undefined],
  ] as const)('%s', (_, ordered, of, expected) => {
    const found = breakAhead(q(ordered), of, 'GBP');
    if (expected === undefined) expect(found).toBeUndefined();
    else expect(found).toMatchObject(expected);
  });

  /** All-units discounts: the cheapest quantity is the need or a break (R. J. Tersine, Principles of Inventory and Materials Management, from memory). */
  it('never says that more costs less when it does not', () => {
    const breaks = fc.uniqueArray(fc.integer({ min: 1, max: 200 }), { minLength: 1, maxLength: 4 });
    fc.assert(
      fc.property(
        breaks,
        fc.array(fc.integer({ min: 1, max: 9000 }), { minLength: 4, maxLength: 4 }),
        fc.integer({ min: 1, max: 250 }),
        (froms, prices, n) => {
          const own = terms({ prices: [0, ...froms].map((from, k) => at(from, (prices[k % 4] ?? 1) / 100)) });
          const found = breakAhead(q(n), own, 'GBP');
          if (found === undefined) return;
          const cost = (x: Quantity) => {
            const p = priceFor(x, own.prices);
            return p === undefined ? NaN : lineNet(x, p.price, p.priceQuantity, 'GBP');
          };
          expect(found.costs).toBe(cost(found.at) - cost(q(n)));
          expect(quantityToOrder(found.at, own).quantity).toBe(found.at);
        },
      ),
    );
  });
});

describe('what a line costs today', () => {
  const line = {
    quantity: q(20),
    unit: 'C62',
    price: price(9),
    priceQuantity: 1,
    grossPrice: price(10),
    discount: 1000,
  };
  it('is its supplier’s price for so many, else what was paid', () => {
    expect(todaysPrice(line, terms(), true)).toEqual({
      price: price(8.5),
      priceQuantity: 1,
      grossPrice: null,
      discount: 0,
    });
    expect(todaysPrice(line, terms({ unit: 'XPK' }), true)).toMatchObject({
      price: price(9),
      grossPrice: price(10),
      discount: 1000,
    });
    expect(todaysPrice(line, undefined, true).price).toBe(price(9));
    expect(todaysPrice(line, undefined, false)).toMatchObject({ price: null, discount: 0 });
  });
});
