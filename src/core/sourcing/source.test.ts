import type { UnitPrice } from '../money/money';
import { quantity } from '../quantity/quantity';
import { sourceOf } from './source';

const at = (from: number, price: number, priceQuantity = 1) => ({
  from: quantity(from),
  price: price as UnitPrice,
  priceQuantity,
});
const PRICES = [at(0, 192_000), at(100_000, 184_000), at(500_000, 1_700_000, 10)];
const of = (price: number, pieces: number, per = 1) =>
  sourceOf({ price: price as UnitPrice, priceQuantity: per }, quantity(pieces * 10_000), PRICES);

it('tells a list price from a break, and both from what was typed', () => {
  expect(of(192_000, 9)).toEqual({ from: 'list' });
  expect(of(184_000, 10)).toEqual({ from: 'break', at: 100_000 });
  expect(of(184_000, 9)).toEqual({ from: 'typed', listed: PRICES[0] });
  expect(of(179_500, 10)).toEqual({ from: 'typed', listed: PRICES[1] });
});
it('takes 17.00 each and 170.00 per 10 for the same price', () =>
  expect(of(170_000, 50)).toEqual({ from: 'break', at: 500_000 }));
it('knows no list of a supplier that has none', () =>
  expect(sourceOf(PRICES[0] as never, quantity(1), [])).toEqual({ from: 'typed', listed: undefined }));
