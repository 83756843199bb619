import type { Day } from '@/core/calendar/workdays';
import { AWAITED } from '@/core/orders/states';
import { addQ, NONE, type Quantity } from '@/core/quantity/quantity';
import { allot } from '@/core/receiving/receive';
import type { Db } from '@/store/db';
import { dockedLines } from '@/store/docked';
import { findOrder } from '@/store/orders';
import { among, listed, rowsOf, whereIn } from '@/store/rows';
import { AWAITS_SPLIT, COMES_ON } from '@/store/comes';

/** What is on its way to a line of a buy list. */
export type Coming = {
  /** The last of the days its orders are promised or wanted for; null when one has none, or nothing is on order. */
  readonly promisedOn: Day | null;
  /** What is here for it and waits for its inspection, in the need's unit. */
  readonly atDoor: Quantity;
};

/** What is on its way to lines of buy lists, by orders of their own and by what comes to stores for them. */
export async function loadComing(db: Db, needIds: readonly number[]): Promise<(needId: number) => Coming> {
  const ids = JSON.stringify(needIds);
  const days = await rowsOf<{ needId: number; day: Day | null }>(
    db.raw(
      `select s.need_id, case when count(*) = count(${COMES_ON}) then max(${COMES_ON}) end as day from
       (select need_id, line_id, received, given_up, quantity from split where need_id in (select value from json_each(?))
        union all select r.need_id, s.line_id, s.received, s.given_up, s.quantity from reservation r join split s on s.id = r.split_id
          where r.need_id in (select value from json_each(?))) s
     join order_line l on l.id = s.line_id join purchase_order o on o.id = l.order_id
     where o.state in (${listed(AWAITED)}) and ${AWAITS_SPLIT} group by s.need_id`,
      [ids, ids],
    ),
  );
  const dayOf = new Map(days.map((d) => [d.needId, d.day]));
  const door = await atTheDoor(db, needIds);
  return (id) => ({ promisedOn: dayOf.get(id) ?? null, atDoor: door.get(id) ?? NONE });
}

/** What waits to be inspected, as it would be shared among the needs if all of it were released. */
async function atTheDoor(db: Db, needIds: readonly number[]): Promise<Map<number, Quantity>> {
  const waiting = await rowsOf<{ orderId: number }>(
    db('split as s')
      .join('orderLine as l', 'l.id', 's.lineId')
      .whereIn('s.needId', among(db, needIds))
      .where('l.held', '>', 0)
      .distinct('l.orderId'),
  );
  const shares = new Map<number, Quantity>();
  for (const { orderId } of waiting) {
    const order = await findOrder(db, orderId);
    if (order === undefined) continue;
    const allotted = [...(await dockedLines(db, order)).values()].flatMap((l) => (l.held > 0 ? allot(l, l.held) : []));
    allotted.forEach((a) => shares.set(a.splitId, a.quantity));
  }
  const splits = await whereIn(db, 'split', 'id', [...shares.keys()]);
  const byNeed = new Map<number, Quantity>();
  for (const { id, needId } of splits)
    if (needId !== null) byNeed.set(needId, addQ(byNeed.get(needId) ?? NONE, shares.get(id) ?? NONE));
  return byNeed;
}
