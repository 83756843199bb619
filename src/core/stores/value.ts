import { divideRounded } from '../money/decimal';
import { minor, ZERO, type Minor } from '../money/money';
import { least, type Quantity } from '../quantity/quantity';
import type { Pile } from './pile';

/** A change of value: what a pile bears of it, and what no goods are left to bear. */
export type Borne = { readonly byPile: Minor; readonly beside: Minor };

const split = (value: number, byPile: number): Borne => ({ byPile: minor(byPile), beside: minor(value - byPile) });

/** A pile is never worth less than nothing, and an empty one is worth nothing. */
const within = (value: number, before: Pile, moved: Quantity): number =>
  before.quantity + moved === 0 ? -before.value : Math.max(value, -before.value);

/**
 * What goes back to its supplier takes along what it came for. What its pile cannot give, because the rest of it cost less or
 * more on average, is a difference.
 *
 * @param moved - how much goes, below zero
 * @param value - what it came for, at or below zero
 */
export const giveBackValue = (pile: Pile, moved: Quantity, value: Minor): Borne =>
  split(value, within(value, pile, moved));

/**
 * An invoice that differs from its order makes goods worth more or less: as many as are still there bear their share of
 * it, what has gone from stores since does not. In minor units of the company's currency.
 *
 * @param came - how much came of what is invoiced; all of the pile's goods are taken to be of it, as far as they go
 * @example 10 came, 4 lie there, 5.00 more: 2.00 by the pile, 3.00 beside
 */
export function revalue(pile: Pile, came: Quantity, value: Minor): Borne {
  if (pile.quantity <= 0 || came <= 0) return split(value, ZERO);
  const share = divideRounded(BigInt(value) * BigInt(least(pile.quantity, came)), BigInt(came));
  return split(value, Math.max(share, -pile.value));
}
