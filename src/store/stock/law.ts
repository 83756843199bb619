import { rowsOf } from '../rows';
import { groupBy } from '@/core/group';
import { NONE } from '@/core/quantity/quantity';
import type { Db } from '../db';
import { loadGoodsSplits } from './arriving';
import { revaluedOf, cameHere, movedOf, standsAt } from './follow';

type Disagreement = { readonly line: number; readonly what: string };

/** Where stock does not agree with the documents it came by. */
export async function stockDisagreements(db: Db): Promise<Disagreement[]> {
  const ids = (
    await rowsOf<{
      id: number;
    }>(
      db.raw(
        'select distinct split_id as id from stock_move where split_id is not null union select split_id from receipt_split where here <> 0',
      ),
    )
  ).map((s) => s.id);
  const [had, here] = [groupBy(await movedOf(db, ids), (m) => m.splitId), await cameHere(db, ids)];
  const beside = await revaluedOf(db, ids);
  const wrong: Disagreement[] = [];
  for (const s of await loadGoodsSplits(db, 'splitId', ids)) {
    const own = had.get(s.splitId) ?? [];
    const is = standsAt(s, here.get(s.splitId) ?? NONE);
    const sum = (of: 'quantity' | 'value') => own.reduce((all, m) => all + m[of], 0);
    if (sum('quantity') !== is.quantity || sum('value') - (beside.get(s.splitId) ?? 0) !== is.value)
      wrong.push({ line: s.splitId, what: 'stock that came of it' });
    if (own.some((m) => m.jobId !== s.jobId && (m.quantity !== 0 || m.value !== 0)))
      wrong.push({ line: s.splitId, what: 'whose stock it is' });
  }
  return [...wrong, ...(await rowsOf<Disagreement>(db.raw(AMISS)))];
}

/** What is put by against what there is, piles against their spots, and what a pile may come to. */
const AMISS = `
  select r.need_id as line, 'more reserved than is there' as what from reservation r
    left join stock_sum p on p.item_id = r.item_id and p.place_id = r.place_id and p.job_id = coalesce(r.job_id, 0)
    where r.place_id is not null group by r.item_id, r.place_id, coalesce(r.job_id, 0) having sum(r.quantity) > coalesce(max(p.quantity), 0)
  union all select r.need_id, 'more reserved than is to come' from reservation r where r.split_id is not null
    group by r.split_id having sum(r.quantity) > 0 and not exists (select 1 from split s where s.id = r.split_id and s.job_id is null)
  union all select p.item_id, 'a pile and where it lies' from stock_sum p where p.quantity <>
    coalesce((select sum(s.quantity) from stock_spot s where s.item_id = p.item_id and s.place_id = p.place_id and s.job_id = p.job_id), 0)
  union all select p.item_id, 'what a pile is worth' from stock_sum p where p.value < 0 or (p.quantity = 0 and p.value <> 0)
  union all select l.item_id, 'a serial number in two places' from lot l join item i on i.id = l.item_id join stock_spot s on s.lot_id = l.id
    where i.tracking = 'serial' group by l.id having sum(s.quantity) > 10000`;

/** The third law: stores are worth on the ledger what lies in them, to the minor unit. */
export async function storesDisagreement(db: Db): Promise<Disagreement[]> {
  const [sums] = await rowsOf<{
    stock: number;
    ledger: number;
  }>(
    db.raw(`
    select coalesce((select sum(value) from stock_sum where job_id = 0), 0) as stock,
      coalesce((select sum(p.amount) from posting p join tab_line t on t.id = p.tab_line_id
        where p.job_id is null and p.stage in ('received', 'actual')
          and (t.kind in ('issue', 'stockChange') or (t.kind = 'split' and exists (select 1 from stock_move m where m.split_id = t.id)))), 0) as ledger`),
  );
  return sums === undefined || sums.stock === sums.ledger
    ? []
    : [{ line: 0, what: `stores are worth ${sums.stock}, the ledger says ${sums.ledger}` }];
}
