import { JOB_KIND_NAMES, JOB_STATE_NAMES } from '@/core/jobs/states';
import { keyIn } from '@/core/keyIn';
import type { Minor } from '@/core/money/money';
import { may } from '@/core/people/rights';
import { unitOf } from '@/core/quantity/units';
import { committedOf, forecastOf, headroomOf, type Level } from '@/core/tab/sums';
import { listItems, type ItemRow } from '../items/items';
import { listJobs, type JobRow } from '../jobs/jobs';
import { listSold, listSuppliers, type SupplierRow, type SoldRow } from '../items/suppliers';
import { day, everyPage, list, measure, money, price, text } from './list';

export const jobs = list<JobRow>('see jobs', 'Jobs', ({ db, person, query, currency }) => {
  const state = query.state === 'all' ? 'all' : keyIn(JOB_STATE_NAMES, query.state);
  const level = (of: (level: Level) => Minor) => (j: JobRow) =>
    j.level === null ? undefined : money(of(j.level), currency);
  return {
    columns: [
      { head: 'Job', cell: (j) => text(j.number) },
      { head: 'Name', cell: (j) => text(j.name) },
      { head: 'Type', cell: (j) => text(JOB_KIND_NAMES[j.kind]) },
      { head: 'Status', cell: (j) => text(JOB_STATE_NAMES[j.state]) },
      { head: 'Customer', cell: (j) => text(j.customer) },
      { head: 'Job lead', cell: (j) => text(j.lead) },
      { head: 'Due', cell: (j) => day(j.dueOn) },
      { head: 'Lines to buy', cell: (j) => ({ whole: j.toBuy }) },
      { head: 'Lines outstanding', cell: (j) => ({ whole: j.missing }) },
      ...(may(person, 'see money')
        ? [
            { head: `Budget ${currency}`, cell: level((l) => l.budget), total: true as const },
            { head: `Committed ${currency}`, cell: level(committedOf), total: true as const },
            { head: `Forecast ${currency}`, cell: level(forecastOf), total: true as const },
            { head: `Headroom ${currency}`, cell: level(headroomOf), total: true as const },
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
});

export const items = list<ItemRow>('see money', 'Items', ({ db, person, today, query }) => ({
  columns: [
    { head: 'Number', cell: (i) => text(i.number) },
    { head: 'Name', cell: (i) => text(i.name) },
    { head: 'Unit', cell: (i) => text(unitOf(i.unit).name) },
    { head: 'Stock item', cell: (i) => text(i.stocked === 1 ? 'yes' : '') },
    { head: 'Cost code', cell: (i) => text(i.code) },
    { head: 'Supplier', cell: (i) => text(i.supplier) },
    { head: 'Supplier’s item no.', cell: (i) => text(i.theirNumber) },
    { head: 'Currency', cell: (i) => text(i.currency) },
    { head: 'Price', cell: (i) => price(i.price) },
    { head: 'Price per', cell: (i) => (i.priceUnit === null ? undefined : text(unitOf(i.priceUnit).name)) },
  ],
  pages: everyPage((after) => listItems(db, person, today, { words: query.words, sort: query.sort, after })),
}));

export const suppliers = list<SupplierRow>('see money', 'Suppliers', ({ db, person, query, currency }) => ({
  columns: [
    { head: 'Supplier', cell: (s) => text(s.name) },
    { head: 'Contact', cell: (s) => text(s.contact) },
    { head: 'Order email', cell: (s) => text(s.email) },
    { head: 'Currency', cell: (s) => text(s.currency) },
    { head: 'Lead time (working days)', cell: (s) => ({ whole: s.leadDays }) },
    { head: 'Payment days', cell: (s) => ({ whole: s.paymentDays }) },
    { head: 'Carriage', cell: (s) => money(s.carriage, s.currency) },
    { head: 'Free carriage from', cell: (s) => money(s.carriageFreeFrom, s.currency) },
    { head: 'Open orders', cell: (s) => ({ whole: s.openOrders }) },
    { head: `On order ${currency}`, cell: (s) => money(s.onOrder, currency), total: true },
    { head: 'Lines to buy', cell: (s) => ({ whole: s.toBuy }) },
  ],
  pages: everyPage((after) => listSuppliers(db, person, { words: query.words, sort: query.sort, after })),
}));

/** What a supplier sells at the prices of today, as its price list would say it and can be read again. */
export const sold = list<SoldRow>('see money', 'Prices', ({ db, person, today, query }) => ({
  columns: [
    { head: 'Item number', cell: (s) => text(s.number) },
    { head: 'Supplier’s item no.', cell: (s) => text(s.theirNumber) },
    { head: 'Name', cell: (s) => text(s.name) },
    { head: 'Unit', cell: (s) => text(unitOf(s.unit).name) },
    { head: 'From quantity', cell: (s) => measure(s.from) },
    { head: 'Price', cell: (s) => price(s.price) },
    { head: 'Price per', cell: (s) => ({ whole: s.priceQuantity }) },
    { head: 'Minimum quantity', cell: (s) => measure(s.minimum) },
    { head: 'Pack size', cell: (s) => measure(s.pack) },
  ],
  pages: everyPage((after) => listSold(db, person, Number(query.supplier), today, after)),
}));
