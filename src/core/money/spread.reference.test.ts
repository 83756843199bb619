import fc from 'fast-check';
import { spread } from './spread';

/** Every way to share a whole among so many parts. */
function* ways(whole: number, parts: number): Generator<number[]> {
  if (parts === 1) yield [whole];
  else
    for (let first = 0; first <= whole; first += 1)
      for (const rest of ways(whole - first, parts - 1)) yield [first, ...rest];
}

/**
 * Hamilton's method (largest remainders) is the one that makes the sum of the squared distances from the exact shares as
 * small as it can be: M. L. Balinski and H. P. Young, Fair Representation (1982), from memory. So it is compared with the
 * best of all ways there are, found by trying every one.
 */
describe('spreading by largest remainders, beside trying every way', () => {
  const distance = (found: readonly number[], whole: number, weights: readonly number[]) => {
    const total = weights.reduce((a, b) => a + b, 0);
    // Over the common denominator, so that nothing is rounded.
    return found.reduce((sum, part, k) => sum + (part * total - whole * (weights[k] ?? 0)) ** 2, 0);
  };

  it('comes as close to the exact shares as anything can', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 14 }),
        fc.array(fc.integer({ min: 0, max: 9 }), { minLength: 1, maxLength: 4 }),
        (whole, weights) => {
          fc.pre(weights.some((w) => w > 0));
          const best = Math.min(...[...ways(whole, weights.length)].map((w) => distance(w, whole, weights)));
          expect(distance(spread(whole, weights), whole, weights)).toBe(best);
        },
      ),
      { numRuns: 300 },
    );
  });
});
