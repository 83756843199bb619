import { groupBy } from '@/core/group';
import { addQ, NONE, subtractQ, type Quantity } from '@/core/quantity/quantity';
import type { Db } from '../connection';
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
