import type { Day } from '@/core/calendar/workdays';
import type { InvoiceState } from '@/core/invoices/states';
import type { Minor, UnitPrice } from '@/core/money/money';
import type { Check } from '@/core/orders/checks';
import type { MailKind } from '@/core/orders/mail';
import { orderTotals } from '@/core/orders/order';
import type { OrderChange } from '@/core/orders/revising';
import { EDITABLE, isUnsent } from '@/core/orders/states';
import { may } from '@/core/people/rights';
import { loadCompany, loadCostCodes, loadOfferedTaxes, loadTaxCodes } from '@/store/company';
import type { Db } from '@/store/db';
import { findOrderNumbered, type LineToSave, type StoredOrder } from '@/store/orders';
import {
  cancelledFrom,
  changesBetween,
  findRevision,
  revise,
  type Revision,
  type RevisionContent,
} from '@/workings/orders/revise';
import { settleLines } from '@/workings/orders/settleLines';
import { goesWith, newerOf, type KeptFile } from '@/store/files';
import { recipientsOf } from '@/store/mail';
import type { Sending } from '@/workings/signoff/reckon';
import { loadPaper } from '@/workings/orders/paper';
import { among, whereIn, rowsOf, rowOf } from '@/store/rows';
import type { CostCode, DeliveryPlace, MessageState, OrderHead, Supplier } from '@/store/tables';
import type { Person } from '@/store/people';
import { orderEffects, revisionEffects, standingOf, type NamedEffect } from '@/workings/orders/effects';
import { checkLines, newlyAsked } from './preview';
import { loadItemTerms } from './terms';
import { permit } from '../permit';
import { loadSigning, type SignView } from '../signoff/signOff';
import { listChoices } from '../frame/choices';

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
    readonly kind: MailKind;
    readonly state: MessageState;
    readonly answer: string;
    readonly at: string;
  }[];
  readonly documents: readonly { readonly id: number; readonly name: string; readonly at: string }[];
  readonly editable: boolean;
  /** Whom it goes to, and what goes with it beside its own papers. */
  readonly recipients: readonly string[];
  /** What goes with it; `newer` is the revision that is there by now. */
  readonly files: readonly (KeptFile & { readonly newer: string | null })[];
  /** By line: the earliest day that a job needs what it covers. */
  readonly neededOn: ReadonlyMap<number, Day>;
  /** By need: what its quote has for one of its unit, in the company's currency. */
  readonly quoted: ReadonlyMap<number, { readonly cost: UnitPrice; readonly unit: string }>;
  /** A revision that is being written, beside the order as it was last sent. */
  readonly revising: RevisionView | undefined;
  /** What stands between it, or its revision, and its sending; undefined for what is with its supplier as it is. */
  readonly signing: SignView | undefined;
  /** What went out, the latest first. */
  readonly revisions: readonly RevisionRow[];
  /** Lines that went out once, and are cancelled. */
  readonly cancelled: readonly { readonly number: number; readonly name: string }[];
  /** What became of the latest mail that the order, or the revision that is being written, was to go out with. */
  readonly mail: OrderView['messages'][number] | undefined;
};

export type RevisionView = {
  readonly number: number;
  readonly reason: string;
  readonly terms: Omit<RevisionContent, 'lines'>;
  readonly lines: readonly LineToSave[];
  readonly changes: readonly OrderChange[];
};

export type RevisionRow = {
  readonly number: number;
  readonly reason: string;
  readonly day: Day;
  readonly who: string;
  readonly documentId: number | null;
};

export async function loadOrder(db: Db, person: Person, number: string, today: Day): Promise<OrderView | undefined> {
  permit(person, 'see orders');
  permit(person, 'see money');
  const order = await findOrderNumbered(db, number);
  if (order === undefined) return undefined;
  const orderId = order.id;
  const company = await loadCompany(db);
  const madeBy = (await db('person').where({ id: order.madeBy }).first('name')) as { name: string };
  const jobIds = order.lines.flatMap((l) => l.splits.flatMap((s) => s.jobId ?? []));
  const jobs = await rowsOf<OrderedFor & { id: number }>(
    db('job as j')
      .join('customer as c', 'c.id', 'j.customerId')
      .whereIn('j.id', among(db, jobIds))
      .select('j.id', 'j.number', 'j.name', 'j.customerId', { customer: 'c.name' }),
  );
  const revision = await findRevision(db, orderId);
  const placeIds = [order, revision?.content].flatMap((o) =>
    o === undefined ? [] : [o.placeId, ...o.lines.flatMap((l) => l.placeId ?? [])],
  );
  const places = new Map((await whereIn(db, 'deliveryPlace', 'id', placeIds)).map((p) => [p.id, p]));
  const supplier = (await db('supplier').where({ id: order.supplierId }).first()) as Supplier;
  const totals = orderTotals(order.lines, await loadTaxCodes(db), order.currency);
  const unsent = isUnsent(order.state, order.sentFrom);
  const messages = (await db('message')
    .where({ about: 'order', aboutId: orderId })
    .orderBy('id', 'desc')
    .select('id', 'recipient', 'kind', 'state', 'answer', 'at')) as OrderView['messages'];
  const files = await goesWith(db, orderId);
  const newer = await newerOf(db, files);
  const writing = revision && (await viewRevision(db, order, revision, supplier, today));
  const effects = writing?.effects ?? (unsent ? await orderEffects(db, order) : await standingOf(db, order));
  const sending = writing === undefined ? (unsent ? { lines: order.lines, effects } : undefined) : writing.sending;
  const signing = sending && (await loadSigning(db, person, order, sending, today));
  const checks = writing?.checks ?? (unsent ? await checkLines(db, order, order.lines, supplier, today) : []);
  return {
    order,
    supplier,
    place: places.get(order.placeId) as DeliveryPlace,
    places,
    madeBy: madeBy.name,
    totals,
    companyCurrency: company.currency,
    effects,
    checks: [...(signing?.checks ?? []), ...checks],
    signing: signing?.view,
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
    messages,
    mail:
      unsent || revision !== undefined
        ? messages.find((m) => m.kind === (unsent ? 'order' : 'revision') && m.at >= (revision?.at ?? ''))
        : undefined,
    recipients: await recipientsOf(db, order.supplierId),
    files: files.map((f) => ({ ...f, newer: newer.get(f.id)?.revision ?? null })),
    neededOn: await neededByLine(db, orderId),
    quoted: await quotedFor(db, order),
    revising: writing?.view,
    cancelled: (await cancelledFrom(db, order)).map(({ number: line, name }) => ({ number: line, name })),
    revisions: await rowsOf<RevisionRow>(
      db('orderRevision as r')
        .join('person as p', 'p.id', 'r.personId')
        .where({ orderId })
        .orderBy('r.number', 'desc')
        .select('r.number', 'r.reason', 'r.day', 'r.documentId', { who: 'p.name' }),
    ),
    documents: (await db('document')
      .where({ about: 'order', aboutId: orderId, role: 'paper' })
      .orderBy('id', 'desc')
      .select('id', 'name', 'at')) as OrderView['documents'],
    editable:
      (EDITABLE.includes(order.state) || (revision !== undefined && !signing?.view.round)) &&
      may(person, 'draft orders'),
  };
}

async function quotedFor(db: Db, order: StoredOrder): Promise<OrderView['quoted']> {
  const needIds = order.lines.flatMap((l) => l.splits.flatMap((s) => s.needId ?? []));
  const rows = await rowsOf<{ id: number; cost: UnitPrice; unit: string }>(
    db('need as n')
      .join('quoteLine as q', 'q.id', 'n.quoteLineId')
      .whereIn('n.id', among(db, needIds))
      .select('n.id', 'q.cost', 'q.unit'),
  );
  return new Map(rows.map(({ id, ...q }) => [id, q]));
}

async function neededByLine(db: Db, orderId: number): Promise<ReadonlyMap<number, Day>> {
  const rows = await rowsOf<{ id: number; on: Day }>(
    db('orderLine as l')
      .join('split as s', 's.lineId', 'l.id')
      .join('need as n', 'n.id', 's.needId')
      .where('l.orderId', orderId)
      .whereNotNull('n.neededOn')
      .groupBy('l.id')
      .select('l.id')
      .min({ on: 'n.neededOn' }),
  );
  return new Map(rows.map((r) => [r.id, r.on]));
}

/** A revision as it is being written, with what it would do. One that cannot go as it is says why among its checks. */
async function viewRevision(
  db: Db,
  order: StoredOrder,
  { reason, content }: Revision,
  supplier: Supplier,
  today: Day,
): Promise<{
  view: RevisionView;
  effects: readonly NamedEffect[];
  checks: readonly Check[];
  sending: Sending | undefined;
}> {
  const { lines: typed, ...terms } = content;
  const settled = await settleLines(db, order, typed, today);
  const revised = await revise(db, order, content, today);
  const lines = settled.ok ? settled.value : order.lines;
  const changes = revised.ok ? await changesBetween(db, order, revised.value, today) : [];
  const effects = revised.ok ? await revisionEffects(db, order, revised.value.lines) : await standingOf(db, order);
  return {
    view: { number: order.revision + 1, reason, terms, lines, changes },
    effects,
    sending: revised.ok ? { lines: revised.value.lines, effects } : undefined,
    checks: revised.ok
      ? await checkLines(db, order, newlyAsked(order, revised.value.lines), supplier, today)
      : revised.refusals.map((r) => ({ good: false, words: r.message })),
  };
}

/** What an order that is being drafted offers beside its lines: taxes, and what its supplier says of its parts. */
export async function loadOrderForm(
  db: Db,
  person: Person,
  order: Pick<OrderHead, 'supplierId'> & {
    readonly lines: readonly { readonly itemId: number | null; readonly taxCodeId: number }[];
  },
  today: Day,
) {
  permit(person, 'draft orders');
  const items = [...new Set(order.lines.flatMap((l) => l.itemId ?? []))];
  return {
    taxes: await loadOfferedTaxes(
      db,
      order.lines.map((l) => l.taxCodeId),
    ),
    terms: await loadItemTerms(db, person, order.supplierId, items, today),
    /** Where a new line goes while the order has none: the job that the person had open last. */
    lastJob: (await listChoices(db, person, 'job', '', today))[0] ?? null,
  };
}

/** What stands on an order's paper as it would go today. */
export async function loadOrderPaper(db: Db, person: Person, number: string, today: Day) {
  permit(person, 'see money');
  const order = await rowOf<{ id: number }>(db('purchaseOrder').where({ number }).first('id'));
  return order === undefined ? undefined : loadPaper(db, order.id, today);
}

/** The papers of several orders, in the order of their ids; one that is not there is left out. */
export async function loadOrderPapers(db: Db, person: Person, ids: readonly number[], today: Day) {
  permit(person, 'see money');
  const papers = [];
  for (const id of ids) {
    const paper = await loadPaper(db, id, today);
    if (paper !== undefined) papers.push(paper);
  }
  return papers;
}
