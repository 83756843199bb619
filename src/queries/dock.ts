import type { Day } from '@/core/calendar/workdays';
import { plusDays } from '@/core/calendar/workdays';
import { AWAITED, type OrderState } from '@/core/orders/states';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';
import { among } from '@/store/rows';
import type { Page } from './page';
import { permit } from './permit';
import { BRINGS_GOODS, COMES_ON, listed } from './sql';

export type DueRow = {
  readonly id: number;
  readonly number: string;
  readonly supplier: string;
  readonly state: OrderState;
  readonly wantedOn: Day | null;
  /** The first day that something of it is to come: as promised, else as wanted. */
  readonly comesOn: Day | null;
  readonly carrier: string;
  readonly lines: number;
  readonly linesDue: number;
  readonly jobs: string | null;
  /** Where what is looked for goes, when that is not our own place. */
  readonly places: string | null;
};

/** What the dock looks at: what comes here, what goes straight elsewhere, what waits to be inspected, what is to go back. */
export const DOCK_SHOWS = ['late', 'today', 'week', 'straight', 'inspect', 'back'] as const;
export type DockShow = (typeof DOCK_SHOWS)[number];

export type DueFilter = {
  readonly words?: string | undefined;
  readonly show?: DockShow | undefined;
  readonly supplierId?: number | undefined;
  readonly job?: string | undefined;
  readonly after?: string | undefined;
};

/** A filter from the words of an address. */
export const dueFilter = (query: Readonly<Record<string, string | undefined>>): DueFilter => ({
  words: query.words,
  show: DOCK_SHOWS.find((s) => s === query.show),
  supplierId: query.supplier === undefined ? undefined : Number(query.supplier) || 0,
  job: query.job,
});

const DOCK_SHOWN = 100;
/** After every day that there is. */
const NEVER = '9999';
const PLACE = `coalesce(o.wanted_on, '${NEVER}'), o.id`;
/** A line of the order that still brings goods to the dock. */
const DUE = `l.order_id = o.id and ${BRINGS_GOODS}`;
/** A line that goes to a place of ours; what is for stores does wherever it comes. */
const OURS = `(coalesce(l.place_id, o.place_id) in (select id from delivery_place where kind = 'own')
  or exists (select 1 from split x where x.line_id = l.id and x.job_id is null))`;

/** Which lines each of the looks is at. */
const linesOf = (show: DockShow | undefined): string => {
  if (show === 'straight') return `${DUE} and not ${OURS}`;
  if (show === 'inspect') return 'l.order_id = o.id and l.held > 0';
  if (show === 'back') return 'l.order_id = o.id and l.rejected > 0';
  return `${DUE} and ${OURS}`;
};

/** As the index of awaited orders has it. */
const IS_AWAITED = `o.state in (${listed(AWAITED)})`;

/** In the order of the list, so that a page of all that comes is read without looking at the rest. */
const IN_ORDER = 'purchase_order as o indexed by purchase_order_awaited';

function foundDue(db: Db, { words, show, supplierId, job }: DueFilter, today: Day) {
  const by = { late: plusDays(today, -1), today, week: plusDays(today, 7) }[show as string];
  const when = by === undefined ? '' : ` and ${COMES_ON} <= '${by}'`;
  const elsewhere = show === 'back' || show === 'inspect';
  const all = !elsewhere && supplierId === undefined && job === undefined && !words;
  const query = db(all ? (db.raw(IN_ORDER) as never) : 'purchaseOrder as o').join(
    'supplier as s',
    's.id',
    'o.supplierId',
  );
  if (elsewhere)
    void query.whereRaw(`o.id in (select order_id from order_line where ${show === 'back' ? 'rejected' : 'held'} > 0)`);
  else void query.whereRaw(`${IS_AWAITED} and exists (select 1 from order_line l where ${linesOf(show)}${when})`);
  if (supplierId !== undefined) void query.where('o.supplierId', supplierId);
  if (job !== undefined)
    void query.whereIn(
      'o.id',
      db('split as x')
        .join('orderLine as f', 'f.id', 'x.lineId')
        .join('job as j', 'j.id', 'x.jobId')
        .where('j.number', job)
        .select('f.orderId'),
    );
  if (words)
    void query.where((w) =>
      w
        .whereLike('o.number', `%${words}%`)
        .orWhereLike('s.name', `%${words}%`)
        .orWhereIn(
          'o.id',
          db('orderLine as f')
            .where((x) =>
              x
                .whereLike('f.description', `%${words}%`)
                .orWhereLike('f.ourNumber', `%${words}%`)
                .orWhereLike('f.theirNumber', `%${words}%`),
            )
            .select('f.orderId'),
        ),
    );
  return query;
}

/** Orders with something still to arrive, the earliest wanted first. No prices: the dock needs none. */
export async function listDue(
  db: Db,
  person: Person,
  today: Day,
  filter: DueFilter = {},
): Promise<Pick<Page<DueRow>, 'rows' | 'next'>> {
  permit(person, 'see dock');
  const query = foundDue(db, filter, today);
  const lines = linesOf(filter.show);
  if (filter.after !== undefined) {
    const [wantedOn, id] = filter.after.split(' ');
    void query.whereRaw(`(${PLACE}) > (?, ?)`, [wantedOn ?? '', Number(id)]);
  }
  const found = (await query
    .orderByRaw(PLACE)
    .limit(DOCK_SHOWN + 1)
    .select('o.id')) as { id: number }[];
  const rows = (await db('purchaseOrder as o')
    .join('supplier as s', 's.id', 'o.supplierId')
    .whereIn(
      'o.id',
      among(
        db,
        found.map((o) => o.id),
      ),
    )
    .orderByRaw(PLACE)
    .select(
      'o.id',
      'o.number',
      'o.state',
      'o.wantedOn',
      'o.carrier',
      { supplier: 's.name' },
      db.raw("(select count(*) from order_line l where l.order_id = o.id and l.kind = 'goods') as lines"),
      db.raw(`(select count(*) from order_line l where ${lines}) as lines_due`),
      db.raw(`(select min(${COMES_ON}) from order_line l where ${lines}) as comes_on`),
      db.raw(
        `(select group_concat(distinct j.number) from order_line l join split x on x.line_id = l.id join job j on j.id = x.job_id where ${lines}) as jobs`,
      ),
      db.raw(
        `(select group_concat(distinct p.name) from order_line l join delivery_place p on p.id = coalesce(l.place_id, o.place_id) where ${lines} and p.kind <> 'own') as places`,
      ),
    )) as DueRow[];
  const shown = rows.slice(0, DOCK_SHOWN);
  const last = shown.at(-1);
  const more = last !== undefined && rows.length > DOCK_SHOWN;
  return { rows: shown, next: more ? `${last.wantedOn ?? NEVER} ${last.id}` : undefined };
}

/** How many orders each look finds that has something to say beside what is expected. */
export async function countDock(db: Db, person: Person, today: Day): Promise<Readonly<Record<DockShow, number>>> {
  permit(person, 'see dock');
  const [due] = (await db.raw(
    `select count(case when first <= ? then 1 end) as late, count(case when first <= ? then 1 end) as today,
       count(case when first <= ? then 1 end) as week, count(case when away then 1 end) as straight
     from (select min(case when ours then day end) as first, max(not ours) as away from
       (select o.id, ${OURS} as ours, ${COMES_ON} as day from purchase_order o join order_line l on ${DUE} where ${IS_AWAITED}) group by id)`,
    [plusDays(today, -1), today, plusDays(today, 7)],
  )) as Pick<Record<DockShow, number>, 'late' | 'today' | 'week' | 'straight'>[];
  const having = async (what: 'held' | 'rejected') =>
    ((await db('orderLine').whereRaw(`${what} > 0`).countDistinct({ n: 'orderId' })) as unknown as { n: number }[])[0]
      ?.n ?? 0;
  const none = { late: 0, today: 0, week: 0, straight: 0 };
  return { ...none, ...due, inspect: await having('held'), back: await having('rejected') };
}
