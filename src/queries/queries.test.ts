import { plusDays, type Day } from '@/core/calendar/workdays';
import { importQuoteFile, keepQuoteFile } from '@/actions/quotes/importing';
import { winQuote } from '@/actions/quotes/winning';
import { findPerson } from '@/store/people';
import { must, q, TestCompany, TODAY } from '../../tests/support/company';
import { loadDesk } from './frame/desk';
import { find } from './frame/find';
import { loadCourse } from './jobs/course';
import { findJob, loadPostings, loadTab } from './jobs/job';
import { listJobs } from './jobs/jobs';
import { countToBuy, loadBuyList } from './buying/buyList';
import { listLate, listOpenNeeds } from './buying/openNeeds';
import { loadOrder } from './orders/order';
import { listOrders } from './orders/orders';
import { NotPermitted } from './permit';
import { checkQuoteFile } from './quotes/importing';
import { listDue } from './dock/dock';

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
});
afterEach(() => yard.close());

const buyer = async () => (await yard.as('buyer')).actor;
const job = 412;

async function withBudget(): Promise<void> {
  const bytes = new TextEncoder().encode(
    'Description,Qty,Unit,Cost,Cost code\r\nHose,12,m,8,02\r\nPlate,2,sheet,50,01',
  );
  const { id } = must(await keepQuoteFile(await yard.as('buyer'), { quoteId: 1, name: 'q.csv', bytes }));
  must(
    await importQuoteFile(await yard.as('buyer'), {
      once: yard.once(),
      fileId: id,
      mapping: { description: 0, quantity: 1, unit: 2, cost: 3, costCode: 4 },
      choices: { mark: '.', costCode: {}, supplier: {}, unit: {}, leftOut: [] },
    }),
  );
  must(
    await winQuote(await yard.as('lead', '2026-05-01' as Day), {
      once: yard.once(),
      quoteId: 1,
      version: 2,
      wonBy: 'Hester Lowe',
    }),
  );
}

describe('a job’s tab', () => {
  it('adds up by cost code, now and at the end of an earlier day', async () => {
    await withBudget();
    const order = await yard.send(await yard.draft([{ needId: await yard.need(), buy: q(12) }]));
    const person = await buyer();
    const now = await loadTab(yard.db, person, yard.ids.jobs[0]);
    expect(now.rows.map((r) => [r.code.code, r.budget, r.amounts.planned, r.amounts.onOrder])).toEqual([
      ['01', 10_000, 10_000, 0],
      ['02', 9600, 9600, 9600],
      ['09', 0, 0, 2500],
    ]);
    expect(now.whole).toMatchObject({ budget: 19_600, amounts: { onOrder: 12_100 } });
    const then = await loadTab(yard.db, person, yard.ids.jobs[0], '2026-05-02' as Day);
    expect(then.rows.map((r) => [r.code.code, r.amounts.planned, r.amounts.onOrder])).toEqual([
      ['01', 10_000, 0],
      ['02', 9600, 0],
    ]);
    expect((await loadTab(yard.db, person, yard.ids.jobs[0], '2026-04-30' as Day)).rows).toEqual([]);
    expect(order.number).toBe('K26-0001');
  });

  it('opens every figure to postings that add up to it', async () => {
    await withBudget();
    const order = await yard.send(await yard.draft([{ needId: await yard.need(), buy: q(12) }]));
    must(await yard.takeIn(order, 5));
    const person = await buyer();
    const { rows, whole } = await loadTab(yard.db, person, yard.ids.jobs[0]);
    for (const stage of ['planned', 'drafted', 'onOrder', 'received', 'actual'] as const) {
      expect((await loadPostings(yard.db, person, yard.ids.jobs[0], { stage })).sum).toBe(whole.amounts[stage]);
      for (const r of rows) {
        const opened = await loadPostings(yard.db, person, yard.ids.jobs[0], { stage, costCodeId: r.code.id });
        expect(opened.sum).toBe(r.amounts[stage]);
        expect(opened.rows.reduce((sum, p) => sum + p.amount, 0)).toBe(opened.sum);
      }
    }
    const [latest] = (await loadPostings(yard.db, person, yard.ids.jobs[0], { stage: 'received' })).rows;
    expect(latest).toMatchObject({
      event: 'Received',
      document: 'receipt',
      documentNumber: 'R-00001',
      order: 'K26-0001',
      what: 'Hose',
      who: 'The storekeeper',
      amount: 4000,
    });
  });

  it('tells its course over time', async () => {
    await withBudget();
    await yard.send(await yard.draft([{ needId: await yard.need(), buy: q(12) }]));
    expect(await loadCourse(yard.db, await buyer(), yard.ids.jobs[0])).toEqual({
      points: [
        { day: '2026-05-01', budget: 19_600, forecast: 19_600, committed: 0, actual: 0 },
        { day: TODAY, budget: 19_600, forecast: 31_700, committed: 12_100, actual: 0 },
      ],
      events: [
        { day: '2026-05-01', what: 'budget', amount: 19_600, words: 'Quote Q-412 won' },
        { day: TODAY, what: 'committed', amount: 12_100, words: 'Order sent K26-0001' },
      ],
    });
  });
});

describe('lists', () => {
  it('show what is to buy by supplier, those without one last, with what stands in the way', async () => {
    await yard.need({ supplier: null, description: 'Unknown' });
    await yard.need({ neededOn: '2026-05-13', price: null, description: 'Late' });
    await yard.need({ supplier: 1, neededOn: '2026-06-30', description: 'Later' });
    const { rows, total } = await listOpenNeeds(yard.db, await buyer(), TODAY, {});
    expect(rows.map((r) => [r.description, r.tags.map((t) => t.words)])).toEqual([
      ['Late', ['no price', '5 days late', 'no item number']],
      ['Later', ['no item number']],
      ['Unknown', ['no supplier', 'no item number']],
    ]);
    expect([total, await countToBuy(yard.db)]).toEqual([3, 3]);
    expect(
      (await listOpenNeeds(yard.db, await buyer(), TODAY, { words: 'lat', by: '2026-06-01' as Day })).rows.map(
        (r) => r.description,
      ),
    ).toEqual(['Late']);
    expect((await listOpenNeeds(yard.db, await buyer(), TODAY, { supplierId: 0 })).rows).toHaveLength(1);
  });

  it('show how far each line of a buy list has come', async () => {
    const needId = await yard.need();
    const order = await yard.send(await yard.draft([{ needId, buy: q(8) }]));
    must(await yard.takeIn(order, 3));
    const [line] = (await loadBuyList(yard.db, await buyer(), yard.ids.jobs[0], TODAY)).rows;
    expect([line?.open, line?.ordered, line?.received]).toEqual([q(4), q(8), q(3)]);
  });

  it('page by the last row shown', async () => {
    const first = await listOrders(yard.db, await buyer(), { show: 'all' }, TODAY);
    expect([first.rows, first.next]).toEqual([[], undefined]);
    await yard.draft([{ needId: await yard.need(), buy: q(1) }]);
    await yard.draft([{ needId: await yard.need(), buy: q(1) }]);
    const all = (await listOrders(yard.db, await buyer(), { show: 'all' }, TODAY)).rows;
    const after = JSON.stringify([all[0]?.id, all[0]?.id]);
    const further = await listOrders(yard.db, await buyer(), { show: 'all', after }, TODAY);
    expect(further.rows.map((o) => o.number)).toEqual(['K26-0001']);
    expect((await listJobs(yard.db, await buyer(), { words: 'survey' })).rows.map((j) => j.number)).toEqual([
      '412',
      '418',
    ]);
  });

  it('find a serial number or a lot, which leads to its way', async () => {
    const keeper = (await yard.as('storekeeper')).actor;
    await yard.db('lot').insert({ id: 7, itemId: yard.ids.items[0], number: 'GC-7731' });
    const hrefs = async (words: string) => (await find(yard.db, keeper, words)).map((f) => [f.kind, f.href]);
    expect(await hrefs('gc-7731')).toEqual([['lot', '/stores/numbers/7']]);
    expect(await hrefs('gc77')).toEqual([['lot', '/stores/numbers/7']]);
  });

  it('find by number or words, and keep money from who may not see it', async () => {
    const order = await yard.send(await yard.draft([{ needId: await yard.need(), buy: q(1) }]));
    expect((await find(yard.db, await buyer(), 'eelmoor')).map((f) => [f.kind, f.href])).toEqual([
      ['order', `/orders/${order.number}`],
      ['supplier', '/suppliers/1'],
    ]);
    const keeper = (await yard.as('storekeeper')).actor;
    expect((await find(yard.db, keeper, 'eelmoor')).map((f) => [f.kind, f.href])).toEqual([
      ['order', `/dock/${order.number}`],
    ]);
    expect((await listDue(yard.db, keeper, TODAY, { words: 'hose' })).rows.map((r) => r.number)).toEqual([
      order.number,
    ]);
    expect((await listJobs(yard.db, keeper, {})).rows[0]?.level).toBeNull();
    await expect(loadOrder(yard.db, keeper, order.number, TODAY)).rejects.toThrow(NotPermitted);
    await expect(loadTab(yard.db, keeper, 1)).rejects.toThrow('You don’t have permission to see prices and budgets.');
    expect((await loadBuyList(yard.db, keeper, yard.ids.jobs[0], TODAY)).rows[0]).toMatchObject({
      price: null,
      buying: null,
    });
  });

  it('know a job by its number only', async () => {
    expect((await findJob(yard.db, await buyer(), String(job)))?.quote).toMatchObject({
      number: 'Q-412',
      state: 'writing',
      lines: 0,
    });
    expect(await findJob(yard.db, await buyer(), "412' or 1=1")).toBeUndefined();
  });
});

describe('the desk', () => {
  it('tells each person what waits for them', async () => {
    await withBudget();
    await yard.need({ neededOn: '2026-05-13' });
    await yard.draft([{ needId: await yard.need(), buy: q(12) }]);
    const of = async (role: 'buyer' | 'storekeeper' | 'accounts' | 'lead') =>
      (await loadDesk(yard.db, (await findPerson(yard.db, (await yard.as(role)).actor.id)) as never, TODAY)).map(
        (g) => [g.title, g.count],
      );
    expect(await of('buyer')).toEqual([
      ['Over budget', 2],
      ['To buy', 3],
      ['To send', 1],
      ['Quotes', 1],
    ]);
    expect(await of('storekeeper')).toEqual([]);
    expect(await of('lead')).toEqual([
      ['Over budget', 2],
      ['Quotes', 1],
    ]);
  });

  describe('of an order that was sent', () => {
    const group = async (title: string) => {
      const person = (await findPerson(yard.db, (await yard.as('buyer')).actor.id)) as never;
      const found = (await loadDesk(yard.db, person, TODAY)).find((g) => g.title === title);
      return found && [found.count, ...found.rows.map((r) => [r.word, r.text])];
    };
    const marked = async (marks: object) => {
      const days = { dueHereOn: null, dueAwayOn: null, missedOn: null, sentOn: plusDays(TODAY, -9) };
      await yard.db('purchaseOrder').update({ ...days, ...marks });
    };
    beforeEach(async () => {
      await yard.send(await yard.draft([{ needId: await yard.need(), buy: q(12) }]));
    });

    it('tells what is to chase once, by what presses most', async () => {
      const [before, after] = [plusDays(TODAY, -1), plusDays(TODAY, 3)];
      await marked({ dueHereOn: before, missedOn: before });
      expect(await group('To chase')).toEqual([1, ['Late', expect.stringContaining('K26-0001 from')]]);
      await marked({ dueAwayOn: before });
      expect((await group('To chase'))?.[0]).toBe(1);
      await marked({ dueHereOn: after, missedOn: after });
      expect(await group('To chase')).toEqual([1, ['Late', expect.stringContaining('promised later than needed by')]]);
      await marked({ dueHereOn: after });
      expect(await group('To chase')).toEqual([1, ['Unconfirmed', expect.stringContaining('no confirmation')]]);
      await marked({ sentOn: plusDays(TODAY, -2) });
      expect(await group('To chase')).toBeUndefined();
    });

    it.each([
      [-1, 'Late'],
      [0, 'Today'],
      [7, 'Expected'],
      [8, undefined],
    ])('says what comes here in %d days', async (days, word) => {
      await marked({ dueHereOn: plusDays(TODAY, days) });
      expect((await group('To receive'))?.[1]?.[0 as never]).toBe(word);
    });
  });

  it('tells of lines that are late to order however many are needed before them', async () => {
    for (let k = 0; k < 45; k += 1) await yard.need({ neededOn: '2026-08-03' });
    const late = await yard.need({ neededOn: '2026-09-01', description: 'Casting' });
    await yard
      .db('need')
      .where({ id: late })
      .update({ orderBy: plusDays(TODAY, -1) });
    const { actor, db } = await yard.as('buyer');
    expect((await listLate(db, actor, TODAY, 4)).map((n) => n.id)).toEqual([late]);
  });
});

describe('a quote file being looked at', () => {
  it('remembers what columns, codes, suppliers and units of an earlier file were said to mean', async () => {
    const bytes = new TextEncoder().encode(
      'Alpha,Beta,Gamma,Delta,Epsilon,Qty\r\nHose,2,8.50,88,Somebody,9\r\nRope,3,1,88,Somebody,9\r\n',
    );
    const keep = async () => must(await keepQuoteFile(await yard.as('buyer'), { quoteId: 1, name: 'q.csv', bytes })).id;
    const mapping = { description: 0, quantity: 1, cost: 2, costCode: 3, supplier: 4 };
    const choices = {
      mark: '.' as const,
      costCode: { '88': yard.ids.codes[0] },
      supplier: { Somebody: yard.ids.suppliers[1] },
      unit: { stang: 'MTR' },
      leftOut: [],
    };
    must(await importQuoteFile(await yard.as('buyer'), { once: yard.once(), fileId: await keep(), mapping, choices }));
    const again = await checkQuoteFile(yard.db, await buyer(), TODAY, await keep());
    expect(again).toMatchObject({
      mapping,
      ready: 2,
      choices: { costCode: choices.costCode, supplier: choices.supplier, unit: choices.unit },
      settled: { supplier: { Somebody: { name: 'Pellam Bearings' } } },
    });
    expect(again?.mapping).toEqual(mapping);
    await yard.db('fileMemory').where({ what: 'supplier' }).update({ meaning: '999' });
    const gone = await checkQuoteFile(yard.db, await buyer(), TODAY, await keep());
    expect(gone?.unknown.supplier).toEqual(['Somebody']);
  });

  it('tells what would come of it, and nothing of it comes in', async () => {
    const bytes = new TextEncoder().encode(
      'Part;What;Qty;Cost;Code;Who\r\n;Hose;2;8,50;02;Eelmoor Metals\r\n;Rope;x;1;02;\r\n;Chain;1;1;88;Nobody & Co\r\n',
    );
    const { id } = must(await keepQuoteFile(await yard.as('buyer'), { quoteId: 1, name: 'q.csv', bytes }));
    const mapping = { description: 1, quantity: 2, cost: 3, costCode: 4, supplier: 5 };
    const check = await checkQuoteFile(yard.db, await buyer(), TODAY, id, {
      mapping,
      choices: { mark: ',', costCode: {}, supplier: {}, unit: {}, leftOut: [] },
    });
    expect(check).toMatchObject({
      rows: 3,
      ready: 1,
      cost: 1700,
      stopped: [3, 4],
      unknown: { costCode: ['88'], supplier: ['Nobody & Co'] },
      delimiter: ';',
      mark: ',',
    });
    expect(check?.samples).toEqual([
      [],
      ['Hose', 'Rope', 'Chain'],
      ['2', 'x', '1'],
      ['8,50', '1'],
      ['02', '88'],
      ['Eelmoor Metals', 'Nobody & Co'],
    ]);
    const settled = await checkQuoteFile(yard.db, await buyer(), TODAY, id, {
      mapping,
      choices: {
        mark: ',',
        costCode: { '88': yard.ids.codes[0] },
        supplier: { 'Nobody & Co': null },
        unit: {},
        leftOut: [3],
      },
    });
    expect(settled).toMatchObject({ ready: 2, cost: 1800, unknown: { costCode: ['88'] } });
    expect(await yard.db('quoteLine').select('id')).toEqual([]);
  });
});
