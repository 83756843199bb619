import type { Day } from '@/core/calendar/workdays';
import { groupBy } from '@/core/group';
import type { UnitPrice } from '@/core/money/money';
import type { Db } from './db';
import { partKey } from './gathering';
import { among, rowsOf } from './rows';

/** A price paid, in the supplier's currency and for its unit, on an order that was sent. */
export type Paid = {
  readonly price: UnitPrice;
  readonly priceQuantity: number;
  readonly unit: string;
  readonly on: Day;
};

/** A price paid before, with where. */
export type Past = Paid & { readonly supplier: string; readonly currency: string; readonly order: string };

const PAST = 5;

/** The last five prices paid for items, wherever, by item; the latest first. */
export async function loadPast(db: Db, itemIds: readonly number[]): Promise<Map<number, Past[]>> {
  const rows = await rowsOf<Past & { itemId: number }>(
    db.raw(
      `select * from (
       select l.item_id, l.price, l.price_quantity, l.unit, o.sent_on as "on", s.name as supplier, o.currency, o.number as "order",
         row_number() over (partition by l.item_id order by o.sent_on desc, l.id desc) as n
       from order_line l join purchase_order o on o.id = l.order_id join supplier s on s.id = o.supplier_id
       where l.item_id in (select value from json_each(?)) and o.sent_on is not null and o.state <> 'cancelled' and l.price is not null
     ) where n <= ${PAST} order by item_id, n`,
      [JSON.stringify([...new Set(itemIds)])],
    ),
  );
  return groupBy(rows, (r) => r.itemId);
}

/** The last price paid for items, by supplier and item. */
export async function loadPaid(db: Db, itemIds: readonly number[]): Promise<Map<string, Paid>> {
  const newest = db('orderLine as l')
    .join('purchaseOrder as o', 'o.id', 'l.orderId')
    .whereIn('l.itemId', among(db, itemIds))
    .whereNotNull('o.sentOn')
    .whereNotNull('l.price')
    .whereNot('o.state', 'cancelled')
    .groupBy('o.supplierId', 'l.itemId')
    .max({ id: 'l.id' });
  const rows = await rowsOf<
    Paid & {
      supplierId: number;
      itemId: number;
    }
  >(
    db('orderLine as l')
      .join('purchaseOrder as o', 'o.id', 'l.orderId')
      .whereIn('l.id', newest)
      .select('o.supplierId', 'l.itemId', 'l.price', 'l.priceQuantity', 'l.unit', { on: 'o.sentOn' }),
  );
  return new Map(rows.map(({ supplierId, itemId, ...paid }) => [partKey(supplierId, itemId), paid]));
}
