import fc from 'fast-check';
import { spread } from './spread';

const weights = fc.array(fc.integer({ min: 0, max: 1_000_000 }), { minLength: 1, maxLength: 12 });
const whole = fc.integer({ min: -1e9, max: 1e9 });

/** The same by another way: give out one unit after the other to the part that is furthest below its exact share. */
function handedOut(total: number, by: readonly number[]): number[] {
  const sum = by.reduce((a, b) => a + b, 0);
  const shares = by.map((w) => (sum === 0 ? 1 / by.length : w / sum) * Math.abs(total));
  const parts = shares.map((s) => Math.floor(s + 1e-9));
  for (let left = Math.abs(total) - parts.reduce((a, b) => a + b, 0); left > 0; left -= 1) {
    const lacks = shares.map((s, k) => s - (parts[k] ?? 0));
    const most = Math.max(...lacks);
    const k = lacks.findIndex((l) => l > most - 1e-9);
    parts[k] = (parts[k] ?? 0) + 1;
  }
  return parts.map((p) => (total < 0 && p !== 0 ? -p : p));
}

describe('spread', () => {
  it('gives the units left to the largest remainders, the earlier part first', () => {
    expect(spread(100, [1, 1, 1])).toEqual([34, 33, 33]);
    expect(spread(10, [5, 3, 1])).toEqual([6, 3, 1]);
    expect(spread(-100, [1, 1, 1])).toEqual([-34, -33, -33]);
    expect(spread(7, [0, 0])).toEqual([4, 3]);
    expect(spread(5, [0, 1, 0])).toEqual([0, 5, 0]);
  });

  it('always adds up to the whole', () => {
    fc.assert(
      fc.property(whole, weights, (total, by) => expect(spread(total, by).reduce((a, b) => a + b, 0)).toBe(total)),
    );
  });

  it('keeps every part within one unit of its exact share', () => {
    fc.assert(
      fc.property(
        whole,
        weights.filter((w) => w.some((x) => x > 0)),
        (total, by) => {
          const sum = by.reduce((a, b) => a + b, 0);
          spread(total, by).forEach((part, k) => expect(Math.abs(part - (total * (by[k] ?? 0)) / sum)).toBeLessThan(1));
        },
      ),
    );
  });

  it('agrees with handing out unit by unit', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -5000, max: 5000 }),
        fc.array(fc.integer({ min: 0, max: 100 }), { minLength: 1, maxLength: 7 }),
        (total, by) => expect(spread(total, by)).toEqual(handedOut(total, by)),
      ),
    );
  });

  it('refuses nothing to spread over, and weights that are no whole numbers', () => {
    expect(() => spread(1, [])).toThrow(RangeError);
    expect(() => spread(1, [-1])).toThrow(RangeError);
    expect(() => spread(1, [0.5])).toThrow(RangeError);
  });
});
