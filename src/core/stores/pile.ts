import { divideRounded } from '../money/decimal';
import { minor, ZERO, type Minor } from '../money/money';
import { formatQuantity, quantity, type Quantity } from '../quantity/quantity';
import { wholeFault } from '../quantity/whole';
import { done, refusal, refused, type Result } from '../result';

/** What lies of one item at one place for one owner: a quantity in the item's unit, and its value. */
export type Pile = { readonly quantity: Quantity; readonly value: Minor };

/** What moves onto a pile, or off it when below zero. */
export type Move = Pile;

/**
 * What a quantity of a pile is worth, by the moving average: its share of the pile's value, rounded half away from zero.
 * Taking all of it takes all of its value, so that no penny is left on an empty place.
 *
 * @example 6 of 18 m worth 100.00: 33.33
 */
export const worth = (q: Quantity, pile: Pile): Minor =>
  pile.quantity === 0 ? ZERO : minor(divideRounded(BigInt(pile.value) * BigInt(q), BigInt(pile.quantity)));

/** Takes a quantity off a pile at what it is worth. */
export function take(q: Quantity, pile: Pile, name: string): Result<Move> {
  if (q <= 0) return refused(refusal('quantity.low', 'Enter a quantity above zero.', 'quantity'));
  if (q > pile.quantity)
    return refused(
      refusal(
        'stores.short',
        `Only ${formatQuantity(pile.quantity)} of ${name} in stock there. Enter ${formatQuantity(pile.quantity)} or less, or count the stock first.`,
        'quantity',
      ),
    );
  return done({ quantity: quantity(-q), value: minor(-worth(q, pile)) });
}

export type Counted = {
  readonly name: string;
  readonly unit: string;
  /** What was counted, and what one is worth where that is said, in minor units for the whole. */
  readonly quantity: Quantity;
  readonly value: Minor | null;
};

/**
 * The move that makes a pile what was counted. Where no value is said, what is there keeps its average, and what is
 * found on an empty place is worth nothing.
 */
export function count(counted: Counted, pile: Pile): Result<Move> {
  const whole = wholeFault(counted.quantity, counted.unit, counted.name, 'quantity');
  if (whole !== undefined) return refused(whole);
  if (counted.quantity < 0) return refused(refusal('quantity.low', 'Enter 0 or more.', 'quantity'));
  if (counted.value !== null && counted.value < 0) return refused(refusal('stores.value', 'Enter 0 or more.', 'value'));
  const value = counted.quantity === 0 ? ZERO : (counted.value ?? worth(counted.quantity, pile));
  return done({ quantity: quantity(counted.quantity - pile.quantity), value: minor(value - pile.value) });
}
