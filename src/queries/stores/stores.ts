import { rowsOf } from '@/store/rows';
import { LIVE } from '@/core/jobs/states';
import { plusDays, type Day } from '@/core/calendar/workdays';
import { minor, type Minor } from '@/core/money/money';
import { may } from '@/core/people/rights';
import { addQ, NONE, type Quantity } from '@/core/quantity/quantity';
import { loadCompany } from '@/store/company';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';
import { loadStoresSplits } from '@/store/stock/arriving';
import type { Item, StockMoveKind } from '@/store/tables';
import { footOf, pageOf, type SortAndAfter, type Foot, type Page } from '../page';
import { permit } from '../permit';
import { LIST_SHOWN } from '../items/suppliers';
import { numbersOut } from './numbersOut';

export type StockRow = {
  readonly id: number;
  readonly number: string;
  readonly name: string;
  readonly unit: string;
  /** The company's own at all places, and of that what is reserved or counted on. */
  readonly onHand: Quantity;
  readonly reserved: Quantity;
  readonly free: Quantity;
  /** What belongs to jobs. */
  readonly ofJobs: Quantity;
  readonly coming: Quantity;
  /** What is to be kept at all places together; 0 for none. */
  readonly keep: Quantity;
  /** null without the right to see money. */
  readonly value: Minor | null;
  /** When some of it was issued last; null for never. */
  readonly lastOut: Day | null;
};

export type StockFilter = SortAndAfter & {
  readonly words?: string | undefined;
  /** Only what is below its level. */
  readonly low?: boolean | undefined;
  /** Only what lay here before this day already, and of which nothing went out since. */
  readonly stillSince?: Day | undefined;
};

/** How many days nothing went out of what is slow, and of what is dead. */
const STILL: Readonly<Record<string, number>> = { slow: 182, dead: 730 };

/** A filter from the words of an address. */
export function stockFilter(query: Readonly<Record<string, string | undefined>>, today: Day): StockFilter {
  const still = STILL[query.show ?? ''];
  return {
    ...{ words: query.words, sort: query.sort, after: query.after, low: query.show === 'low' },
    stillSince: still === undefined ? undefined : plusDays(today, -still),
  };
}

const ON_HAND = '(select coalesce(sum(s.quantity), 0) from stock_sum s where s.item_id = i.id and s.job_id = 0)';
const VALUE = '(select coalesce(sum(s.value), 0) from stock_sum s where s.item_id = i.id and s.job_id = 0)';
const OF_JOBS = '(select coalesce(sum(s.quantity), 0) from stock_sum s where s.item_id = i.id and s.job_id <> 0)';
const RESERVED =
  '(select coalesce(sum(r.quantity), 0) from reservation r where r.item_id = i.id and r.place_id is not null and r.job_id is null)';
const KEEP = '(select coalesce(sum(l.keep), 0) from stock_level l where l.item_id = i.id)';

const LAST_OUT = "(select max(m.day) from stock_move m where m.item_id = i.id and m.kind = 'issued')";
const FIRST_IN = '(select min(m.day) from stock_move m where m.item_id = i.id and m.quantity > 0)';

const STOCK_SORTS = {
  id: 'i.id',
  first: 'number',
  by: {
    number: 'i.number',
    name: 'i.name',
    onHand: ON_HAND,
    reserved: RESERVED,
    free: `${ON_HAND} - ${RESERVED}`,
    ofJobs: OF_JOBS,
    keep: KEEP,
    lastOut: LAST_OUT,
  },
} as const;

/** Goods that are stocked, or lie somewhere. */
function foundStock(db: Db, { words, low, stillSince }: StockFilter) {
  const query = db('item as i')
    .whereIn('i.kind', ['material', 'part'])
    .whereRaw('(i.stocked = 1 or exists (select 1 from stock_sum s where s.item_id = i.id and s.quantity > 0))');
  if (words) void query.where((w) => w.whereLike('i.number', `%${words}%`).orWhereLike('i.name', `%${words}%`));
  if (low === true) void query.whereRaw(`${KEEP} > 0 and ${ON_HAND} - ${RESERVED} < ${KEEP}`);
  if (stillSince !== undefined)
    void query.whereRaw(`${ON_HAND} > 0 and ${FIRST_IN} <= ? and coalesce(${LAST_OUT}, '') <= ?`, [
      stillSince,
      stillSince,
    ]);
  return query;
}

/** What lies in stores, by number unless it is sorted otherwise; a page at a time. */
export async function listStock(db: Db, person: Person, filter: StockFilter = {}): Promise<Page<StockRow>> {
  permit(person, 'see stores');
  const query = foundStock(db, filter).select(
    'i.id',
    'i.number',
    'i.name',
    'i.unit',
    db.raw(`${ON_HAND} as on_hand, ${RESERVED} as reserved, ${ON_HAND} - ${RESERVED} as free`),
    db.raw(`${OF_JOBS} as of_jobs, ${KEEP} as keep, ${VALUE} as value, ${LAST_OUT} as last_out`),
  );
  const page = await pageOf<Omit<StockRow, 'coming'>>(query, STOCK_SORTS, filter, LIST_SHOWN);
  const coming = await loadStoresSplits(
    db,
    'itemId',
    page.rows.map((r) => r.id),
  );
  const money = may(person, 'see money');
  return {
    ...page,
    rows: page.rows.map((r) => ({
      ...r,
      value: money ? r.value : null,
      coming: addQ(NONE, ...coming.filter((s) => s.itemId === r.id).map((s) => s.toCome)),
    })),
  };
}

/** How many items a filter finds, and what they are worth. */
export async function sumStock(db: Db, person: Person, filter: StockFilter): Promise<Foot> {
  permit(person, 'see stores');
  const { currency } = await loadCompany(db);
  const { count } = await footOf(foundStock(db, filter), {}, "''");
  if (!may(person, 'see money')) return { count, sums: {} };
  const query = foundStock(db, filter).select(db.raw(`coalesce(sum(${VALUE}), 0) as value`));
  const [sum] = await rowsOf<{ value: number }>(query);
  return { count, sums: { value: [{ currency, amount: minor(sum?.value ?? 0) }] } };
}

export type PileView = {
  readonly placeId: number;
  readonly place: string;
  readonly jobId: number | null;
  readonly job: string | null;
  readonly quantity: Quantity;
  readonly value: Minor | null;
  readonly keep: Quantity;
};

export type ClaimView = {
  readonly id: number;
  readonly needId: number;
  /** The job whose line it is. */
  readonly forJobId: number;
  readonly job: string;
  readonly description: string;
  readonly neededOn: Day | null;
  readonly quantity: Quantity;
  readonly firm: number;
  /** Where it lies; or the order it comes with. */
  readonly placeId: number | null;
  /** Whose it is there; null for the company's. */
  readonly jobId: number | null;
  readonly place: string | null;
  readonly order: string | null;
};

/** Where some of a pile lies, by bin and number. */
export type SpotView = {
  readonly placeId: number;
  readonly jobId: number | null;
  readonly place: string;
  readonly job: string | null;
  readonly binId: number | null;
  readonly bin: string | null;
  readonly lotId: number | null;
  readonly number: string | null;
  readonly expiresOn: Day | null;
  readonly quantity: Quantity;
};

export type StockView = {
  readonly item: Item;
  readonly spots: readonly SpotView[];
  /** Bins of our places, and those places without one. */
  readonly bins: readonly {
    readonly placeId: number;
    readonly place: string;
    readonly binId: number | null;
    readonly bin: string | null;
  }[];
  /** Every place of the company, and what lies there; piles of jobs beside them. */
  readonly piles: readonly PileView[];
  readonly claims: readonly ClaimView[];
  /** Lines of live jobs that are still to be covered. */
  readonly wants: readonly {
    readonly needId: number;
    readonly job: string;
    readonly description: string;
    readonly neededOn: Day | null;
    readonly open: Quantity;
    readonly unit: string;
  }[];
  readonly coming: readonly {
    readonly splitId: number;
    readonly order: string;
    readonly supplier: string;
    readonly toCome: Quantity;
    readonly on: Day | null;
  }[];
  readonly issues: readonly {
    readonly id: number;
    readonly version: number;
    readonly job: string;
    readonly code: string;
    readonly description: string;
    readonly quantity: Quantity;
    readonly value: Minor | null;
    readonly day: Day;
    /** Serial numbers of what is with the job still. */
    readonly numbers: readonly string[];
  }[];
  readonly moves: readonly {
    readonly id: number;
    readonly day: Day;
    readonly kind: StockMoveKind;
    readonly quantity: Quantity;
    readonly value: Minor | null;
    readonly place: string;
    readonly who: string;
    readonly why: string;
  }[];
};

const MOVES_SHOWN = 60;
const ISSUES_SHOWN = 40;

/** Where an item lies, for whom, what is coming, and how it moved. */
export async function loadStock(db: Db, person: Person, itemId: number): Promise<StockView | undefined> {
  permit(person, 'see stores');
  const item = await db('item').where({ id: itemId }).first();
  if (item === undefined) return undefined;
  const money = may(person, 'see money');
  const hide = <T extends { value: Minor | null }>(rows: readonly T[]): T[] =>
    rows.map((r) => (money ? r : { ...r, value: null }));
  const own = await rowsOf<PileView>(
    db('deliveryPlace as p')
      .leftJoin('stockSum as s', (j) => j.on('s.placeId', 'p.id').andOnVal('s.itemId', itemId).andOnVal('s.jobId', 0))
      .leftJoin('stockLevel as l', (j) => j.on('l.placeId', 'p.id').andOnVal('l.itemId', itemId))
      .where('p.kind', 'own')
      .orWhere('s.quantity', '>', 0)
      .orderBy('p.id')
      .select({ placeId: 'p.id', place: 'p.name' }, db.raw('null as job_id, null as job'), {
        quantity: db.raw('coalesce(s.quantity, 0)'),
        value: db.raw('coalesce(s.value, 0)'),
        keep: db.raw('coalesce(l.keep, 0)'),
      } as never),
  );
  const ofJobs = await rowsOf<PileView>(
    db('stockSum as s')
      .join('deliveryPlace as p', 'p.id', 's.placeId')
      .join('job as j', 'j.id', 's.jobId')
      .where({ 's.itemId': itemId })
      .where('s.quantity', '>', 0)
      .orderBy('j.number')
      .select(
        { placeId: 'p.id', place: 'p.name', jobId: 'j.id', job: 'j.number' },
        's.quantity',
        's.value',
        db.raw('0 as keep'),
      ),
  );
  const claims = await rowsOf<ClaimView>(
    db('reservation as r')
      .join('need as n', 'n.id', 'r.needId')
      .join('job as j', 'j.id', 'n.jobId')
      .leftJoin('deliveryPlace as p', 'p.id', 'r.placeId')
      .leftJoin('split as s', 's.id', 'r.splitId')
      .leftJoin('orderLine as l', 'l.id', 's.lineId')
      .leftJoin('purchaseOrder as o', 'o.id', 'l.orderId')
      .where('r.itemId', itemId)
      .orderByRaw("coalesce(n.needed_on, '~'), r.id")
      .select('r.id', 'r.needId', 'n.description', 'n.neededOn', 'r.quantity', 'r.firm', 'r.placeId', 'r.jobId', {
        forJobId: 'j.id',
        job: 'j.number',
        place: 'p.name',
        order: 'o.number',
      }),
  );
  const wants = (await db('need as n')
    .join('job as j', 'j.id', 'n.jobId')
    .where({ 'n.itemId': itemId, 'n.kind': 'goods', 'j.state': LIVE })
    .whereRaw('n.open > 0')
    .orderByRaw("coalesce(n.needed_on, '~'), n.id")
    .limit(ISSUES_SHOWN)
    .select('n.description', 'n.neededOn', 'n.open', 'n.unit', {
      needId: 'n.id',
      job: 'j.number',
    })) as StockView['wants'];
  const splits = (await loadStoresSplits(db, 'itemId', [itemId])).filter((s) => s.toCome > 0);
  const orders = new Map(
    (
      await rowsOf<{ id: number; order: string; supplier: string }>(
        db('split as s')
          .join('orderLine as l', 'l.id', 's.lineId')
          .join('purchaseOrder as o', 'o.id', 'l.orderId')
          .join('supplier as u', 'u.id', 'o.supplierId')
          .whereIn(
            's.id',
            splits.map((s) => s.splitId),
          )
          .select('s.id', { order: 'o.number', supplier: 'u.name' }),
      )
    ).map((o) => [o.id, o]),
  );
  const issues = (await db('issue as i')
    .join('job as j', 'j.id', 'i.jobId')
    .join('costCode as c', 'c.id', 'i.costCodeId')
    .leftJoin('need as n', 'n.id', 'i.needId')
    .where('i.itemId', itemId)
    .where('i.quantity', '>', 0)
    .where('j.state', LIVE)
    .orderBy('i.id', 'desc')
    .limit(ISSUES_SHOWN)
    .select('i.id', 'i.version', 'i.quantity', 'i.value', 'i.day', {
      job: 'j.number',
      code: 'c.code',
      description: db.raw("coalesce(n.description, '')"),
    } as never)) as unknown as StockView['issues'];
  const moves = (await db('stockMove as m')
    .join('deliveryPlace as p', 'p.id', 'm.placeId')
    .join('person as w', 'w.id', 'm.personId')
    .leftJoin('issue as i', 'i.id', 'm.issueId')
    .leftJoin('job as j', 'j.id', 'i.jobId')
    .leftJoin('split as s', 's.id', 'm.splitId')
    .leftJoin('orderLine as l', 'l.id', 's.lineId')
    .leftJoin('purchaseOrder as o', 'o.id', 'l.orderId')
    .where('m.itemId', itemId)
    .orderBy('m.id', 'desc')
    .limit(MOVES_SHOWN)
    .select('m.id', 'm.day', 'm.kind', 'm.quantity', 'm.value', {
      place: 'p.name',
      who: 'w.name',
      why: db.raw("trim(coalesce('job ' || j.number, o.number, '') || ' ' || m.reason)"),
    } as never)) as unknown as StockView['moves'];
  const spots = await loadSpots(db, itemId);
  const bins = await loadBins(db);
  const out = await numbersOut(
    db,
    issues.map((i) => i.id),
  );
  return {
    item,
    spots,
    bins,
    piles: hide([...own, ...ofJobs]),
    claims,
    wants,
    coming: splits.map((s) => ({
      splitId: s.splitId,
      order: orders.get(s.splitId)?.order ?? '',
      supplier: orders.get(s.splitId)?.supplier ?? '',
      toCome: s.toCome,
      on: s.on,
    })),
    issues: hide(issues).map((i) => ({ ...i, numbers: out.get(i.id) ?? [] })),
    moves: hide(moves),
  };
}

const loadSpots = (db: Db, itemId: number): Promise<SpotView[]> =>
  rowsOf<SpotView>(
    db('stockSpot as s')
      .join('deliveryPlace as p', 'p.id', 's.placeId')
      .leftJoin('bin as b', 'b.id', 's.binId')
      .leftJoin('lot as l', 'l.id', 's.lotId')
      .leftJoin('job as j', 'j.id', 's.jobId')
      .where('s.itemId', itemId)
      .where('s.quantity', '>', 0)
      .orderByRaw("p.id, s.job_id, coalesce(l.expires_on, '~'), l.number, b.name")
      .select(
        's.placeId',
        's.quantity',
        'l.number',
        'l.expiresOn',
        { place: 'p.name', job: 'j.number', bin: 'b.name' },
        db.raw('nullif(s.job_id, 0) as job_id, nullif(s.bin_id, 0) as bin_id, nullif(s.lot_id, 0) as lot_id'),
      ),
  );

/** Where things can lie: each of our places, and each of its bins. */
async function loadBins(db: Db): Promise<StockView['bins']> {
  const places = await db('deliveryPlace').where({ kind: 'own', closed: 0 }).orderBy('id').select('id', 'name');
  const bins = await db('bin').where({ closed: 0 }).orderBy('name');
  return places.flatMap((p) => [
    { placeId: p.id, place: p.name, binId: null, bin: null },
    ...bins.filter((b) => b.placeId === p.id).map((b) => ({ placeId: p.id, place: p.name, binId: b.id, bin: b.name })),
  ]);
}
