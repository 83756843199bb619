import { lineNet, minor, ZERO, type Minor, type UnitPrice } from '../money/money';
import { costOf, type TaxCode } from '../money/tax';
import { addQ, atLeastNone, NONE, quantity, type Quantity } from '../quantity/quantity';
import { coverOf, NOTHING, type Amounts, type SplitState } from '../tab/stages';

/** How far a need is covered, all in the need's own unit. */
export type Coverage = {
  readonly needed: Quantity;
  readonly reserved: Quantity;
  readonly drafted: Quantity;
  /** On sent orders, with what came over and was kept, less what was called off or closed short. */
  readonly ordered: Quantity;
  readonly issued: Quantity;
};

/** What is drafted, ordered, reserved or issued of a need already. */
export const coveredOf = (c: Coverage): Quantity => addQ(c.reserved, c.drafted, c.ordered, c.issued);

/** open = quantity − reserved − drafted − ordered − issued, not below 0. */
export const openOf = (c: Coverage): Quantity => atLeastNone(quantity(c.needed - coveredOf(c)));

export type Estimate = {
  /** In the company's currency, for the need's unit. */
  readonly price: UnitPrice | null;
  readonly priceQuantity: number;
  /** Of the supplier; null where none is chosen yet. */
  readonly tax: Pick<TaxCode, 'rate' | 'recoverable'> | null;
};

/**
 * Planned money of a need: open × estimated price with the tax that cannot be recovered, and what its reserved pieces
 * cost in stores. A need with no price is planned at 0.
 *
 * @returns minor units of `currency`
 */
export function plannedOf(c: Coverage, estimate: Estimate, currency: string, reservedCost: Minor = ZERO): Amounts {
  const { price, priceQuantity, tax } = estimate;
  const open = price === null ? ZERO : costOf(lineNet(openOf(c), price, priceQuantity, currency), tax);
  return { ...NOTHING, planned: minor(open + reservedCost) };
}

/** Adds up what the splits of a need cover. */
export function coverage(needed: Quantity, splits: readonly SplitState[]): Coverage {
  const sum = (of: readonly SplitState[]) => addQ(NONE, ...of.map(coverOf));
  return {
    needed,
    reserved: NONE,
    drafted: sum(splits.filter((s) => s.commitment === 'drafted')),
    ordered: sum(splits.filter((s) => s.commitment !== 'drafted')),
    issued: NONE,
  };
}
