import { groupBy } from '@/core/group';
import { divideRounded } from '@/core/money/decimal';
import { add, minor, subtract, ZERO, type Minor } from '@/core/money/money';
import { spreadMoney } from '@/core/money/spread';
import { addQ, NONE, quantity, subtractQ, type Quantity } from '@/core/quantity/quantity';
import type { Pile } from '@/core/stores/pile';
import { giveBackValue, revalue } from '@/core/stores/value';
import { inHand } from '@/core/tab/stages';
import type { Db } from '../db';
import type { Happening } from '../happening';
import { among, insertMany, whereIn, rowsOf } from '../rows';
import { openTabLines } from '../tabLines';
import { loadGoodsSplits, type GoodsSplit } from './arriving';
import { claimsOf, moveClaims, settleClaims } from './claims';
import { addMoves, loadPiles, pileKey, spotsOf, worthOfLots, type NewMove, type PileKey } from './piles';

/** Goods of a part of an order that came in, or went away where the quantity is below zero; in the item's unit. */
export type Piece = {
  readonly splitId: number;
  readonly placeId: number;
  readonly binId: number | null;
  readonly lotId: number | null;
  readonly quantity: Quantity;
  readonly kind: 'received' | 'sentBack';
  readonly receiptId: number | null;
};

type Had = PileKey & { readonly splitId: number; readonly quantity: Quantity; readonly value: Minor };

/** Those of the lines that goods lie in stores of, or may. */
const withGoods = async (db: Db, lines: readonly number[]): Promise<number[]> =>
  (
    await rowsOf<{ id: number }>(
      db('split as s')
        .whereIn('s.id', among(db, lines))
        .whereRaw(
          '(s.job_id is null or s.received <> 0 or exists (select 1 from stock_move m where m.split_id = s.id))',
        )
        .select('s.id'),
    )
  ).map((s) => s.id);

/** What moved of each part of an order so far, by where it lies and whose it is. */
export const movedOf = (db: Db, splitIds: readonly number[]): Promise<Had[]> =>
  rowsOf<Had>(
    db('stockMove')
      .whereIn('splitId', among(db, splitIds))
      .groupBy('splitId', 'itemId', 'jobId', 'placeId')
      .select('splitId', 'itemId', 'jobId', 'placeId')
      .sum({ quantity: 'quantity', value: 'value' }),
  );

/** What of each part of an order lies in our own places, in its own unit. */
export async function cameHere(db: Db, splitIds: readonly number[]): Promise<Map<number, Quantity>> {
  const rows = await rowsOf<{ splitId: number; here: number }>(
    db('receiptSplit')
      .whereIn('splitId', among(db, splitIds))
      .groupBy('splitId')
      .select('splitId')
      .sum({ here: 'here' }),
  );
  return new Map(rows.map((r) => [r.splitId, quantity(r.here)]));
}

/** What of the cost of parts of orders no goods were left to bear: what stores lost by it. */
export async function revaluedOf(db: Db, splitIds: readonly number[]): Promise<Map<number, number>> {
  const rows = await rowsOf<{ splitId: number; value: number }>(
    db('stockChange')
      .whereIn('splitId', among(db, splitIds))
      .groupBy('splitId')
      .select('splitId')
      .sum({ value: 'value' }),
  );
  return new Map(rows.map((r) => [r.splitId, r.value]));
}

/** How much of a part of an order is to have moved in, in the item's unit, and what that is worth. */
export function standsAt(split: GoodsSplit, here: Quantity): Pile {
  const { received } = split.state;
  if (here <= 0 || received <= 0) return { quantity: NONE, value: ZERO };
  return {
    quantity: split.own(here),
    value: minor(divideRounded(BigInt(inHand(split.state)) * BigInt(here), BigInt(received))),
  };
}

/** The inside of one act's moves: its piles as they change, and what it leaves to write. */
class Moves {
  readonly written: NewMove[] = [];
  readonly differences: { readonly split: GoodsSplit; readonly value: Minor }[] = [];
  constructor(
    readonly trx: Db,
    readonly piles: Map<string, Pile>,
  ) {}

  pile = (key: PileKey): Pile => this.piles.get(pileKey(key)) ?? { quantity: NONE, value: ZERO };

  add(move: NewMove): void {
    const before = this.pile(move);
    this.piles.set(pileKey(move), {
      quantity: addQ(before.quantity, move.quantity),
      value: add(before.value, move.value),
    });
    this.written.push(move);
  }

  /** What no goods are left to bear is a difference. */
  beside(split: GoodsSplit, value: Minor): void {
    if (value !== 0) this.differences.push({ split, value });
  }

  /** The fullest of the piles that an owner has of an item. */
  fullest({ itemId, jobId, placeId }: PileKey): PileKey {
    const own = [...this.piles].flatMap(([key, pile]) => {
      const [item, place, job] = key.split('/').map(Number);
      return item === itemId && job === (jobId ?? 0) ? [{ placeId: place ?? placeId, pile }] : [];
    });
    const best = own.sort((a, b) => b.pile.quantity - a.pile.quantity)[0];
    return { itemId, jobId, placeId: best?.placeId ?? placeId };
  }
}

/** Goods whose order was charged to another job since they came are that job's now. */
async function follow(moves: Moves, split: GoodsSplit, had: readonly Had[]): Promise<void> {
  const { splitId, jobId } = split;
  for (const old of had.filter((h) => h.jobId !== jobId && (h.quantity !== 0 || h.value !== 0))) {
    const spots = old.quantity > 0 ? await spotsOf(moves.trx, old) : [];
    const lots = new Set(await lotsOf(moves.trx, splitId));
    let left = old.quantity;
    const parts = spots
      .filter((s) => split.tracking === 'none' || lots.has(s.lotId ?? 0))
      .flatMap((s) => {
        const part = Math.min(left, s.quantity) as Quantity;
        left = subtractQ(left, part);
        return part > 0 ? [{ binId: s.binId, lotId: s.lotId, quantity: part }] : [];
      });
    if (left > 0) throw new Error(`Goods of part ${splitId} of an order are charged elsewhere and are not there.`);
    const values = shared(
      old.value,
      parts.map((p) => p.quantity),
    );
    const key = { itemId: split.itemId, placeId: old.placeId, splitId, kind: 'transferred' as const };
    for (const [k, { binId, lotId, quantity: q }] of parts.entries()) {
      const value = values[k] ?? ZERO;
      moves.add({ ...key, jobId: old.jobId, binId, lotId, quantity: quantity(-q), value: minor(-value) });
      moves.add({ ...key, jobId, binId, lotId, quantity: q, value });
    }
  }
}

/** Money over weights; none over nothing. */
const shared = (value: Minor, weights: readonly number[]): Minor[] =>
  weights.length === 0 ? [] : spreadMoney(value, weights);

/** The lots and serial numbers that came of a part of an order. */
export const lotsOf = async (db: Db, splitId: number): Promise<number[]> =>
  (await db('stockMove').where({ splitId }).whereNotNull('lotId').distinct('lotId')).flatMap((m) => m.lotId ?? []);

async function moveIn(moves: Moves, split: GoodsSplit, pieces: readonly Piece[], value: Minor): Promise<void> {
  const values = spreadMoney(
    value,
    pieces.map((p) => p.quantity),
  );
  for (const [k, { quantity: q, ...piece }] of pieces.entries())
    moves.add({ itemId: split.itemId, jobId: split.jobId, ...piece, quantity: q, value: values[k] ?? ZERO });
}

async function moveOut(moves: Moves, split: GoodsSplit, pieces: readonly Piece[], value: Minor): Promise<void> {
  const values = spreadMoney(
    value,
    pieces.map((p) => -p.quantity),
  );
  const { itemId, jobId } = split;
  const own =
    split.tracking === 'serial'
      ? await worthOfLots(
          moves.trx,
          pieces.flatMap((p) => p.lotId ?? []),
        )
      : undefined;
  for (const [k, { quantity: q, ...piece }] of pieces.entries()) {
    const due = values[k] ?? ZERO;
    const worth = own?.get(piece.lotId ?? 0);
    const borne =
      worth === undefined
        ? giveBackValue(moves.pile({ itemId, jobId, placeId: piece.placeId }), q, due)
        : { byPile: minor(-worth), beside: minor(due + worth) };
    moves.add({ itemId, jobId, ...piece, quantity: q, value: borne.byPile });
    moves.beside(split, borne.beside);
  }
}

/** An invoice came that differs from the order, or one that was matched claims less: what is there is worth anew. */
async function worthAnew(moves: Moves, split: GoodsSplit, placeId: number, came: Quantity, value: Minor) {
  const { splitId, itemId, jobId } = split;
  const move = { itemId, jobId, splitId, kind: 'revalued' as const, quantity: NONE };
  if (split.tracking === 'serial') {
    const lots = await lotsOf(moves.trx, splitId);
    const there = await whereIn(moves.trx, 'stockSpot', 'lotId', lots);
    const still = there.filter((s) => s.quantity > 0 && s.jobId === (jobId ?? 0));
    const [byPieces = ZERO, beside = ZERO] = spreadMoney(value, [
      still.reduce((sum, s) => sum + s.quantity, 0),
      Math.max(came - still.reduce((sum, s) => sum + s.quantity, 0), 0),
    ]);
    const values = shared(
      byPieces,
      still.map((s) => s.quantity),
    );
    for (const [k, s] of still.entries())
      moves.add({ ...move, placeId: s.placeId, binId: s.binId || null, lotId: s.lotId, value: values[k] ?? ZERO });
    moves.beside(split, still.length === 0 ? value : beside);
    return;
  }
  const key = moves.fullest({ itemId, jobId, placeId });
  const { byPile, beside } = revalue(moves.pile(key), came, value);
  if (byPile !== 0) moves.add({ ...move, placeId: key.placeId, value: byPile });
  moves.beside(split, beside);
}

type Arrived = { readonly split: GoodsSplit; readonly placeId: number; readonly quantity: Quantity };

/** What brings stock to where these parts of orders stand: worked out, and nothing written. */
async function workOut(
  db: Db,
  splits: readonly GoodsSplit[],
  pieces: readonly Piece[],
): Promise<{ moves: Moves; arrived: readonly Arrived[] }> {
  const items = [...new Set(splits.map((s) => s.itemId))];
  const ids = splits.map((s) => s.splitId);
  const [had, here] = [groupBy(await movedOf(db, ids), (h) => h.splitId), await cameHere(db, ids)];
  const beside = await revaluedOf(db, ids);
  const given = groupBy(pieces, (p) => p.splitId);
  const moves = new Moves(db, new Map((await loadPiles(db, items)).map((p) => [pileKey(p), p])));
  const arrived: Arrived[] = [];
  for (const split of splits) {
    const was = had.get(split.splitId) ?? [];
    await follow(moves, split, was);
    const is = standsAt(split, here.get(split.splitId) ?? NONE);
    const [q, value] = [
      subtractQ(is.quantity, addQ(NONE, ...was.map((h) => h.quantity))),
      subtract(is.value, add(ZERO, ...was.map((h) => h.value), minor(-(beside.get(split.splitId) ?? 0)))),
    ];
    const own = given.get(split.splitId) ?? whole(split, q);
    if (addQ(NONE, ...own.map((p) => p.quantity)) !== q)
      throw new Error(`What came of part ${split.splitId} of an order does not agree with where it went.`);
    if (q > 0) await moveIn(moves, split, own, value);
    else if (q < 0) await moveOut(moves, split, own, value);
    else if (value !== 0)
      await worthAnew(moves, split, was.find((h) => h.quantity > 0)?.placeId ?? split.placeId, is.quantity, value);
    if (q > 0 && split.jobId === null)
      for (const p of own) arrived.push({ split, placeId: p.placeId, quantity: p.quantity });
  }
  return { moves, arrived };
}

/** The piles of the items of these parts of orders, as they would be if the parts stood so. */
export const pilesWith = async (db: Db, splits: readonly GoodsSplit[]): Promise<ReadonlyMap<string, Pile>> =>
  (await workOut(db, splits, [])).moves.piles;

/**
 * Brings stock to where these parts of orders stand: what came of them, what that is worth and whose it is, as moves of
 * the difference; and what is reserved of their items, to what there is.
 *
 * @param pieces - where goods came in, or went away, of those of the parts whose quantity moved
 * @returns lines of the tab that this moves beside them: needs with something reserved of the items, and differences
 */
export async function followSplits(
  trx: Db,
  happening: Happening,
  lines: readonly number[],
  pieces: readonly Piece[] = [],
): Promise<number[]> {
  const splits = await loadGoodsSplits(trx, 'splitId', await withGoods(trx, lines));
  if (splits.length === 0) return [];
  const items = [...new Set(splits.map((s) => s.itemId))];
  // Before anything is cut: who gives something up is moved as well.
  const needs = (await claimsOf(trx, items)).map((c) => c.needId);
  const { moves, arrived } = await workOut(trx, splits, pieces);
  await addMoves(trx, happening, moves.written);
  for (const { split, placeId, quantity: q } of arrived) await moveClaims(trx, split, placeId, q);
  await settleClaims(trx, items);
  return [...needs, ...(await writeDifferences(trx, happening, moves.differences))];
}

const whole = ({ splitId, placeId }: GoodsSplit, q: Quantity): readonly Piece[] =>
  q === 0 ? [] : [{ splitId, placeId, binId: null, lotId: null, quantity: q, kind: 'received', receiptId: null }];

async function writeDifferences(trx: Db, { day }: Happening, found: Moves['differences']): Promise<number[]> {
  const ids = await openTabLines(
    trx,
    'stockChange',
    found.map(() => 'difference of goods that have gone from stores'),
  );
  await insertMany(
    trx,
    'stockChange',
    found.map(({ split, value }, k) => ({
      ...{ id: ids[k], kind: 'difference', itemId: split.itemId, placeId: split.placeId, splitId: split.splitId },
      ...{ jobId: split.jobId, share: 0, toShare: 0, quantity: 0, value: -value, reason: '', day },
    })),
  );
  return ids;
}
