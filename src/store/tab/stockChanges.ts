import { changeBalances } from '@/core/stores/change';
import { whereIn } from '../rows';
import type { TabKind } from './kind';

/** What changed stock beside orders and issues: counts, what was scrapped, transfers, and differences. */
export const stockChanges: TabKind = {
  kind: 'stockChange',
  load: async (db, ids) => new Map((await whereIn(db, 'stockChange', 'id', ids)).map((c) => [c.id, changeBalances(c)])),
  moves: async (db, ids) =>
    (await whereIn(db, 'stockChange', 'id', ids)).flatMap((c) =>
      [c.needId, c.toNeedId].flatMap((id) => (id === null ? [] : [{ by: c.id, id }])),
    ),
  // A transfer moves as much off one pile as onto another; all else moves what it says.
  disagreements: (db) =>
    db.raw(
      `select c.id as line, 'moves of stock' as what from stock_change c where c.kind <> 'difference' and (
         coalesce((select sum(m.quantity) from stock_move m where m.change_id = c.id), 0) <> iif(c.kind = 'transferred', 0, c.quantity)
         or coalesce((select sum(m.value) from stock_move m where m.change_id = c.id), 0) <> iif(c.kind = 'transferred', 0, c.value))`,
    ),
};
