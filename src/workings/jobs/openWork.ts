import { rowsOf } from '@/store/rows';
import { openOf, type Open } from '@/core/jobs/closing';
import { WAITING } from '@/core/invoices/states';
import { progressOf } from '@/core/orders/states';
import type { Db } from '@/store/db';
import { loadLines } from '@/store/orders';
import type { OrderHead } from '@/store/tables';

/** What of a job is open, so that it cannot be closed. */
export async function loadOpen(db: Db, jobId: number): Promise<Open> {
  const ofJob = () =>
    db('orderLine as l').join('split as s', 's.lineId', 'l.id').where('s.jobId', jobId).distinct('l.orderId');
  const orders = await rowsOf<Pick<OrderHead, 'id' | 'number' | 'state'>>(
    db('purchaseOrder')
      .whereIn('id', ofJob())
      .whereNotIn('state', ['settled', 'cancelled'])
      .orderBy('id')
      .select('id', 'number', 'state'),
  );
  const lines = await loadLines(
    db,
    orders.map((o) => o.id),
  );
  const own = orders.map(({ id, number, state }) => ({
    number,
    state,
    lines: (lines.get(id) ?? []).filter((l) => l.splits.some((s) => s.jobId === jobId)).map(progressOf),
  }));
  const invoices = await db('invoice')
    .whereIn('state', WAITING)
    .whereIn('orderId', ofJob())
    .orderBy('id')
    .select('number');
  const changes = await db('budgetChange').where({ jobId, state: 'pending' }).orderBy('number').select('number');
  const stock = await db('stockSum as s')
    .join('item as i', 'i.id', 's.itemId')
    .where({ 's.jobId': jobId })
    .where('s.quantity', '>', 0)
    .distinct('i.number')
    .orderBy('i.number');
  const reserved = await db('reservation as r')
    .join('need as n', 'n.id', 'r.needId')
    .join('item as i', 'i.id', 'r.itemId')
    .where({ 'n.jobId': jobId })
    .distinct('i.number')
    .orderBy('i.number');
  const numbers = (rows: readonly { number: string }[]) => rows.map((r) => r.number);
  return {
    ...openOf(own),
    invoices: numbers(invoices),
    changes: changes.map((c) => c.number),
    stock: numbers(stock),
    reserved: numbers(reserved),
  };
}
