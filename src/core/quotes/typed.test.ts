import Big from 'big.js';
import fc from 'fast-check';
import { netTyped, parseMarkup, priceTyped, sumsWhileTyped, type TypedLine } from './typed';

const amount = fc.integer({ min: 1, max: 99_999 }).map((n) => (n / 100).toFixed(2));
const line: fc.Arbitrary<TypedLine> = fc.record({
  quantity: amount,
  price: amount,
  sold: amount,
  costCodeId: fc.constantFrom(1, 2, 3, null),
  counts: fc.boolean(),
});
const sumsOf = (lines: readonly TypedLine[]) => sumsWhileTyped([], [], lines, 'GBP');

describe('a quote’s sums while a part of it is typed over', () => {
  it('are those of the lines elsewhere and of the typed ones, by cost code', () =>
    fc.assert(
      fc.property(fc.array(line), fc.array(line), fc.array(line), (elsewhere, saved, typed) => {
        const whole = sumsOf([...elsewhere, ...saved]);
        const told = sumsWhileTyped(whole, saved, typed, 'GBP').filter((c) => c.cost !== 0 || c.price !== 0);
        const byCode = (a: { costCodeId: number }, b: { costCodeId: number }) => a.costCodeId - b.costCodeId;
        expect([...told].sort(byCode)).toEqual([...sumsOf([...elsewhere, ...typed])].sort(byCode));
      }),
    ));
  it('leave out what is left open to the customer, and count half-typed lines for nothing', () => {
    const typed = { quantity: '3*4', price: '2.50', sold: '4', costCodeId: 1, counts: true };
    expect(sumsOf([typed, { ...typed, counts: false }, { ...typed, price: '2.5x', sold: '' }])).toEqual([
      { costCodeId: 1, cost: 3000, price: 4800 },
    ]);
  });
});

describe('a line while it is typed', () => {
  const pence = (quantity: string, price: string) =>
    new Big(quantity).times(price).times(100).round(0, Big.roundHalfUp).toNumber();
  it('comes to what another library works out', () =>
    fc.assert(
      fc.property(amount, fc.integer({ min: 0, max: 999_999 }), (quantity, n) => {
        const price = (n / 10_000).toFixed(4);
        expect(netTyped({ quantity, price }, 'GBP')).toBe(pence(quantity, price));
      }),
    ));
  it.each([
    ['', '1'],
    ['2', ''],
    ['2', 'dear'],
    ['0', '1'],
    ['10000000', '100000000'],
  ])('counts nothing of %s at %s', (quantity, price) => expect(netTyped({ quantity, price }, 'GBP')).toBe(0));
  it('reads sums, and rounds to what the currency has', () => {
    expect(netTyped({ quantity: '3*4', price: '2.50' }, 'GBP')).toBe(3000);
    expect(netTyped({ quantity: '3', price: '0.5' }, 'JPY')).toBe(2);
    expect(netTyped({ quantity: '1', price: '0.0005' }, 'KWD')).toBe(1);
  });
});

describe('a mark-up as it is typed', () => {
  it.each([
    ['40', '25', 500_000],
    ['40', '33.33 %', 533_320],
    ['3*10', '10+5', 345_000],
    ['40', '-100', 0],
  ])('%s and %s %%', (cost, markup, price) => expect(priceTyped(cost, markup)).toBe(price));
  it('gives no price below zero, nor of what cannot be read', () => {
    expect(parseMarkup('-101')).toMatchObject({ refusals: [{ code: 'markup.low' }] });
    expect([priceTyped('40', '-101'), priceTyped('x', '25'), priceTyped('40', 'x')]).toEqual([
      undefined,
      undefined,
      undefined,
    ]);
  });
});
