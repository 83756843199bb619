import { may } from '@/core/people/rights';
import { unitOf } from '@/core/quantity/units';
import { listStock, stockFilter, type StockRow } from '../stores/stores';
import { day, everyPage, list, measure, money, text } from './list';

export const stores = list<StockRow>('see stores', 'Stores', ({ db, person, query, currency, today }) => ({
  columns: [
    { head: 'Number', cell: (s) => text(s.number) },
    { head: 'Name', cell: (s) => text(s.name) },
    { head: 'Unit', cell: (s) => text(unitOf(s.unit).name) },
    { head: 'In stock', cell: (s) => measure(s.onHand) },
    { head: 'Reserved', cell: (s) => measure(s.reserved) },
    { head: 'Free', cell: (s) => measure(s.free) },
    { head: 'Job stock', cell: (s) => measure(s.ofJobs) },
    { head: 'On order', cell: (s) => measure(s.coming) },
    { head: 'Minimum', cell: (s) => measure(s.keep) },
    { head: 'Last issued', cell: (s) => day(s.lastOut) },
    ...(may(person, 'see money')
      ? [{ head: `Value ${currency}`, cell: (s: StockRow) => money(s.value, currency), total: true as const }]
      : []),
  ],
  pages: everyPage((after) => listStock(db, person, { ...stockFilter(query, today), after })),
}));
