import type { Day } from '@/core/calendar/workdays';
import type { UnitPrice } from '@/core/money/money';
import type { Db } from './connection';
import { partKey } from './gathering';
import { among } from './rows';

/** A price paid, in the supplier's currency and for its unit, on an order that was sent. */
export type Paid = {
  readonly price: UnitPrice;
  readonly priceQuantity: number;
  readonly unit: string;
  readonly on: Day;
};

/** The last price paid for items, by supplier and item. */
export async function loadPaid(db: Db, itemIds: readonly number[]): Promise<Map<string, Paid>> {
  const newest = db('orderLine as l')
    .join('purchaseOrder as o', 'o.id', 'l.orderId')
    .whereIn('l.itemId', among(db, itemIds))
    .whereNotNull('o.sentOn')
    .whereNotNull('l.price')
    .whereNot('o.state', 'calledOff')
    .groupBy('o.supplierId', 'l.itemId')
    .max({ id: 'l.id' });
  const rows = (await db('orderLine as l')
    .join('purchaseOrder as o', 'o.id', 'l.orderId')
    .whereIn('l.id', newest)
    .select('o.supplierId', 'l.itemId', 'l.price', 'l.priceQuantity', 'l.unit', { on: 'o.sentOn' })) as (Paid & {
    supplierId: number;
    itemId: number;
  })[];
  return new Map(rows.map(({ supplierId, itemId, ...paid }) => [partKey(supplierId, itemId), paid]));
}
