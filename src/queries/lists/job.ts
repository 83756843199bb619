import { asDay } from '@/core/calendar/workdays';
import { HELD_NAME } from '@/core/budgets/rows';
import { ZERO, type Minor } from '@/core/money/money';
import { may } from '@/core/people/rights';
import { unitOf } from '@/core/quantity/units';
import { QUOTE_LINE_KIND_NAMES } from '@/core/quotes/rows';
import { STAGE_NAMES, STAGES } from '@/core/tab/stages';
import { committedOf, forecastOf, headroomOf } from '@/core/tab/sums';
import type { Cell, Column } from '@/formats/sheet/column';
import { loadBudget, type BudgetRow, type BudgetView } from '../jobs/budgets';
import { findJob, loadQuote, loadTab, type QuoteLineRow, type Tab } from '../jobs/job';
import { loadBuyList, type BuyListLine } from '../buying/buyList';
import { day, everyPage, list, measure, money, price, text } from './list';

export const buyList = list<BuyListLine>('see jobs', 'Buy list', ({ db, person, query, today, currency }) => ({
  columns: [
    { head: 'Description', cell: (n) => text(n.description) },
    { head: 'Item number', cell: (n) => text(n.number) },
    { head: 'Cost code', cell: (n) => text(n.code) },
    { head: 'Supplier', cell: (n) => text(n.supplier) },
    { head: 'Needed by', cell: (n) => day(n.neededOn) },
    { head: 'Unit', cell: (n) => text(unitOf(n.unit).name) },
    { head: 'Quantity', cell: (n) => measure(n.quantity) },
    { head: 'Drafted', cell: (n) => measure(n.drafted) },
    { head: 'On order', cell: (n) => measure(n.ordered) },
    { head: 'Received', cell: (n) => measure(n.received) },
    { head: 'To buy', cell: (n) => measure(n.open) },
    ...(may(person, 'see money')
      ? [
          {
            head: `Price ${currency}`,
            cell: (n: BuyListLine): Cell => price(n.price),
          },
        ]
      : []),
  ],
  pages: everyPage(async (after) => {
    const job = await findJob(db, person, query.job ?? '');
    if (job === undefined) return { rows: [] };
    const { rows, before, lines } = await loadBuyList(db, person, job.id, today, {
      after: after === undefined ? undefined : Number(after),
    });
    const last = rows.at(-1);
    return { rows, next: last !== undefined && before + rows.length < lines ? String(last.id) : undefined };
  }),
}));

export const quote = list<QuoteLineRow>('see money', 'Quote', ({ db, person, query, currency }) => ({
  columns: [
    { head: 'Type', cell: (l) => text(QUOTE_LINE_KIND_NAMES[l.kind]) },
    { head: 'Description', cell: (l) => text(l.description) },
    { head: 'Item number', cell: (l) => text(l.number) },
    { head: 'Quantity', cell: (l) => measure(l.quantity) },
    { head: 'Unit', cell: (l) => text(unitOf(l.unit).name) },
    { head: `Cost ${currency}`, cell: (l) => price(l.cost) },
    { head: 'Mark-up %', cell: (l) => (l.markup === null ? undefined : { scaled: l.markup, places: 2 }) },
    { head: `Price ${currency}`, cell: (l) => price(l.price) },
    { head: 'Optional', cell: (l) => text(l.optional === 1 ? 'yes' : '') },
    { head: 'Charged (each / once)', cell: (l) => text(l.per === 'batch' ? 'once' : '') },
    { head: 'Cost code', cell: (l) => text(l.code) },
    { head: 'Supplier', cell: (l) => text(l.supplier) },
    { head: 'Needed by', cell: (l) => day(l.neededOn) },
  ],
  pages: everyPage(async (after) => {
    const job = await findJob(db, person, query.job ?? '');
    const found = job && (await loadQuote(db, person, job.id, Number(after ?? 0)));
    if (found === undefined) return { rows: [] };
    const last = found.rows.at(-1);
    const more = last !== undefined && found.before + found.rows.length < found.whole.lines;
    return { rows: found.rows, next: more ? String(last.place) : undefined };
  }),
}));

/** Columns of amounts in the company's currency, which stands in their heads. */
const amounts =
  <R>(currency: string) =>
  (head: string, of: (row: R) => Minor): Column<R> => ({
    head: `${head} ${currency}`,
    cell: (r): Cell => money(of(r), currency),
  });

/** What is held back, in a row of its own. */
const heldRow = ({ now, pending }: BudgetView['contingency']): BudgetRow => ({
  code: { id: 0, code: '', name: HELD_NAME, gone: 0, version: 0 },
  opening: ZERO,
  changed: now,
  now,
  pending,
  note: '',
});

/** The budget of a job by cost code, and what is held back, now or as of a day. */
export const budget = list<BudgetRow>('see money', 'Budget', ({ db, person, query, currency }) => {
  const amount = amounts<BudgetRow>(currency);
  return {
    columns: [
      { head: 'Cost code', cell: (r) => text(r.code.code) },
      { head: 'Name', cell: (r) => text(r.code.name) },
      amount('Opening', (r) => r.opening),
      amount('Changes', (r) => r.changed),
      amount('Budget', (r) => r.now),
      amount('Pending', (r) => r.pending),
      { head: 'Note', cell: (r) => text(r.note) },
    ],
    pages: everyPage(async () => {
      const job = await findJob(db, person, query.job ?? '');
      if (job === undefined) return { rows: [] };
      const { rows, contingency: held } = await loadBudget(db, person, job.id, asDay(query.on ?? ''));
      return { rows: held.now === 0 && held.pending === 0 ? rows : [...rows, heldRow(held)] };
    }),
  };
});

type TabRow = Tab['rows'][number];

/** The tab of a job by cost code, now or as of a day. */
export const tab = list<TabRow>('see money', 'Tab', ({ db, person, query, currency }) => {
  const column = amounts<TabRow>(currency);
  const amount = (head: string, of: (row: TabRow) => Minor) => ({ ...column(head, of), total: true as const });
  return {
    columns: [
      { head: 'Cost code', cell: (r) => text(r.code.code) },
      { head: 'Name', cell: (r) => text(r.code.name) },
      amount('Budget', (r) => r.budget),
      ...STAGES.map((s) => amount(STAGE_NAMES[s], (r) => r.amounts[s])),
      amount('Committed', committedOf),
      amount('Forecast', forecastOf),
      amount('Headroom', headroomOf),
    ],
    pages: everyPage(async () => {
      const job = await findJob(db, person, query.job ?? '');
      return { rows: job === undefined ? [] : (await loadTab(db, person, job.id, asDay(query.on ?? ''))).rows };
    }),
  };
});
