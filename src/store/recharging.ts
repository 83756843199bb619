import { valueOrder } from '@/core/orders/order';
import type { Db } from './connection';
import { findOrder, rewriteSplits, type Money, type StoredOrder } from './orders';
import { among, whereIn } from './rows';

type Recharge = { readonly id: number; readonly jobId: number; readonly costCodeId: number };

/**
 * Charges parts of an order that was sent elsewhere. A part covers a line of its new job's buy list where that asks for
 * so much of the same item; charges that follow the lines, and are not billed, follow them there.
 */
export async function rechargeSplits(
  trx: Db,
  order: StoredOrder,
  splits: readonly Recharge[],
  { codes, companyCurrency }: Money,
): Promise<void> {
  for (const { id, jobId, costCodeId } of splits) {
    const line = order.lines.find((l) => l.splits.some((s) => s.id === id));
    const before = line?.splits.find((s) => s.id === id);
    if (line === undefined || before === undefined) continue;
    const needId = before.jobId === jobId ? before.needId : await needFor(trx, line, before.quantity, jobId);
    await trx('split').where({ id }).update({ jobId, costCodeId, needId });
  }
  const after = await findOrder(trx, order.id);
  if (after === undefined) return;
  const { currency, rate } = order;
  const valued = valueOrder(after.lines, codes, { currency, companyCurrency, rate });
  const billed = new Set(
    (
      await whereIn(
        trx,
        'invoiceLine',
        'lineId',
        after.lines.map((l) => l.id),
      )
    ).map((l) => l.lineId),
  );
  for (const line of valued)
    if (line.kind === 'charge' && line.spread !== 'amounts' && !billed.has(line.id))
      await rewriteSplits(trx, line.id, line.description, line.splits);
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
  const rows = (await db('reservation as r')
    .join('need as n', 'n.id', 'r.needId')
    .join('job as j', 'j.id', 'n.jobId')
    .whereIn('r.splitId', among(db, splitIds))
    .where('r.quantity', '>', 0)
    .distinct('j.number')) as { number: string }[];
  return rows.map((r) => r.number);
}
