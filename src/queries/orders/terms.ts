import type { Day } from '@/core/calendar/workdays';
import type { Quantity } from '@/core/quantity/quantity';
import type { PriceBreak } from '@/core/sourcing/terms';
import type { Db } from '@/store/db';
import { loadItems, loadParts, loadSuppliers, partKey } from '@/store/gathering';
import { loadPaid, loadPast, type Paid, type Past } from '@/store/paid';
import type { Person } from '@/store/people';
import { permit } from '../permit';

/** What a supplier says of a part, as an order line to it needs it. */
export type ItemTerms = {
  readonly itemId: number;
  /** The supplier's, or the item's own where the supplier does not list it. */
  readonly unit: string;
  /** The item's own unit, and the kilograms of one of it in ten-thousandths. */
  readonly item: { readonly unit: string; readonly weight: Quantity | null };
  readonly theirNumber: string;
  /** The supplier's, in its currency and for `unit`; none where it does not list the item. */
  readonly prices: readonly PriceBreak[];
  /** Working days. */
  readonly leadDays: number;
  /** The last price paid this supplier for it, on an order that was sent. */
  readonly paid: Paid | null;
  /** The last prices paid for it anywhere, the latest first. */
  readonly past: readonly Past[];
};

/** Terms of one supplier for items; an item that is not there is left out. */
export async function loadItemTerms(
  db: Db,
  person: Person,
  supplierId: number,
  itemIds: readonly number[],
  today: Day,
): Promise<ItemTerms[]> {
  permit(person, 'see money');
  const items = await loadItems(db, itemIds);
  const parts = await loadParts(db, itemIds, today);
  const supplier = (await loadSuppliers(db, [supplierId])).get(supplierId);
  const paid = await loadPaid(db, itemIds);
  const past = await loadPast(db, itemIds);
  return [...items.values()].map((item) => {
    const part = parts.get(partKey(supplierId, item.id));
    return {
      itemId: item.id,
      unit: part?.terms.unit ?? item.unit,
      item: { unit: item.unit, weight: item.weight },
      theirNumber: part?.theirNumber ?? '',
      prices: part?.terms.prices ?? [],
      leadDays: part?.leadDays ?? supplier?.leadDays ?? 0,
      paid: paid.get(partKey(supplierId, item.id)) ?? null,
      past: past.get(item.id) ?? [],
    };
  });
}

/** Terms of an order's supplier for items that are to stand on it. */
export async function loadOrderTerms(db: Db, person: Person, number: string, itemIds: readonly number[], today: Day) {
  const order = await db('purchaseOrder').where({ number }).first('supplierId');
  return order === undefined ? undefined : loadItemTerms(db, person, order.supplierId, itemIds, today);
}
