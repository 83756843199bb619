import { keyIn } from '@/core/keyIn';
import { MESSAGE_STATE_NAMES, ORDER_STATE_NAMES } from '@/core/orders/states';
import { may } from '@/core/people/rights';
import { unitOf } from '@/core/quantity/units';
import { dueFilter, listDue, type DueRow } from '../dock/dock';
import { INVOICE_FILTERS, listInvoices, type InvoiceRow } from '../invoices/invoices';
import type { NeedLine } from '../buying/needLine';
import { gatherFilterOf, pageOfOpenNeeds } from '../buying/openNeeds';
import { listOrders, orderFilterOf, type OrderRow } from '../orders/orders';
import { listMessages, type MessageRow } from '../orders/outbox';
import { day, everyPage, list, measure, money, price, several, text } from './list';

export const gather = list<NeedLine>('draft orders', 'Item', ({ db, person, query, today, currency }) => ({
  columns: [
    { head: 'Item', cell: (n) => text(n.description) },
    { head: 'Item number', cell: (n) => text(n.number) },
    { head: 'Job', cell: (n) => text(n.job) },
    { head: 'Cost code', cell: (n) => text(n.code) },
    { head: 'Supplier', cell: (n) => text(n.supplier) },
    { head: 'Needed by', cell: (n) => day(n.neededOn) },
    { head: 'Order by', cell: (n) => day(n.orderBy) },
    { head: 'Late', cell: (n) => text(n.late ? 'yes' : '') },
    { head: 'Unit', cell: (n) => text(unitOf(n.unit).name) },
    { head: 'Quantity', cell: (n) => measure(n.quantity) },
    { head: 'To buy', cell: (n) => measure(n.open) },
    ...(may(person, 'see money')
      ? [
          { head: 'Price currency', cell: (n: NeedLine) => text(n.buying?.currency) },
          { head: 'Price', cell: (n: NeedLine) => price(n.buying?.price ?? null) },
          { head: 'Price per', cell: (n: NeedLine) => text(n.buying && unitOf(n.buying.unit).name) },
          {
            head: `Value ${currency}`,
            cell: (n: NeedLine) => money(n.buying?.value ?? null, currency),
            total: true as const,
          },
        ]
      : []),
  ],
  pages: everyPage((after) => pageOfOpenNeeds(db, person, today, gatherFilterOf(query), after)),
}));

export const orders = list<OrderRow>('see orders', 'Orders', ({ db, person, query, today }) => ({
  columns: [
    { head: 'Order', cell: (o) => text(o.number) },
    { head: 'Supplier', cell: (o) => text(o.supplier) },
    { head: 'Status', cell: (o) => text(ORDER_STATE_NAMES[o.state]) },
    { head: 'Jobs', cell: (o) => several(o.jobs) },
    { head: 'Lines', cell: (o) => ({ whole: o.lines }) },
    { head: 'Sent', cell: (o) => day(o.sentOn) },
    { head: 'Required by', cell: (o) => day(o.wantedOn) },
    { head: 'Promised', cell: (o) => day(o.promisedOn) },
    { head: 'Supplier’s ref.', cell: (o) => text(o.theirNumber) },
    ...(may(person, 'see money')
      ? [
          { head: 'Currency', cell: (o: OrderRow) => text(o.currency) },
          { head: 'Net', cell: (o: OrderRow) => money(o.net, o.currency) },
        ]
      : []),
  ],
  pages: everyPage((after) =>
    listOrders(db, person, { ...orderFilterOf(query, today), jobId: undefined, sort: query.sort, after }, today),
  ),
}));

export const invoices = list<InvoiceRow>('see invoices', 'Invoices', ({ db, person, query }) => ({
  columns: [
    { head: 'Invoice', cell: (i) => text(i.number) },
    { head: 'Supplier', cell: (i) => text(i.supplier) },
    { head: 'Order', cell: (i) => text(i.order) },
    { head: 'Invoice date', cell: (i) => day(i.day) },
    { head: 'Payment due', cell: (i) => day(i.dueOn) },
    { head: 'Difference', cell: (i) => text(i.differences) },
    { head: 'Currency', cell: (i) => text(i.currency) },
    { head: 'Net', cell: (i) => money(i.net, i.currency) },
    { head: 'Total incl. tax', cell: (i) => money(i.gross, i.currency) },
  ],
  pages: everyPage((after) =>
    listInvoices(db, person, {
      show: keyIn(INVOICE_FILTERS, query.show),
      words: query.words,
      sort: query.sort,
      after,
    }),
  ),
}));

export const dock = list<DueRow>('see dock', 'Expected', ({ db, person, query, today }) => ({
  columns: [
    { head: 'Order', cell: (o) => text(o.number) },
    { head: 'Supplier', cell: (o) => text(o.supplier) },
    { head: 'Status', cell: (o) => text(ORDER_STATE_NAMES[o.state]) },
    { head: 'Jobs', cell: (o) => several(o.jobs) },
    { head: 'Required by', cell: (o) => day(o.wantedOn) },
    { head: 'Expected', cell: (o) => day(o.comesOn) },
    { head: 'Carrier', cell: (o) => text(o.carrier) },
    { head: 'Lines', cell: (o) => ({ whole: o.lines }) },
    { head: 'Lines outstanding', cell: (o) => ({ whole: o.linesDue }) },
  ],
  pages: everyPage((after) => listDue(db, person, today, { ...dueFilter(query), after })),
}));

export const outbox = list<MessageRow>('see money', 'Outbox', ({ db, person }) => ({
  columns: [
    { head: 'When', cell: (m) => text(m.at) },
    { head: 'Order', cell: (m) => text(m.order) },
    { head: 'To', cell: (m) => text(m.recipient) },
    { head: 'Subject', cell: (m) => text(m.subject) },
    { head: 'Result', cell: (m) => text(MESSAGE_STATE_NAMES[m.state]) },
    { head: 'Mail server reply', cell: (m) => text(m.answer) },
    { head: 'Sent by', cell: (m) => text(m.who) },
  ],
  pages: everyPage((after) => listMessages(db, person, after)),
}));
