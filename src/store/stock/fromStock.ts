import { divideRounded } from '@/core/money/decimal';
import { add, minor, ZERO, type Minor } from '@/core/money/money';
import { NOTHING_FROM_STOCK, type FromStock } from '@/core/needs/coverage';
import { addQ, NONE, quantity, type Quantity } from '@/core/quantity/quantity';
import { worth, type Pile } from '@/core/stores/pile';
import type { Db } from '../db';
import { whereIn } from '../rows';
import type { Reservation } from '../tables';
import { loadStoresSplits, type GoodsSplit } from './arriving';
import { sourceKey } from './claims';
import { loadPiles, pileKey } from './piles';

type Holding = Pick<Reservation, 'needId' | 'itemId' | 'placeId' | 'jobId' | 'splitId' | 'quantity' | 'share'>;

/** Stock and parts of orders for stores as they would stand, where that is not as they do. */
export type StockAnew = {
  readonly piles: ReadonlyMap<string, Pile>;
  readonly splits: ReadonlyMap<number, GoodsSplit>;
};

const AS_IT_IS: StockAnew = { piles: new Map(), splits: new Map() };

/**
 * What stores hold for needs and gave out to them. What is reserved of a job's own goods costs nothing more: it is on its
 * tab already.
 *
 * @param claims - what they have reserved and count on: as it is kept, or as it would be
 */
export async function loadFromStock(
  db: Db,
  needIds: readonly number[],
  claims?: readonly Holding[],
  anew: StockAnew = AS_IT_IS,
): Promise<Map<number, FromStock>> {
  const byNeed = new Map<number, FromStock>();
  const put = (needId: number, more: Partial<FromStock>) => {
    const was = byNeed.get(needId) ?? NOTHING_FROM_STOCK;
    byNeed.set(needId, {
      inStores: addQ(was.inStores, more.inStores ?? NONE),
      coming: addQ(was.coming, more.coming ?? NONE),
      issued: addQ(was.issued, more.issued ?? NONE),
      ownIssued: addQ(was.ownIssued, more.ownIssued ?? NONE),
      transferred: addQ(was.transferred, more.transferred ?? NONE),
      cost: add(was.cost, more.cost ?? ZERO),
    });
  };
  const own: readonly Holding[] = claims ?? (await whereIn(db, 'reservation', 'needId', needIds));
  const piles = new Map((await loadPiles(db, [...new Set(own.map((c) => c.itemId))])).map((p) => [pileKey(p), p]));
  const splitIds = own.flatMap((c) => c.splitId ?? []);
  const splits = new Map((await loadStoresSplits(db, 'splitId', splitIds)).map((s) => [s.splitId, s]));
  for (const claim of own) {
    const [source, part] = [sourceKey(claim), claim.splitId ?? 0];
    const pile = anew.piles.get(source) ?? piles.get(source);
    const split = anew.splits.get(part) ?? splits.get(part);
    if (split !== undefined) put(claim.needId, { coming: claim.share, cost: shareOfValue(claim.quantity, split) });
    else if (pile !== undefined)
      put(claim.needId, { inStores: claim.share, cost: claim.jobId === null ? worth(claim.quantity, pile) : ZERO });
  }
  for (const { needId, share, ownerId } of await whereIn(db, 'issue', 'needId', needIds))
    if (needId !== null) put(needId, ownerId === null ? { issued: share } : { ownIssued: share });
  for (const { needId, share } of await whereIn(db, 'stockChange', 'needId', needIds))
    if (needId !== null) put(needId, { transferred: quantity(-share) });
  for (const { toNeedId, toShare } of await whereIn(db, 'stockChange', 'toNeedId', needIds))
    if (toNeedId !== null) put(toNeedId, { transferred: toShare });
  return byNeed;
}

const shareOfValue = (q: Quantity, { value, ordered }: GoodsSplit): Minor =>
  ordered === 0 ? ZERO : minor(divideRounded(BigInt(value) * BigInt(q), BigInt(ordered)));
