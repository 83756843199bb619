import type { UnitPrice } from '../money/money';
import type { Quantity } from '../quantity/quantity';
import { priceFor, type PriceBreak } from './terms';

/** Where a price on a line comes from: the supplier's list, one of its breaks, or a person who typed it. */
export type PriceSource =
  | { readonly from: 'list' }
  | { readonly from: 'break'; readonly at: Quantity }
  | { readonly from: 'typed'; readonly listed: PriceBreak | undefined };

/**
 * Where a price comes from, for a whole line's quantity.
 * @param prices - the supplier's, for its unit; none for a part it does not list
 * @returns `typed` when it is not what the supplier lists for so many, with what it lists
 */
export function sourceOf(
  price: { readonly price: UnitPrice; readonly priceQuantity: number },
  quantity: Quantity,
  prices: readonly PriceBreak[],
): PriceSource {
  const listed = priceFor(quantity, prices);
  if (listed === undefined || listed.price * price.priceQuantity !== price.price * listed.priceQuantity)
    return { from: 'typed', listed };
  const first = Math.min(...prices.map((p) => p.from));
  return listed.from > first ? { from: 'break', at: listed.from } : { from: 'list' };
}
