import { NOTHING_FROM_STOCK, type FromStock } from '@/core/needs/coverage';
import type { Quantity } from '@/core/quantity/quantity';
import type { SplitState } from '@/core/tab/stages';
import type { Db } from '@/store/db';
import { whereIn } from '@/store/rows';
import { loadGoodsSplits, loadStoresSplits, standing } from '@/store/stock/arriving';
import { claimsOf, cutsTo } from '@/store/stock/claims';
import { pilesWith } from '@/store/stock/follow';
import { loadFromStock } from '@/store/stock/fromStock';

/** A part of an order as it would stand, and whose it would be. */
export type PartAnew = SplitState & { readonly jobId: number | null };

/**
 * What stores would hold for needs if parts of orders stood otherwise: what is there is worth anew, what is still to come is
 * more or less, and what is reserved or counted on of it is cut to that.
 *
 * @param parts - by their ids
 * @returns by need, of all that have something of the same items
 */
export async function fromStockWith(db: Db, parts: ReadonlyMap<number, PartAnew>): Promise<Map<number, FromStock>> {
  const then = (await loadGoodsSplits(db, 'splitId', [...parts.keys()])).flatMap((split) => {
    const part = parts.get(split.splitId);
    return part === undefined ? [] : [standing({ ...split, jobId: part.jobId }, part)];
  });
  const items = [...new Set(then.map((s) => s.itemId))];
  const claims = await claimsOf(db, items);
  if (claims.length === 0) return new Map();
  const piles = await pilesWith(db, then);
  const splits = new Map([...(await loadStoresSplits(db, 'itemId', items)), ...then].map((s) => [s.splitId, s]));
  const there = new Map<string, Quantity>([
    ...[...piles].map(([key, pile]) => [key, pile.quantity] as const),
    ...[...splits.values()].flatMap((s) => (s.jobId === null ? [[`split ${s.splitId}`, s.toCome] as const] : [])),
  ]);
  const cut = new Map(cutsTo(there, claims).map((c) => [c.id, c]));
  const needIds = [...new Set(claims.map((c) => c.needId))];
  const held = (await whereIn(db, 'reservation', 'needId', needIds)).map((c) => ({ ...c, ...cut.get(c.id) }));
  const kept = held.filter((c) => c.quantity > 0);
  const fromStock = await loadFromStock(db, needIds, kept, { piles, splits });
  return new Map(needIds.map((id) => [id, fromStock.get(id) ?? NOTHING_FROM_STOCK]));
}
