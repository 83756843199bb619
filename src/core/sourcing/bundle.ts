import { lineNet, minor, ZERO, type Minor } from '../money/money';
import { groupBy } from '../group';
import { addQ, fromSupplierUnit, quantity, type Factor, type Quantity } from '../quantity/quantity';
import { priceFor, priceInUnit, quantityToOrder, type OrderQuantity, type PartTerms, type Price } from './terms';

/** A need as Gather picks it; `buy` is in the need's unit. */
export type PickedNeed = {
  /** null for what is bought for stores and no job needs. */
  readonly needId: number | null;
  readonly jobId: number | null;
  readonly costCodeId: number | null;
  readonly supplierId: number;
  /** Needs with the same key go on one line: same item, or the same words, in the same unit, with the same supplier. */
  readonly sameAs: string;
  readonly kind: 'goods' | 'service';
  readonly stocked: boolean;
  readonly unit: string;
  readonly buy: Quantity;
  readonly terms: PartTerms;
  /** In the supplier's currency, for the need's unit. */
  readonly estimate: Price | null;
};

export type PlannedSplit = {
  /** null for what minimum and pack add. */
  readonly needId: number | null;
  /** null when the split is for stores. */
  readonly jobId: number | null;
  readonly costCodeId: number | null;
  /** In the need's unit. */
  readonly quantity: Quantity;
};

export type PlannedLine = {
  readonly sameAs: string;
  readonly kind: 'goods' | 'service';
  readonly amount: OrderQuantity;
  /** How its supplier sells it. */
  readonly terms: PartTerms;
  /** What minimum and pack add, in the need's unit. */
  readonly added: Quantity;
  readonly unit: string;
  readonly factor: Factor;
  readonly shareUnit: string;
  readonly price: Price | null;
  readonly net: Minor;
  readonly splits: readonly PlannedSplit[];
};

/**
 * Makes one order line of needs for the same part: quantities add up, minimum and pack apply to the sum, the price break
 * is chosen by the whole line, and each need keeps its exact share in its own unit. What minimum and pack add is a split
 * of its own: for stores when the item is stocked, else for the last need's job.
 *
 * @param needs - at least one, all of the same part, unit and supplier
 * @param currency - of the supplier; the net amount is in its minor units
 * @example 40 m of a reel of 60 m at 177.00: one reel, 40 m for the need and 20 m over
 */
export function lineFor(needs: readonly PickedNeed[], currency: string): PlannedLine {
  const [first] = needs;
  const last = needs.at(-1);
  if (first === undefined || last === undefined) throw new RangeError('A line needs at least one need.');
  const { terms, kind, sameAs, unit: shareUnit } = first;
  const wanted = addQ(...needs.map((n) => n.buy));
  const amount = quantityToOrder(wanted, terms);
  const listed = priceFor(amount.quantity, terms.prices);
  const estimate = needs.find((n) => n.estimate !== null)?.estimate ?? undefined;
  const price =
    listed === undefined
      ? estimate && priceInUnit(estimate, terms.unit, terms.factor)
      : { price: listed.price, priceQuantity: listed.priceQuantity, unit: terms.unit };
  const over = quantity(fromSupplierUnit(amount.quantity, terms.factor) - wanted);
  const own = over > 0 && amount.extra > 0;
  const forNeeds = needs.map(({ needId, jobId, costCodeId, buy }, k): PlannedSplit => {
    // Less than the last place of the supplier's unit is no share of its own.
    const rest = !own && k === needs.length - 1 ? over : 0;
    return { needId, jobId, costCodeId, quantity: quantity(buy + rest) };
  });
  const target = first.stocked ? { jobId: null, costCodeId: null } : { jobId: last.jobId, costCodeId: last.costCodeId };
  return {
    sameAs,
    kind,
    amount,
    terms,
    added: own ? over : quantity(0),
    unit: terms.unit,
    factor: terms.factor,
    shareUnit,
    price: price ?? null,
    net: price === undefined ? ZERO : lineNet(amount.quantity, price.price, price.priceQuantity, currency),
    splits: own ? [...forNeeds, { needId: null, ...target, quantity: over }] : forNeeds,
  };
}

export type Carriage = { readonly charge: Minor; readonly freeFrom: Minor | null };

export type Bundle = {
  readonly supplierId: number;
  readonly lines: readonly PlannedLine[];
  readonly goods: Minor;
  readonly carriage: Minor;
};

/** What a supplier charges for carriage, and from where on it does not. */
export const carriageOf = (supplier: {
  readonly carriage: Minor;
  readonly carriageFreeFrom: Minor | null;
}): Carriage => ({ charge: supplier.carriage, freeFrom: supplier.carriageFreeFrom });

const atLeastZero = (amount: number): Minor => minor(Math.max(amount, 0));

/** What goods of this value lack to free carriage; null from a supplier that grants none, or charges none. */
export const toFreeCarriage = (goods: Minor, { charge, freeFrom }: Carriage): Minor | null =>
  freeFrom === null || charge === 0 ? null : atLeastZero(freeFrom - goods);

/** What the supplier charges for carriage on goods of this value; nothing from its free limit on. */
export const carriageOn = (goods: Minor, carriage: Carriage): Minor =>
  toFreeCarriage(goods, carriage) === 0 ? ZERO : carriage.charge;

/** How far goods of this value are below the smallest order that a supplier takes; 0 where they are not. */
export const belowMinimumOrder = (goods: Minor, minimumOrder: Minor | null): Minor =>
  atLeastZero((minimumOrder ?? 0) - goods);

/** Whether a line is the supplier's carriage, which goods of this value no longer owe. */
export const isEarned = (line: { readonly chargeKind: string | null }, goods: Minor, carriage: Carriage): boolean =>
  line.chargeKind === 'carriage' && carriageOn(goods, carriage) === 0;

/**
 * Bundles picked needs into one order for each supplier, needs of the same part on one line.
 * Suppliers and lines stand in the order in which they were picked.
 */
export function bundle(
  needs: readonly PickedNeed[],
  suppliers: ReadonlyMap<number, { readonly currency: string; readonly carriage: Carriage }>,
): Bundle[] {
  return [...groupBy(needs, (n) => n.supplierId)].map(([supplierId, own]) => {
    const supplier = suppliers.get(supplierId);
    if (supplier === undefined) throw new RangeError(`Supplier ${supplierId} is not known.`);
    const lines = [...groupBy(own, (n) => n.sameAs).values()].map((same) => lineFor(same, supplier.currency));
    const goods = minor(lines.reduce((sum, l) => sum + l.net, 0));
    return { supplierId, lines, goods, carriage: carriageOn(goods, supplier.carriage) };
  });
}
