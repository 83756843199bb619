import { rowsOf } from '@/store/rows';
import type { Day } from '@/core/calendar/workdays';
import type { UnitPrice } from '@/core/money/money';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';
import { permit } from '../permit';

/** A part that a supplier was paid for, and how often. */
export type PaidPart = {
  readonly itemId: number;
  readonly number: string;
  readonly name: string;
  readonly times: number;
};

/** Prices of a part at a supplier, for one of a unit and in the supplier's currency. */
export type PriceCourse = {
  readonly unit: string;
  /** As it was ordered, the earliest first. */
  readonly paid: readonly { readonly day: Day; readonly price: number; readonly order: string }[];
  /** As it is listed for the least quantity, from a day until a day. */
  readonly listed: readonly { readonly fromDay: Day; readonly untilDay: Day | null; readonly price: number }[];
};

const PARTS = 40;
const POINTS = 200;

/** What a supplier was paid for most often. */
export async function listPaidParts(db: Db, person: Person, supplierId: number): Promise<PaidPart[]> {
  permit(person, 'see money');
  return rowsOf<PaidPart>(
    db.raw(
      `select i.id as item_id, i.number, i.name, count(*) as times
     from purchase_order o join order_line l on l.order_id = o.id join item i on i.id = l.item_id
     where o.supplier_id = ? and o.sent_on is not null and o.state <> 'cancelled' and l.price is not null
     group by i.id order by times desc, i.number limit ${PARTS}`,
      [supplierId],
    ),
  );
}

type Row = { readonly price: UnitPrice; readonly priceQuantity: number; readonly unit: string };

const each = ({ price, priceQuantity }: Row): number => price / priceQuantity;

/** How the price of a part went at a supplier; of the latest unit it was ordered in. */
export async function loadPriceCourse(
  db: Db,
  person: Person,
  supplierId: number,
  itemId: number,
): Promise<PriceCourse | undefined> {
  permit(person, 'see money');
  const paid = await rowsOf<
    Row & {
      day: Day;
      order: string;
    }
  >(
    db('purchaseOrder as o')
      .join('orderLine as l', 'l.orderId', 'o.id')
      .where({ 'o.supplierId': supplierId, 'l.itemId': itemId })
      .whereNotNull('o.sentOn')
      .whereNotNull('l.price')
      .whereNot('o.state', 'cancelled')
      .orderBy([{ column: 'o.sentOn', order: 'desc' }, 'o.id'])
      .limit(POINTS)
      .select('l.price', 'l.priceQuantity', 'l.unit', { day: 'o.sentOn', order: 'o.number' }),
  );
  const [latest] = paid;
  if (latest === undefined) return undefined;
  const listed = await rowsOf<Row & { fromDay: Day; untilDay: Day | null }>(
    db.raw(
      `select b.from_day, b.until_day, b.price, b.price_quantity, p.unit from supplier_part p join price_break b on b.part_id = p.id
     where p.supplier_id = ? and p.item_id = ? and p.unit = ?
       and b.from_quantity = (select min(x.from_quantity) from price_break x where x.part_id = p.id and x.from_day = b.from_day)
     order by b.from_day`,
      [supplierId, itemId, latest.unit],
    ),
  );
  return {
    unit: latest.unit,
    paid: paid
      .filter((p) => p.unit === latest.unit)
      .map((p) => ({ day: p.day, price: each(p), order: p.order }))
      .reverse(),
    listed: listed.map((l) => ({ fromDay: l.fromDay, untilDay: l.untilDay, price: each(l) })),
  };
}
