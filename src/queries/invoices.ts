import type { Day } from '@/core/calendar/workdays';
import { billable } from '@/core/invoices/match';
import type { Minor } from '@/core/money/money';
import { OPEN_AT_SUPPLIER } from '@/core/orders/states';
import { NONE, type Quantity } from '@/core/quantity/quantity';
import { loadTaxCodes } from '@/store/company';
import type { Db } from '@/store/connection';
import {
  billedBefore,
  billedLine,
  compareInvoice,
  heldAmount,
  type Comparison,
  type InvoiceState,
  type StoredInvoice,
} from '@/store/invoices';
import { findOrder, type StoredLine, type StoredOrder } from '@/store/orders';
import type { Person } from '@/store/people';
import type { UnitPrice } from '@/core/money/money';
import { matchEffects, standingOf, type NamedEffect } from './effects';
import { permit } from './permit';

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
  readonly held: Minor | null;
};

export const INVOICES_PAGE = 60;
export const INVOICE_FILTERS = {
  waiting: ['entered', 'held'],
  matched: ['matched'],
  all: ['entered', 'held', 'matched'],
} as const satisfies Record<string, readonly InvoiceState[]>;

export async function listInvoices(
  db: Db,
  person: Person,
  filter: { show?: keyof typeof INVOICE_FILTERS; words?: string; before?: number },
): Promise<{ rows: InvoiceRow[]; more: boolean }> {
  permit(person, 'see invoices');
  const query = db('invoice as i')
    .join('supplier as s', 's.id', 'i.supplierId')
    .join('purchaseOrder as o', 'o.id', 'i.orderId')
    .whereIn('i.state', INVOICE_FILTERS[filter.show ?? 'waiting']);
  if (filter.words)
    void query.where((w) =>
      w
        .whereLike('i.number', `%${filter.words}%`)
        .orWhereLike('s.name', `%${filter.words}%`)
        .orWhereLike('o.number', `%${filter.words}%`),
    );
  if (filter.before !== undefined) void query.where('i.id', '<', filter.before);
  const rows = (await query
    .orderBy('i.id', 'desc')
    .limit(INVOICES_PAGE + 1)
    .select('i.*', { supplier: 's.name', order: 'o.number' })) as (StoredInvoice & {
    supplier: string;
    order: string;
  })[];
  const page = [];
  for (const row of rows.slice(0, INVOICES_PAGE))
    page.push({ ...row, held: row.state === 'held' ? heldAmount(await compareInvoice(db, row)) : null });
  return { rows: page, more: rows.length > INVOICES_PAGE };
}

export type InvoiceView = Comparison & {
  readonly supplier: string;
  readonly order: string;
  readonly orderId: number;
  readonly enteredBy: string;
  readonly matchedBy: string | null;
  /** Before it is matched, what matching moves; after that, how the budgets stand now. */
  readonly effects: readonly NamedEffect[];
};

export async function loadInvoice(db: Db, person: Person, id: number): Promise<InvoiceView | undefined> {
  permit(person, 'see invoices');
  permit(person, 'see money');
  const row = (await db('invoice as i')
    .join('supplier as s', 's.id', 'i.supplierId')
    .join('purchaseOrder as o', 'o.id', 'i.orderId')
    .join('person as e', 'e.id', 'i.enteredBy')
    .leftJoin('person as m', 'm.id', 'i.matchedBy')
    .where('i.id', id)
    .first('i.*', { supplier: 's.name', order: 'o.number', enteredName: 'e.name', matchedName: 'm.name' })) as
    (StoredInvoice & { supplier: string; order: string; enteredName: string; matchedName: string | null }) | undefined;
  if (row === undefined) return undefined;
  const comparison = await compareInvoice(db, row);
  const order = await findOrder(db, row.orderId);
  return {
    ...comparison,
    effects:
      row.state !== 'matched'
        ? await matchEffects(db, comparison)
        : order === undefined
          ? []
          : await standingOf(db, order),
    supplier: row.supplier,
    order: row.order,
    orderId: row.orderId,
    enteredBy: row.enteredName,
    matchedBy: row.matchedName,
  };
}

export type ToBill = {
  readonly line: StoredLine;
  readonly received: Quantity;
  readonly billedBefore: Quantity;
  readonly expected: Quantity;
};

/** What the form for a new invoice shows of its order: ordered, received and billed so far, line by line. */
export async function loadInvoiceForm(
  db: Db,
  person: Person,
  orderNumber: string,
): Promise<
  { order: StoredOrder; supplier: string; lines: ToBill[]; taxes: Awaited<ReturnType<typeof loadTaxCodes>> } | undefined
> {
  permit(person, 'enter invoices');
  const head = (await db('purchaseOrder as o')
    .join('supplier as s', 's.id', 'o.supplierId')
    .where({ number: orderNumber })
    .first('o.id', { supplier: 's.name' })) as { id: number; supplier: string } | undefined;
  const order = head === undefined ? undefined : await findOrder(db, head.id);
  if (head === undefined || order === undefined) return undefined;
  const before = await billedBefore(
    db,
    order.lines.map((l) => l.id),
  );
  const lines = order.lines.map((line) => {
    const billed = billedLine(
      line,
      { quantity: NONE, price: line.price ?? (0 as UnitPrice), priceQuantity: line.priceQuantity },
      before.get(line.id) ?? NONE,
    );
    return { line, received: billed.received, billedBefore: billed.billedBefore, expected: billable(billed) };
  });
  return { order, supplier: head.supplier, lines, taxes: await loadTaxCodes(db) };
}

/** Orders that a bill may come for, those with the most recent deliveries first. */
export async function findBillable(
  db: Db,
  person: Person,
  words: string,
): Promise<{ id: number; number: string; supplier: string; state: string; net: Minor; currency: string }[]> {
  permit(person, 'enter invoices');
  const query = db('purchaseOrder as o')
    .join('supplier as s', 's.id', 'o.supplierId')
    .whereIn('o.state', OPEN_AT_SUPPLIER);
  if (words) void query.where((w) => w.whereLike('o.number', `%${words}%`).orWhereLike('s.name', `%${words}%`));
  return query
    .orderByRaw("case o.state when 'allIn' then 0 when 'partIn' then 1 else 2 end, o.id desc")
    .limit(40)
    .select('o.id', 'o.number', 'o.state', 'o.net', 'o.currency', { supplier: 's.name' });
}
