import { rowsOf, rowOf } from '@/store/rows';
import type { Day } from '@/core/calendar/workdays';
import type { Tracking } from '@/core/items/kinds';
import { ZERO, type Minor } from '@/core/money/money';
import { may } from '@/core/people/rights';
import { formatQuantity, NONE, quantity, type Quantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import { differenceOf, worthOfDifferences, type CountState } from '@/core/stores/sheet';
import { groupBy } from '@/core/group';
import type { CountPaper } from '@/formats/pdf/countSheet';
import { loadCompany } from '@/store/company';
import type { Db } from '@/store/db';
import { codesOf } from '@/store/find';
import type { Person } from '@/store/people';
import { pileKey, worthOfLots } from '@/store/stock/piles';
import { dayOnPaper } from '@/workings/orders/orderInWords';
import { permit } from '../permit';

export type CountHead = {
  readonly id: number;
  readonly number: string;
  readonly place: string;
  readonly bin: string | null;
  readonly blind: number;
  readonly state: CountState;
  readonly begunOn: Day;
  readonly begunBy: string;
  readonly endedOn: Day | null;
  readonly lines: number;
  readonly counted: number;
  readonly differ: number;
};

const HEADS = (db: Db) =>
  db('stockCount as c')
    .join('deliveryPlace as p', 'p.id', 'c.placeId')
    .join('person as w', 'w.id', 'c.begunBy')
    .leftJoin('bin as b', 'b.id', 'c.binId')
    .select('c.id', 'c.number', 'c.blind', 'c.state', 'c.begunOn', 'c.endedOn', {
      place: 'p.name',
      bin: 'b.name',
      begunBy: 'w.name',
      lines: db.raw('(select count(*) from stock_count_line l where l.count_id = c.id)'),
      counted: db.raw('(select count(*) from stock_count_line l where l.count_id = c.id and l.counted is not null)'),
      differ: db.raw('(select count(*) from stock_count_line l where l.count_id = c.id and l.counted <> l.book)'),
    } as never);

const HEADS_SHOWN = 60;

/** Counts of our places: those under way first, then the latest. */
export async function listCounts(db: Db, person: Person): Promise<CountHead[]> {
  permit(person, 'see stores');
  const rows = await rowsOf<CountHead>(
    HEADS(db).orderByRaw("c.state in ('posted', 'dropped'), c.id desc").limit(HEADS_SHOWN),
  );
  // How many differ is told by nothing of a blind count, as long as it is being counted.
  return rows.map((r) => (r.blind === 1 && r.state === 'open' ? { ...r, differ: 0 } : r));
}

/** Places and bins that can be counted. */
export async function listToCount(db: Db, person: Person) {
  permit(person, 'see stores');
  return await rowsOf<{
    placeId: number;
    place: string;
    binId: number | null;
    bin: string | null;
  }>(
    db('deliveryPlace as p')
      .leftJoin('bin as b', (j) => j.on('b.placeId', 'p.id').andOnVal('b.closed', 0))
      .where({ 'p.kind': 'own', 'p.closed': 0 })
      .orderBy(['p.id', 'b.name'])
      .select({ placeId: 'p.id', place: 'p.name', binId: 'b.id', bin: 'b.name' }),
  );
}

export type CountRow = {
  readonly id: number;
  readonly itemId: number;
  readonly itemNumber: string;
  readonly description: string;
  readonly unit: string;
  readonly tracking: Tracking;
  readonly codes: readonly string[];
  /** The job that owns it; null for the company. */
  readonly job: string | null;
  readonly bin: string;
  readonly number: string | null;
  readonly counted: Quantity | null;
  /** What the book says, and how that moved since the count began; null as long as a blind count goes on. */
  readonly book: Quantity | null;
  readonly moved: Quantity | null;
  /** Whether it moved since the count began, which is told in a blind count too. */
  readonly hasMoved: boolean;
  /** Of what is counted and differs; null as long as a blind count goes on, or without the right to see money. */
  readonly difference: Quantity | null;
  readonly worth: Minor | null;
  readonly reason: string;
};

export type CountView = {
  readonly head: CountHead & { readonly version: number; readonly placeId: number; readonly binId: number | null };
  readonly rows: readonly CountRow[];
  readonly bins: readonly { readonly id: number; readonly name: string }[];
};

type Raw = Omit<CountRow, 'codes' | 'moved' | 'hasMoved' | 'difference' | 'worth'> & {
  readonly placeId: number;
  readonly jobId: number | null;
  readonly lotId: number | null;
  readonly begun: Quantity;
  readonly now: Quantity;
  readonly pileQuantity: Quantity | null;
  readonly pileValue: Minor | null;
};

/** A counting sheet; without what the book says as long as it is counted blind. */
export async function loadCount(db: Db, person: Person, id: number): Promise<CountView | undefined> {
  permit(person, 'see stores');
  const head = await rowOf<CountView['head']>(
    HEADS(db).where('c.id', id).select('c.version', 'c.placeId', 'c.binId').first(),
  );
  if (head === undefined) return undefined;
  const hides = head.blind === 1 && head.state === 'open';
  const raws = await rowsOf<Raw>(
    db('stockCountLine as l')
      .join('stockCount as c', 'c.id', 'l.countId')
      .join('item as i', 'i.id', 'l.itemId')
      .leftJoin('job as j', 'j.id', 'l.jobId')
      .leftJoin('bin as b', 'b.id', 'l.binId')
      .leftJoin('lot as n', 'n.id', 'l.lotId')
      .leftJoin('stockSpot as s', (on) =>
        on
          .on('s.itemId', 'l.itemId')
          .andOn('s.placeId', 'c.placeId')
          .andOn('s.jobId', db.raw('coalesce(l.job_id, 0)'))
          .andOn('s.binId', db.raw('coalesce(l.bin_id, 0)'))
          .andOn('s.lotId', db.raw('coalesce(l.lot_id, 0)')),
      )
      .leftJoin('stockSum as t', (on) =>
        on.on('t.itemId', 'l.itemId').andOn('t.placeId', 'c.placeId').andOn('t.jobId', db.raw('coalesce(l.job_id, 0)')),
      )
      .where('l.countId', id)
      .select(
        'l.id',
        'l.itemId',
        'l.counted',
        'l.book',
        'l.begun',
        'l.reason',
        'l.jobId',
        'l.lotId',
        'c.placeId',
        'n.number',
        {
          itemNumber: 'i.number',
          description: 'i.name',
          unit: 'i.unit',
          tracking: 'i.tracking',
          job: 'j.number',
          bin: db.raw("coalesce(b.name, '')"),
          now: db.raw('coalesce(s.quantity, 0)'),
          pileQuantity: 't.quantity',
          pileValue: 't.value',
        } as never,
      ),
  );
  const codes = await codesOf(
    db,
    raws.map((r) => r.itemId),
  );
  const money = may(person, 'see money');
  const pieces = money
    ? await worthOfLots(
        db,
        raws.flatMap((r) => (r.tracking === 'serial' ? (r.lotId ?? []) : [])),
      )
    : new Map();
  const worths = worthsOf(raws, pieces);
  const rows = raws.map((raw): CountRow => {
    const { begun, now, pileQuantity: _, pileValue: __, placeId: ___, jobId: ____, lotId: _____, ...r } = raw;
    const difference = differenceOf(r);
    return {
      ...r,
      codes: codes(r.itemId),
      book: hides ? null : (r.book ?? now),
      moved: hides ? null : quantity(now - begun),
      hasMoved: now !== begun,
      difference: hides || difference === null ? null : quantity(difference),
      worth: hides || !money ? null : (worths.get(r.id) ?? null),
    };
  });
  const natural = (a: string, b: string) => a.localeCompare(b, undefined, { numeric: true });
  return {
    head: hides ? { ...head, differ: 0 } : head,
    rows: rows.sort(
      (a, b) => natural(a.bin, b.bin) || natural(a.itemNumber, b.itemNumber) || natural(a.number ?? '', b.number ?? ''),
    ),
    bins: await db('bin').where({ placeId: head.placeId, closed: 0 }).orderBy('name').select('id', 'name'),
  };
}

/** What each difference comes to, pile by pile. */
function worthsOf(raws: readonly Raw[], pieces: ReadonlyMap<number, Minor>): Map<number, Minor> {
  const differing = raws.flatMap((raw) => {
    const by = quantity(differenceOf(raw) ?? 0);
    const piece = raw.tracking === 'serial' ? (pieces.get(raw.lotId ?? 0) ?? ZERO) : null;
    return by === 0 ? [] : [{ raw, by, piece }];
  });
  return new Map(
    [...groupBy(differing, (d) => pileKey(d.raw)).values()].flatMap((own) => {
      const first = own[0]?.raw;
      const pile = { quantity: first?.pileQuantity ?? NONE, value: first?.pileValue ?? ZERO };
      return worthOfDifferences(own, pile).map((worth, k) => [own[k]?.raw.id ?? 0, worth] as const);
    }),
  );
}

/** Counts that are to be looked over, for who may post what differs by much. */
export async function listCounted(db: Db, person: Person): Promise<CountHead[]> {
  permit(person, 'see stores');
  return await rowsOf<CountHead>(HEADS(db).where('c.state', 'counted').orderBy('c.id'));
}

/** A counting sheet as it is printed. */
export async function loadCountPaper(db: Db, person: Person, id: number, today: Day): Promise<CountPaper | undefined> {
  const view = await loadCount(db, person, id);
  if (view === undefined) return undefined;
  const { head, rows } = view;
  const { name, paper } = await loadCompany(db);
  return {
    number: head.number,
    company: name,
    size: paper,
    date: dayOnPaper(today, today),
    place: head.bin === null ? head.place : `${head.place}, ${head.bin}`,
    blind: head.blind === 1,
    lines: rows.map((r) => ({
      bin: r.bin,
      description: r.description,
      number: [r.itemNumber, r.number, r.job === null ? '' : `job ${r.job} stock`].filter(Boolean).join(' · '),
      unit: unitOf(r.unit).short,
      book: head.blind === 1 || r.book === null ? '' : formatQuantity(r.book),
    })),
  };
}
