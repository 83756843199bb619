import Big from 'big.js';
import fc from 'fast-check';
import { minor, type UnitPrice } from '../money/money';
import { marginShare, markupOf, priceWith } from './margin';

const price = (n: number) => Math.round(n * 10_000) as UnitPrice;

/**
 * Mark-up on cost and margin on price, with the equivalents that textbooks of business mathematics tabulate: a mark-up of
 * 25 % on cost is 20 % of the selling price, 33⅓ % is 25 %, 50 % is 33⅓ %, 100 % is 50 % (from memory).
 */
describe('mark-up on cost and margin on price, by the textbook’s table of equivalents', () => {
  it.each([
    [25, 20],
    [33.33, 25],
    [50, 33.33],
    [100, 50],
    [11.11, 10],
    [0, 0],
  ])('%d %% on cost are %d %% of the price', (markup, margin) => {
    const sold = priceWith(price(1000), Math.round(markup * 100));
    expect((marginShare(minor(100_000), minor(Math.round(sold / 100))) ?? 0) / 100).toBeCloseTo(margin, 1);
  });

  it('are the same by big.js, for any cost and mark-up', () =>
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 10_000_000 }),
        fc.integer({ min: -10_000, max: 100_000 }),
        (cost, markup) => {
          const exact = new Big(cost).times(10_000 + markup).div(10_000);
          expect(priceWith(cost as UnitPrice, markup)).toBe(exact.round(0, Big.roundHalfUp).toNumber());
        },
      ),
    ));
  it('come back from the price', () => {
    expect(markupOf(price(40), price(50))).toBe(2500);
    expect(markupOf(price(40), price(30))).toBe(-2500);
    expect(markupOf(price(0), price(30))).toBeUndefined();
    expect(marginShare(minor(4000), minor(0))).toBeUndefined();
  });
});
