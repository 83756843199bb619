import { may } from '@/core/people/rights';
import { unitOf } from '@/core/quantity/units';
import { listStock, type StockRow } from '../stores';
import { everyPage, list, measure, money, text } from './list';

export const stores = list<StockRow>('see stores', 'Stores', ({ db, person, query, currency }) => ({
  columns: [
    { head: 'Number', cell: (s) => text(s.number) },
    { head: 'Name', cell: (s) => text(s.name) },
    { head: 'Unit', cell: (s) => text(unitOf(s.unit).name) },
    { head: 'On hand', cell: (s) => measure(s.onHand) },
    { head: 'Reserved', cell: (s) => measure(s.reserved) },
    { head: 'Free', cell: (s) => measure(s.free) },
    { head: 'Of jobs', cell: (s) => measure(s.ofJobs) },
    { head: 'Coming', cell: (s) => measure(s.coming) },
    { head: 'Kept', cell: (s) => measure(s.keep) },
    ...(may(person, 'see money')
      ? [{ head: `Value ${currency}`, cell: (s: StockRow) => money(s.value, currency) }]
      : []),
  ],
  pages: everyPage((after) =>
    listStock(db, person, { words: query.words, low: query.show === 'low', sort: query.sort, after }),
  ),
}));
