import { followsLines } from '@/core/orders/kinds';
import { valueOrder } from '@/core/orders/order';
import type { Db } from './db';
import { rewriteSplits, type Money, type StoredOrder } from './orders';
import { among, whereIn, rowsOf } from './rows';

type Recharge = { readonly id: number; readonly jobId: number; readonly costCodeId: number };

/**
 * An order that was sent with parts of it charged elsewhere. A part covers a line of its new job's buy list where that
 * asks for so much of the same item; charges that follow the lines, and are not invoiced, follow them there.
 *
 * @returns the lines as they are to be, and which of them only follow
 */
export async function rechargedLines(
  db: Db,
  order: StoredOrder,
  recharges: readonly Recharge[],
  { codes, companyCurrency }: Money,
) {
  const to = new Map(recharges.map((r) => [r.id, r]));
  const lines = [];
  for (const line of order.lines) {
    const splits = [];
    for (const split of line.splits) {
      const { jobId, costCodeId } = to.get(split.id) ?? split;
      const stays = split.jobId === jobId || jobId === null;
      const needId = stays ? split.needId : await needFor(db, line, split.quantity, jobId);
      splits.push({ ...split, jobId, costCodeId, needId });
    }
    lines.push({ ...line, splits });
  }
  const { currency, rate } = order;
  const valued = valueOrder(lines, codes, { currency, companyCurrency, rate });
  const invoices = await whereIn(
    db,
    'invoiceLine',
    'lineId',
    lines.map((l) => l.id),
  );
  const invoiced = new Set(invoices.map((l) => l.lineId));
  return lines.map((line, k) => {
    const follows = followsLines(line) && !invoiced.has(line.id);
    return { ...line, follows, splits: (follows ? valued[k]?.splits : undefined) ?? line.splits };
  });
}

/** Writes what `rechargedLines` worked out. */
export async function rechargeSplits(trx: Db, lines: Awaited<ReturnType<typeof rechargedLines>>): Promise<void> {
  for (const { id: lineId, follows, description, splits } of lines)
    if (follows) await rewriteSplits(trx, lineId, description, splits);
    else
      for (const { id, jobId, costCodeId, needId } of splits)
        if (id !== undefined) await trx('split').where({ id }).update({ jobId, costCodeId, needId });
}

/** The line of a job's buy list that asks for so much of the same item, or in the same words; null where none does. */
async function needFor(
  trx: Db,
  line: StoredOrder['lines'][number],
  quantity: number,
  jobId: number,
): Promise<number | null> {
  const same = line.itemId === null ? { description: line.description } : {};
  const need = await trx('need')
    .where({ jobId, itemId: line.itemId, unit: line.shareUnit, ...same })
    .where('open', '>=', quantity)
    .orderBy('id')
    .first('id');
  return need?.id ?? null;
}

/** Jobs, by number, for which something of these parts is put by before it is there. */
export async function putByFor(db: Db, splitIds: readonly number[]): Promise<string[]> {
  const rows = await rowsOf<{ number: string }>(
    db('reservation as r')
      .join('need as n', 'n.id', 'r.needId')
      .join('job as j', 'j.id', 'n.jobId')
      .whereIn('r.splitId', among(db, splitIds))
      .where('r.quantity', '>', 0)
      .distinct('j.number'),
  );
  return rows.map((r) => r.number);
}
