import { isService } from '../orders/kinds';
import { lineNet, minor, ZERO, type Minor, type UnitPrice } from '../money/money';
import { costOf, type LostTax } from '../money/tax';
import { addQ, atLeastNone, NONE, quantity, subtractQ, type Quantity } from '../quantity/quantity';
import { coverOf, NOTHING, type Amounts, type SplitState } from '../tab/stages';

/** How far a need is covered, all in the need's own unit. */
export type Coverage = {
  readonly needed: Quantity;
  readonly reserved: Quantity;
  readonly drafted: Quantity;
  /** On sent orders, with what came over and was kept, less what was cancelled or closed short. */
  readonly ordered: Quantity;
  /** What stores gave out to it, and transfers less what they took of it, so that it can be below zero. */
  readonly issued: Quantity;
};

/** What stores hold for a need, and what they gave out, in the need's unit. */
export type FromStock = {
  /** Of stock that is there. */
  readonly inStores: Quantity;
  /** Of what is on order for stores. */
  readonly coming: Quantity;
  readonly issued: Quantity;
  /** What it was given of the goods that its job owns: its own orders brought that, unless it is more than they did. */
  readonly ownIssued: Quantity;
  /** What transfers brought it of other jobs' goods, less what they took of its own. */
  readonly transferred: Quantity;
  /** What the first two cost, in minor units of the company's currency. */
  readonly cost: Minor;
};

export const NOTHING_FROM_STOCK: FromStock = {
  inStores: NONE,
  coming: NONE,
  issued: NONE,
  ownIssued: NONE,
  transferred: NONE,
  cost: ZERO,
};

/** What a need had beside its own orders: from stores, from other jobs, and of what its job had over from other lines. */
export function givenTo(
  { issued, ownIssued, transferred }: FromStock,
  splits: readonly Pick<SplitState, 'received'>[],
): Quantity {
  const own = addQ(transferred, ...splits.map((s) => s.received));
  return addQ(issued, transferred, atLeastNone(subtractQ(ownIssued, atLeastNone(own))));
}

/** What is drafted, ordered, reserved or issued of a need already. */
export const coveredOf = (c: Coverage): Quantity => addQ(c.reserved, c.drafted, c.ordered, c.issued);

/** open = quantity − reserved − drafted − ordered − issued, not below 0. */
export const openOf = (c: Coverage): Quantity => atLeastNone(quantity(c.needed - coveredOf(c)));

export type Estimate = {
  /** In the company's currency, for the need's unit. */
  readonly price: UnitPrice | null;
  readonly priceQuantity: number;
  /** Of the supplier; null where none is chosen yet. */
  readonly tax: LostTax | null;
};

/**
 * Planned money of a need: open × estimated price with the tax that cannot be recovered, and what its reserved pieces
 * cost in stores. A need with no price is planned at 0.
 *
 * @returns minor units of `currency`
 */
export function plannedOf(
  c: Coverage,
  estimate: Estimate,
  currency: string,
  held: FromStock = NOTHING_FROM_STOCK,
): Amounts {
  const { price, priceQuantity, tax } = estimate;
  const open = price === null ? ZERO : costOf(lineNet(openOf(c), price, priceQuantity, currency), tax);
  return { ...NOTHING, planned: minor(open + held.cost) };
}

/** Adds up what the splits of a need, and stores, cover. */
export function coverage(
  needed: Quantity,
  splits: readonly SplitState[],
  held: FromStock = NOTHING_FROM_STOCK,
): Coverage {
  const sum = (of: readonly SplitState[]) => addQ(NONE, ...of.map(coverOf));
  return {
    needed,
    reserved: addQ(held.inStores, held.coming),
    drafted: sum(splits.filter((s) => s.commitment === 'drafted')),
    ordered: sum(splits.filter((s) => s.commitment !== 'drafted')),
    issued: givenTo(held, splits),
  };
}

/** What came of a split, and whether the certificate that has to come with it is still to come. */
export type Arrived = Pick<SplitState, 'received'> & { readonly uncertified: boolean };

/**
 * What of a need keeps work from starting: what is not in, not there for it in stores, and not issued to it yet.
 * Goods whose certificate has to come with them are not in before it is. Services are not waited for.
 */
export const missingOf = (
  need: { readonly kind: 'goods' | 'service'; readonly quantity: Quantity },
  splits: readonly Arrived[],
  held: FromStock,
): Quantity => {
  if (isService(need)) return NONE;
  const usable = splits.map((s) => (s.uncertified ? NONE : s.received));
  return atLeastNone(subtractQ(need.quantity, addQ(held.inStores, givenTo(held, splits), ...usable)));
};
