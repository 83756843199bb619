import type { Day } from '@/core/calendar/workdays';
import { invoiceable } from '@/core/invoices/match';
import type { Minor } from '@/core/money/money';
import { INVOICE_STATES, WAITING, type InvoiceState } from '@/core/invoices/states';
import { BILLABLE } from '@/core/orders/states';
import { NONE, type Quantity } from '@/core/quantity/quantity';
import { loadCompany, loadCostCodes, loadOfferedTaxes } from '@/store/company';
import type { Db } from '@/store/db';
import { linesElsewhere, invoicedLine, compareInvoice, rateDifference, type Comparison } from '@/store/invoices';
import { findOrder, type StoredLine, type StoredOrder } from '@/store/orders';
import { listed, rowOf, whereIn } from '@/store/rows';
import type { Person } from '@/store/people';
import type { CostCode, Invoice, InvoiceCost, InvoiceLine } from '@/store/tables';
import type { UnitPrice } from '@/core/money/money';
import { matchEffects, standingOf, type NamedEffect } from '@/workings/orders/effects';
import { differenceOf } from './difference';
import { footOf, pageOf, type SortAndAfter, type Foot, type Page } from '../page';
import { permit } from '../permit';

export type InvoiceRow = {
  readonly id: number;
  readonly number: string;
  readonly supplier: string;
  readonly order: string;
  readonly day: Day;
  readonly dueOn: Day;
  readonly state: InvoiceState;
  readonly currency: string;
  readonly net: Minor;
  readonly gross: Minor;
  /** What is held of it, each difference by itself. */
  readonly differences: string | null;
};

export const INVOICES_PAGE = 60;
export const INVOICE_FILTERS = {
  waiting: WAITING,
  matched: ['matched'],
  all: INVOICE_STATES,
} as const satisfies Record<string, readonly InvoiceState[]>;

export type InvoiceFilter = SortAndAfter & {
  readonly show?: keyof typeof INVOICE_FILTERS | undefined;
  readonly words?: string | undefined;
};

const INVOICE_SORTS = {
  id: 'i.id',
  first: '-id',
  by: {
    number: 'i.number',
    supplier: 's.name',
    order: 'o.number',
    day: 'i.day',
    due: 'i.due_on',
    state: 'i.state',
    gross: 'i.gross',
  },
} as const;

function foundInvoices(db: Db, { show, words }: InvoiceFilter) {
  const query = db('invoice as i')
    .leftJoin('supplier as s', 's.id', 'i.supplierId')
    .leftJoin('purchaseOrder as o', 'o.id', 'i.orderId')
    .whereRaw(`i.state in (${listed(INVOICE_FILTERS[show ?? 'waiting'])})`);
  if (words)
    void query.where((w) =>
      w.whereLike('i.number', `%${words}%`).orWhereLike('s.name', `%${words}%`).orWhereLike('o.number', `%${words}%`),
    );
  return query;
}

/** Invoices, those entered last first unless they are sorted otherwise; a page at a time. */
export async function listInvoices(db: Db, person: Person, filter: InvoiceFilter): Promise<Page<InvoiceRow>> {
  permit(person, 'see invoices');
  const query = foundInvoices(db, filter).select('i.*', { supplier: 's.name', order: 'o.number' });
  type Row = Invoice & { supplier: string; order: string };
  const { rows, ...rest } = await pageOf<Row>(query, INVOICE_SORTS, filter, INVOICES_PAGE);
  const page = [];
  for (const row of rows) page.push({ ...row, differences: (await differenceOf(db, row)) ?? null });
  return { rows: page, ...rest };
}

/** What all invoices that a filter finds come to. */
export async function sumInvoices(db: Db, person: Person, filter: InvoiceFilter): Promise<Foot> {
  permit(person, 'see invoices');
  return footOf(foundInvoices(db, filter), { gross: 'i.gross' }, 'i.currency');
}

/** What a matched invoice cost beside its order lines, in the company's currency. */
export type BesideRow = Pick<InvoiceCost, 'amount' | 'invoiceLineId'> & {
  readonly job: string | null;
  readonly code: string | null;
  readonly words: string;
};

export type InvoiceView = Comparison & {
  readonly supplier: string;
  /** What it costs more because the exchange rate moved since the order, in the company's currency. */
  readonly rateDifference: Minor;
  readonly beside: readonly BesideRow[];
  readonly companyCurrency: string;
  readonly enteredBy: string;
  readonly matchedBy: string | null;
  /** Before it is matched, what matching moves; after that, how the budgets stand now. */
  readonly effects: readonly NamedEffect[];
};

export async function loadInvoice(db: Db, person: Person, id: number): Promise<InvoiceView | undefined> {
  permit(person, 'see invoices');
  permit(person, 'see money');
  const row = await rowOf<Invoice & { supplier: string; enteredName: string; matchedName: string | null }>(
    db('invoice as i')
      .join('supplier as s', 's.id', 'i.supplierId')
      .join('person as e', 'e.id', 'i.enteredBy')
      .leftJoin('person as m', 'm.id', 'i.matchedBy')
      .where('i.id', id)
      .first('i.*', { supplier: 's.name', enteredName: 'e.name', matchedName: 'm.name' }),
  );
  if (row === undefined) return undefined;
  const comparison = await compareInvoice(db, row);
  const { order } = comparison;
  return {
    ...comparison,
    effects: WAITING.includes(row.state) ? await matchEffects(db, comparison) : await standingOf(db, order),
    rateDifference: await rateDifference(db, comparison),
    beside: await loadBeside(db, id),
    companyCurrency: (await loadCompany(db)).currency,
    supplier: row.supplier,
    enteredBy: row.enteredName,
    matchedBy: row.matchedName,
  };
}

const loadBeside = async (db: Db, invoiceId: number): Promise<BesideRow[]> =>
  db('invoiceCost as c')
    .join('tabLine as l', 'l.id', 'c.id')
    .leftJoin('job as j', 'j.id', 'c.jobId')
    .leftJoin('costCode as k', 'k.id', 'c.costCodeId')
    .where({ invoiceId })
    .orderBy('c.id')
    .select('c.amount', 'c.invoiceLineId', 'l.words', { job: 'j.number', code: 'k.code' });

export type ToInvoice = {
  readonly line: StoredLine;
  readonly received: Quantity;
  /** On all other invoices of the order. */
  readonly elsewhere: Quantity;
  readonly expected: Quantity;
};

export type InvoiceFormView = {
  readonly order: StoredOrder;
  readonly supplier: string;
  readonly lines: readonly ToInvoice[];
  readonly taxes: Awaited<ReturnType<typeof loadOfferedTaxes>>;
  /** Jobs that lines of the invoice are charged to by themselves. */
  readonly jobs: readonly { readonly id: number; readonly number: string; readonly name: string }[];
  readonly codes: readonly CostCode[];
  readonly freightCodeId: number | null;
  /** The invoice that is changed, with its lines; undefined for a new one. */
  readonly invoice: { readonly invoice: Invoice; readonly lines: readonly InvoiceLine[] } | undefined;
};

/** What the form for a new invoice shows of its order: ordered, received and invoiced so far, line by line. */
export async function loadInvoiceForm(
  db: Db,
  person: Person,
  orderNumber: string,
): Promise<InvoiceFormView | undefined> {
  permit(person, 'enter invoices');
  const head = await db('purchaseOrder').where({ number: orderNumber }).first('id');
  return head === undefined ? undefined : formFor(db, head.id, undefined);
}

/** The same for an invoice that waits and is to be changed; undefined when it waits no more. */
export async function loadInvoiceChange(db: Db, person: Person, id: number): Promise<InvoiceFormView | undefined> {
  permit(person, 'enter invoices');
  const invoice = await db('invoice').where({ id }).whereIn('state', WAITING).first();
  if (invoice === undefined) return undefined;
  const lines = await db('invoiceLine').where({ invoiceId: id }).orderBy('place');
  return formFor(db, invoice.orderId, { invoice, lines });
}

async function formFor(
  db: Db,
  orderId: number,
  invoice: InvoiceFormView['invoice'],
): Promise<InvoiceFormView | undefined> {
  const order = await findOrder(db, orderId);
  if (order === undefined) return undefined;
  const supplier = await db('supplier').where({ id: order.supplierId }).first('name');
  const besideOf = await linesElsewhere(
    db,
    order.lines.map((l) => l.id),
    invoice?.invoice.id,
  );
  const lines = order.lines.map((line) => {
    const none = { quantity: NONE, price: line.price ?? (0 as UnitPrice), priceQuantity: line.priceQuantity };
    const invoiced = invoicedLine(line, none, besideOf(line.id));
    return { line, received: line.received, elsewhere: invoiced.invoicedElsewhere, expected: invoiceable(invoiced) };
  });
  const { freightCodeId } = await loadCompany(db);
  return {
    order,
    supplier: supplier?.name ?? '',
    lines,
    taxes: await loadOfferedTaxes(
      db,
      [...order.lines, ...(invoice?.lines ?? [])].map((l) => l.taxCodeId),
    ),
    jobs: (
      await whereIn(
        db,
        'job',
        'id',
        (invoice?.lines ?? []).flatMap((l) => l.jobId ?? []),
      )
    ).map(({ id, number, name }) => ({ id, number, name })),
    codes: await loadCostCodes(db),
    freightCodeId,
    invoice,
  };
}

/** Orders that an invoice may come for, those with the most recent deliveries first. */
export async function findInvoiceable(
  db: Db,
  person: Person,
  words: string,
): Promise<{ id: number; number: string; supplier: string; state: string; net: Minor; currency: string }[]> {
  permit(person, 'enter invoices');
  const query = db('purchaseOrder as o').join('supplier as s', 's.id', 'o.supplierId').whereIn('o.state', BILLABLE);
  if (words) void query.where((w) => w.whereLike('o.number', `%${words}%`).orWhereLike('s.name', `%${words}%`));
  return query
    .orderByRaw("case o.state when 'allIn' then 0 when 'partIn' then 1 when 'settled' then 3 else 2 end, o.id desc")
    .limit(40)
    .select('o.id', 'o.number', 'o.state', 'o.net', 'o.currency', { supplier: 's.name' });
}
