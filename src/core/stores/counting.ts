import { addQ, atLeastNone, NONE, quantity, subtractQ, type Quantity } from '../quantity/quantity';
import { done, type Result } from '../result';
import { takeFrom, type KnownSpot, type Spot } from './spots';

/** What was counted of a pile by its numbers, or all of it in one where it has none. In the item's unit. */
export type CountedLot = { readonly lotId: number | null; readonly quantity: Quantity };

/**
 * What has to move so that a pile, or one bin of it, holds what was counted: what is missed goes where it lay, what was
 * found lies in the bin that was counted.
 *
 * @param spots - what is known to lie where was counted
 * @param counted - one entry for each lot or serial number; one without, for what has none
 * @param binId - where what was found lies: the bin that was counted, or none
 * @returns moves by spot, below zero for what is missed
 */
export function countedMoves(
  spots: readonly KnownSpot[],
  counted: readonly CountedLot[],
  binId: number | null,
  name: string,
): Result<Spot[]> {
  const lots = new Set([...spots.map((s) => s.lotId), ...counted.map((c) => c.lotId)]);
  const sum = (of: readonly { readonly lotId: number | null; readonly quantity: Quantity }[], lotId: number | null) =>
    addQ(NONE, ...of.filter((s) => s.lotId === lotId).map((s) => s.quantity));
  const gaps = [...lots].map((lotId) => ({ lotId, gap: subtractQ(sum(counted, lotId), sum(spots, lotId)) }));
  const missed = gaps.flatMap(({ lotId, gap }) => (gap < 0 ? [{ lotId, quantity: quantity(-gap) }] : []));
  const out: Spot[] = [];
  for (const miss of missed) {
    const own = spots.filter((s) => s.lotId === miss.lotId);
    const taken = takeFrom(own, [{ lotId: null, quantity: miss.quantity }], name);
    if (!taken.ok) return taken;
    out.push(...taken.value.map((t) => ({ ...t, quantity: quantity(-t.quantity) })));
  }
  const found = gaps.flatMap(({ lotId, gap }) => (gap > 0 ? [{ binId, lotId, quantity: atLeastNone(gap) }] : []));
  return done([...out, ...found]);
}
