import { subtractQ, type Quantity } from '@/core/quantity/quantity';
import type { ReasonDoes } from '@/core/receiving/reasons';
import { progressOf } from '@/core/orders/states';
import type { DockedLine } from '@/core/receiving/receive';
import type { Db } from './db';
import { neededDays } from './needs';
import type { StoredOrder } from './orders';
import { among, rowsOf } from './rows';

/** An order's lines as the dock sees them: their parts in the order in which they are needed. */
export async function dockedLines(db: Db, order: StoredOrder): Promise<Map<number, DockedLine>> {
  const neededOn = await neededDays(
    db,
    order.lines.flatMap((l) => l.splits.flatMap((s) => s.needId ?? [])),
  );
  return new Map(
    order.lines.map((l) => {
      const { description, unit, factor } = l;
      const splits = [...l.splits]
        .sort((a, b) => neededOn(a.needId).localeCompare(neededOn(b.needId)) || a.place - b.place)
        .map((s) => ({ splitId: s.id, ordered: subtractQ(s.quantity, s.givenUp), received: s.received }));
      return [l.id, { description, unit, factor, splits, ...progressOf(l) }];
    }),
  );
}

/** What was said last of what did not come of each line; nothing of a delivery that was taken back. */
export async function lastRests(db: Db, lineIds: readonly number[]): Promise<Map<number, LastRest>> {
  const rows = await rowsOf<LastRest & { lineId: number }>(
    db('rest as r')
      .join('reason as w', 'w.id', 'r.reasonId')
      .whereIn('r.lineId', among(db, lineIds))
      .whereNotExists((back) => back.from('receipt as b').whereRaw('b.reverses_id = r.receipt_id').select(db.raw('1')))
      .orderBy('r.id')
      .select('r.lineId', 'r.quantity', 'w.name', 'w.does'),
  );
  return new Map(rows.map((r) => [r.lineId, r]));
}

export type LastRest = { readonly name: string; readonly does: ReasonDoes; readonly quantity: Quantity };
