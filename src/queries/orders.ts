import type { Day } from '@/core/calendar/workdays';
import type { InvoiceState } from '@/core/invoices/states';
import type { Minor } from '@/core/money/money';
import type { Check } from '@/core/orders/checks';
import { orderTotals } from '@/core/orders/order';
import { AWAITED, EDITABLE, OPEN_AT_SUPPLIER, UNSENT, type OrderState } from '@/core/orders/states';
import { may } from '@/core/people/rights';
import { loadCompany, loadCostCodes, loadTaxCodes } from '@/store/company';
import type { Db } from '@/store/connection';
import { findOrder, type StoredOrder } from '@/store/orders';
import { loadPaper } from '@/store/paper';
import { among, whereIn } from '@/store/rows';
import type { CostCode, DeliveryPlace, MessageState, Supplier } from '@/store/tables';
import type { Person } from '@/store/people';
import { orderEffects, standingOf, type NamedEffect } from './effects';
import { checkLines } from './orderPreview';
import { loadItemTerms } from './orderTerms';
import { footOf, pageOf, type Asked, type Foot, type Page } from './page';
import { permit } from './permit';
import { latestMail, type Mailed } from './sql';
import { listThings } from './things';

export type OrderRow = Mailed & {
  readonly id: number;
  readonly number: string;
  readonly supplier: string;
  readonly state: OrderState;
  readonly wantedOn: Day | null;
  readonly sentOn: Day | null;
  readonly currency: string;
  readonly net: Minor | null;
  readonly jobs: string;
  readonly lines: number;
  readonly version: number;
};

export const ORDERS_PAGE = 60;
export const ORDER_FILTERS = {
  open: [...UNSENT, ...OPEN_AT_SUPPLIER],
  unsent: UNSENT,
  sent: AWAITED,
  in: ['allIn'],
  done: ['settled', 'calledOff'],
  all: [],
} as const satisfies Record<string, readonly OrderState[]>;
export type OrderFilter = Asked & {
  readonly show?: keyof typeof ORDER_FILTERS | undefined;
  readonly words?: string | undefined;
  readonly jobId?: number;
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

function foundOrders(db: Db, filter: OrderFilter) {
  const query = db('purchaseOrder as o').join('supplier as s', 's.id', 'o.supplierId');
  const states: readonly OrderState[] = ORDER_FILTERS[filter.show ?? 'open'];
  if (states.length > 0) void query.whereIn('o.state', states);
  if (filter.words)
    void query.where((w) => w.whereLike('o.number', `%${filter.words}%`).orWhereLike('s.name', `%${filter.words}%`));
  if (filter.jobId !== undefined)
    void query.whereIn(
      'o.id',
      db('orderLine as l').join('split as x', 'x.lineId', 'l.id').where('x.jobId', filter.jobId).select('l.orderId'),
    );
  return query;
}

/** Orders, the newest first unless they are sorted otherwise; a page at a time. */
export async function listOrders(db: Db, person: Person, filter: OrderFilter): Promise<Page<OrderRow>> {
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
    { supplier: 's.name' },
    db.raw(
      '(select group_concat(distinct j.number) from order_line l join split x on x.line_id = l.id join job j on j.id = x.job_id where l.order_id = o.id) as jobs',
    ),
    db.raw("(select count(*) from order_line l where l.order_id = o.id and l.kind <> 'charge') as lines"),
    latestMail(db),
  );
  const sort = filter.sort?.endsWith('net') === true && !may(person, 'see money') ? undefined : filter.sort;
  const { rows, ...page } = await pageOf<OrderRow>(query, ORDER_SORTS, { ...filter, sort }, ORDERS_PAGE);
  return { rows: rows.map((r) => ({ ...r, net: may(person, 'see money') ? r.net : null })), ...page };
}

/** What all orders that a filter finds come to. */
export async function sumOrders(db: Db, person: Person, filter: OrderFilter): Promise<Foot> {
  permit(person, 'see orders');
  return footOf(foundOrders(db, filter), may(person, 'see money') ? { net: 'o.net' } : {}, 'o.currency');
}

/** A job's share of an order, in the company's currency. */
export async function loadShares(db: Db, jobId: number, orderIds: readonly number[]): Promise<Map<number, Minor>> {
  const rows = (await db('split as x')
    .join('orderLine as l', 'l.id', 'x.lineId')
    .where('x.jobId', jobId)
    .whereIn('l.orderId', orderIds)
    .groupBy('l.orderId')
    .select('l.orderId')
    .sum({ share: 'x.value' })) as { orderId: number; share: Minor }[];
  return new Map(rows.map((r) => [r.orderId, r.share]));
}

/** A job that an order buys for. */
export type OrderedFor = {
  readonly number: string;
  readonly name: string;
  readonly customerId: number;
  readonly customer: string;
};

export type OrderView = {
  readonly order: StoredOrder;
  readonly supplier: Supplier;
  readonly place: DeliveryPlace;
  readonly madeBy: string;
  readonly totals: ReturnType<typeof orderTotals>;
  readonly companyCurrency: string;
  /** Before it is sent, what it does to each budget; after that, how those stand now. */
  readonly effects: readonly NamedEffect[];
  /** Only before it is sent. */
  readonly checks: readonly Check[];
  readonly codes: readonly CostCode[];
  readonly jobs: ReadonlyMap<number, OrderedFor>;
  /** Where the order and its lines go. */
  readonly places: ReadonlyMap<number, DeliveryPlace>;
  readonly receipts: readonly {
    readonly id: number;
    readonly number: string;
    readonly day: Day;
    readonly note: string;
    readonly who: string;
    readonly quantity: number;
  }[];
  readonly invoices: readonly {
    readonly id: number;
    readonly number: string;
    readonly day: Day;
    readonly state: InvoiceState;
    readonly gross: Minor;
  }[];
  readonly messages: readonly {
    readonly id: number;
    readonly recipient: string;
    readonly state: MessageState;
    readonly answer: string;
    readonly at: string;
  }[];
  readonly documents: readonly { readonly id: number; readonly name: string; readonly at: string }[];
  readonly editable: boolean;
};

export async function loadOrder(db: Db, person: Person, number: string, today: Day): Promise<OrderView | undefined> {
  permit(person, 'see orders');
  permit(person, 'see money');
  const head = (await db('purchaseOrder').where({ number }).first('id')) as { id: number } | undefined;
  const order = head === undefined ? undefined : await findOrder(db, head.id);
  if (order === undefined) return undefined;
  const orderId = order.id;
  const company = await loadCompany(db);
  const madeBy = (await db('person').where({ id: order.madeBy }).first('name')) as { name: string };
  const jobIds = order.lines.flatMap((l) => l.splits.flatMap((s) => s.jobId ?? []));
  const jobs = (await db('job as j')
    .join('customer as c', 'c.id', 'j.customerId')
    .whereIn('j.id', among(db, jobIds))
    .select('j.id', 'j.number', 'j.name', 'j.customerId', { customer: 'c.name' })) as (OrderedFor & { id: number })[];
  const placeIds = [order.placeId, ...order.lines.flatMap((l) => l.placeId ?? [])];
  const places = new Map((await whereIn(db, 'deliveryPlace', 'id', placeIds)).map((p) => [p.id, p]));
  const supplier = (await db('supplier').where({ id: order.supplierId }).first()) as Supplier;
  const totals = orderTotals(order.lines, await loadTaxCodes(db), order.currency);
  const unsent = UNSENT.includes(order.state);
  return {
    order,
    supplier,
    place: places.get(order.placeId) as DeliveryPlace,
    places,
    madeBy: madeBy.name,
    totals,
    companyCurrency: company.currency,
    effects: unsent ? await orderEffects(db, order) : await standingOf(db, order),
    checks: unsent ? await checkLines(db, order, order.lines, supplier, today) : [],
    codes: await loadCostCodes(db),
    jobs: new Map(jobs.map(({ id, ...j }) => [id, j])),
    receipts: (await db('receipt as r')
      .join('person as p', 'p.id', 'r.personId')
      .where({ orderId })
      .orderBy('r.id')
      .select(
        'r.id',
        'r.number',
        'r.day',
        'r.note',
        { who: 'p.name' },
        db.raw('(select sum(quantity) from receipt_split x where x.receipt_id = r.id) as quantity'),
      )) as OrderView['receipts'],
    invoices: (await db('invoice')
      .where({ orderId })
      .orderBy('id')
      .select('id', 'number', 'day', 'state', 'gross')) as OrderView['invoices'],
    messages: (await db('message')
      .where({ about: 'order', aboutId: orderId })
      .orderBy('id', 'desc')
      .select('id', 'recipient', 'state', 'answer', 'at')) as OrderView['messages'],
    documents: (await db('document')
      .where({ about: 'order', aboutId: orderId })
      .orderBy('id', 'desc')
      .select('id', 'name', 'at')) as OrderView['documents'],
    editable: EDITABLE.includes(order.state) && may(person, 'draft orders'),
  };
}

/** What an order that is being drafted offers beside its lines: taxes, and what its supplier says of its parts. */
export async function loadOrderForm(db: Db, person: Person, order: StoredOrder, today: Day) {
  permit(person, 'draft orders');
  const items = [...new Set(order.lines.flatMap((l) => l.itemId ?? []))];
  return {
    taxes: await loadTaxCodes(db),
    terms: await loadItemTerms(db, person, order.supplierId, items, today),
    /** Where a new line goes while the order has none: the job that the person had open last. */
    lastJob: (await listThings(db, person, 'job', '', today))[0] ?? null,
  };
}

/** What stands on an order's paper as it would go today. */
export async function loadOrderPaper(db: Db, person: Person, number: string, today: Day) {
  permit(person, 'see money');
  const order = (await db('purchaseOrder').where({ number }).first('id')) as { id: number } | undefined;
  return order === undefined ? undefined : loadPaper(db, order.id, today);
}
