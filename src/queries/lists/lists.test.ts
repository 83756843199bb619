import Papa from 'papaparse';
import readXlsxFile from 'read-excel-file/node';
import { usualFor } from '@/core/locale/locale';
import { may, type Role } from '@/core/people/rights';
import { forecastOf, headroomOf } from '@/core/tab/sums';
import { writeCsv } from '@/formats/sheet/csv';
import { writeXlsx } from '@/formats/sheet/xlsx';
import { insertMany } from '@/store/rows';
import { q, TestCompany, TODAY } from '../../../tests/support/company';
import { listDue } from '../dock/dock';
import { loadTab } from '../jobs/job';
import { listOpenNeeds, pageOfOpenNeeds } from '../buying/openNeeds';
import type { ListQuery } from './list';
import { LISTS, openList, type ListName } from './lists';
import { NotPermitted } from '../permit';

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
});
afterEach(() => yard.close());

const opened = async (name: ListName, query: ListQuery = {}, role: Role = 'buyer') =>
  openList(yard.db, (await yard.as(role)).actor, name, query, TODAY);

async function csv(name: ListName, query?: ListQuery, role?: Role): Promise<Record<string, string>[]> {
  const { columns, pages } = await opened(name, query, role);
  let text = '';
  for await (const part of writeCsv(columns, pages)) text += part;
  expect(text.startsWith('\ufeff')).toBe(true);
  return Papa.parse<Record<string, string>>(text.slice(1), { header: true, skipEmptyLines: true }).data;
}

async function xlsx(name: ListName, query?: ListQuery, role?: Role): Promise<unknown[][]> {
  const { title, columns, pages } = await opened(name, query, role);
  const rows: never[] = [];
  for await (const page of pages) rows.push(...page);
  const sheets = await readXlsxFile(await writeXlsx(title, columns, rows));
  return (sheets as unknown as { data: unknown[][] }[])[0]?.data ?? (sheets as unknown as unknown[][]);
}

describe('a list taken out', () => {
  it('has all that its filter finds, however many pages, and its sum is that of the file', async () => {
    for (let k = 0; k < 130; k += 1)
      await yard.draft([{ needId: await yard.need({ quantity: k + 1 }), buy: q(k + 1) }]);
    const rows = await csv('orders');
    expect(rows).toHaveLength(130);
    expect(new Set(rows.map((r) => r.Order)).size).toBe(130);
    const [sum] = (await yard.db('purchaseOrder').sum({ net: 'net' })) as { net: number }[];
    const total = rows.reduce((all, r) => all + Math.round(Number(r.Net) * 100), 0);
    expect(total).toBe(sum?.net);
    const [head = [], ...cells] = await xlsx('orders');
    const net = head.indexOf('Net');
    expect(cells.reduce((all, c) => all + Math.round(Number(c[net]) * 100), 0)).toBe(sum?.net);
    expect(await csv('orders', { words: rows[0]?.Order })).toHaveLength(1);
    expect(await csv('orders', { show: 'done' })).toEqual([]);
  });

  it('writes amounts as numbers and days as dates', async () => {
    const order = await yard.send(
      await yard.draft([{ needId: await yard.need({ neededOn: '2026-06-01' }), buy: q(12) }]),
    );
    await yard
      .db('purchaseOrder')
      .where({ id: order.id })
      .update({ net: 123_450_099 as never });
    const [row] = await csv('orders');
    expect(row).toMatchObject({
      Order: order.number,
      Supplier: 'Eelmoor Metals',
      Net: '1234500.99',
      Sent: '12/05/2026',
    });
    const [head = [], cells = []] = await xlsx('orders');
    expect(cells[head.indexOf('Net')]).toBe(1_234_500.99);
    expect((cells[head.indexOf('Sent')] as Date).toISOString().slice(0, 10)).toBe('2026-05-12');
  });

  it('is written the company’s way', async () => {
    await yard.db('company').update(usualFor('de-DE'));
    await yard.draft([{ needId: await yard.need({ quantity: 200 }), buy: q(200) }]);
    const { columns, pages } = await opened('orders');
    let text = '';
    for await (const part of writeCsv(columns, pages)) text += part;
    const [row] = Papa.parse<Record<string, string>>(text.slice(1), { header: true, delimiter: ';' }).data;
    expect(row?.Net).toMatch(/^1\d{3},\d{2}$/);
    await yard.db('company').update(usualFor('en-GB'));
  });

  it('runs nothing in a spreadsheet', async () => {
    const names = ['=1+1', '+2', '-3', '@x', '\tz', 'x=1'];
    await insertMany(
      yard.db,
      'item',
      names.map((name, k) => ({ number: `Z-${k}`, name, unit: 'C62' })),
    );
    expect((await csv('items', { words: 'Z-' })).map((r) => r.Name)).toEqual([
      "'=1+1",
      "'+2",
      "'-3",
      "'@x",
      "'\tz",
      'x=1',
    ]);
    const [head = [], ...cells] = await xlsx('items', { words: 'Z-' });
    expect(cells.map((c) => String(c[head.indexOf('Name')])).filter((n) => /^[=+@-]/.test(n))).toEqual([]);
  });

  it('tells no money to who may not see it, and nothing to who may not see the list', async () => {
    await yard.draft([{ needId: await yard.need(), buy: q(12) }]);
    for (const name of ['jobs', 'orders', 'buy-list'] as const) {
      const [row] = await csv(name, { job: '412' }, 'storekeeper');
      expect(Object.keys(row ?? {}).length).toBeGreaterThan(5);
      expect(Object.keys(row ?? {}).filter((h) => /Net|Price|Budget|Committed|Forecast|Headroom/.test(h))).toEqual([]);
    }
    for (const name of ['items', 'suppliers', 'invoices', 'gather', 'quote', 'tab', 'outbox'] as const)
      await expect(csv(name, {}, 'storekeeper')).rejects.toThrow(NotPermitted);
  });

  it.each(Object.keys(LISTS) as ListName[])('%s can be taken out, empty or not', async (name) => {
    await yard.need();
    const role = may({ roles: ['buyer'] }, LISTS[name].right) ? 'buyer' : 'administrator';
    expect(Array.isArray(await csv(name, { job: '412' }, role))).toBe(true);
    const [head] = await xlsx(name, { job: '412' }, role);
    expect(head?.length).toBeGreaterThan(1);
  });

  it('has all that is to buy, in the order of Gather, however many pages', async () => {
    const days = [undefined, '2026-07-01', '2026-06-01'];
    for (let k = 0; k < 12; k += 1)
      await yard.need({
        description: `Line ${k}`,
        supplier: k < 3 ? 1 : k < 5 ? null : 0,
        ...(days[k % 3] === undefined ? {} : { neededOn: days[k % 3] as string }),
      });
    const { actor } = await yard.as('buyer');
    const shown = await listOpenNeeds(yard.db, actor, TODAY, {});
    const inFile = async (query: ListQuery) => (await csv('gather', query)).map((r) => r.Item);
    expect(shown.total).toBe(12);
    expect(await inFile({})).toEqual(shown.rows.map((r) => r.description));
    expect(await inFile({ supplier: '0' })).toEqual(['Line 3', 'Line 4']);
    expect((await inFile({ by: '2026-06-01' })).sort()).toEqual(
      shown.rows
        .filter((r) => r.neededOn === null || r.neededOn <= '2026-06-01')
        .map((r) => r.description)
        .sort(),
    );
    const paged = [];
    let after: string | undefined;
    do {
      const page = await pageOfOpenNeeds(yard.db, actor, TODAY, {}, after, 5);
      paged.push(...page.rows.map((r) => r.description));
      after = page.next;
    } while (after !== undefined);
    expect(paged).toEqual(shown.rows.map((r) => r.description));
  });

  it('has what is expected at the dock, the earliest first, without a price', async () => {
    for (const [k, neededOn] of ['2026-06-03', '2026-06-01', '2026-05-28'].entries())
      await yard.send(await yard.draft([{ needId: await yard.need({ neededOn, quantity: k + 1 }), buy: q(k + 1) }]));
    const rows = await csv('dock', {}, 'storekeeper');
    const { actor } = await yard.as('storekeeper');
    expect(rows.map((r) => r.Order)).toEqual((await listDue(yard.db, actor, TODAY)).rows.map((r) => r.number));
    expect(rows).toHaveLength(3);
    expect(Object.keys(rows[0] ?? {})).toEqual([
      'Order',
      'Supplier',
      'Status',
      'Jobs',
      'Required by',
      'Expected',
      'Carrier',
      'Lines',
      'Lines outstanding',
    ]);
  });

  it('has a job’s tab with the figures of its page', async () => {
    await yard.send(await yard.draft([{ needId: await yard.need({ quantity: 4 }), buy: q(4) }]));
    const { actor } = await yard.as('buyer');
    const job = await yard.db('job').where({ number: '412' }).first('id');
    const { whole } = await loadTab(yard.db, actor, job?.id ?? 0);
    const rows = await csv('tab', { job: '412' });
    const sum = (head: string) => rows.reduce((all, r) => all + Math.round(Number(r[`${head} GBP`]) * 100), 0);
    expect([sum('Budget'), sum('On order'), sum('Forecast'), sum('Headroom')]).toEqual([
      whole.budget,
      whole.amounts.onOrder,
      forecastOf(whole),
      headroomOf(whole),
    ]);
    expect(whole.amounts.onOrder).toBeGreaterThan(0);
    const [head = [], ...below] = await xlsx('tab', { job: '412' });
    const total = below.at(-1) ?? [];
    const totalOf = (name: string) => Math.round(Number(total[head.indexOf(`${name} GBP`)]) * 100);
    expect([total[0], totalOf('On order'), totalOf('Headroom')]).toEqual([
      'Total',
      whole.amounts.onOrder,
      headroomOf(whole),
    ]);
    expect(await csv('tab', { job: '412', on: '2020-01-01' })).toEqual([]);
  });

  it('has several jobs of an order as words, which no program takes for one number', async () => {
    const picks = [await yard.need(), await yard.need({ job: 1 })].map((needId) => ({ needId, buy: q(2) }));
    await yard.draft(picks);
    expect((await csv('orders', {}))[0]?.Jobs).toBe('412; 418');
    const [head = [], row = []] = await xlsx('orders', {});
    expect(row[head.indexOf('Jobs')]).toBe('412; 418');
  });

  it('has the buy list of a job line by line', async () => {
    await yard.need({ description: 'Hose', quantity: 2.5 });
    const needId = await yard.need({ description: 'Plate', quantity: 4 });
    await yard.draft([{ needId, buy: q(3) }]);
    expect(await csv('buy-list', { job: '412' })).toMatchObject([
      { Description: 'Hose', Quantity: '2.5000', 'To buy': '2.5000' },
      { Description: 'Plate', Quantity: '4.0000', Drafted: '3.0000', 'To buy': '1.0000' },
    ]);
    expect(await csv('buy-list', { job: 'none' })).toEqual([]);
  });
});
