import Big from 'big.js';
import fc from 'fast-check';
import type { UnitPrice } from '../money/money';
import { quantity } from '../quantity/quantity';
import { lineFor, piecesTyped, pricedFor, quantityFor, type Listed, type PricedLine } from './pieces';

const q = (n: number) => quantity(Math.round(n * 10_000));
const p = (n: number) => Math.round(n * 10_000) as UnitPrice;
const NOTHING: Listed = () => null;
const line = (change: Partial<PricedLine> = {}): PricedLine => ({
  per: 'piece',
  itemId: 1,
  supplierId: null,
  quantity: q(20),
  unit: 'MTR',
  cost: p(5),
  price: p(8),
  markup: null,
  ...change,
});

it.each([
  ['25, 50 100', [25, 50, 100]],
  ['50;25 50', [25, 50]],
  ['', []],
  ['0', undefined],
  ['ten', undefined],
  ['1.5', undefined],
  ['1 2 3 4 5 6 7', undefined],
  ['10000000', undefined],
])('“%s” are %j pieces', (text, pieces) => expect(piecesTyped(text)).toEqual(pieces));

describe('how much so many pieces take', () => {
  it.each([
    ['a length grows with them', line(), 25, 50],
    ['what is had once stays', line({ per: 'batch' }), 25, 20],
    ['bolts are not divided', line({ quantity: q(7), unit: 'C62' }), 25, 18],
    ['nor rounded beyond the last', line({ quantity: q(8), unit: 'C62' }), 5, 4],
    ['fewer take less', line(), 1, 2],
  ])('%s', (_, l, pieces, many) => expect(quantityFor(l, 10, pieces) / 10_000).toBe(many));

  it('is the exact share, rounded to the last place, by big.js', () =>
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 1e9 }),
        fc.integer({ min: 1, max: 1000 }),
        fc.integer({ min: 1, max: 1000 }),
        (own, written, pieces) => {
          const exact = new Big(own).times(pieces).div(written).round(0, Big.roundHalfUp).toNumber();
          expect(quantityFor(line({ quantity: quantity(own) }), written, pieces)).toBe(
            pieces === written ? own : Math.max(exact, 1),
          );
        },
      ),
    ));
});

describe('a quote for several numbers of pieces', () => {
  // 5.00 a metre, from 40 m on 4.50.
  const breaks: Listed = ({ itemId }, many) => (itemId === 1 ? p(many >= q(40) ? 4.5 : 5) : null);

  it('follows the breaks of what is bought at its list price, with its mark-up', () => {
    expect(lineFor(line({ markup: 2000 }), 10, 25, breaks)).toMatchObject({
      quantity: q(50),
      cost: p(4.5),
      price: p(5.4),
    });
    expect(lineFor(line(), 10, 25, breaks)).toMatchObject({ cost: p(4.5), price: p(8) });
  });
  it('leaves a cost that was typed, and one that nobody lists', () => {
    expect(lineFor(line({ cost: p(4.8) }), 10, 25, breaks).cost).toBe(p(4.8));
    expect(lineFor(line({ itemId: null }), 10, 25, breaks).cost).toBe(p(5));
    expect(lineFor(line(), 10, 25, NOTHING).cost).toBe(p(5));
  });

  it('is summed up side by side: setting up is paid once', () => {
    // 2 m at 5.00, sold at 8.00, and half an hour at 40.00, sold at 60.00, for each; 100.00 to set up, sold at 150.00.
    const lines = [
      line(),
      line({ itemId: null, quantity: q(5), unit: 'HUR', cost: p(40), price: p(60) }),
      line({ itemId: null, per: 'batch', quantity: q(1), unit: 'LS', cost: p(100), price: p(150) }),
    ];
    expect(pricedFor(lines, 10, [1, 10, 25], breaks, 'GBP')).toEqual([
      { pieces: 1, cost: 13_000, price: 19_600 },
      { pieces: 10, cost: 40_000, price: 61_000 },
      { pieces: 25, cost: 82_500, price: 130_000 },
    ]);
  });
  it('grows in proportion where nothing is had once and no price breaks', () =>
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 500 }), (pieces) => {
        const [one, many] = pricedFor([line({ quantity: q(3) })], 1, [1, pieces], NOTHING, 'GBP');
        expect(many?.cost).toBe((one?.cost ?? 0) * pieces);
        expect(many?.price).toBe((one?.price ?? 0) * pieces);
      }),
    ));
});
