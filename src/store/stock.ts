import { asDay, type Day } from '@/core/calendar/workdays';
import { groupBy } from '@/core/group';
import { isGoods, type ItemKind } from '@/core/items/kinds';
import { divideRounded } from '@/core/money/decimal';
import { add, minor, subtract, ZERO, type Minor } from '@/core/money/money';
import { NOTHING_HELD, type Held } from '@/core/needs/coverage';
import { addQ, atLeastNone, NONE, quantity, subtractQ, toSupplierUnit, type Quantity } from '@/core/quantity/quantity';
import { exactFactor } from '@/core/quantity/units';
import { cutTo, type Claim, type Cut } from '@/core/stores/claims';
import { worth, type Move, type Pile } from '@/core/stores/pile';
import { coverOf, valueOf, type Commitment } from '@/core/tab/stages';
import type { Db } from './connection';
import type { Happening } from './ledger';
import { among, insertMany, insertOne, whereIn } from './rows';
import { loadSplitStates } from './tab/splits';
import type { Reservation, StockMove, StockSum } from './tables';

/** Whose stock lies where: an item at a place, the company's own or a job's. */
export type PileKey = { readonly itemId: number; readonly placeId: number; readonly jobId: number | null };

/** The piles of these items, the empty ones too. */
export const loadPiles = (db: Db, itemIds: readonly number[]): Promise<StockSum[]> =>
  whereIn(db, 'stockSum', 'itemId', itemIds);

export async function pileOf(db: Db, { itemId, placeId, jobId }: PileKey): Promise<Pile> {
  const row = await db('stockSum')
    .where({ itemId, placeId, jobId: jobId ?? 0 })
    .first('quantity', 'value');
  return row ?? { quantity: NONE, value: ZERO };
}

/** What the company has of items at all places that nobody has put by, in the item's unit. */
export async function loadFreeStock(db: Db, itemIds: readonly number[]): Promise<Map<number, Quantity>> {
  const rows = (await db.raw(
    `select s.item_id, sum(s.quantity) - coalesce((select sum(r.quantity) from reservation r
       where r.item_id = s.item_id and r.place_id is not null and r.job_id is null), 0) as free
     from stock_sum s where s.job_id = 0 and s.item_id in (select value from json_each(?)) group by s.item_id`,
    JSON.stringify([...new Set(itemIds)]),
  )) as { itemId: number; free: Quantity }[];
  return new Map(rows.map((r) => [r.itemId, r.free]));
}

type NewMove = PileKey &
  Move &
  Pick<StockMove, 'kind'> &
  Partial<Pick<StockMove, 'reason' | 'splitId' | 'issueId'>> &
  Pick<Happening, 'personId' | 'day' | 'at'>;

export const addMove = (trx: Db, move: NewMove): Promise<number> => insertOne(trx, 'stockMove', move);

/** A part of an order that goes to stores: what it brings, in its item's unit. */
export type StoresSplit = {
  readonly splitId: number;
  readonly itemId: number;
  readonly placeId: number;
  readonly commitment: Commitment;
  /** What it is to bring in all, what came, and what that is worth. */
  readonly ordered: Quantity;
  readonly received: Quantity;
  readonly receivedValue: Minor;
  readonly value: Minor;
  /** What is still to come. */
  readonly toCome: Quantity;
  /** The day it is wanted from its supplier. */
  readonly on: Day | null;
};

/** The parts of orders that go to stores and bring goods of items, among these splits or of these items. */
export async function loadStoresSplits(
  db: Db,
  by: 'splitId' | 'itemId',
  ids: readonly number[],
): Promise<StoresSplit[]> {
  if (ids.length === 0) return [];
  const rows = (await db('split as s')
    .join('orderLine as l', 'l.id', 's.lineId')
    .join('purchaseOrder as o', 'o.id', 'l.orderId')
    .join('item as i', 'i.id', 'l.itemId')
    .whereIn(by === 'splitId' ? 's.id' : 'l.itemId', among(db, ids))
    .whereNull('s.jobId')
    .where('l.kind', 'goods')
    .select('s.id', 'l.itemId', 'l.shareUnit', {
      placeId: db.raw('coalesce(l.place_id, o.place_id)'),
      unit: 'i.unit',
      itemKind: 'i.kind',
      lineDay: 'l.wantedOn',
      orderDay: 'o.wantedOn',
    })) as {
    id: number;
    itemId: number;
    placeId: number;
    shareUnit: string;
    unit: string;
    itemKind: ItemKind;
    lineDay: Day | null;
    orderDay: Day | null;
  }[];
  const states = new Map(
    (
      await loadSplitStates(
        db,
        'id',
        rows.map((r) => r.id),
      )
    ).map((s) => [s.id, s]),
  );
  return rows.flatMap((row) => {
    const state = states.get(row.id);
    const factor = exactFactor(row.unit, row.shareUnit);
    if (state === undefined || factor === undefined || !isGoods(row.itemKind)) return [];
    const own = (q: Quantity) => toSupplierUnit(q, factor);
    const sent = state.commitment === 'sent';
    return [
      {
        splitId: row.id,
        itemId: row.itemId,
        placeId: row.placeId,
        commitment: state.commitment,
        ordered: own(coverOf(state)),
        received: own(state.received),
        receivedValue: valueOf(state.received, state),
        value: state.value,
        toCome: sent ? own(atLeastNone(subtractQ(state.ordered, state.received))) : NONE,
        on: asDay(row.lineDay ?? row.orderDay ?? '') ?? null,
      },
    ];
  });
}

export type StoredClaim = Omit<Reservation, 'firm'> & Claim;

/** What needs have reserved of these items, and what plans count on. */
export const claimsOf = async (db: Db, itemIds: readonly number[]): Promise<StoredClaim[]> =>
  (
    (await db('reservation as r')
      .join('need as n', 'n.id', 'r.needId')
      .whereIn('r.itemId', among(db, itemIds))
      .select('r.*', { neededOn: 'n.neededOn' })) as (Reservation & { neededOn: Day | null })[]
  ).map((r) => ({ ...r, firm: r.firm === 1 }));

/** Writes claims that were cut. */
export async function applyCuts(trx: Db, cuts: readonly Cut[]): Promise<void> {
  for (const { id, quantity: q, share } of cuts)
    await (q === 0
      ? trx('reservation').where({ id }).delete()
      : trx('reservation').where({ id }).update({ quantity: q, share }));
}

/** What a claim is on: a pile, or a part of an order. */
export const sourceKey = (r: Pick<Reservation, 'itemId' | 'placeId' | 'jobId' | 'splitId'>): string =>
  r.splitId === null ? `${r.itemId}/${r.placeId}/${r.jobId ?? 0}` : `split ${r.splitId}`;

/** Reserves, or counts on, what is free somewhere. */
export async function addClaims(trx: Db, claims: readonly Omit<Reservation, 'id'>[]): Promise<void> {
  await insertMany(trx, 'reservation', claims);
}

/** Cuts what was reserved of these items, and counted on, down to what is there and what is still to come. */
async function settleClaims(trx: Db, itemIds: readonly number[], splits: readonly StoresSplit[]): Promise<void> {
  const claims = await claimsOf(trx, itemIds);
  if (claims.length === 0) return;
  const there = new Map<string, Quantity>([
    ...(await loadPiles(trx, itemIds)).map((p) => [`${p.itemId}/${p.placeId}/${p.jobId}`, p.quantity] as const),
    ...splits.map((s) => [`split ${s.splitId}`, s.toCome] as const),
  ]);
  for (const [key, own] of groupBy(claims, sourceKey)) await applyCuts(trx, cutTo(there.get(key) ?? NONE, own));
}

/** What came of a part of an order that was reserved while it was on order is reserved where it lies now. */
async function moveClaims(trx: Db, split: StoresSplit, came: Quantity): Promise<void> {
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
    return [{ needId, itemId, placeId: split.placeId, jobId: null, splitId: null, firm: Number(firm), ...moved }];
  });
  await addClaims(trx, arrived);
}

/** Turns the order of days round: the latest comes first, and no day at all before it. */
const invert = (day: string | null): string =>
  day === null ? '' : [...day].map((c) => (/\d/.test(c) ? String(9 - Number(c)) : c)).join('');

/**
 * Brings stock to where these parts of orders stand: what came of them, and what it is worth, as a move of the
 * difference; and what is reserved of their items, to what there is.
 *
 * @returns needs that this moves: those with something reserved of the items
 */
export async function followSplits(trx: Db, happening: Happening, lines: readonly number[]): Promise<number[]> {
  const splits = await loadStoresSplits(trx, 'splitId', lines);
  if (splits.length === 0) return [];
  const { personId, day, at } = happening;
  const items = [...new Set(splits.map((s) => s.itemId))];
  // Before anything is cut: who gives something up is moved as well.
  const needs = (await claimsOf(trx, items)).map((c) => c.needId);
  const had = new Map(
    (
      await movedBy(
        trx,
        splits.map((s) => s.splitId),
      )
    ).map((m) => [m.splitId, m]),
  );
  for (const split of splits) {
    const was = had.get(split.splitId);
    const move = {
      quantity: subtractQ(split.received, quantity(was?.quantity ?? 0)),
      value: subtract(split.receivedValue, minor(was?.value ?? 0)),
    };
    if (move.quantity === 0 && move.value === 0) continue;
    const { itemId, placeId, splitId } = split;
    const kind = move.quantity === 0 ? 'revalued' : 'received';
    await addMove(trx, { itemId, placeId, jobId: null, kind, ...move, splitId, personId, day, at });
    if (move.quantity > 0) await moveClaims(trx, split, move.quantity);
  }
  await settleClaims(trx, items, await loadStoresSplits(trx, 'itemId', items));
  return needs;
}

const movedBy = (db: Db, splitIds: readonly number[]) =>
  db('stockMove')
    .whereIn('splitId', among(db, splitIds))
    .groupBy('splitId')
    .select('splitId')
    .sum({ quantity: 'quantity', value: 'value' }) as unknown as Promise<
    { splitId: number; quantity: number; value: number }[]
  >;

/**
 * Items that rest on what came of these parts of orders: some was issued or counted since, or more is reserved than would
 * be left. @returns their names; empty when it can go back
 */
export async function restingOn(db: Db, goes: readonly { readonly splitId: number }[]): Promise<string[]> {
  const rows = (await db.raw(
    `select distinct i.name from stock_move m join item i on i.id = m.item_id
     where m.split_id in (select value from json_each(?)) and m.kind = 'received' and (
       exists (select 1 from stock_move x where x.item_id = m.item_id and x.place_id = m.place_id and x.job_id is null
         and x.id > m.id and x.kind in ('issued', 'returned', 'counted'))
       or (select sum(r.quantity) from reservation r where r.item_id = m.item_id and r.place_id = m.place_id and r.job_id is null and r.firm = 1)
         > (select p.quantity from stock_sum p where p.item_id = m.item_id and p.place_id = m.place_id and p.job_id = 0) - m.quantity)`,
    JSON.stringify(goes.map((g) => g.splitId)),
  )) as { name: string }[];
  return rows.map((r) => r.name);
}

/** After a pile was counted, issued from or given back to. @returns needs that this moves */
export async function settleStock(trx: Db, itemId: number): Promise<number[]> {
  const needs = (await claimsOf(trx, [itemId])).map((c) => c.needId);
  await settleClaims(trx, [itemId], await loadStoresSplits(trx, 'itemId', [itemId]));
  return needs;
}

type Holding = Pick<Reservation, 'needId' | 'itemId' | 'placeId' | 'jobId' | 'splitId' | 'quantity' | 'share'>;

/**
 * What stores hold for needs and gave out to them.
 * @param claims - what they have reserved and count on: as it is kept, or as it would be
 */
export async function loadHeld(
  db: Db,
  needIds: readonly number[],
  claims?: readonly Holding[],
): Promise<Map<number, Held>> {
  const held = new Map<number, Held>();
  const put = (needId: number, more: Partial<Held>) => {
    const was = held.get(needId) ?? NOTHING_HELD;
    held.set(needId, {
      inStores: addQ(was.inStores, more.inStores ?? NONE),
      coming: addQ(was.coming, more.coming ?? NONE),
      issued: addQ(was.issued, more.issued ?? NONE),
      cost: add(was.cost, more.cost ?? ZERO),
    });
  };
  const own: readonly Holding[] = claims ?? (await whereIn(db, 'reservation', 'needId', needIds));
  const piles = new Map(
    (own.length === 0 ? [] : await loadPiles(db, [...new Set(own.map((c) => c.itemId))])).map((p) => [
      `${p.itemId}/${p.placeId}/${p.jobId}`,
      p,
    ]),
  );
  const splitIds = own.flatMap((c) => c.splitId ?? []);
  const splits = new Map((await loadStoresSplits(db, 'splitId', splitIds)).map((s) => [s.splitId, s]));
  for (const claim of own) {
    const pile = piles.get(sourceKey(claim));
    const split = splits.get(claim.splitId ?? 0);
    if (split !== undefined) put(claim.needId, { coming: claim.share, cost: shareOfValue(claim.quantity, split) });
    else if (pile !== undefined) put(claim.needId, { inStores: claim.share, cost: worth(claim.quantity, pile) });
  }
  for (const { needId, share } of await whereIn(db, 'issue', 'needId', needIds))
    if (needId !== null) put(needId, { issued: share });
  return held;
}

const shareOfValue = (q: Quantity, { value, ordered }: StoresSplit): Minor =>
  ordered === 0 ? ZERO : minor(divideRounded(BigInt(value) * BigInt(q), BigInt(ordered)));

/** Where stock does not agree with the documents it came by. */
export async function stockDisagreements(db: Db): Promise<{ line: number; what: string }[]> {
  const moved = (await db('stockMove').whereNotNull('splitId').distinct('splitId')).flatMap((m) => m.splitId ?? []);
  const wrong: { line: number; what: string }[] = [];
  const had = new Map((await movedBy(db, moved)).map((m) => [m.splitId, m]));
  const received = (await db('split as s').whereNull('s.jobId').where('s.received', '>', 0).select('s.id')).map(
    (s: { id: number }) => s.id,
  );
  for (const s of await loadStoresSplits(db, 'splitId', [...new Set([...moved, ...received])])) {
    const was = had.get(s.splitId);
    if ((was?.quantity ?? 0) !== s.received || (was?.value ?? 0) !== s.receivedValue)
      wrong.push({ line: s.splitId, what: 'stock that came of it' });
  }
  const over = (await db.raw(`
    select r.need_id as line, 'more reserved than is there' as what from reservation r
    left join stock_sum p on p.item_id = r.item_id and p.place_id = r.place_id and p.job_id = coalesce(r.job_id, 0)
    where r.place_id is not null group by r.item_id, r.place_id, coalesce(r.job_id, 0) having sum(r.quantity) > coalesce(max(p.quantity), 0)
    union all select r.need_id, 'more reserved than is to come' from reservation r where r.split_id is not null
    group by r.split_id having sum(r.quantity) > 0 and not exists (select 1 from split s where s.id = r.split_id and s.job_id is null)`)) as {
    line: number;
    what: string;
  }[];
  return [...wrong, ...over];
}
