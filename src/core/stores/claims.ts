import { addQ, atLeastNone, least, NONE, quantity, subtractQ, type Quantity } from '../quantity/quantity';

/** What a need is to have from a source: of stock at a place, or of a part of an order that goes to stores. */
export type Claim = {
  readonly id: number;
  /** In the item's unit. */
  readonly quantity: Quantity;
  /** The same in the need's unit. */
  readonly share: Quantity;
  /** Reserved by a person; else a plan counts on it. */
  readonly firm: boolean;
  /** The day the need is wanted; those without one give way first. */
  readonly neededOn: string | null;
};

/** A claim cut to so much; 0 for one that is gone. */
export type Cut = { readonly id: number; readonly quantity: Quantity; readonly share: Quantity };

/** What of a source is free: no line has a claim on it, reserved by a person or counted on by a plan. */
export const freeOf = (there: Quantity, claimed: readonly Quantity[]): Quantity =>
  atLeastNone(subtractQ(there, addQ(NONE, ...claimed)));

/** By how much the company's free stock of an item is below its minimum. */
export const belowMinimum = ({ free, keep }: { readonly free: Quantity; readonly keep: Quantity }): Quantity =>
  atLeastNone(subtractQ(keep, free));

/** What of that is still to order, once what is drafted and on order for stores has come. */
export const toFillUp = (stock: Parameters<typeof belowMinimum>[0], coming: Quantity): Quantity =>
  atLeastNone(subtractQ(belowMinimum(stock), coming));

/** What is left of the share when only so much of a claim's quantity stays, rounded down so that nothing is covered twice. */
const shareOf = ({ quantity: whole, share }: Claim, kept: Quantity): Quantity =>
  kept === whole ? share : quantity(Number((BigInt(share) * BigInt(kept)) / BigInt(whole)));

/**
 * Cuts claims on a source down to what is there: what plans only count on gives way before what was reserved, and what
 * is needed later before what is needed sooner.
 *
 * @param there - in the item's unit
 * @returns the claims that are cut; none when there is enough for all
 */
export function cutTo(there: Quantity, claims: readonly Claim[]): Cut[] {
  const order = [...claims].sort(
    (a, b) => Number(b.firm) - Number(a.firm) || (a.neededOn ?? '~').localeCompare(b.neededOn ?? '~') || a.id - b.id,
  );
  let left = there;
  return order.flatMap((claim) => {
    const kept = least(left, claim.quantity);
    left = subtractQ(left, kept);
    if (kept === claim.quantity) return [];
    const share = shareOf(claim, kept);
    return [{ id: claim.id, quantity: share === 0 ? quantity(0) : kept, share }];
  });
}
