import { rowsOf } from '@/store/rows';
import { keyIn } from '@/core/keyIn';
import { asDay, type Day } from '@/core/calendar/workdays';
import { groupBy } from '@/core/group';
import { CURRENCIES, decimalsOf } from '@/core/money/currencies';
import type { Minor } from '@/core/money/money';
import { AWAITED, OPEN, UNSENT, type OrderState } from '@/core/orders/states';
import { may } from '@/core/people/rights';
import type { Db } from '@/store/db';
import { LATE } from '@/store/dueDays';
import type { Person } from '@/store/people';
import { footOf, pageOf, type SortAndAfter, type Foot, type Page } from '../page';
import { permit } from '../permit';
import { BRINGS_SOMETHING } from '@/store/comes';
import { latestMail, type Mailed } from '../sql';

export type OrderRow = Mailed & {
  readonly id: number;
  readonly number: string;
  readonly supplier: string;
  readonly state: OrderState;
  readonly wantedOn: Day | null;
  readonly sentOn: Day | null;
  /** The latest day that the supplier promised for what is still to come. */
  readonly promisedOn: Day | null;
  readonly theirNumber: string;
  /** Something of it should have come before today. */
  readonly late: boolean;
  readonly currency: string;
  readonly net: Minor | null;
  readonly jobs: string;
  readonly lines: number;
  readonly version: number;
};

export const ORDERS_PAGE = 60;
export const ORDER_FILTERS = {
  open: OPEN,
  unsent: UNSENT,
  sent: AWAITED,
  in: ['allIn'],
  done: ['settled', 'cancelled'],
  all: [],
} as const satisfies Record<string, readonly OrderState[]>;
export type OrderFilter = SortAndAfter & {
  readonly show?: keyof typeof ORDER_FILTERS | undefined;
  /** Of a number on it, ours or theirs, or of its supplier's name. */
  readonly words?: string | undefined;
  readonly jobId?: number | undefined;
  readonly supplierId?: number | undefined;
  /** Wanted by this day. */
  readonly by?: Day | undefined;
  /** The number of a job that something of it is charged to. */
  readonly job?: string | undefined;
  /** Net, in the order's own currency. */
  /** In whole units of each order's own currency. */
  readonly least?: number | undefined;
  /** Something of it should be here by this day. */
  readonly lateOn?: Day | undefined;
};

const ORDER_SORTS = {
  id: 'o.id',
  first: '-id',
  by: {
    number: 'o.number',
    supplier: 's.name',
    state: 'o.state',
    sent: "coalesce(o.sent_on, '')",
    wanted: "coalesce(o.wanted_on, '9999')",
    net: 'o.net',
  },
} as const;

/** The latest day that the supplier of an order `o` promised for what is still to come. */
export const PROMISED = `(select max(l.promised_on) from order_line l where l.order_id = o.id and ${BRINGS_SOMETHING})`;

/** How many minor units an order's currency has to the whole one. */
const MINOR_UNITS = `(case ${[...groupBy(CURRENCIES, decimalsOf)]
  .filter(([decimals]) => decimals !== 2)
  .map(([decimals, codes]) => `when o.currency in (${codes.map((c) => `'${c}'`).join()}) then ${10 ** decimals}`)
  .join(' ')} else 100 end)`;

/** Orders with a part on them whose number, ours or theirs, begins as typed. */
const NUMBERED = ['our_number', 'their_number']
  .map(
    (n) => `select order_id from order_line where ${n} <> '' and ${n} >= ? collate nocase and ${n} < ? collate nocase`,
  )
  .join(' union all ');

function foundOrders(db: Db, filter: OrderFilter) {
  const query = db('purchaseOrder as o').leftJoin('supplier as s', 's.id', 'o.supplierId');
  const states: readonly OrderState[] = ORDER_FILTERS[filter.show ?? 'open'];
  if (states.length > 0) void query.whereIn('o.state', states);
  if (filter.words)
    void query.where((w) =>
      w
        .whereLike('o.number', `%${filter.words}%`)
        .orWhereLike('s.name', `%${filter.words}%`)
        .orWhereRaw('o.their_number = ? collate nocase', [filter.words ?? ''])
        .orWhereRaw(
          `o.id in (${NUMBERED})`,
          Array.from({ length: 2 }, () => [filter.words ?? '', `${filter.words}\uffff`]).flat(),
        ),
    );
  if (filter.supplierId !== undefined) void query.where('o.supplierId', filter.supplierId);
  if (filter.by !== undefined) void query.where('o.wantedOn', '<=', filter.by);
  if (filter.lateOn !== undefined) void query.whereRaw(LATE, [filter.lateOn, filter.lateOn]);
  if (filter.least !== undefined) void query.whereRaw(`o.net >= ? * ${MINOR_UNITS}`, [filter.least]);
  if (filter.job !== undefined)
    void query.whereIn(
      'o.id',
      db('job as j')
        .join('split as x', 'x.jobId', 'j.id')
        .join('orderLine as l', 'l.id', 'x.lineId')
        .where('j.number', filter.job)
        .select('l.orderId'),
    );
  if (filter.jobId !== undefined)
    void query.whereIn(
      'o.id',
      db('orderLine as l').join('split as x', 'x.lineId', 'l.id').where('x.jobId', filter.jobId).select('l.orderId'),
    );
  return query;
}

/** Orders, the newest first unless they are sorted otherwise; a page at a time. */
export async function listOrders(db: Db, person: Person, filter: OrderFilter, today: Day): Promise<Page<OrderRow>> {
  permit(person, 'see orders');
  const query = foundOrders(db, filter).select(
    'o.id',
    'o.number',
    'o.state',
    'o.wantedOn',
    'o.sentOn',
    'o.currency',
    'o.net',
    'o.version',
    'o.theirNumber',
    { supplier: 's.name' },
    db.raw(`${PROMISED} as promised_on`),
    db.raw(`coalesce(${LATE}, 0) as late`, [today, today]),
    db.raw(
      '(select group_concat(distinct j.number) from order_line l join split x on x.line_id = l.id join job j on j.id = x.job_id where l.order_id = o.id) as jobs',
    ),
    db.raw("(select count(*) from order_line l where l.order_id = o.id and l.kind <> 'charge') as lines"),
    latestMail(db),
  );
  const sort = filter.sort?.endsWith('net') === true && !may(person, 'see money') ? undefined : filter.sort;
  const { rows, ...page } = await pageOf<OrderRow>(query, ORDER_SORTS, { ...filter, sort }, ORDERS_PAGE);
  return {
    rows: rows.map((r) => ({ ...r, late: Boolean(r.late), net: may(person, 'see money') ? r.net : null })),
    ...page,
  };
}

/** What all orders that a filter finds come to. */
export async function sumOrders(db: Db, person: Person, filter: OrderFilter): Promise<Foot> {
  permit(person, 'see orders');
  return footOf(foundOrders(db, filter), may(person, 'see money') ? { net: 'o.net' } : {}, 'o.currency');
}

/** A job's share of an order, in the company's currency. */
export async function loadShares(db: Db, jobId: number, orderIds: readonly number[]): Promise<Map<number, Minor>> {
  const rows = await rowsOf<{ orderId: number; share: Minor }>(
    db('split as x')
      .join('orderLine as l', 'l.id', 'x.lineId')
      .where('x.jobId', jobId)
      .whereIn('l.orderId', orderIds)
      .groupBy('l.orderId')
      .select('l.orderId')
      .sum({ share: 'x.value' }),
  );
  return new Map(rows.map((r) => [r.orderId, r.share]));
}

const leastIn = (text: string | undefined): number | undefined =>
  /^\d{1,9}$/.test(text ?? '') ? Number(text) : undefined;

/** Which orders an address asks for. */
export const orderFilterOf = (query: Readonly<Record<string, string | undefined>>, today: Day): OrderFilter => ({
  show: keyIn(ORDER_FILTERS, query.show),
  words: query.words,
  supplierId: query.supplier === undefined ? undefined : Number(query.supplier),
  by: asDay(query.by ?? ''),
  job: query.job,
  least: leastIn(query.least),
  lateOn: query.late === undefined ? undefined : today,
});
