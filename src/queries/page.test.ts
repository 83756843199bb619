import fc from 'fast-check';
import { minor } from '@/core/money/money';
import { committedOf, forecastOf, headroomOf, type Level } from '@/core/tab/sums';
import { insertMany } from '@/store/rows';
import { TestCompany, TODAY } from '../../tests/support/company';
import { quantity } from '@/core/quantity/quantity';
import { listJobs, sumJobs } from './jobs/jobs';
import { listOrders, sumOrders } from './orders/orders';
import { footOf, pageOf, type Sorts } from './page';

let yard: TestCompany;
beforeAll(async () => {
  yard = await TestCompany.open();
});
afterAll(() => yard.close());

const SORTS: Sorts = { id: 'p.id', first: '-id', by: { word: 'p.word', amount: 'p.amount' } };
type Row = { id: number; word: string; amount: number; currency: string };
const rowsOf = (data: readonly Omit<Row, 'id'>[]): Row[] => data.map((d, k) => ({ ...d, id: k + 1 }));

/** Walks all pages of rows that stand in a table of their own. */
async function walk(rows: readonly Row[], sort: string | undefined, size: number): Promise<number[]> {
  const from = () =>
    yard.db(
      yard.db.raw(
        "(select value ->> 'id' as id, value ->> 'word' as word, value ->> 'amount' as amount, value ->> 'currency' as currency from json_each(?)) as p",
        [JSON.stringify(rows)],
      ) as never,
    );
  const ids: number[] = [];
  let after: string | undefined;
  do {
    const page = await pageOf<Row>(from().select('p.id') as never, SORTS, { sort, after }, size);
    expect(page.rows.length).toBeLessThanOrEqual(size);
    ids.push(...page.rows.map((r) => r.id));
    after = page.next;
  } while (after !== undefined);
  return ids;
}

const words = fc.constantFrom('a', 'b', 'B', 'ö', '');
const row = fc.record({
  word: words,
  amount: fc.integer({ min: -3, max: 3 }),
  currency: fc.constantFrom('GBP', 'EUR'),
});

describe('a list that is paged', () => {
  it('shows each row once, in the order that was asked for, whatever the size of a page', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(row, { maxLength: 25 }),
        fc.constantFrom('word', '-word', 'amount', '-amount', undefined, 'nonsense', '-toString'),
        fc.integer({ min: 1, max: 9 }),
        async (data, sort, size) => {
          const rows = rowsOf(data);
          const key = sort?.replace('-', '');
          const down =
            sort === undefined || !['word', 'amount'].includes(key ?? '') ? -1 : sort.startsWith('-') ? -1 : 1;
          const value = (r: Row) => (key === 'word' ? r.word : key === 'amount' ? r.amount : 0);
          // SQLite compares text by its bytes, as Buffer does.
          const compare = (x: string | number, y: string | number) =>
            typeof x === 'string' ? Buffer.compare(Buffer.from(x), Buffer.from(String(y))) : x - Number(y);
          const expected = [...rows].sort((x, y) => down * (compare(value(x), value(y)) || x.id - y.id));
          expect(await walk(rows, sort, size)).toEqual(expected.map((r) => r.id));
        },
      ),
      { numRuns: 60 },
    );
  });

  it.each(['', 'x', '[]', '[{},1]', '["a"]', '[null,2]', '{"a":1}'])(
    'begins at the top after the bent mark “%s”',
    async (after) => {
      const order = yard.db('costCode as p').select('p.id');
      const page = await pageOf<Row>(order as never, { id: 'p.id', first: 'id', by: {} }, { after }, 1);
      expect(page.rows.map((r) => r.id)).toEqual([1]);
    },
  );

  it('is summed whole at its foot, each currency by itself', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(row, { maxLength: 25 }), async (data) => {
        const rows = rowsOf(data);
        const from = yard.db(
          yard.db.raw(
            "(select value ->> 'amount' as amount, value ->> 'currency' as currency from json_each(?)) as p",
            [JSON.stringify(rows)],
          ) as never,
        );
        const foot = await footOf(from as never, { amount: 'p.amount' }, 'p.currency');
        const plain = ['EUR', 'GBP']
          .map((currency) => ({
            currency,
            amount: rows.filter((r) => r.currency === currency).reduce((sum, r) => sum + r.amount, 0),
          }))
          .filter((s) => s.amount !== 0);
        expect(foot).toEqual({ count: rows.length, sums: { amount: plain } });
      }),
      { numRuns: 40 },
    );
  });
});

describe('the company’s lists', () => {
  it('sort orders by what they come to, for who may see that', async () => {
    const buyer = (await yard.as('buyer')).actor;
    for (const n of [3, 1, 2]) await yard.draft([{ needId: await yard.need(), buy: quantity(n * 10_000) }]);
    const nets = (await listOrders(yard.db, buyer, { sort: '-net' }, TODAY)).rows.map((o) => o.net ?? 0);
    expect(nets).toEqual([...nets].sort((x, y) => y - x));
    expect(new Set(nets).size).toBeGreaterThan(1);
    const foot = await sumOrders(yard.db, buyer, {});
    expect(foot.sums.net).toEqual([{ currency: 'GBP', amount: minor(nets.reduce<number>((sum, n) => sum + n, 0)) }]);
    const keeper = (await yard.as('storekeeper')).actor;
    const seen = (await listOrders(yard.db, keeper, { sort: '-net' }, TODAY)).rows.map((o) => o.id);
    expect(seen).toEqual([...seen].sort((x, y) => y - x));
    expect((await sumOrders(yard.db, keeper, {})).sums).toEqual({});
  });

  it('sum the budgets of the jobs found', async () => {
    const buyer = (await yard.as('buyer')).actor;
    await insertMany(yard.db, 'budgetEntry', [
      { jobId: 1, costCodeId: 1, kind: 'opening', amount: 70_000, reason: 'x', personId: 1, day: '2026-05-01', at: '' },
    ]);
    for (const filter of [{}, { words: '412' }, { state: 'all' as const }, { leadId: 99 }]) {
      const { rows } = await listJobs(yard.db, buyer, filter);
      const foot = await sumJobs(yard.db, buyer, filter);
      const sum = (of: (level: NonNullable<(typeof rows)[number]['level']>) => number) =>
        rows.reduce((all, j) => all + (j.level === null ? 0 : of(j.level)), 0);
      expect(foot.count).toBe(rows.length);
      expect(Object.fromEntries(Object.entries(foot.sums).map(([k, [s]]) => [k, s?.amount]))).toEqual({
        budget: sum((l) => l.budget),
        committed: sum(committedOf),
        forecast: sum(forecastOf),
        headroom: sum(headroomOf),
      });
    }
  });

  it('sort jobs by what stands on their tabs, for who may see that', async () => {
    await yard.budget(90_000, 1);
    const buyer = (await yard.as('buyer')).actor;
    const of = {
      budget: (l: Level) => l.budget,
      committed: committedOf,
      forecast: forecastOf,
      headroom: headroomOf,
    };
    for (const [key, value] of Object.entries(of)) {
      const { rows } = await listJobs(yard.db, buyer, { sort: key });
      const values = rows.map((j) => (j.level === null ? 0 : value(j.level)));
      expect(values.length).toBeGreaterThan(1);
      expect(values).toEqual([...values].sort((x, y) => x - y));
    }
    const keeper = await listJobs(yard.db, (await yard.as('storekeeper')).actor, { sort: '-headroom' });
    expect(keeper.sorts).not.toContain('headroom');
    expect(keeper.rows.map((j) => j.number)).toEqual(['412', '418']);
  });

  it('find the jobs that a person leads', async () => {
    const { rows } = await listJobs(yard.db, (await yard.as('buyer')).actor, { leadId: -1 });
    expect(rows).toEqual([]);
  });
});
