import { lineNet, minor, ZERO, type Minor, type UnitPrice } from '../money/money';
import { divideRounded } from '../money/decimal';
import { addQ, atLeastNone, NONE, quantity, type Quantity } from '../quantity/quantity';
import { coverOf, NOTHING, type Amounts, type SplitState } from '../tab/stages';

/** How far a need is covered, all in the need's own unit. */
export type Coverage = {
  readonly needed: Quantity;
  readonly reserved: Quantity;
  readonly drafted: Quantity;
  /** On sent orders, less what was called off or closed short. */
  readonly ordered: Quantity;
  readonly issued: Quantity;
};

/** open = quantity − reserved − drafted − ordered − issued, not below 0. */
export const openOf = (c: Coverage): Quantity =>
  atLeastNone(quantity(c.needed - c.reserved - c.drafted - c.ordered - c.issued));

export type Estimate = { readonly price: UnitPrice | null; readonly priceQuantity: number };

/**
 * Planned money of a need: open × estimated price + what its reserved pieces cost in stores.
 * A need with no price is planned at 0.
 *
 * @returns minor units of `currency`
 */
export function plannedOf(c: Coverage, estimate: Estimate, currency: string, reservedCost: Minor = ZERO): Amounts {
  const open = estimate.price === null ? ZERO : lineNet(openOf(c), estimate.price, estimate.priceQuantity, currency);
  return { ...NOTHING, planned: minor(open + reservedCost) };
}

/** A split that covers a need; `covers` is what its whole quantity is in the need's unit. */
export type CoveringSplit = SplitState & { readonly covers: Quantity };

/** The part of the need's quantity that a split covers now, in the need's unit. */
export function coveredBy(split: CoveringSplit): Quantity {
  const kept = coverOf(split);
  if (kept === split.ordered) return split.covers;
  return quantity(divideRounded(BigInt(split.covers) * BigInt(kept), BigInt(split.ordered)));
}

/** Adds up what the splits of a need cover. */
export function coverage(needed: Quantity, splits: readonly CoveringSplit[]): Coverage {
  const sum = (of: readonly CoveringSplit[]) => addQ(NONE, ...of.map(coveredBy));
  return {
    needed,
    reserved: NONE,
    drafted: sum(splits.filter((s) => s.commitment === 'drafted')),
    ordered: sum(splits.filter((s) => s.commitment !== 'drafted')),
    issued: NONE,
  };
}
