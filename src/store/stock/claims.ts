import type { Day } from '@/core/calendar/workdays';
import { groupBy } from '@/core/group';
import { addQ, atLeastNone, NONE, subtractQ, type Quantity } from '@/core/quantity/quantity';
import { cutTo, type Claim, type Cut } from '@/core/stores/claims';
import type { Db } from '../db';
import { among, insertMany, rowsOf } from '../rows';
import type { Reservation } from '../tables';
import { loadStoresSplits, type GoodsSplit } from './arriving';
import { loadPiles, pileKey } from './piles';

export type StoredClaim = Omit<Reservation, 'firm'> & Claim;

/** What needs have reserved of these items, and what plans count on. */
export const claimsOf = async (db: Db, itemIds: readonly number[]): Promise<StoredClaim[]> =>
  itemIds.length === 0
    ? []
    : (
        await rowsOf<Reservation & { neededOn: Day | null }>(
          db('reservation as r')
            .join('need as n', 'n.id', 'r.needId')
            .whereIn('r.itemId', among(db, itemIds))
            .select('r.*', { neededOn: 'n.neededOn' }),
        )
      ).map((r) => ({ ...r, firm: r.firm === 1 }));

/** Writes claims that were cut. */
export async function applyCuts(trx: Db, cuts: readonly Cut[]): Promise<void> {
  for (const { id, quantity: q, share } of cuts)
    await (q === 0
      ? trx('reservation').where({ id }).delete()
      : trx('reservation').where({ id }).update({ quantity: q, share }));
}

/** What a claim is on: a pile, or a part of an order. */
export const sourceKey = ({
  itemId,
  placeId,
  jobId,
  splitId,
}: Pick<Reservation, 'itemId' | 'placeId' | 'jobId' | 'splitId'>): string =>
  splitId === null ? pileKey({ itemId, placeId: placeId ?? 0, jobId }) : `split ${splitId}`;

/** Cuts claims down to what there is of each source, in the item's unit. */
export const cutsTo = (there: ReadonlyMap<string, Quantity>, claims: readonly StoredClaim[]): Cut[] =>
  [...groupBy(claims, sourceKey)].flatMap(([key, own]) => cutTo(there.get(key) ?? NONE, own));

/** Reserves, or counts on, what is free somewhere. */
export async function addClaims(trx: Db, claims: readonly Omit<Reservation, 'id'>[]): Promise<void> {
  await insertMany(trx, 'reservation', claims);
}

/**
 * Cuts what was reserved of these items, and counted on, down to what is there and what is still to come.
 * @returns the needs that have something reserved of them, whether it was cut or not
 */
export async function settleClaims(trx: Db, itemIds: readonly number[]): Promise<number[]> {
  const claims = await claimsOf(trx, itemIds);
  if (claims.length === 0) return [];
  const there = new Map<string, Quantity>([
    ...(await loadPiles(trx, itemIds)).map((p) => [pileKey(p), p.quantity] as const),
    ...(await loadStoresSplits(trx, 'itemId', itemIds)).map((s) => [`split ${s.splitId}`, s.toCome] as const),
  ]);
  await applyCuts(trx, cutsTo(there, claims));
  return claims.map((c) => c.needId);
}

/** What came of a part of an order that was reserved while it was on order is reserved where it lies now. */
export async function moveClaims(trx: Db, split: GoodsSplit, placeId: number, came: Quantity): Promise<void> {
  const claims = (await claimsOf(trx, [split.itemId])).filter((c) => c.splitId === split.splitId);
  const stays = atLeastNone(subtractQ(addQ(NONE, ...claims.map((c) => c.quantity)), came));
  // What is needed later waits for the rest, so the latest stay with the order.
  const turned = claims.map((c) => ({ ...c, firm: false, neededOn: invert(c.neededOn) }));
  const cuts = cutTo(stays, turned);
  await applyCuts(trx, cuts);
  const arrived = cuts.flatMap((cut) => {
    const claim = claims.find((c) => c.id === cut.id);
    if (claim === undefined || claim.share === cut.share) return [];
    const { needId, itemId, firm } = claim;
    const moved = { quantity: subtractQ(claim.quantity, cut.quantity), share: subtractQ(claim.share, cut.share) };
    return [{ needId, itemId, placeId, jobId: null, splitId: null, firm: Number(firm), ...moved }];
  });
  await addClaims(trx, arrived);
}

/** Turns the order of days round: the latest comes first, and no day at all before it. */
const invert = (day: string | null): string =>
  day === null ? '' : [...day].map((c) => (/\d/.test(c) ? String(9 - Number(c)) : c)).join('');
