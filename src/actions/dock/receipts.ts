import type { Day } from '@/core/calendar/workdays';
import {
  addQ,
  atLeastNone,
  formatQuantity,
  fromSupplierUnit,
  least,
  NONE,
  quantity,
  subtractQ,
  toSupplierUnit,
  type Quantity,
} from '@/core/quantity/quantity';
import { groupBy } from '@/core/group';
import { exactFactor, unitOf } from '@/core/quantity/units';
import type { Allotment } from '@/core/receiving/receive';
import { numbersFault, type Numbered } from '@/core/stores/numbers';
import { takeFrom, type Wanted } from '@/core/stores/spots';
import type { StoredLine, StoredOrder } from '@/store/orders';
import { insertMany, insertOne, whereIn } from '@/store/rows';
import { loadGoodsSplits } from '@/store/stock/arriving';
import type { Piece } from '@/store/stock/follow';
import { gapsOf, type Gap } from '@/store/stock/gaps';
import { lotIds, knownLots, whereAre } from '@/store/stock/lots';
import { spotsOf } from '@/store/stock/piles';
import type { Item, Receipt } from '@/store/tables';
import { grant, Refused, refuse, type Work } from '../action';

/** What a receipt does to one line, in its unit: below zero where it takes something away again. */
export type Moved = {
  readonly line: StoredLine;
  readonly accepted: Quantity;
  readonly held: Quantity;
  readonly rejected: Quantity;
  readonly givenUp: Quantity;
  readonly reasonId: number | null;
};

export const NOT_MOVED = { accepted: NONE, held: NONE, rejected: NONE, givenUp: NONE, reasonId: null } as const;

/** What a receipt does to a split, in the need's unit. */
export type MovedSplit = {
  readonly splitId: number;
  readonly quantity: Quantity;
  readonly givenUp: Quantity;
  readonly here: Quantity;
};

export const said = (line: Pick<StoredLine, 'unit' | 'description'>, q: Quantity): string =>
  [formatQuantity(q), unitOf(line.unit).short, line.description].filter(Boolean).join(' ');

/** The day something came or went: not in the future, and not before its order was sent. */
export function dayOf({ today }: Work, day: Day | null, order: StoredOrder): Day {
  if (day === null) return today;
  if (day > today) refuse('receive.day', 'The date received can’t be in the future.', 'day');
  if (order.sentOn !== null && day < order.sentOn)
    refuse('receive.day', `Order ${order.number} was sent after that date.`, 'day');
  return day;
}

/** Which of the parts that goods came for lie in our own places now: goods of items, for stores or at a place of ours. */
export async function whatIsHere(
  trx: Work['trx'],
  allotted: readonly Allotment[],
  placeId: number | null,
): Promise<MovedSplit[]> {
  const splits = new Map(
    (
      await loadGoodsSplits(
        trx,
        'splitId',
        allotted.map((a) => a.splitId),
      )
    ).map((s) => [s.splitId, s]),
  );
  const ids = [...new Set([...splits.values()].map((s) => placeId ?? s.placeId))];
  const own = new Set(
    (await whereIn(trx, 'deliveryPlace', 'id', ids)).filter((p) => p.kind === 'own').map((p) => p.id),
  );
  return allotted.map(({ splitId, quantity: q }) => {
    const split = splits.get(splitId);
    const lies =
      split !== undefined && (own.has(placeId ?? split.placeId) || (placeId === null && split.jobId === null));
    return { splitId, quantity: q, givenUp: NONE, here: lies ? q : NONE };
  });
}

/** So much of a line in its item's unit; nothing where that cannot be told. */
export function inItemUnit(line: Pick<StoredLine, 'factor' | 'shareUnit'>, item: Item, q: Quantity): Quantity {
  const factor = exactFactor(item.unit, line.shareUnit);
  return factor === undefined ? NONE : toSupplierUnit(fromSupplierUnit(q, line.factor), factor);
}

/** Writes a receipt, and what it does to lines and splits. @returns its id */
export async function writeReceipt(
  { trx, actor, now }: Work,
  head: Pick<Receipt, 'orderId' | 'number' | 'kind' | 'day' | 'note'> &
    Partial<Pick<Receipt, 'reversesId' | 'carrier' | 'packages' | 'placeId'>>,
  lines: readonly Moved[],
  splits: readonly MovedSplit[],
): Promise<number> {
  const receiptId = await insertOne(trx, 'receipt', { ...head, personId: actor.id, at: now });
  await insertMany(
    trx,
    'receiptLine',
    lines.map(({ line, ...moved }) => ({ receiptId, lineId: line.id, ...moved })),
  );
  await insertMany(
    trx,
    'receiptSplit',
    splits.map((s) => ({ receiptId, ...s })),
  );
  for (const { line, accepted, held, rejected, givenUp } of lines)
    await trx('orderLine')
      .where({ id: line.id })
      .update({
        received: trx.raw('received + ?', [accepted]),
        held: trx.raw('held + ?', [held]),
        rejected: trx.raw('rejected + ?', [rejected]),
        givenUp: trx.raw('given_up + ?', [givenUp]),
      } as never);
  for (const { splitId, quantity: q, givenUp } of splits)
    await trx('split')
      .where({ id: splitId })
      .update({
        received: trx.raw('received + ?', [q]),
        givenUp: trx.raw('given_up + ?', [givenUp]),
      } as never);
  return receiptId;
}

/** Some of a lot, in its item's unit. */
export type LotQuantity = { readonly lotId: number; readonly quantity: Quantity };

/** Writes down the numbers that came to the door, or left it: what waits here, and what was rejected. */
export async function writeAtDoor(
  trx: Work['trx'],
  receiptId: number,
  lineId: number,
  moved: readonly { readonly lotId: number; readonly held?: number; readonly rejected?: number }[],
): Promise<void> {
  const rows = [...groupBy(moved, (m) => m.lotId)].map(([lotId, own]) => ({
    ...{ receiptId, lineId, lotId },
    held: own.reduce((sum, m) => sum + (m.held ?? 0), 0),
    rejected: own.reduce((sum, m) => sum + (m.rejected ?? 0), 0),
  }));
  await insertMany(trx, 'receiptLot', rows);
}

/** Where what came of a line is put, and by which numbers it goes. */
export type PlacedPieces = {
  readonly receiptId: number;
  readonly placeId: number | null;
  readonly binId: number | null;
  readonly numbers: readonly Numbered[];
};

/**
 * Shares the numbers that came with a line among its parts, and says where each of them goes in.
 * @param all - what has not moved yet of the parts that were written
 * @param allotted - the parts of this line, in the order in which they are filled
 * @param fresh - whether the numbers come in only now; else they are at the door already
 */
export async function piecesIn(
  trx: Work['trx'],
  item: Item | undefined,
  all: ReadonlyMap<number, Gap>,
  allotted: readonly { readonly splitId: number }[],
  { receiptId, placeId, binId, numbers }: PlacedPieces,
  fresh: boolean,
): Promise<Piece[]> {
  const gaps = allotted.flatMap((a) => all.get(a.splitId) ?? []);
  const moved = quantity(gaps.reduce((sum, g) => sum + g.gap, 0));
  if (item === undefined || moved === 0) return [];
  const lots = await numbersIn(trx, item, moved, numbers, fresh);
  const of = (gap: Gap) => ({
    splitId: gap.split.splitId,
    placeId: placeId ?? gap.split.placeId,
    binId,
    kind: 'received' as const,
    receiptId,
  });
  if (lots.length === 0) return gaps.map((g) => ({ ...of(g), lotId: null, quantity: g.gap }));
  const left = lots.map((l) => ({ ...l }));
  return gaps.flatMap((gap) => {
    let wants = gap.gap;
    const own: Piece[] = [];
    while (wants > 0 && left[0] !== undefined) {
      const [lot] = left;
      const part = least(wants, lot.quantity);
      own.push({ ...of(gap), lotId: lot.lotId, quantity: part });
      wants = subtractQ(wants, part);
      lot.quantity = subtractQ(lot.quantity, part);
      if (lot.quantity === 0) left.shift();
    }
    return own;
  });
}

/** The lots or serial numbers of what comes in; a serial number that is here already says where. */
export async function numbersIn(
  trx: Work['trx'],
  item: Item,
  moved: Quantity,
  numbers: readonly Numbered[],
  fresh: boolean,
): Promise<{ lotId: number; quantity: Quantity }[]> {
  const fault = numbersFault(item, moved, numbers);
  if (fault !== undefined) throw new Refused([fault]);
  if (item.tracking === 'serial' && fresh) {
    const known = await knownLots(
      trx,
      item.id,
      numbers.map((n) => n.number),
    );
    const where = await whereAre(
      trx,
      known.map((l) => l.id),
    );
    const here = [...where.values()].filter((w) => w.is !== 'away');
    if (here.length > 0)
      throw new Refused(
        here.slice(0, 5).map((w) => ({
          code: 'numbers.known',
          message: `${w.number} ${w.words}, so it can’t be received again. Check the number.`,
          field: 'numbers',
        })),
      );
  }
  const ids = await lotIds(trx, item.id, numbers);
  return numbers.map((n, k) => ({ lotId: ids[k] ?? 0, quantity: n.quantity }));
}

/**
 * Where goods are taken away again that a receipt brought, or that go back to their supplier.
 * @param lots - which numbers go, and how much of each; none for goods without
 */
export async function piecesOut(
  trx: Work['trx'],
  splitIds: readonly number[],
  kind: Piece['kind'],
  receiptId: number,
  lots: (itemId: number) => readonly LotQuantity[],
): Promise<Piece[]> {
  const pieces: Piece[] = [];
  const gone = new Map<string, Quantity>();
  const left = new Map<number, Quantity>();
  for (const { split, gap, placeId } of await gapsOf(trx, splitIds)) {
    if (gap > 0) continue;
    const { splitId, itemId, jobId, tracking } = split;
    const item = await trx('item').where({ id: itemId }).first('name');
    const spots = (await spotsOf(trx, { itemId, placeId, jobId })).map((s) => {
      const taken = gone.get(`${itemId}/${placeId}/${jobId}/${s.binId}/${s.lotId}`) ?? NONE;
      return { ...s, quantity: atLeastNone(subtractQ(s.quantity, taken)) };
    });
    const own = tracking === 'none' ? [] : lots(itemId);
    const usable = own.length === 0 ? spots : spots.filter((s) => own.some((l) => l.lotId === s.lotId));
    const wanted: Wanted[] = [];
    let more = quantity(-gap);
    for (const { lotId, quantity: q } of own) {
      const there = addQ(NONE, ...spots.filter((s) => s.lotId === lotId).map((s) => s.quantity));
      const part = least(more, least(left.get(lotId) ?? q, there));
      if (part <= 0) continue;
      wanted.push({ lotId, quantity: part });
      left.set(lotId, subtractQ(left.get(lotId) ?? q, part));
      more = subtractQ(more, part);
    }
    if (more > 0) wanted.push({ lotId: null, quantity: more });
    for (const part of grant(takeFrom(usable, wanted, item?.name ?? ''))) {
      const key = `${itemId}/${placeId}/${jobId}/${part.binId}/${part.lotId}`;
      gone.set(key, quantity((gone.get(key) ?? 0) + part.quantity));
      pieces.push({ ...part, splitId, placeId, kind, receiptId, quantity: quantity(-part.quantity) });
    }
  }
  return pieces;
}
