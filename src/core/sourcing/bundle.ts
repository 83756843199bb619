import { lineNet, minor, ZERO, type Minor, type UnitPrice } from '../money/money';
import { spread, spreadMoney } from '../money/spread';
import { groupBy } from '../group';
import { addQ, fromSupplierUnit, quantity, type Quantity } from '../quantity/quantity';
import { priceFor, quantityToOrder, type OrderQuantity, type PartTerms } from './terms';

/** A need as Gather picks it; `open` is in the need's unit. */
export type PickedNeed = {
  readonly needId: number;
  readonly jobId: number;
  readonly costCodeId: number;
  readonly supplierId: number;
  /** Needs with the same key go on one line: same item, or the same words, with the same supplier. */
  readonly sameAs: string;
  readonly stocked: boolean;
  readonly buy: Quantity;
  readonly terms: PartTerms;
  readonly estimate: { readonly price: UnitPrice; readonly priceQuantity: number } | null;
};

export type PlannedSplit = {
  /** null when the split is for stores. */
  readonly needId: number | null;
  readonly jobId: number | null;
  readonly costCodeId: number | null;
  /** In the line's unit. */
  readonly quantity: Quantity;
  /** What it covers in the need's unit; 0 for stores. */
  readonly covers: Quantity;
  /** Minor units of the order's currency. */
  readonly net: Minor;
};

export type PlannedLine = {
  readonly sameAs: string;
  readonly amount: OrderQuantity;
  /** What minimum and pack add, in the need's unit. */
  readonly added: Quantity;
  readonly unit: string;
  readonly price: UnitPrice | null;
  readonly priceQuantity: number;
  readonly net: Minor;
  readonly splits: readonly PlannedSplit[];
};

/**
 * Makes one order line of needs for the same part: quantities add up, minimum and pack apply to the sum,
 * the price break is chosen by the whole line, and each need keeps its own split. What minimum and pack add
 * goes to stores for a stocked item, else to the last need's job.
 *
 * @param needs - at least one, all of the same part and supplier
 * @param currency - of the supplier; the net amounts are in its minor units
 */
export function lineFor(needs: readonly PickedNeed[], currency: string): PlannedLine {
  const first = needs[0];
  if (first === undefined) throw new RangeError('A line needs at least one need.');
  const amount = quantityToOrder(addQ(...needs.map((n) => n.buy)), first.terms);
  const found = priceFor(amount.quantity, first.terms.prices) ?? needs.find((n) => n.estimate !== null)?.estimate;
  const price = found?.price ?? null;
  const priceQuantity = found?.priceQuantity ?? 1;
  const net = price === null ? ZERO : lineNet(amount.quantity, price, priceQuantity, currency);
  const wanted = spread(
    amount.wanted,
    needs.map((n) => n.buy),
  ).map(quantity);
  const toStores = first.stocked && amount.extra > 0;
  const forJobs = needs.map((n, k) => ({
    needId: n.needId,
    jobId: n.jobId,
    costCodeId: n.costCodeId,
    covers: n.buy,
    quantity: quantity((wanted[k] ?? 0) + (!toStores && k === needs.length - 1 ? amount.extra : 0)),
  }));
  const stores = { needId: null, jobId: null, costCodeId: null, covers: quantity(0), quantity: amount.extra };
  const splits = toStores ? [...forJobs, stores] : forJobs;
  const nets = spreadMoney(
    net,
    splits.map((s) => s.quantity),
  );
  return {
    sameAs: first.sameAs,
    amount,
    added: quantity(
      Math.max(fromSupplierUnit(amount.quantity, first.terms.factor) - addQ(...needs.map((n) => n.buy)), 0),
    ),
    unit: first.terms.unit,
    price,
    priceQuantity,
    net,
    splits: splits.map((s, k) => ({ ...s, net: nets[k] ?? ZERO })),
  };
}

export type Carriage = { readonly charge: Minor; readonly freeFrom: Minor | null };

export type Bundle = {
  readonly supplierId: number;
  readonly lines: readonly PlannedLine[];
  readonly goods: Minor;
  readonly carriage: Minor;
};

/** What the supplier charges for carriage on goods of this value; nothing from its free limit on. */
export const carriageOn = (goods: Minor, { charge, freeFrom }: Carriage): Minor =>
  freeFrom !== null && goods >= freeFrom ? ZERO : charge;

/** Whether a line is the supplier's own charge for carriage, which goods of this value no longer owe. */
export const isEarned = (
  line: { readonly kind: string; readonly net: Minor },
  goods: Minor,
  carriage: Carriage,
): boolean => line.kind === 'charge' && line.net === carriage.charge && carriageOn(goods, carriage) === 0;

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
