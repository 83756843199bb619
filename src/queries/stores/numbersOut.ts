import { groupBy } from '@/core/group';
import type { Db } from '@/store/db';
import { rowsOf } from '@/store/rows';

/** Serial numbers that issues gave out and did not get back. */
export async function numbersOut(db: Db, issueIds: readonly number[]): Promise<Map<number, string[]>> {
  const rows = await rowsOf<{ issueId: number; number: string }>(
    db('stockMove as m')
      .join('lot as l', 'l.id', 'm.lotId')
      .whereIn('m.issueId', issueIds)
      .groupBy('m.issueId', 'l.id')
      .havingRaw('sum(m.quantity) < 0')
      .orderBy('l.number')
      .select('m.issueId', 'l.number'),
  );
  return new Map([...groupBy(rows, (r) => r.issueId)].map(([id, own]) => [id, own.map((r) => r.number)]));
}
