import { rowsOf } from '../rows';
import type { Db } from '../db';
import type { Quantity } from '@/core/quantity/quantity';

/** What stands on goods that a receipt brought, so that it cannot be taken back. */
export type MovedSince = { readonly item: string; readonly what: 'issued' | 'counted' | 'moved on' | 'reserved' };

const SINCE = {
  issued: ['issued', 'returned'],
  counted: ['counted', 'scrapped'],
  'moved on': ['transferred', 'moved', 'sentBack'],
} as const;

/**
 * What rests on what came of these parts of orders: some of their piles was issued, counted or moved to another place
 * since, or more of them is reserved than would be left.
 *
 * @param goes - how much of each part would go, in its item's unit
 */
export async function movedSince(
  db: Db,
  goes: readonly { readonly splitId: number; readonly quantity: Quantity }[],
): Promise<MovedSince[]> {
  const found: MovedSince[] = [];
  for (const [what, kinds] of Object.entries(SINCE)) {
    const rows = await rowsOf<{ item: string }>(
      db.raw(
        `select distinct i.name as item from stock_move m join item i on i.id = m.item_id
       where m.split_id in (select value ->> 'splitId' from json_each(?)) and m.kind = 'received' and m.quantity > 0 and exists (
         select 1 from stock_move x where x.item_id = m.item_id and x.place_id = m.place_id and x.job_id is m.job_id
           and x.id > m.id and x.quantity <> 0 and x.kind in (select value from json_each(?))
           and (x.lot_id is null or m.lot_id is null or x.lot_id = m.lot_id)
           -- What is charged elsewhere takes its goods along, and from bin to bin they stay where they came.
           and (x.kind <> 'transferred' or x.split_id is not m.split_id)
           group by x.kind having x.kind <> 'moved' or sum(x.quantity) <> 0)`,
        [JSON.stringify(goes), JSON.stringify(kinds)],
      ),
    );
    found.push(...rows.map(({ item }) => ({ item, what: what as MovedSince['what'] })));
  }
  const reserved = await rowsOf<{ item: string }>(
    db.raw(
      `select distinct i.name as item from json_each(?) g join stock_move m on m.split_id = g.value ->> 'splitId' and m.kind = 'received' and m.quantity > 0
       join item i on i.id = m.item_id
     where (select sum(r.quantity) from reservation r where r.item_id = m.item_id and r.place_id = m.place_id and r.job_id is m.job_id and r.firm = 1)
       > (select p.quantity from stock_sum p where p.item_id = m.item_id and p.place_id = m.place_id and p.job_id = coalesce(m.job_id, 0)) - (g.value ->> 'quantity')`,
      [JSON.stringify(goes)],
    ),
  );
  return [...found, ...reserved.map(({ item }) => ({ item, what: 'reserved' as const }))];
}
