import { rowsOf } from '@/store/rows';
import type { Day } from '@/core/calendar/workdays';
import type { Minor } from '@/core/money/money';
import { addQ, NONE, type Quantity } from '@/core/quantity/quantity';
import { AWAITED, EDITABLE, type OrderState } from '@/core/orders/states';
import { may } from '@/core/people/rights';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';
import { loadFreeStock, loadPiles } from '@/store/stock/piles';
import type { StockSum } from '@/store/tables';
import { permit } from '../permit';
import { AWAITS_SPLIT, COMES_ON, SPLIT_AWAITED } from '@/store/comes';

/** What of a part there is, whom it is promised to, and what is coming, in the part's own unit. */
export type AtHand = {
  readonly unit: string;
  /** The company's own, and what of that is free; beside it what belongs to jobs. */
  readonly onHand: Quantity;
  readonly free: Quantity;
  readonly ofJobs: Quantity;
  readonly promised: readonly { readonly job: string; readonly neededOn: Day | null; readonly quantity: Quantity }[];
  /** What is on order, the earliest first; for stores where no job is named. */
  readonly coming: readonly {
    readonly order: string;
    readonly supplier: string;
    readonly job: string | null;
    readonly on: Day | null;
    readonly quantity: Quantity;
    readonly unit: string;
  }[];
};

const SHOWN = 12;

/** A part at a glance; undefined for none. */
export async function loadAtHand(db: Db, person: Person, itemId: number): Promise<AtHand | undefined> {
  permit(person, 'see stores');
  const item = await db('item').where({ id: itemId }).first('unit');
  if (item === undefined) return undefined;
  const piles = await loadPiles(db, [itemId]);
  const sumOf = (which: (pile: StockSum) => boolean) => addQ(NONE, ...piles.filter(which).map((p) => p.quantity));
  const promised = (await db('reservation as r')
    .join('need as n', 'n.id', 'r.needId')
    .join('job as j', 'j.id', 'n.jobId')
    .where('r.itemId', itemId)
    .whereNotNull('r.placeId')
    .whereNull('r.jobId')
    .groupBy('n.id')
    .orderByRaw("coalesce(n.needed_on, '~'), n.id")
    .limit(SHOWN)
    .select('n.neededOn', { job: 'j.number' })
    .sum({ quantity: 'r.quantity' })) as AtHand['promised'];
  const coming = (await db('orderLine as l')
    .join('purchaseOrder as o', 'o.id', 'l.orderId')
    .join('supplier as v', 'v.id', 'o.supplierId')
    .join('split as s', 's.lineId', 'l.id')
    .leftJoin('job as j', 'j.id', 's.jobId')
    .where('l.itemId', itemId)
    .whereIn('o.state', AWAITED)
    .whereRaw(AWAITS_SPLIT)
    .orderByRaw(`coalesce(${COMES_ON}, '~'), o.id`)
    .limit(SHOWN)
    .select({ order: 'o.number', supplier: 'v.name', job: 'j.number', unit: 'l.shareUnit' })
    .select(db.raw(`${COMES_ON} as "on", ${SPLIT_AWAITED} as quantity`))) as unknown as AtHand['coming'];
  return {
    unit: item.unit,
    onHand: sumOf((p) => p.jobId === 0),
    ofJobs: sumOf((p) => p.jobId !== 0),
    free: (await loadFreeStock(db, [itemId])).get(itemId) ?? NONE,
    promised,
    coming,
  };
}

/** What became of a line of a buy list: the orders it stands on, those that are still drafted too. */
export type Became = {
  readonly orderId: number;
  readonly version: number;
  readonly order: string;
  readonly supplier: string;
  readonly state: OrderState;
  readonly by: string;
  /** Whether it can be put back from there. */
  readonly drafted: boolean;
  readonly quantity: Quantity;
  readonly received: Quantity;
  readonly unit: string;
  /** In the company's currency; null for who may not see money. */
  readonly value: Minor | null;
  readonly on: Day | null;
};

export async function loadBecame(db: Db, person: Person, needId: number): Promise<Became[]> {
  permit(person, 'see orders');
  const rows = await rowsOf<Omit<Became, 'drafted'>>(
    db('split as p')
      .join('orderLine as l', 'l.id', 'p.lineId')
      .join('purchaseOrder as o', 'o.id', 'l.orderId')
      .join('supplier as s', 's.id', 'o.supplierId')
      .join('person as w', 'w.id', 'o.madeBy')
      .where('p.needId', needId)
      .whereNot('o.state', 'cancelled')
      .orderBy('o.id')
      .select('o.version', 'o.state', 'p.quantity', 'p.received', 'p.value', {
        orderId: 'o.id',
        order: 'o.number',
        supplier: 's.name',
        by: 'w.name',
        unit: 'l.shareUnit',
      })
      .select(db.raw(`${COMES_ON} as "on"`)),
  );
  const money = may(person, 'see money');
  return rows.map((r) => ({ ...r, value: money ? r.value : null, drafted: EDITABLE.includes(r.state) }));
}
