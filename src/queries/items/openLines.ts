import type { Day } from '@/core/calendar/workdays';
import { isLate } from '@/core/orders/chasing';
import { cameOf, leftOf, OPEN_AT_SUPPLIER, progressOf } from '@/core/orders/states';
import type { Quantity } from '@/core/quantity/quantity';
import { BRINGS_SOMETHING, COMES_ON } from '@/store/comes';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';
import { rowsOf } from '@/store/rows';
import type { OrderLineRow } from '@/store/tables';
import { permit } from '../permit';

/** A line that is still to come from a supplier, in its own unit. */
export type OpenLine = {
  readonly lineId: number;
  readonly order: string;
  readonly description: string;
  readonly number: string | null;
  readonly unit: string;
  readonly left: Quantity;
  readonly came: Quantity;
  readonly wantedOn: Day | null;
  readonly promisedOn: Day | null;
  readonly late: boolean;
  /** The day the supplier was last asked after its order. */
  readonly chasedOn: Day | null;
};

const SHOWN = 60;

type Row = Omit<OrderLineRow, 'wantedOn'> & {
  readonly order: string;
  readonly number: string | null;
  readonly wantedOn: Day | null;
  readonly chasedAt: string | null;
};

/** What is still to come from a supplier, the first day first; those without one last. */
export async function listOpenLines(db: Db, person: Person, supplierId: number, today: Day): Promise<OpenLine[]> {
  permit(person, 'see orders');
  const rows = await rowsOf<Row>(
    db('purchaseOrder as o')
      .join('orderLine as l', 'l.orderId', 'o.id')
      .leftJoin('item as i', 'i.id', 'l.itemId')
      .where('o.supplierId', supplierId)
      .whereIn('o.state', OPEN_AT_SUPPLIER)
      .whereRaw(`l.kind <> 'charge' and ${BRINGS_SOMETHING}`)
      .orderByRaw(`coalesce(${COMES_ON}, '9999'), o.id, l.place`)
      .limit(SHOWN)
      .select('l.*', { order: 'o.number', number: 'i.number' })
      .select(
        db.raw(`coalesce(l.wanted_on, o.wanted_on) as wanted_on,
          (select max(m.at) from message m where m.about = 'order' and m.about_id = o.id and m.kind = 'chase' and m.state = 'taken') as chased_at`),
      ),
  );
  return rows.map((l) => {
    const { order, number, description, unit, wantedOn, promisedOn } = l;
    const progress = progressOf(l);
    return {
      ...{ lineId: l.id, order, number, description, unit, wantedOn, promisedOn },
      left: leftOf(progress),
      came: cameOf(progress),
      late: isLate(l, today),
      chasedOn: (l.chasedAt?.slice(0, 10) ?? null) as Day | null,
    };
  });
}
