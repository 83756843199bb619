import { formatMoney } from '@/core/money/money';
import { must, q, TestCompany, TODAY } from '../../../tests/support/company';
import { changeNeed } from '@/actions/buying/needs';
import type { Day } from '@/core/calendar/workdays';
import type { Minor } from '@/core/money/money';
import type { Rate } from '@/core/money/rate';
import { loadDecisions } from '@/queries/jobs/decisions';
import { loadTab } from '@/queries/jobs/job';
import { planOrders } from './planOrders';
import { compareInvoice } from '@/store/invoices';
import { post } from '@/store/ledger';
import { insertMany, insertOne } from '@/store/rows';

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
});
afterEach(() => yard.close());

const priced = async (itemIndex: 0 | 1, breaks: readonly (readonly [from: number, price: number])[], part = {}) => {
  const partId = await insertOne(yard.db, 'supplierPart', {
    supplierId: yard.ids.suppliers[0],
    itemId: yard.ids.items[itemIndex],
    unit: 'MTR',
    theirNumber: '88',
    ...part,
  });
  for (const [from, price] of breaks) {
    await insertMany(yard.db, 'priceBreak', [{ partId, fromQuantity: q(from), price: Math.round(price * 10_000) }]);
  }
};

const inEuro = async () => {
  await yard.db('supplier').where({ id: yard.ids.suppliers[0] }).update({ currency: 'EUR' });
  await yard.db('exchangeRate').insert({ currency: 'EUR', day: '2026-01-01' as Day, rate: '0.8' as Rate });
};

describe('planning orders from picks', () => {
  it('takes the supplier’s price for the whole line before the estimate of the need', async () => {
    await priced(0, [
      [0, 9.85],
      [40, 9.1],
    ]);
    const a = await yard.need({ item: yard.ids.items[0], quantity: 30, price: 20, description: 'Tube' });
    const b = await yard.need({ item: yard.ids.items[0], quantity: 10, price: 20, description: 'Tube', job: 1 });
    const alone = await planOrders(yard.db, [{ needId: a, buy: q(30) }], TODAY);
    const both = await planOrders(
      yard.db,
      [
        { needId: a, buy: q(30) },
        { needId: b, buy: q(10) },
      ],
      TODAY,
    );
    expect([alone, both].map((p) => p.orders[0]?.lines[0]?.price)).toEqual([98_500, 91_000]);
    expect(both.orders[0]?.lines[0]).toMatchObject({ description: 'Tube', ourNumber: 'TU-1', theirNumber: '88' });
  });

  it('charges carriage to freight below the free limit, and not from it on', async () => {
    const small = await yard.need({ quantity: 10 });
    const large = await yard.need({ quantity: 50, description: 'Other hose' });
    const under = await planOrders(yard.db, [{ needId: small, buy: q(10) }], TODAY);
    const over = await planOrders(
      yard.db,
      [
        { needId: small, buy: q(10) },
        { needId: large, buy: q(50) },
      ],
      TODAY,
    );
    expect(under.orders[0]?.lines[1]).toMatchObject({
      kind: 'charge',
      price: 250_000,
      chargeCodeId: yard.ids.codes[2],
    });
    expect(over.orders[0]?.lines.map((l) => l.kind)).toEqual(['goods', 'goods']);
  });

  it('puts needs that say the same on one line, and others on their own', async () => {
    const ids = [
      await yard.need({ description: 'Fuel hose' }),
      await yard.need({ description: ' fuel HOSE ', job: 1 }),
      await yard.need({ description: 'Fuel hose', unit: 'C62' }),
    ];
    const plan = await planOrders(
      yard.db,
      ids.map((needId) => ({ needId, buy: q(2) })),
      TODAY,
    );
    expect(plan.orders[0]?.lines.filter((l) => l.kind === 'goods').map((l) => [l.unit, l.splits.length])).toEqual([
      ['MTR', 2],
      ['C62', 1],
    ]);
  });

  it('wants a line a receiving day before the earliest day that one of its needs has', async () => {
    const late = await yard.need({ item: yard.ids.items[0], neededOn: '2026-07-01' });
    const soon = await yard.need({ item: yard.ids.items[0], neededOn: '2026-06-01', job: 1 });
    const plan = await planOrders(
      yard.db,
      [
        { needId: late, buy: q(1) },
        { needId: soon, buy: q(1) },
      ],
      TODAY,
    );
    expect(plan.orders[0]?.lines[0]?.wantedOn).toBe('2026-05-29');
  });

  it('turns an estimate into the supplier’s currency at its rate', async () => {
    await inEuro();
    const plan = await planOrders(yard.db, [{ needId: await yard.need({ price: 8 }), buy: q(1) }], TODAY);
    const order = plan.orders[0];
    expect([order?.bundle.goods, order?.lines[0]?.price]).toEqual([1000, 100_000]);
    expect(formatMoney(order?.bundle.goods ?? (0 as never), order?.supplier.currency ?? '')).toBe('€\u202f10.00');
  });

  it('keeps the tab in the company’s currency', async () => {
    await inEuro();
    await yard
      .db('supplier')
      .where({ id: yard.ids.suppliers[0] })
      .update({ carriage: 0 as Minor });
    await yard.draft([{ needId: await yard.need({ price: 8 }), buy: q(12) }]);
    expect(await yard.tab()).toEqual({ drafted: 9600 });
  });
});

describe('posting', () => {
  it('moves a need’s planned money when its cost code changes', async () => {
    const needId = await yard.need();
    const text = { description: 'Hose', unit: 'MTR', supplierId: null, neededOn: '' };
    const money = { quantity: q(12), price: 80_000 as never, costCodeId: yard.ids.codes[0] };
    must(await changeNeed(await yard.as('buyer'), { needId, version: 1, ...text, ...money }));
    const rows = (await yard.db('posting').orderBy('id').select('costCodeId', 'amount')) as object[];
    expect(rows).toEqual([
      { costCodeId: yard.ids.codes[1], amount: 9600 },
      { costCodeId: yard.ids.codes[1], amount: -9600 },
      { costCodeId: yard.ids.codes[0], amount: 9600 },
    ]);
  });

  it('posts nothing when nothing moved', async () => {
    const needId = await yard.need();
    const happening = { event: 'x', document: 'need' as const, documentId: needId, personId: 1, day: TODAY, at: TODAY };
    await post(yard.db, [{ happening, lines: [needId, needId] }]);
    expect(await yard.db('posting').select('id')).toHaveLength(1);
  });
});

describe('what is to decide on a job', () => {
  it('is told with where to settle it', async () => {
    const needId = await yard.need({ neededOn: '2026-05-13' });
    const order = await yard.send(await yard.draft([{ needId, buy: q(5) }]));
    await yard
      .db('orderLine')
      .where({ orderId: order.id })
      .update({ wantedOn: '2026-05-01' as Day });
    const { id } = must(await yard.invoice(order, 5));
    const { actor } = await yard.as('buyer');
    const job = { id: yard.ids.jobs[0], number: '412' };
    const told = await loadDecisions(yard.db, actor, job, await loadTab(yard.db, actor, job.id), TODAY);
    expect(told.map((d) => [d.word, d.href])).toEqual([
      ['Over', '/jobs/412?decide=02'],
      ['Over', '/jobs/412?decide=09'],
      ['Late', '/gather?job=412'],
      ['Due', `/orders/${order.number}`],
      ['Invoice', `/invoices/${id}`],
    ]);
  });
});

describe('comparing an invoice', () => {
  it('shows what was true of it after it is matched too', async () => {
    const order = await yard.send(await yard.draft([{ needId: await yard.need(), buy: q(12) }]));
    const typed = { typedTotal: 2160 as Minor, lines: [yard.invoiced(order, 2, 9)] };
    const { id } = must(await yard.invoice(order, 2, typed));
    must(await yard.match(id, 'rush'));
    const invoice = await yard.db('invoice').where({ id }).first();
    if (invoice === undefined) throw new Error('The invoice is gone.');
    const { lines: compared, differs: held } = await compareInvoice(yard.db, invoice);
    expect(held).toBe(true);
    expect(compared[0]?.differences.map((d) => [d.kind, d.amount])).toEqual([
      ['quantity', 1800],
      ['price', 200],
    ]);
    expect(invoice).toMatchObject({ passedReason: 'rush', state: 'matched' });
  });
});
