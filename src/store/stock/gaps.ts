import { rowsOf } from '../rows';
import { groupBy } from '@/core/group';
import { addQ, NONE, subtractQ, type Quantity } from '@/core/quantity/quantity';
import type { Db } from '../db';
import { loadGoodsSplits, type GoodsSplit } from './arriving';
import { cameHere, movedOf, standsAt } from './follow';

/** How much of a part of an order has to move in, or out below zero, to stand where its receipts say; in the item's unit. */
export type Gap = {
  readonly split: GoodsSplit;
  readonly gap: Quantity;
  /** Where what came of it lies, as far as it was not moved since; where it is to come when nothing did. */
  readonly placeId: number;
};

/** What has not moved yet of these parts of orders, though receipts say so. */
export async function gapsOf(db: Db, splitIds: readonly number[]): Promise<Gap[]> {
  const splits = await loadGoodsSplits(db, 'splitId', splitIds);
  const ids = splits.map((s) => s.splitId);
  const [had, here] = [groupBy(await movedOf(db, ids), (m) => m.splitId), await cameHere(db, ids)];
  return splits.flatMap((split) => {
    const own = had.get(split.splitId) ?? [];
    const is = standsAt(split, here.get(split.splitId) ?? NONE);
    const gap = subtractQ(is.quantity, addQ(NONE, ...own.map((m) => m.quantity)));
    const placeId = own.find((m) => m.quantity > 0)?.placeId ?? split.placeId;
    return gap === 0 ? [] : [{ split, gap, placeId }];
  });
}

/** The same by part. */
export const gapsBySplit = async (db: Db, splitIds: readonly number[]): Promise<Map<number, Gap>> =>
  new Map((await gapsOf(db, splitIds)).map((g) => [g.split.splitId, g]));

/**
 * Items that came for a job with these parts of orders and do not lie there any more, issued, moved or gone; or whose pile
 * would not be worth what is left of it, because something of it has gone at the average of all that came.
 */
export async function movedOn(db: Db, splitIds: readonly number[]): Promise<string[]> {
  const rows = await rowsOf<{ name: string }>(
    db.raw(
      `with came as (select item_id, place_id, job_id, lot_id, sum(quantity) as quantity, sum(value) as value from stock_move
         where split_id in (select value from json_each(?)) group by split_id, item_id, place_id, job_id, lot_id having sum(quantity) > 0),
       piles as (select item_id, place_id, job_id, sum(quantity) as quantity, sum(value) as value from came group by item_id, place_id, job_id)
     select i.name from item i where i.id in (
       select c.item_id from came c where c.quantity > (select coalesce(sum(s.quantity), 0) from stock_spot s
         where s.item_id = c.item_id and s.place_id = c.place_id and s.job_id = coalesce(c.job_id, 0) and s.lot_id = coalesce(c.lot_id, 0))
       union select c.item_id from piles c join stock_sum p on p.item_id = c.item_id and p.place_id = c.place_id and p.job_id = coalesce(c.job_id, 0)
         where p.quantity < c.quantity or p.value < c.value or (p.quantity = c.quantity and p.value <> c.value))
     order by i.id`,
      JSON.stringify(splitIds),
    ),
  );
  return rows.map((r) => r.name);
}
