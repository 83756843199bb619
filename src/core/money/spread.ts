import { minor, type Minor } from './money';

/**
 * Spreads a whole over parts by weight with the method of largest remainders (Hamilton's method):
 * every part gets its share rounded towards zero, and the units left go to the largest remainders,
 * the earlier part first. The parts always add up to the whole.
 *
 * @param whole - any integer; a negative one is spread like its positive and turned back
 * @param weights - one non-negative integer for each part; when all are 0 the parts weigh the same
 * @returns one integer for each weight, in order
 * @throws RangeError for no parts, or a negative or fractional weight
 * @example spread(100, [1, 1, 1]) // [34, 33, 33]
 */
export function spread(whole: number, weights: readonly number[]): number[] {
  if (weights.length === 0) throw new RangeError('There is nothing to spread over.');
  if (weights.some((w) => !Number.isSafeInteger(w) || w < 0))
    throw new RangeError('A weight must be a whole number from 0.');
  const even = weights.every((w) => w === 0);
  const shares = weights.map((w) => (even ? 1n : BigInt(w)));
  const total = shares.reduce((sum, w) => sum + w, 0n);
  const size = BigInt(Math.abs(whole));
  const parts = shares.map((w) => (size * w) / total);
  const remainders = shares.map((w, index) => ({ index, rest: (size * w) % total }));
  const left = Number(size - parts.reduce((sum, p) => sum + p, 0n));
  remainders
    .sort((a, b) => (a.rest === b.rest ? a.index - b.index : a.rest > b.rest ? -1 : 1))
    .slice(0, left)
    .forEach(({ index }) => (parts[index] = (parts[index] ?? 0n) + 1n));
  return parts.map((p) => (whole < 0 && p !== 0n ? -Number(p) : Number(p)));
}

/** The same for money: minor units over weights. */
export const spreadMoney = (whole: Minor, weights: readonly number[]): Minor[] => spread(whole, weights).map(minor);

/**
 * Shares out a whole by exact shares that may lie on both sides of zero: each part is its own share rounded down, and
 * the units that are left go to the largest remainders, the earlier part first.
 *
 * @param whole - the rounded sum of the shares
 * @param shares - numerators over `per`, whole numbers
 * @returns one integer for each share; they add up to the whole
 * @example spreadSigned(10, [20_000n, -10_000n], 1000n) // [20, -10]
 */
export function spreadSigned(whole: number, shares: readonly bigint[], per: bigint): number[] {
  const exact = shares.map((share) => {
    const rest = ((share % per) + per) % per;
    return { part: (share - rest) / per, rest };
  });
  const order = exact
    .map(({ rest }, index) => ({ index, rest }))
    .sort((a, b) => (a.rest === b.rest ? a.index - b.index : a.rest > b.rest ? -1 : 1));
  const parts = exact.map((e) => e.part);
  let left = BigInt(whole) - parts.reduce((sum, p) => sum + p, 0n);
  const step = left < 0n ? -1n : 1n;
  for (let k = 0; left !== 0n && order.length > 0; k += 1, left -= step) {
    const at = (step > 0n ? order : order.toReversed())[k % order.length]?.index ?? 0;
    parts[at] = (parts[at] ?? 0n) + step;
  }
  return parts.map(Number);
}
