import type { UnitPrice } from '../money/money';
import { quantity, SAME_UNIT, toSupplierUnit, type Factor, type Quantity } from '../quantity/quantity';

/** How one supplier sells one part. Quantities are in the supplier's unit. */
export type PartTerms = {
  readonly unit: string;
  readonly factor: Factor;
  /** Smallest quantity that may be ordered; 0 for none. */
  readonly minimum: Quantity;
  /** Only multiples of this are sold; 0 for any quantity. */
  readonly pack: Quantity;
  /** Price breaks, the smallest quantity first. */
  readonly prices: readonly PriceBreak[];
};

export type PriceBreak = { readonly from: Quantity; readonly price: UnitPrice; readonly priceQuantity: number };

export const anyQuantity = (unit: string): PartTerms => ({
  unit,
  factor: SAME_UNIT,
  minimum: quantity(0),
  pack: quantity(0),
  prices: [],
});

export type OrderQuantity = {
  /** What goes on the order line, in the supplier's unit. */
  readonly quantity: Quantity;
  /** The part of it that was needed. */
  readonly wanted: Quantity;
  /** What minimum and pack added; goes to stores for stocked items, else to the job. */
  readonly extra: Quantity;
};

/**
 * Quantity to order: shortfall → supplier's unit → at least the minimum → up to the next pack multiple.
 *
 * @param shortfall - above zero, in the need's unit
 * @example 110 m of a cable sold in reels of 60 m: { quantity: 2 reels, wanted: 1.8334 reels, extra: 0.1666 }
 */
export function quantityToOrder(shortfall: Quantity, terms: PartTerms): OrderQuantity {
  const wanted = toSupplierUnit(shortfall, terms.factor);
  const raised = Math.max(wanted, terms.minimum);
  const packed = terms.pack > 0 ? Math.ceil(raised / terms.pack) * terms.pack : raised;
  return { quantity: quantity(packed), wanted, extra: quantity(packed - wanted) };
}

/** The price that holds for a whole line's quantity; undefined when the supplier has none for so little. */
export const priceFor = (ordered: Quantity, prices: readonly PriceBreak[]): PriceBreak | undefined =>
  [...prices].sort((a, b) => b.from - a.from).find((p) => p.from <= ordered);
