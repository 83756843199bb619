import { divideRounded } from '../money/decimal';
import type { UnitPrice } from '../money/money';
import {
  formatQuantity,
  ONE,
  quantity,
  SAME_UNIT,
  toSupplierUnit,
  type Factor,
  type Quantity,
} from '../quantity/quantity';
import { unitOf } from '../quantity/units';

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

/** A price for so many of a unit: 12.50 per 100 m. */
export type Price = { readonly price: UnitPrice; readonly priceQuantity: number; readonly unit: string };

/**
 * A price for one of the need's units, as a price for one of the supplier's, to four decimals.
 *
 * @param factor - how many of the need's units are in how many of the supplier's
 * @returns undefined when there is no exact conversion between the two units
 * @example 8.00 a metre, in reels of 60 m: 480.00 a reel
 */
export function priceInUnit(price: Price, unit: string, factor: Factor | undefined): Price | undefined {
  if (price.unit === unit) return price;
  if (factor === undefined) return undefined;
  const converted = divideRounded(BigInt(price.price) * BigInt(factor.many), BigInt(factor.one));
  return { price: converted as UnitPrice, priceQuantity: price.priceQuantity, unit };
}

/**
 * What one of the need's units costs at a price for the supplier's, to four decimals.
 * @example a reel of 60 m at 177.00: 2.95 a metre
 */
export const pricePerNeedUnit = ({ price, priceQuantity }: PriceBreak, { many, one }: Factor): UnitPrice =>
  divideRounded(BigInt(price) * BigInt(one), BigInt(many) * BigInt(priceQuantity)) as UnitPrice;

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
 * Quantity to order: shortfall → supplier's unit → at least the minimum → up to the next pack multiple, or to whole
 * pieces where the unit cannot be divided.
 *
 * @param shortfall - above zero, in the need's unit
 * @example 110 m of a cable sold in reels of 60 m: { quantity: 2 reels, wanted: 1.8334 reels, extra: 0.1666 }
 */
export function quantityToOrder(shortfall: Quantity, terms: PartTerms): OrderQuantity {
  const wanted = toSupplierUnit(shortfall, terms.factor);
  const raised = Math.max(wanted, terms.minimum);
  const pack = terms.pack > 0 ? terms.pack : unitOf(terms.unit).whole === true ? ONE : 1;
  const packed = Math.ceil(raised / pack) * pack;
  return { quantity: quantity(packed), wanted, extra: quantity(packed - wanted) };
}

/**
 * What can truly be bought, where that is more than the least that is sold: packs of 4, at least 10, make 12 the least.
 * @returns undefined when the least can be bought as it stands
 */
export function buyableWords({
  unit,
  minimum,
  pack,
}: Pick<PartTerms, 'unit' | 'minimum' | 'pack'>): string | undefined {
  const { quantity: least } = quantityToOrder(minimum, { ...anyQuantity(unit), minimum, pack });
  return minimum === 0 || least === minimum
    ? undefined
    : `In packs of ${formatQuantity(pack === 0 ? ONE : pack)} the minimum is ${formatQuantity(least)}.`;
}

/** The price that holds for a whole line's quantity; undefined when the supplier has none for so little. */
export const priceFor = (ordered: Quantity, prices: readonly PriceBreak[]): PriceBreak | undefined =>
  [...prices].sort((a, b) => b.from - a.from).find((p) => p.from <= ordered);
