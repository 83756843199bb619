import Big from 'big.js';
import fc from 'fast-check';
import type { Minor } from '../money/money';
import { netTyped, sumWhileTyped } from './typed';

const amount = fc.record({
  quantity: fc.integer({ min: 1, max: 99_999 }).map((n) => (n / 100).toFixed(2)),
  price: fc.integer({ min: 0, max: 999_999 }).map((n) => (n / 10_000).toFixed(4)),
});
const pence = (l: { quantity: string; price: string }) =>
  new Big(l.quantity).times(l.price).times(100).round(0, Big.roundHalfUp).toNumber();

describe('a quote while it is typed', () => {
  it('comes to what all its lines come to, worked out by another library', () =>
    fc.assert(
      fc.property(fc.array(amount), fc.array(amount), fc.array(amount), (before, saved, typed) => {
        const sum = (lines: typeof typed) => lines.reduce((all, l) => all + pence(l), 0);
        const whole = (sum(before) + sum(saved)) as Minor;
        expect(sumWhileTyped(whole, saved, typed, 'GBP')).toBe(sum(before) + sum(typed));
      }),
    ));
  it('is what it was while nothing is changed', () =>
    expect(sumWhileTyped(500 as Minor, [{ quantity: '2', price: '1' }], [{ quantity: '2', price: '1' }], 'GBP')).toBe(
      500,
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
