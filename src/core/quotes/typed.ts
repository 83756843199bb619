import { TooLarge } from '../limits';
import { add, lineNet, parsePrice, subtract, ZERO, type Minor } from '../money/money';
import { parseQuantity } from '../quantity/quantity';

/** A quantity and what one of it costs or is sold for, as both are typed. */
export type TypedAmount = { readonly quantity: string; readonly price: string };

/**
 * What a line comes to as it is typed: nothing while one of the two cannot be read, or it is more than can be kept.
 * @returns minor units of the currency
 * @example netTyped({ quantity: '3*4', price: '2.50' }, 'GBP') // 3000
 */
export function netTyped({ quantity, price }: TypedAmount, currency: string): Minor {
  const [many, each] = [parseQuantity(quantity), parsePrice(price)];
  try {
    return many.ok && each.ok ? lineNet(many.value, each.value, 1, currency) : ZERO;
  } catch (error) {
    if (error instanceof TooLarge) return ZERO;
    throw error;
  }
}

/**
 * What a whole quote comes to while a part of its lines is typed over.
 *
 * @param whole - what all saved lines come to, in minor units
 * @param saved - the lines that are typed over, as they are saved
 * @param typed - the same as they are typed; some may be gone and others new
 */
export function sumWhileTyped(
  whole: Minor,
  saved: readonly TypedAmount[],
  typed: readonly TypedAmount[],
  currency: string,
): Minor {
  const sum = (lines: readonly TypedAmount[]) => add(ZERO, ...lines.map((l) => netTyped(l, currency)));
  return add(whole, subtract(sum(typed), sum(saved)));
}
