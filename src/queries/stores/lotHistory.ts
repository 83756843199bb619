import { rowsOf } from '@/store/rows';
import type { Day } from '@/core/calendar/workdays';
import type { Tracking } from '@/core/items/kinds';
import type { Quantity } from '@/core/quantity/quantity';
import { whereAre } from '@/store/stock/lots';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';
import type { StockMoveKind } from '@/store/tables';
import { permit } from '../permit';

/** One thing that happened to a piece or a lot. */
export type LotEvent = {
  readonly key: string;
  readonly day: Day;
  readonly at: string;
  readonly what: StockMoveKind | 'held' | 'rejected' | 'released';
  /** In the item's unit; below zero where it went. */
  readonly quantity: Quantity;
  readonly place: string | null;
  readonly bin: string | null;
  /** Whose it was then; null for stores. */
  readonly owner: string | null;
  /** The job it was issued to, or came back from. */
  readonly job: string | null;
  readonly order: string | null;
  readonly supplier: string | null;
  readonly receipt: string | null;
  readonly who: string;
  readonly reason: string;
};

export type LotWay = {
  readonly id: number;
  readonly number: string;
  readonly expiresOn: Day | null;
  readonly item: {
    readonly id: number;
    readonly number: string;
    readonly name: string;
    readonly unit: string;
    readonly tracking: Tracking;
  };
  /** Where it is now, in words; for a lot, all places that hold some of it. */
  readonly now: string;
  readonly lies: readonly {
    readonly place: string;
    readonly bin: string | null;
    readonly job: string | null;
    readonly quantity: Quantity;
  }[];
  readonly events: readonly LotEvent[];
};

/** Where a serial number or a lot has been, from its supplier to its job. No prices. */
export async function loadLotWay(db: Db, person: Person, lotId: number): Promise<LotWay | undefined> {
  permit(person, 'see stores');
  const lot = await db('lot').where({ id: lotId }).first();
  if (lot === undefined) return undefined;
  const item = await db('item').where({ id: lot.itemId }).first('id', 'number', 'name', 'unit', 'tracking');
  if (item === undefined) return undefined;
  const moves = await rowsOf<LotEvent>(
    db.raw(
      `select 'm' || m.id as key, m.day, m.at, m.kind as what, m.quantity, p.name as place, b.name as bin, w.number as owner, j.number as job,
       o.number as "order", s.name as supplier, r.number as receipt, e.name as who, m.reason
     from stock_move m join delivery_place p on p.id = m.place_id join person e on e.id = m.person_id
     left join bin b on b.id = m.bin_id left join job w on w.id = m.job_id left join issue i on i.id = m.issue_id left join job j on j.id = i.job_id
     left join split x on x.id = m.split_id left join order_line l on l.id = x.line_id left join purchase_order o on o.id = l.order_id
     left join supplier s on s.id = o.supplier_id left join receipt r on r.id = m.receipt_id
     where m.lot_id = ? and m.quantity <> 0 order by m.id`,
      [lotId],
    ),
  );
  const atDoor = await rowsOf<Omit<LotEvent, 'what' | 'quantity'> & { held: Quantity; rejected: Quantity }>(
    db.raw(
      `select 'd' || r.id || '/' || d.line_id as key, r.day, r.at, d.held, d.rejected, p.name as place, o.number as "order", s.name as supplier, r.number as receipt, e.name as who,
       coalesce(y.name, r.note) as reason
     from receipt_lot d join receipt r on r.id = d.receipt_id join order_line l on l.id = d.line_id join purchase_order o on o.id = r.order_id
     join supplier s on s.id = o.supplier_id join person e on e.id = r.person_id join delivery_place p on p.id = coalesce(l.place_id, o.place_id)
     left join receipt_line k on k.receipt_id = r.id and k.line_id = l.id left join reason y on y.id = k.reason_id
     where d.lot_id = ? order by r.id`,
      [lotId],
    ),
  );
  const doors = atDoor.flatMap(({ held, rejected, ...of }): LotEvent[] => {
    const none = { bin: null, owner: null, job: null };
    // What is released goes on as a move into stores.
    if (rejected !== 0) return [{ ...of, ...none, what: 'rejected', quantity: rejected }];
    return held > 0 ? [{ ...of, ...none, what: 'held', quantity: held }] : [];
  });
  const lies = (await db('stockSpot as x')
    .join('deliveryPlace as p', 'p.id', 'x.placeId')
    .leftJoin('bin as b', 'b.id', 'x.binId')
    .leftJoin('job as j', 'j.id', 'x.jobId')
    .where('x.lotId', lotId)
    .where('x.quantity', '>', 0)
    .orderBy('p.id')
    .select('x.quantity', { place: 'p.name', bin: 'b.name', job: 'j.number' })) as LotWay['lies'];
  const where = (await whereAre(db, [lotId])).get(lotId);
  return {
    id: lotId,
    number: lot.number,
    expiresOn: lot.expiresOn,
    item,
    now: where?.words ?? '',
    lies,
    events: [...moves, ...doors].sort((a, b) => a.at.localeCompare(b.at) || a.day.localeCompare(b.day)),
  };
}
