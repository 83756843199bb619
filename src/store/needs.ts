import type { Day } from '@/core/calendar/workdays';
import { groupBy } from '@/core/group';
import type { Quantity } from '@/core/quantity/quantity';
import type { Db } from './db';
import { openTabLines } from './tabLines';
import { among, insertMany, whereIn, rowsOf } from './rows';
import type { NeedRow } from './tables';

export type NewNeed = Omit<
  NeedRow,
  'id' | 'quoteLineId' | 'planLineId' | 'priceQuantity' | 'addedOn' | 'open' | 'missing' | 'orderBy' | 'version'
> & {
  readonly quoteLineId?: number;
  readonly planLineId?: number;
};

/** Puts lines on buy lists. @returns their ids in order */
export async function insertNeeds(trx: Db, needs: readonly NewNeed[], today: Day): Promise<number[]> {
  const ids = await openTabLines(
    trx,
    'need',
    needs.map((n) => n.description),
  );
  await insertMany(
    trx,
    'need',
    needs.map((n, k) => ({ ...n, id: ids[k], open: n.quantity, addedOn: today })),
  );
  return ids;
}

/** The days on which the needs of some splits are wanted; those without a day, or without a need, come last. */
export async function neededDays(db: Db, needIds: readonly number[]): Promise<(needId: number | null) => string> {
  const days = groupBy(await whereIn(db, 'need', 'id', needIds), (n) => n.id);
  return (needId) => days.get(needId ?? 0)?.[0]?.neededOn ?? '9999';
}

/** How much is drafted or ordered of the needs that come from lines of quotes or of plans, by line. */
export async function boughtOf(
  db: Db,
  from: 'quoteLineId' | 'planLineId',
  lineIds: readonly number[],
): Promise<Map<number, Quantity>> {
  const rows = await rowsOf<{ id: number; bought: Quantity }>(
    db('need as n')
      .join('split as s', 's.needId', 'n.id')
      .join('orderLine as l', 'l.id', 's.lineId')
      .join('purchaseOrder as o', 'o.id', 'l.orderId')
      .whereIn(`n.${from}`, among(db, lineIds))
      .whereNot('o.state', 'cancelled')
      .groupBy(`n.${from}`)
      .select({ id: `n.${from}` })
      .sum({ bought: 's.quantity' }),
  );
  return new Map(rows.map((r) => [r.id, r.bought]));
}
