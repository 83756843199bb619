import { issueBalances } from '@/core/stores/change';
import { stockDisagreements } from '../stock/law';
import { whereIn } from '../rows';
import type { TabKind } from './kind';

/** What stores gave out to jobs, at what it cost there, less what came back. */
export const issues: TabKind = {
  kind: 'issue',
  load: async (db, ids) => new Map((await whereIn(db, 'issue', 'id', ids)).map((i) => [i.id, issueBalances(i)])),
  moves: async (db, ids) =>
    (await whereIn(db, 'issue', 'id', ids)).flatMap((i) => (i.needId === null ? [] : [{ by: i.id, id: i.needId }])),
  disagreements: async (db) => [
    ...(await db.raw(
      `select i.id as line, 'moves of stock' as what from issue i where
        (i.quantity <> -coalesce((select sum(m.quantity) from stock_move m where m.issue_id = i.id), 0)
        or i.value <> -coalesce((select sum(m.value) from stock_move m where m.issue_id = i.id), 0))`,
    )),
    ...(await stockDisagreements(db)),
  ],
};
