import type { Day } from '@/core/calendar/workdays';
import { plusDays } from '@/core/calendar/workdays';
import type { OrderState } from '@/core/orders/states';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';
import { among, rowsOf } from '@/store/rows';
import type { Page } from '../page';
import { permit } from '../permit';
import { BRINGS_GOODS, COMES_HERE, COMES_ON } from '@/store/comes';
import { NO_DAY } from '@/store/dueDays';
import { countOf } from '../sql';

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
/** A line of the order that still brings goods to the dock. */
const DUE = `l.order_id = o.id and ${BRINGS_GOODS}`;

/** Which lines each of the looks is at. */
const linesOf = (show: DockShow | undefined): string => {
  if (show === 'straight') return `${DUE} and not ${COMES_HERE}`;
  if (show === 'inspect') return 'l.order_id = o.id and l.held > 0';
  if (show === 'back') return 'l.order_id = o.id and l.rejected > 0';
  return `${DUE} and ${COMES_HERE}`;
};

/** By which day each of the looks is in order; it is kept with the order and read by index. */
const dayOf = (show: DockShow | undefined): string => {
  if (show === 'straight') return 'o.due_away_on';
  return show === 'inspect' || show === 'back' ? `coalesce(o.wanted_on, '${NO_DAY}')` : 'o.due_here_on';
};

function foundDue(db: Db, { words, show, supplierId, job }: DueFilter, today: Day) {
  const by = { late: plusDays(today, -1), today, week: plusDays(today, 7) }[show as string];
  const query = db('purchaseOrder as o').join('supplier as s', 's.id', 'o.supplierId');
  if (show === 'back' || show === 'inspect')
    void query.whereRaw(`o.id in (select order_id from order_line where ${show === 'back' ? 'rejected' : 'held'} > 0)`);
  else if (by === undefined) void query.whereRaw(`${dayOf(show)} is not null`);
  else void query.whereRaw(`${dayOf(show)} <= ?`, [by]);
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

/** Orders with something still to arrive, the earliest first. No prices: the dock needs none. */
export async function listDue(
  db: Db,
  person: Person,
  today: Day,
  filter: DueFilter = {},
): Promise<Pick<Page<DueRow>, 'rows' | 'next'>> {
  permit(person, 'see dock');
  const query = foundDue(db, filter, today);
  const lines = linesOf(filter.show);
  const place = `${dayOf(filter.show)}, o.id`;
  if (filter.after !== undefined) {
    const [day, id] = filter.after.split(' ');
    void query.whereRaw(`(${place}) > (?, ?)`, [day ?? '', Number(id)]);
  }
  const found = await rowsOf<{ id: number }>(
    query
      .orderByRaw(place)
      .limit(DOCK_SHOWN + 1)
      .select('o.id'),
  );
  const rows = await rowsOf<DueRow & { placeDay: string }>(
    db('purchaseOrder as o')
      .join('supplier as s', 's.id', 'o.supplierId')
      .whereIn(
        'o.id',
        among(
          db,
          found.map((o) => o.id),
        ),
      )
      .orderByRaw(place)
      .select(
        'o.id',
        'o.number',
        'o.state',
        'o.wantedOn',
        db.raw(`${dayOf(filter.show)} as place_day`),
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
      ),
  );
  const shown = rows.slice(0, DOCK_SHOWN);
  const last = shown.at(-1);
  const more = last !== undefined && rows.length > DOCK_SHOWN;
  return { rows: shown, next: more ? `${last.placeDay} ${last.id}` : undefined };
}

/** How many orders each look finds that has something to say beside what is expected. */
export async function countDock(db: Db, person: Person, today: Day): Promise<Readonly<Record<DockShow, number>>> {
  permit(person, 'see dock');
  const due = (by: Day) => countOf(db('purchaseOrder').where('dueHereOn', '<=', by));
  const having = async (what: 'held' | 'rejected') =>
    (await rowsOf<{ n: number }>(db('orderLine').whereRaw(`${what} > 0`).countDistinct({ n: 'orderId' })))[0]?.n ?? 0;
  return {
    late: await due(plusDays(today, -1)),
    today: await due(today),
    week: await due(plusDays(today, 7)),
    straight: await countOf(db('purchaseOrder').whereNotNull('dueAwayOn')),
    inspect: await having('held'),
    back: await having('rejected'),
  };
}
