import type { Day } from '@/core/calendar/workdays';
import type { UnitPrice } from '@/core/money/money';
import type { PriceBreak } from '@/core/sourcing/terms';
import type { Db } from '@/store/connection';
import { loadItems, loadParts, loadSuppliers, partKey } from '@/store/gathering';
import type { Person } from '@/store/people';
import { among } from '@/store/rows';
import { permit } from './permit';

/** What a supplier says of a part, as an order line to it needs it. */
export type ItemTerms = {
  readonly itemId: number;
  /** The supplier's, or the item's own where the supplier does not list it. */
  readonly unit: string;
  readonly theirNumber: string;
  /** The supplier's, in its currency and for `unit`; none where it does not list the item. */
  readonly prices: readonly PriceBreak[];
  /** Working days. */
  readonly leadDays: number;
  /** The last price paid this supplier for it, on an order that was sent. */
  readonly paid: {
    readonly price: UnitPrice;
    readonly priceQuantity: number;
    readonly unit: string;
    readonly on: Day;
  } | null;
};

type PaidRow = { itemId: number; price: UnitPrice; priceQuantity: number; unit: string; on: Day };

/** Terms of one supplier for items; an item that is not there is left out. */
export async function loadItemTerms(
  db: Db,
  person: Person,
  supplierId: number,
  itemIds: readonly number[],
): Promise<ItemTerms[]> {
  permit(person, 'see money');
  const items = await loadItems(db, itemIds);
  const parts = await loadParts(db, itemIds);
  const supplier = (await loadSuppliers(db, [supplierId])).get(supplierId);
  const newest = db('orderLine as l')
    .join('purchaseOrder as o', 'o.id', 'l.orderId')
    .whereIn('l.itemId', among(db, itemIds))
    .where('o.supplierId', supplierId)
    .whereNotNull('o.sentOn')
    .whereNotNull('l.price')
    .whereNot('o.state', 'calledOff')
    .groupBy('l.itemId')
    .max({ id: 'l.id' });
  const rows = (await db('orderLine as l')
    .join('purchaseOrder as o', 'o.id', 'l.orderId')
    .whereIn('l.id', newest)
    .select('l.itemId', 'l.price', 'l.priceQuantity', 'l.unit', { on: 'o.sentOn' })) as PaidRow[];
  const paid = new Map(rows.map(({ itemId, ...row }) => [itemId, row]));
  return [...items.values()].map((item) => {
    const part = parts.get(partKey(supplierId, item.id));
    return {
      itemId: item.id,
      unit: part?.terms.unit ?? item.unit,
      theirNumber: part?.theirNumber ?? '',
      prices: part?.terms.prices ?? [],
      leadDays: part?.leadDays ?? supplier?.leadDays ?? 0,
      paid: paid.get(item.id) ?? null,
    };
  });
}

/** Terms of an order's supplier for items that are to stand on it. */
export async function loadOrderTerms(db: Db, person: Person, number: string, itemIds: readonly number[]) {
  const order = await db('purchaseOrder').where({ number }).first('supplierId');
  return order === undefined ? undefined : loadItemTerms(db, person, order.supplierId, itemIds);
}
