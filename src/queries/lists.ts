import { asked } from '@/core/asked';
import type { Day } from '@/core/calendar/workdays';
import { decimalsOf } from '@/core/money/currencies';
import { PRICE_PLACES, type Minor } from '@/core/money/money';
import { ORDER_STATE_NAMES } from '@/core/orders/states';
import { may, type Right } from '@/core/people/rights';
import { PLACES } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import { committedOf, forecastOf, headroomOf, type Level } from '@/core/tab/sums';
import type { Cell, Column } from '@/formats/sheet/column';
import { loadCompany } from '@/store/company';
import type { Db } from '@/store/connection';
import type { Person } from '@/store/people';
import { INVOICE_FILTERS, listInvoices, type InvoiceRow } from './invoices';
import { listItems, type ItemRow } from './items';
import { findJob } from './job';
import { JOB_KINDS, JOB_STATES, listJobs, type JobRow } from './jobs';
import { loadBuyList, type BuyListLine } from './needs';
import type { Page } from './page';
import { listOrders, ORDER_FILTERS, type OrderRow } from './orders';
import { listSuppliers, type SupplierRow } from './suppliers';

/** What filters a list, as it stands in the address. */
export type ListQuery = Readonly<Record<string, string | undefined>>;

export type OpenList<R = never> = {
  readonly columns: readonly Column<R>[];
  readonly pages: AsyncIterable<readonly R[]>;
};

type Asked = {
  readonly db: Db;
  readonly person: Person;
  readonly query: ListQuery;
  readonly today: Day;
  readonly currency: string;
};

/** A list that can be taken out whole, as it is filtered. */
type List = { readonly right: Right; readonly title: string; readonly open: (asked: Asked) => OpenList };

const text = (words: string | null | undefined): Cell => (words ? { text: words } : undefined);
const day = (d: Day | null): Cell => (d === null ? undefined : { day: d });
const money = (amount: Minor | null, currency: string): Cell =>
  amount === null ? undefined : { scaled: amount, places: decimalsOf(currency) };

/** Page after page of a list. */
async function* everyPage<R>(
  look: (after: string | undefined) => Promise<Pick<Page<R>, 'rows' | 'next'>>,
): AsyncGenerator<readonly R[]> {
  let after: string | undefined;
  do {
    const { rows, next } = await look(after);
    yield rows;
    after = next;
  } while (after !== undefined);
}

const list = <R>(right: Right, title: string, open: (asked: Asked) => OpenList<R>): List => ({
  right,
  title,
  open: open as never,
});

export const LISTS = {
  jobs: list<JobRow>('see jobs', 'Jobs', ({ db, person, query, currency }) => {
    const state = query.state === 'all' ? 'all' : asked(JOB_STATES, query.state);
    const level = (of: (level: Level) => Minor) => (j: JobRow) =>
      j.level === null ? undefined : money(of(j.level), currency);
    return {
      columns: [
        { head: 'Job', cell: (j) => text(j.number) },
        { head: 'Name', cell: (j) => text(j.name) },
        { head: 'Kind', cell: (j) => text(JOB_KINDS[j.kind]) },
        { head: 'State', cell: (j) => text(JOB_STATES[j.state]) },
        { head: 'Customer', cell: (j) => text(j.customer) },
        { head: 'Lead', cell: (j) => text(j.lead) },
        { head: 'Due', cell: (j) => day(j.dueOn) },
        { head: 'Lines to buy', cell: (j) => ({ whole: j.toBuy }) },
        ...(may(person, 'see money')
          ? [
              { head: `Budget ${currency}`, cell: level((l) => l.budget) },
              { head: `Committed ${currency}`, cell: level(committedOf) },
              { head: `Forecast ${currency}`, cell: level(forecastOf) },
              { head: `Headroom ${currency}`, cell: level(headroomOf) },
            ]
          : []),
      ],
      pages: everyPage((after) =>
        listJobs(db, person, {
          state,
          words: query.words,
          leadId: query.lead === 'me' ? person.id : undefined,
          sort: query.sort,
          after,
        }),
      ),
    };
  }),
  orders: list<OrderRow>('see orders', 'Orders', ({ db, person, query }) => ({
    columns: [
      { head: 'Order', cell: (o) => text(o.number) },
      { head: 'Supplier', cell: (o) => text(o.supplier) },
      { head: 'State', cell: (o) => text(ORDER_STATE_NAMES[o.state]) },
      { head: 'Jobs', cell: (o) => text(o.jobs) },
      { head: 'Lines', cell: (o) => ({ whole: o.lines }) },
      { head: 'Sent', cell: (o) => day(o.sentOn) },
      { head: 'Wanted', cell: (o) => day(o.wantedOn) },
      ...(may(person, 'see money')
        ? [
            { head: 'Currency', cell: (o: OrderRow) => text(o.currency) },
            { head: 'Net', cell: (o: OrderRow) => money(o.net, o.currency) },
          ]
        : []),
    ],
    pages: everyPage((after) =>
      listOrders(db, person, {
        show: asked(ORDER_FILTERS, query.show),
        words: query.words,
        sort: query.sort,
        after,
      }),
    ),
  })),
  invoices: list<InvoiceRow>('see invoices', 'Invoices', ({ db, person, query }) => ({
    columns: [
      { head: 'Invoice', cell: (i) => text(i.number) },
      { head: 'Supplier', cell: (i) => text(i.supplier) },
      { head: 'Order', cell: (i) => text(i.order) },
      { head: 'Dated', cell: (i) => day(i.day) },
      { head: 'Due', cell: (i) => day(i.dueOn) },
      { head: 'Held by', cell: (i) => text(i.held) },
      { head: 'Currency', cell: (i) => text(i.currency) },
      { head: 'Net', cell: (i) => money(i.net, i.currency) },
      { head: 'With tax', cell: (i) => money(i.gross, i.currency) },
    ],
    pages: everyPage((after) =>
      listInvoices(db, person, {
        show: asked(INVOICE_FILTERS, query.show),
        words: query.words,
        sort: query.sort,
        after,
      }),
    ),
  })),
  items: list<ItemRow>('see money', 'Items', ({ db, person, query }) => ({
    columns: [
      { head: 'Number', cell: (i) => text(i.number) },
      { head: 'Name', cell: (i) => text(i.name) },
      { head: 'Unit', cell: (i) => text(unitOf(i.unit).name) },
      { head: 'Stocked', cell: (i) => text(i.stocked === 1 ? 'yes' : '') },
      { head: 'Cost code', cell: (i) => text(i.code) },
      { head: 'Supplier', cell: (i) => text(i.supplier) },
      { head: 'Their number', cell: (i) => text(i.theirNumber) },
      { head: 'Currency', cell: (i) => text(i.currency) },
      { head: 'Price', cell: (i) => (i.price === null ? undefined : { scaled: i.price, places: PRICE_PLACES }) },
      { head: 'Price is per', cell: (i) => (i.priceUnit === null ? undefined : text(unitOf(i.priceUnit).name)) },
    ],
    pages: everyPage((after) => listItems(db, person, { words: query.words, sort: query.sort, after })),
  })),
  suppliers: list<SupplierRow>('see money', 'Suppliers', ({ db, person, query }) => ({
    columns: [
      { head: 'Supplier', cell: (s) => text(s.name) },
      { head: 'Contact', cell: (s) => text(s.contact) },
      { head: 'E-mail', cell: (s) => text(s.email) },
      { head: 'Currency', cell: (s) => text(s.currency) },
      { head: 'Lead, working days', cell: (s) => ({ whole: s.leadDays }) },
      { head: 'Payment days', cell: (s) => ({ whole: s.paymentDays }) },
      { head: 'Carriage', cell: (s) => money(s.carriage, s.currency) },
      { head: 'Carriage free from', cell: (s) => money(s.carriageFreeFrom, s.currency) },
      { head: 'Open orders', cell: (s) => ({ whole: s.openOrders }) },
      { head: 'On order', cell: (s) => money(s.onOrder, s.currency) },
      { head: 'Lines to buy', cell: (s) => ({ whole: s.toBuy }) },
    ],
    pages: everyPage((after) => listSuppliers(db, person, { words: query.words, sort: query.sort, after })),
  })),
  'buy-list': list<BuyListLine>('see jobs', 'Buy list', ({ db, person, query, today, currency }) => ({
    columns: [
      { head: 'To buy', cell: (n) => text(n.description) },
      { head: 'Part', cell: (n) => text(n.number) },
      { head: 'Cost code', cell: (n) => text(n.code) },
      { head: 'Supplier', cell: (n) => text(n.supplier) },
      { head: 'Needed', cell: (n) => day(n.neededOn) },
      { head: 'Unit', cell: (n) => text(unitOf(n.unit).name) },
      { head: 'Need', cell: (n) => ({ scaled: n.quantity, places: PLACES }) },
      { head: 'Drafted', cell: (n) => ({ scaled: n.drafted, places: PLACES }) },
      { head: 'Ordered', cell: (n) => ({ scaled: n.ordered, places: PLACES }) },
      { head: 'In', cell: (n) => ({ scaled: n.received, places: PLACES }) },
      { head: 'Still to buy', cell: (n) => ({ scaled: n.open, places: PLACES }) },
      ...(may(person, 'see money')
        ? [
            {
              head: `Price ${currency}`,
              cell: (n: BuyListLine): Cell =>
                n.price === null ? undefined : { scaled: n.price, places: PRICE_PLACES },
            },
          ]
        : []),
    ],
    pages: everyPage(async (after) => {
      const job = await findJob(db, person, query.job ?? '');
      if (job === undefined) return { rows: [], next: undefined };
      const { rows, before, lines } = await loadBuyList(db, person, job.id, today, {
        after: after === undefined ? undefined : Number(after),
      });
      const last = rows.at(-1);
      return { rows, next: last !== undefined && before + rows.length < lines ? String(last.id) : undefined };
    }),
  })),
} as const satisfies Readonly<Record<string, List>>;

export type ListName = keyof typeof LISTS;

/** Opens a list to be taken out: its columns, and all that its filters find, page by page. */
export async function openList(
  db: Db,
  person: Person,
  name: ListName,
  query: ListQuery,
  today: Day,
): Promise<OpenList & { readonly title: string }> {
  const { open, title }: List = LISTS[name];
  const { currency } = await loadCompany(db);
  return { title, ...open({ db, person, query, today, currency }) };
}
