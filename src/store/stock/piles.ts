import { minor, ZERO, type Minor } from '@/core/money/money';
import { NONE, type Quantity } from '@/core/quantity/quantity';
import type { KnownSpot } from '@/core/stores/spots';
import type { Pile } from '@/core/stores/pile';
import type { Db } from '../db';
import type { Happening } from '../happening';
import { among, insertMany, whereIn, rowsOf } from '../rows';
import type { StockMove, StockSum } from '../tables';

/** Whose stock lies where: an item at a place, the company's own or a job's. */
export type PileKey = { readonly itemId: number; readonly placeId: number; readonly jobId: number | null };

export const pileKey = ({ itemId, placeId, jobId }: PileKey): string => `${itemId}/${placeId}/${jobId ?? 0}`;

/** The piles of these items, the empty ones too. */
export const loadPiles = (db: Db, itemIds: readonly number[]): Promise<StockSum[]> =>
  whereIn(db, 'stockSum', 'itemId', itemIds);

export async function pileOf(db: Db, { itemId, placeId, jobId }: PileKey): Promise<Pile> {
  const row = await db('stockSum')
    .where({ itemId, placeId, jobId: jobId ?? 0 })
    .first('quantity', 'value');
  return row ?? { quantity: NONE, value: ZERO };
}

/** Where items lie: by pile, its bins, and its lots or serial numbers. */
export const loadSpots = async (db: Db, itemIds: readonly number[]): Promise<(PileKey & KnownSpot)[]> =>
  await rowsOf<PileKey & KnownSpot>(knownSpots(db).whereIn('s.itemId', among(db, itemIds)));

/** Where a pile lies: its bins, and its lots or serial numbers. */
export const spotsOf = async (db: Db, { itemId, placeId, jobId }: PileKey): Promise<KnownSpot[]> =>
  await rowsOf<KnownSpot>(knownSpots(db).where({ 's.itemId': itemId, 's.placeId': placeId, 's.jobId': jobId ?? 0 }));

const knownSpots = (db: Db) =>
  db('stockSpot as s')
    .leftJoin('bin as b', 'b.id', 's.binId')
    .leftJoin('lot as l', 'l.id', 's.lotId')
    .where('s.quantity', '>', 0)
    .select(
      's.itemId',
      's.placeId',
      's.quantity',
      'l.expiresOn',
      db.raw(
        "nullif(s.job_id, 0) as job_id, nullif(s.bin_id, 0) as bin_id, nullif(s.lot_id, 0) as lot_id, coalesce(b.name, '') as bin",
      ),
    );

/** The company's own stock of an item `i`, at all places. */
export const OWN_STOCK =
  '(select coalesce(sum(s.quantity), 0) from stock_sum s where s.item_id = i.id and s.job_id = 0)';
/** What of it lines have a claim on, reserved by a person or counted on by a plan. */
export const OWN_CLAIMED =
  '(select coalesce(sum(r.quantity), 0) from reservation r where r.item_id = i.id and r.place_id is not null and r.job_id is null)';
/** What of it is free, as the core's `freeOf` has it. */
export const OWN_FREE = `max(${OWN_STOCK} - ${OWN_CLAIMED}, 0)`;

/** What of items is free at all places of the company, in the item's unit. */
export async function loadFreeStock(db: Db, itemIds: readonly number[]): Promise<Map<number, Quantity>> {
  const rows = await rowsOf<{ id: number; free: Quantity }>(
    db('item as i')
      .whereIn('i.id', among(db, [...new Set(itemIds)]))
      .select('i.id', db.raw(`${OWN_FREE} as free`)),
  );
  return new Map(rows.map((r) => [r.id, r.free]));
}

/**
 * What jobs have of items that none of their own lines asked for, by pile: what is left of what came for a line once
 * that has all it needs. In the item's unit.
 */
export async function loadOverOfJobs(db: Db, itemIds: readonly number[]): Promise<Map<string, Quantity>> {
  const rows = await rowsOf<PileKey & { over: Quantity }>(
    db.raw(
      `select p.item_id, p.place_id, p.job_id, p.quantity - coalesce((
       select sum(max(0, min(n.quantity, coalesce((select sum(s.received) from split s where s.need_id = n.id), 0))
         - coalesce((select sum(i.share) from issue i where i.need_id = n.id and i.owner_id = n.job_id), 0)))
       from need n where n.job_id = p.job_id and n.item_id = p.item_id), 0) as over
     from stock_sum p where p.job_id > 0 and p.quantity > 0 and p.item_id in (select value from json_each(?))`,
      JSON.stringify([...new Set(itemIds)]),
    ),
  );
  return new Map(rows.map((r) => [pileKey(r), r.over]));
}

export type NewMove = PileKey &
  Pick<StockMove, 'kind' | 'quantity' | 'value'> &
  Partial<Pick<StockMove, 'binId' | 'lotId' | 'reason' | 'splitId' | 'issueId' | 'changeId' | 'receiptId'>>;

/** Writes moves, in their order. */
export const addMoves = (
  trx: Db,
  { personId, day, at }: Pick<Happening, 'personId' | 'day' | 'at'>,
  moves: readonly NewMove[],
): Promise<void> =>
  insertMany(
    trx,
    'stockMove',
    moves.map((m) => ({ reason: '', ...m, personId, day, at })),
  );

/** What pieces with serial numbers are worth, each by what it cost and was revalued by. */
export async function worthOfLots(db: Db, lotIds: readonly number[]): Promise<Map<number, Minor>> {
  if (lotIds.length === 0) return new Map();
  const rows = await rowsOf<{ lotId: number; value: number }>(
    db('stockMove').whereIn('lotId', among(db, lotIds)).groupBy('lotId').select('lotId').sum({ value: 'value' }),
  );
  return new Map(rows.map((r) => [r.lotId, minor(r.value)]));
}
