import { rowsOf } from '@/store/rows';
import type { Day } from '@/core/calendar/workdays';
import type { UnitPrice } from '@/core/money/money';
import type { Quantity } from '@/core/quantity/quantity';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';
import { permit } from '../permit';

/** Something that was ordered of a supplier, as it was ordered last. */
export type OrderedBefore = {
  readonly lineId: number;
  readonly kind: 'goods' | 'service';
  readonly itemId: number | null;
  readonly number: string;
  readonly description: string;
  readonly theirNumber: string;
  readonly quantity: Quantity;
  readonly unit: string;
  readonly price: UnitPrice | null;
  readonly priceQuantity: number;
  readonly currency: string;
  readonly order: string;
  readonly on: Day;
  /** On how many orders it stood. */
  readonly times: number;
};

const SHOWN = 60;

/** What was ordered of an order's supplier before, each part once, the latest first. */
export async function loadOrderedBefore(
  db: Db,
  person: Person,
  number: string,
  words: string,
): Promise<OrderedBefore[] | undefined> {
  permit(person, 'see money');
  const order = await db('purchaseOrder').where({ number }).first('id', 'supplierId');
  if (order === undefined) return undefined;
  const like = `%${words.trim().replace(/[%_\\]/g, '\\$&')}%`;
  return rowsOf<OrderedBefore>(
    db.raw(
      `select * from (
       select l.id as line_id, l.kind, l.item_id, l.our_number as number, l.description, l.their_number, l.quantity, l.unit, coalesce(l.gross_price, l.price) as price, l.price_quantity,
         o.currency, o.number as "order", o.sent_on as "on",
         row_number() over (partition by coalesce(l.item_id, l.description) order by o.sent_on desc, l.id desc) as place,
         count(*) over (partition by coalesce(l.item_id, l.description)) as times
       from purchase_order o join order_line l on l.order_id = o.id
       where o.supplier_id = ? and o.id <> ? and o.sent_on is not null and o.state <> 'cancelled' and l.kind <> 'charge'
         and (l.description like ? escape '\\' or l.our_number like ? escape '\\' or l.their_number like ? escape '\\')
     ) where place = 1 order by "on" desc, line_id desc limit ${SHOWN}`,
      [order.supplierId, order.id, like, like, like],
    ),
  );
}
