import type { Db } from './db';
import { among } from './rows';

/** Words that stand on an order: those for its supplier, for the kinds of its jobs, and for all orders. */
export async function blocksFor(
  db: Db,
  order: {
    readonly supplierId: number;
    readonly lines: readonly { readonly splits: readonly { readonly jobId: number | null }[] }[];
  },
): Promise<string[]> {
  const ids = order.lines.flatMap((l) => l.splits.flatMap((s) => s.jobId ?? []));
  const kinds = db('job').whereIn('id', among(db, ids)).select('kind');
  const rows = await db('textBlock')
    .where((w) => w.whereNull('supplierId').orWhere('supplierId', order.supplierId))
    .where((w) => w.whereNull('jobKind').orWhereIn('jobKind', kinds as never))
    .orderBy('place')
    .select('words');
  return rows.map((r) => r.words);
}
