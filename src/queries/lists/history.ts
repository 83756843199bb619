import type { ToldChange } from '@/core/history/tell';
import { historyFilterOf, loadHistory, loadRecords, type HistoryRecord } from '../company/history';
import { day, everyPage, list, text } from './list';

/** What a cell of a sheet can hold, with room for what says that it goes on. */
const MOST = 30_000;

const told = ({ what, from, to }: ToldChange): string =>
  from === undefined ? `${what}: ${to}` : `${what}: ${from} → ${to ?? '(removed)'}`;

const cut = (words: string): string => (words.length > MOST ? `${words.slice(0, MOST)}… and more` : words);

/** The record, as it is filtered, with what stood there before and after, and what each row is sealed with. */
export const history = list<HistoryRecord>('see money', 'History', ({ db, person, query }) => {
  const filter = historyFilterOf(query);
  return {
    columns: [
      { head: 'Record', cell: (r) => ({ whole: r.id }) },
      { head: 'Date', cell: (r) => day(r.day) },
      { head: 'Time', cell: (r) => text(r.at) },
      { head: 'Who', cell: (r) => text(r.who) },
      { head: 'Event', cell: (r) => text(r.words) },
      { head: 'Relates to', cell: (r) => text(r.subjects) },
      { head: 'What changed', cell: (r) => text(cut(r.changes.map(told).join('; '))) },
      { head: 'Seal', cell: (r) => text(r.seal) },
    ],
    pages: everyPage(async (after) => {
      const { rows, more } = await loadHistory(db, person, filter, after === undefined ? undefined : Number(after));
      const ids = rows.map((r) => r.id);
      return { rows: await loadRecords(db, person, filter, ids), next: more ? String(ids.at(-1)) : undefined };
    }),
  };
});
