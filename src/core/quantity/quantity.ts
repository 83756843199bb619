import type { Brand } from '../brand';
import { divideRounded, formatDecimal } from '../money/decimal';
import { parseTyped } from '../money/sum';
import { LIMITS, TooLarge } from '../limits';
import { done, refusal, refused, type Result } from '../result';

/** A quantity in ten-thousandths of the unit that stands beside it. */
export type Quantity = Brand<number, 'Quantity'>;

export const PLACES = 4;
export const ONE = 10_000 as Quantity;
export const NONE = 0 as Quantity;
/** The largest quantity, in whole units. */
export const MOST = LIMITS.quantity / ONE;

export const quantity = (n: number): Quantity => {
  if (!Number.isSafeInteger(n)) throw new TooLarge();
  return (n === 0 ? 0 : n) as Quantity;
};

export const addQ = (...all: readonly Quantity[]): Quantity => quantity(all.reduce((sum, q) => sum + q, 0));
export const subtractQ = (from: Quantity, what: Quantity): Quantity => quantity(from - what);
export const atLeastNone = (q: Quantity): Quantity => quantity(Math.max(q, 0));
export const least = (...all: readonly Quantity[]): Quantity => quantity(Math.min(...all));

/**
 * Reads a quantity that must be above zero.
 * @example parseQuantity('2.5') // value 25000
 */
export function parseQuantity(text: string, places = PLACES): Result<Quantity> {
  const read = parseTyped(text, { places, most: MOST });
  if (!read.ok) return read;
  if (read.value <= 0) return refused(refusal('quantity.low', 'Enter a quantity above zero.'));
  return done(quantity(read.value * 10 ** (PLACES - places)));
}

/** @example formatQuantity(25000 as Quantity) // '2.5' */
export const formatQuantity = (q: Quantity): string => formatDecimal(q, PLACES, 0);

/**
 * An exact conversion between two units of one part: `many` of the need's unit are in `one` of the supplier's.
 * A reel of 60 m is { many: 60, one: 1 }; bar at 0.888 kg a metre, sold by the kilogram, is { many: 1000, one: 888 }.
 */
export type Factor = { readonly many: number; readonly one: number };

export const SAME_UNIT: Factor = { many: 1, one: 1 };

/** Two conversions, one after the other. */
export const through = (a: Factor, b: Factor): Factor => {
  const [many, one] = [a.many * b.many, a.one * b.one];
  const common = divisor(many, one);
  return { many: many / common, one: one / common };
};

const divisor = (a: number, b: number): number => (b === 0 ? a : divisor(b, a % b));

/** The supplier's units that hold a quantity in the need's unit, rounded up to four places so that nothing is short. */
export function toSupplierUnit(q: Quantity, factor: Factor): Quantity {
  const size = BigInt(q) * BigInt(factor.one);
  const per = BigInt(factor.many);
  return quantity(Number((size + per - 1n) / per));
}

/** The need's units in a quantity of the supplier's unit, to four places. */
export const fromSupplierUnit = (q: Quantity, factor: Factor): Quantity =>
  quantity(divideRounded(BigInt(q) * BigInt(factor.many), BigInt(factor.one)));

/**
 * What a further quantity adds in the need's unit, after `before`. Rounded on the running total, so that steps of any
 * size come to the same as one.
 */
export const addedInNeedUnit = (before: Quantity, further: Quantity, factor: Factor): Quantity =>
  subtractQ(fromSupplierUnit(addQ(before, further), factor), fromSupplierUnit(before, factor));
