import { asDay, type Day } from '@/core/calendar/workdays';
import { isGoods, type ItemKind, type Tracking } from '@/core/items/kinds';
import type { Minor } from '@/core/money/money';
import { atLeastNone, NONE, subtractQ, toSupplierUnit, type Quantity } from '@/core/quantity/quantity';
import { exactFactor } from '@/core/quantity/units';
import { awaitedOf, coverOf, type SplitState } from '@/core/tab/stages';
import type { Db } from '../db';
import { among, rowsOf } from '../rows';
import { loadSplitStates } from '../tab/splits';

/** A part of an order that brings goods of an item, for a job or for stores; quantities in the item's unit. */
export type GoodsSplit = {
  readonly splitId: number;
  readonly lineId: number;
  readonly itemId: number;
  readonly tracking: Tracking;
  /** Where it is to come. */
  readonly placeId: number;
  /** Whose it is; null for stores. */
  readonly jobId: number | null;
  readonly state: SplitState;
  /** What it is to bring in all, and what that costs. */
  readonly ordered: Quantity;
  readonly value: Minor;
  /** What is still to come, once it is sent. */
  readonly toCome: Quantity;
  /** The day it is wanted from its supplier. */
  readonly on: Day | null;
  /** From its own unit to the item's. */
  readonly own: (share: Quantity) => Quantity;
};

type Row = {
  readonly id: number;
  readonly lineId: number;
  readonly itemId: number;
  readonly placeId: number;
  readonly jobId: number | null;
  readonly shareUnit: string;
  readonly unit: string;
  readonly itemKind: ItemKind;
  readonly tracking: Tracking;
  readonly lineDay: Day | null;
  readonly orderDay: Day | null;
};

/** Which parts of orders are looked for. */
type Which = 'all' | 'stores';

/** The parts of orders that bring goods of items, among these splits or of these items. */
export async function loadGoodsSplits(
  db: Db,
  by: 'splitId' | 'itemId',
  ids: readonly number[],
  which: Which = 'all',
): Promise<GoodsSplit[]> {
  if (ids.length === 0) return [];
  const query = db('split as s')
    .join('orderLine as l', 'l.id', 's.lineId')
    .join('purchaseOrder as o', 'o.id', 'l.orderId')
    .join('item as i', 'i.id', 'l.itemId')
    .whereIn(by === 'splitId' ? 's.id' : 'l.itemId', among(db, ids))
    .where('l.kind', 'goods')
    .select('s.id', 's.lineId', 's.jobId', 'l.itemId', 'l.shareUnit', 'i.tracking', {
      placeId: db.raw('coalesce(l.place_id, o.place_id)'),
      unit: 'i.unit',
      itemKind: 'i.kind',
      lineDay: 'l.wantedOn',
      orderDay: 'o.wantedOn',
    });
  if (which === 'stores') void query.whereNull('s.jobId');
  const rows = await rowsOf<Row>(query);
  const ofRows = rows.map((r) => r.id);
  const states = new Map((await loadSplitStates(db, 'id', ofRows)).map((s) => [s.id, s]));
  return rows.flatMap((row) => {
    const state = states.get(row.id);
    const factor = exactFactor(row.unit, row.shareUnit);
    if (state === undefined || factor === undefined || !isGoods(row.itemKind)) return [];
    const own = (q: Quantity) => (q < 0 ? NONE : toSupplierUnit(q, factor));
    const { itemId, placeId, jobId, tracking, lineId } = row;
    const on = asDay(row.lineDay ?? row.orderDay ?? '') ?? null;
    return [standing({ splitId: row.id, lineId, itemId, placeId, jobId, tracking, on, own }, state)];
  });
}

/** A part of an order that brings goods, as it stands or as it would stand. */
export const standing = (
  split: Omit<GoodsSplit, 'state' | 'ordered' | 'value' | 'toCome'>,
  state: SplitState,
): GoodsSplit => ({
  ...split,
  state,
  ordered: split.own(coverOf(state)),
  value: state.value,
  toCome: split.own(awaitedOf(state)),
});

/** What a part is still to bring, one that is drafted too: it comes once it is sent. */
export const stillBrings = ({ ordered, own, state }: GoodsSplit): Quantity =>
  atLeastNone(subtractQ(ordered, own(state.received)));

/** The parts of orders that go to stores. */
export const loadStoresSplits = (db: Db, by: 'splitId' | 'itemId', ids: readonly number[]): Promise<GoodsSplit[]> =>
  loadGoodsSplits(db, by, ids, 'stores');
