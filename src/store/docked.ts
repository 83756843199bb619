import { subtractQ } from '@/core/quantity/quantity';
import type { DockedLine } from '@/core/receiving/receive';
import type { Db } from './connection';
import { neededDays } from './needs';
import type { StoredOrder } from './orders';

/** An order's lines as the dock sees them: their parts in the order in which they are needed. */
export async function dockedLines(db: Db, order: StoredOrder): Promise<Map<number, DockedLine>> {
  const neededOn = await neededDays(
    db,
    order.lines.flatMap((l) => l.splits.flatMap((s) => s.needId ?? [])),
  );
  return new Map(
    order.lines.map((l) => {
      const { description, kind, unit, factor, quantity: ordered, received, held, givenUp } = l;
      const splits = [...l.splits]
        .sort((a, b) => neededOn(a.needId).localeCompare(neededOn(b.needId)) || a.place - b.place)
        .map((s) => ({ splitId: s.id, ordered: subtractQ(s.quantity, s.givenUp), received: s.received }));
      const closedShort = l.closedShort !== null || l.billsEnded !== null;
      return [l.id, { description, kind, unit, factor, ordered, received, held, givenUp, splits, closedShort }];
    }),
  );
}
