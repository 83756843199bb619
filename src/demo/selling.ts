import { plusDays, type Day } from '@/core/calendar/workdays';
import { ALWAYS } from '@/core/sourcing/prices';
import type { Db } from '@/store/db';
import { insertOne } from '@/store/rows';
import { ALSO_SOLD, TO_COME } from './catalogue';

/** Further suppliers of parts, and prices that are to change. */
export async function layOutSelling(db: Db, today: Day, supplierId: ReadonlyMap<string, number>): Promise<void> {
  for (const [number, supplier, each, theirNumber, leadDays = null] of ALSO_SOLD) {
    const item = await db('item').where({ number }).first('id', 'unit');
    const part = { supplierId: supplierId.get(supplier), itemId: item?.id, unit: item?.unit, theirNumber, leadDays };
    const partId = await insertOne(db, 'supplierPart', part);
    await db.raw('insert into price_break (part_id, from_quantity, price) values (?, 0, ?)', [
      partId,
      Math.round(each * 10_000),
    ]);
  }
  for (const [supplier, days, percent] of TO_COME) {
    const parts = 'select id from supplier_part where supplier_id = ?';
    const from = plusDays(today, days);
    const of = supplierId.get(supplier) ?? 0;
    await db.raw(
      `insert into price_break (part_id, from_quantity, from_day, price, price_quantity)
       select part_id, from_quantity, ?, round(price * (100 + ?) / 1000000.0) * 10000, price_quantity from price_break where part_id in (${parts})`,
      [from, percent, of],
    );
    await db.raw(`update price_break set until_day = ? where from_day = ? and part_id in (${parts})`, [
      plusDays(from, -1),
      ALWAYS,
      of,
    ]);
  }
}
