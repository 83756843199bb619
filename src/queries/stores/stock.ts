import { LIVE } from '@/core/jobs/states';
import type { Day } from '@/core/calendar/workdays';
import type { Minor } from '@/core/money/money';
import { may } from '@/core/people/rights';
import { addQ, NONE, type Quantity } from '@/core/quantity/quantity';
import { freeOf } from '@/core/stores/claims';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';
import { rowsOf } from '@/store/rows';
import { loadStoresSplits } from '@/store/stock/arriving';
import type { Item, StockMoveKind } from '@/store/tables';
import { permit } from '../permit';
import { numbersOut } from './numbersOut';

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
  /** The company's own at all places, what of that lines have a claim on, and what is free. */
  readonly onHand: Quantity;
  readonly reserved: Quantity;
  readonly free: Quantity;
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
const ROWS_SHOWN = 40;

/** Where an item lies, for whom, what is coming, and how it moved. */
export async function loadStock(db: Db, person: Person, itemId: number): Promise<StockView | undefined> {
  permit(person, 'see stores');
  const item = await db('item').where({ id: itemId }).first();
  if (item === undefined) return undefined;
  const money = may(person, 'see money');
  const hide = <T extends { value: Minor | null }>(rows: readonly T[]): T[] =>
    rows.map((r) => (money ? r : { ...r, value: null }));
  const own = await loadOwn(db, itemId);
  const claims = await loadClaims(db, itemId);
  const onHand = addQ(NONE, ...own.map((p) => p.quantity));
  const ofOwn = claims.filter((c) => c.placeId !== null && c.jobId === null).map((c) => c.quantity);
  return {
    item,
    onHand,
    reserved: addQ(NONE, ...ofOwn),
    free: freeOf(onHand, ofOwn),
    spots: await loadSpots(db, itemId),
    bins: await loadBins(db),
    piles: hide([...own, ...(await loadOfJobs(db, itemId))]),
    claims,
    wants: await loadWants(db, itemId),
    coming: await loadComing(db, itemId),
    issues: hide(await loadIssues(db, itemId)),
    moves: hide(await loadMoves(db, itemId)),
  };
}

/** What is the company's own, at each of its places, and wherever else some lies. */
const loadOwn = (db: Db, itemId: number): Promise<PileView[]> =>
  rowsOf<PileView>(
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

const loadOfJobs = (db: Db, itemId: number): Promise<PileView[]> =>
  rowsOf<PileView>(
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

const loadClaims = (db: Db, itemId: number): Promise<ClaimView[]> =>
  rowsOf<ClaimView>(
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

const loadWants = (db: Db, itemId: number): Promise<StockView['wants']> =>
  rowsOf(
    db('need as n')
      .join('job as j', 'j.id', 'n.jobId')
      .where({ 'n.itemId': itemId, 'n.kind': 'goods', 'j.state': LIVE })
      .whereRaw('n.open > 0')
      .orderByRaw("coalesce(n.needed_on, '~'), n.id")
      .limit(ROWS_SHOWN)
      .select('n.description', 'n.neededOn', 'n.open', 'n.unit', { needId: 'n.id', job: 'j.number' }),
  );

/** What is on order for stores. */
async function loadComing(db: Db, itemId: number): Promise<StockView['coming']> {
  const splits = (await loadStoresSplits(db, 'itemId', [itemId])).filter((s) => s.toCome > 0);
  const orders = await rowsOf<{ id: number; order: string; supplier: string }>(
    db('split as s')
      .join('orderLine as l', 'l.id', 's.lineId')
      .join('purchaseOrder as o', 'o.id', 'l.orderId')
      .join('supplier as u', 'u.id', 'o.supplierId')
      .whereIn(
        's.id',
        splits.map((s) => s.splitId),
      )
      .select('s.id', { order: 'o.number', supplier: 'u.name' }),
  );
  const named = new Map(orders.map((o) => [o.id, o]));
  return splits.map(({ splitId, toCome, on }) => {
    const { order = '', supplier = '' } = named.get(splitId) ?? {};
    return { splitId, order, supplier, toCome, on };
  });
}

async function loadIssues(db: Db, itemId: number): Promise<StockView['issues']> {
  const issues = await rowsOf<Omit<StockView['issues'][number], 'numbers'>>(
    db('issue as i')
      .join('job as j', 'j.id', 'i.jobId')
      .join('costCode as c', 'c.id', 'i.costCodeId')
      .leftJoin('need as n', 'n.id', 'i.needId')
      .where('i.itemId', itemId)
      .where('i.quantity', '>', 0)
      .where('j.state', LIVE)
      .orderBy('i.id', 'desc')
      .limit(ROWS_SHOWN)
      .select(
        'i.id',
        'i.version',
        'i.quantity',
        'i.value',
        'i.day',
        { job: 'j.number', code: 'c.code' },
        db.raw("coalesce(n.description, '') as description"),
      ),
  );
  const out = await numbersOut(
    db,
    issues.map((i) => i.id),
  );
  return issues.map((i) => ({ ...i, numbers: out.get(i.id) ?? [] }));
}

const loadMoves = (db: Db, itemId: number): Promise<StockView['moves']> =>
  rowsOf(
    db('stockMove as m')
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
      .select(
        'm.id',
        'm.day',
        'm.kind',
        'm.quantity',
        'm.value',
        { place: 'p.name', who: 'w.name' },
        db.raw("trim(coalesce('job ' || j.number, o.number, '') || ' ' || m.reason) as why"),
      ),
  );

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
