import type { Day } from '@/core/calendar/workdays';
import type { Minor, UnitPrice } from '@/core/money/money';
import type { Quantity } from '@/core/quantity/quantity';
import { loadDesk } from '@/queries/frame/desk';
import { listInvoices, loadInvoice } from '@/queries/invoices/invoices';
import type { StoredOrder } from '@/store/orders';
import { must, q, refusedWith, TestCompany, TODAY } from '../../../tests/support/company';
import { changeDraft, firstLine, orderInput, type OrderInput } from '../../../tests/support/typed';
import { saveRate } from '../company/company';
import { changeInvoice, enterInvoice, voidInvoice } from './invoices';
import { cancelOrder, closeShort, endInvoices } from '../orders/ending';
import { draftOrders } from '../orders/orders';
import { reverseReceipt } from '../dock/correcting';

/** Invoices beside whatever else can happen to an order: money that is owed always reaches a tab or stores, once. */

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
});
afterEach(() => yard.closeProven());

const change = (order: StoredOrder, edit: (text: OrderInput) => unknown) => changeDraft(yard, order, edit);
const sentOrder = async (need = {}, n = 12) =>
  yard.send(await yard.draft([{ needId: await yard.need({ supplier: 1, ...need }), buy: q(n) }]));
const free = () => yard.db('supplier').update({ carriage: 0 as Minor });
const supplierTax = (taxCodeId: number) => yard.db('supplier').update({ taxCodeId, carriage: 0 as Minor });
const openOf = async (id: number) => (await yard.db('need').where({ id }).first('open'))?.open;
const stores = async () => {
  const rows = (await yard.db('posting').whereNull('jobId').sum({ n: 'amount' })) as { n: number | null }[];
  return rows[0]?.n ?? 0;
};

describe('invoices', () => {
  it('hold an order up that is to be cancelled, until they are taken out', async () => {
    const order = await sentOrder();
    const { id } = must(await yard.invoice(order, 12));
    const ref = { once: yard.once(), orderId: order.id, version: order.version, reason: 'not wanted' };
    expect(refusedWith(await cancelOrder(await yard.as('buyer'), ref))).toEqual(['order.invoiced']);
    const out = { once: yard.once(), invoiceId: id, version: 1, reason: 'for somebody else' };
    must(await voidInvoice(await yard.as('accounts'), out));
    must(await cancelOrder(await yard.as('buyer'), { ...ref, once: yard.once() }));
    expect(refusedWith(await yard.match(id, 'late', 'manager', 2))).toEqual(['invoice.out']);
    expect((await yard.invoice(order, 1)).status).toBe('refused');
  });

  it('cost what is passed on the whole of them', async () => {
    await free();
    const order = await sentOrder();
    must(await yard.takeIn(order, 12));
    const { id } = must(await yard.invoice(order, 12, { typedTotal: 12_000 as Minor }));
    must(await yard.match(id, 'fee agreed', 'manager'));
    expect(await yard.tab()).toEqual({ actual: 9600 + 480 });
    const view = await loadInvoice(yard.db, (await yard.as('manager')).actor, id);
    expect(view?.beside.map((b) => [b.job, b.code, b.amount])).toEqual([['412', '02', 480]]);
  });

  it('carry what was not ordered to a job, to stores, or over the order’s jobs, also once all goods are invoiced', async () => {
    await free();
    const picks = [
      { needId: await yard.need({ job: 0, supplier: 1, quantity: 6 }), buy: q(6) },
      { needId: await yard.need({ job: 1, supplier: 1, quantity: 2 }), buy: q(2) },
    ];
    const order = await yard.send(await yard.draft(picks));
    must(await yard.takeIn(order, 8));
    must(await yard.match(must(await yard.invoice(order, 8)).id));
    expect((await yard.order(order.id)).state).toBe('settled');
    const extra = (net: number, to: object) => ({
      description: 'Carriage',
      net: net as Minor,
      taxCodeId: 1,
      to: to as never,
    });
    const extras = [
      extra(1000, { kind: 'jobs', costCodeId: yard.ids.codes[2] }),
      extra(333, { kind: 'job', jobId: yard.ids.jobs[1], costCodeId: yard.ids.codes[0] }),
      extra(70, { kind: 'stores' }),
    ];
    const { id } = must(await yard.invoice(order, 0, { lines: [], extras, typedTotal: 1684 as Minor }));
    must(await yard.match(id, 'late carriage', 'manager'));
    expect([await yard.tab(0), await yard.tab(1), await stores()]).toEqual([
      { actual: 4800 + 750 },
      { actual: 1600 + 250 + 333 },
      70,
    ]);
  });

  it('can be changed before they are matched: 600 typed for 60 holds nothing up', async () => {
    await free();
    const order = await sentOrder({ quantity: 60 }, 60);
    must(await yard.takeIn(order, 60));
    const wrong = must(await yard.invoice(order, 600, { typedTotal: 57_600 as Minor }));
    expect((await yard.db('invoice').where({ id: wrong.id }).first('state'))?.state).toBe('held');
    const put = { once: yard.once(), invoiceId: wrong.id, version: 1, number: 'B-60', day: TODAY };
    const right = { ...put, typedTotal: 57_600 as Minor, lines: [yard.invoiced(order, 60)] };
    must(await changeInvoice(await yard.as('accounts'), right));
    must(await yard.match(wrong.id, '', 'accounts', 2));
    expect(await yard.tab()).toEqual({ actual: 48_000 });
    expect(
      refusedWith(await changeInvoice(await yard.as('accounts'), { ...right, once: yard.once(), version: 3 })),
    ).toEqual(['invoice.matched']);
  });

  it('for the same goods hold each other, whichever came first, and tell their own difference', async () => {
    await free();
    const order = await sentOrder({ price: 558 });
    must(await yard.takeIn(order, 12));
    const total = 803_520 as Minor;
    const [a, b] = [
      must(await yard.invoice(order, 12, { lines: [yard.invoiced(order, 12, 558)], typedTotal: total })),
      must(
        await yard.invoice(order, 12, { lines: [yard.invoiced(order, 12, 558)], typedTotal: (total + 100) as Minor }),
      ),
    ];
    const { rows } = await listInvoices(yard.db, (await yard.as('accounts')).actor, {});
    expect(rows.map((r) => [r.id, r.differences])).toEqual([
      [b.id, '+£\u202f6,696.00, +£\u202f1.00'],
      [a.id, '+£\u202f6,696.00'],
    ]);
    const desk = await loadDesk(yard.db, (await yard.as('accounts')).actor, TODAY);
    expect(desk.find((g) => g.title === 'To match')?.rows[0]?.text).toContain('£\u202f6,696.00 over the order');
    must(await yard.match(b.id, 'the later one is right', 'manager'));
    expect((await yard.db('invoice').where({ id: a.id }).first('state'))?.state).toBe('held');
    must(
      await voidInvoice(await yard.as('accounts'), {
        once: yard.once(),
        invoiceId: a.id,
        version: 1,
        reason: 'twice',
      }),
    );
  });

  it('of one’s own are passed by somebody else beyond the limit', async () => {
    await yard.db('company').update({ ownPassLimit: 400 as Minor });
    const order = await sentOrder();
    must(await yard.takeIn(order, 12));
    const { id } = must(await yard.invoice(order, 12, { typedTotal: 12_000 as Minor }));
    expect(refusedWith(await yard.match(id, 'mine', 'accounts'))).toEqual(['invoice.own']);
    expect((await yard.match(id, 'looked at', 'manager')).status).toBe('done');
  });

  it('take a discount, with tax that cannot be recovered: 120.00 and −60.00', async () => {
    await supplierTax(2);
    const order = await yard.draft([{ needId: await yard.need({ quantity: 1, price: 100, unit: 'C62' }), buy: q(1) }]);
    const discount = {
      ...firstLine(orderInput(order)),
      id: undefined,
      kind: 'charge',
      description: 'Discount',
      price: -500_000,
      splits: [],
    };
    must(await change(order, (t) => t.lines.push(discount as never)));
    const now = await yard.order(order.id);
    expect(now.lines.flatMap((l) => l.splits.map((s) => s.value))).toEqual([12_000, -6000]);
    expect(await yard.tab()).toEqual({ drafted: 6000 });
    const sent = await yard.send(now);
    must(await yard.takeIn(sent, 1));
    const [goods, off] = sent.lines.map((l) => ({
      lineId: l.id,
      quantity: q(1),
      price: l.price as UnitPrice,
      taxCodeId: 2,
    }));
    const { id } = must(await yard.invoice(sent, 1, { lines: [goods, off] as never, typedTotal: 6000 as Minor }));
    must(await yard.match(id));
    expect([await yard.tab(), (await yard.order(sent.id)).state]).toEqual([{ actual: 6000 }, 'settled']);
  });

  it('of a service that was closed short do not let its cost fall and rise again', async () => {
    await free();
    const order = await sentOrder({ unit: 'HUR', quantity: 18, price: 50 }, 18);
    must(
      await yard.match(
        must(await yard.invoice(order, 14, { lines: [yard.invoiced(order, 14, 50)], typedTotal: 84_000 as Minor })).id,
      ),
    );
    const { id } = must(
      await yard.invoice(order, 3, { lines: [yard.invoiced(order, 3, 50)], typedTotal: 18_000 as Minor }),
    );
    const now = await yard.order(order.id);
    const ref = { once: yard.once(), orderId: now.id, version: now.version };
    must(await closeShort(await yard.as('buyer'), { ...ref, lineId: now.lines[0]?.id ?? 0, reason: 'done' }));
    const committed = async () => {
      const { onOrder = 0, actual = 0 } = await yard.tab();
      return onOrder + actual;
    };
    expect(await committed()).toBe(85_000);
    must(await yard.match(id));
    expect([await committed(), (await yard.tab()).onOrder]).toEqual([85_000, undefined]);
  });
});

describe('other currencies', () => {
  const sellIn = async (currency: string, carriage: number) => {
    const supplier = { currency, carriage: carriage as Minor, carriageFreeFrom: null };
    await yard.db('supplier').where({ id: yard.ids.suppliers[0] }).update(supplier);
  };
  const rate = async (currency: string, text: string, day: string = '2026-01-01') =>
    must(await saveRate(await yard.as('buyer'), { once: yard.once(), currency, day, rate: text }));

  it('are not ordered in without a rate', async () => {
    await sellIn('EUR', 0);
    const needId = await yard.need();
    const ask = { once: yard.once(), picks: [{ needId, buy: q(12) }] };
    expect(refusedWith(await draftOrders(await yard.as('buyer'), ask))).toEqual(['rate.none']);
    await rate('EUR', '0.8', '2026-06-01');
    expect(refusedWith(await draftOrders(await yard.as('buyer'), ask))).toEqual(['rate.none']);
    await rate('EUR', '0.8');
    must(await draftOrders(await yard.as('buyer'), { ...ask, once: yard.once() }));
    expect((await yard.tab()).drafted).toBe(9600);
  });

  // ISO 4217: the yen has no decimals, the Kuwaiti dinar has three.
  it.each([
    ['JPY', '0.005', 900, 900],
    ['KWD', '2.5', 2500, 2500],
  ])('charge carriage with their own decimals: %s', async (currency, text, carriage, net) => {
    await sellIn(currency, carriage);
    await rate(currency, text);
    const order = await yard.draft([{ needId: await yard.need(), buy: q(12) }]);
    expect(order.lines[1]?.net).toBe(net);
  });

  it('are held by the company’s tolerance in their own money, and cost what the rate of the invoice’s day says', async () => {
    await sellIn('JPY', 0);
    await rate('JPY', '0.005');
    const order = await yard.send(await yard.draft([{ needId: await yard.need({ price: 50 }), buy: q(12) }]));
    must(await yard.takeIn(order, 12));
    await rate('JPY', '0.006', '2026-05-01');
    // The tolerance of £5 is ¥833 at the invoice's rate; the invoice is ¥960 above the order's ¥120,000.
    const lines = [yard.invoiced(order, 12, 10_080)];
    const { id } = must(await yard.invoice(order, 12, { lines, typedTotal: 145_152 as Minor }));
    const view = await loadInvoice(yard.db, (await yard.as('manager')).actor, id);
    expect([view?.differs, view?.rateDifference]).toEqual([true, 12_096]);
    must(await yard.match(id, 'agreed', 'manager'));
    expect(await yard.tab()).toEqual({ actual: 72_576 });
  });

  it('tell what the rate moved with the tax that cannot be recovered, which is cost of the job', async () => {
    await sellIn('JPY', 0);
    await rate('JPY', '0.005');
    const order = await yard.send(await yard.draft([{ needId: await yard.need({ price: 50 }), buy: q(12) }]));
    must(await yard.takeIn(order, 12));
    await rate('JPY', '0.006', '2026-05-01');
    const lines = [{ ...yard.invoiced(order, 12, 10_000), taxCodeId: 2 }];
    const { id } = must(await yard.invoice(order, 12, { lines, typedTotal: 144_000 as Minor }));
    const view = await loadInvoice(yard.db, (await yard.as('manager')).actor, id);
    // ¥120,000 and ¥24,000 of tax, at £0.006 and £0.005.
    expect(view?.rateDifference).toBe(14_400);
  });
});

describe('ends of a line', () => {
  it('over-delivered and kept it lowers what is still to buy, and is settled on purpose when no invoice comes', async () => {
    await free();
    const needId = await yard.need({ unit: 'C62' });
    const order = await yard.send(await yard.draft([{ needId, buy: q(6) }]));
    must(await yard.takeIn(order, 8, true));
    expect([await openOf(needId), (await yard.tab()).planned]).toEqual([q(4), 3200]);
    must(await yard.match(must(await yard.invoice(order, 6)).id));
    const now = await yard.order(order.id);
    expect([now.state, (await yard.tab()).received]).toEqual(['allIn', 1600]);
    const ref = { once: yard.once(), orderId: now.id, version: now.version };
    must(await endInvoices(await yard.as('accounts'), { ...ref, lineId: now.lines[0]?.id ?? 0, reason: 'given' }));
    expect([(await yard.order(order.id)).state, await yard.tab()]).toEqual([
      'settled',
      { planned: 3200, actual: 4800 },
    ]);
  });

  it('closed short it stops only its own receipts from being taken back', async () => {
    const picks = [
      { needId: await yard.need({ description: 'Hose' }), buy: q(12) },
      { needId: await yard.need({ description: 'Clamp' }), buy: q(5) },
    ];
    const order = await yard.send(await yard.draft(picks));
    const [hose, clamp] = order.lines.map((l) => l.id) as [number, number];
    must(await yard.takeIn(order, 4, false, hose));
    must(await yard.takeIn(order, 5, false, clamp));
    const now = await yard.order(order.id);
    const ref = { once: yard.once(), orderId: now.id, version: now.version };
    must(await closeShort(await yard.as('buyer'), { ...ref, lineId: hose, reason: 'no more' }));
    const back = async (receiptId: number) =>
      reverseReceipt(await yard.as('storekeeper'), { once: yard.once(), receiptId });
    expect(refusedWith(await back(1))).toEqual(['receipt.closed']);
    expect((await back(2)).status).toBe('done');
    expect(refusedWith(await back(2))).toEqual(['receipt.back']);
  });

  it('a service that is needed by the hour is ordered as one, and invoiced without a receipt', async () => {
    await free();
    const order = await sentOrder({ unit: 'HUR', quantity: 10, price: 8 }, 10);
    expect(order.lines[0]?.kind).toBe('service');
    const { id } = must(await yard.invoice(order, 10));
    expect((await yard.db('invoice').where({ id }).first('state'))?.state).toBe('entered');
  });
});

it('an invoice dated on a day that is none is refused in words', async () => {
  const order = await sentOrder();
  const invoice = {
    once: yard.once(),
    orderId: order.id,
    number: 'B',
    day: '0226-01-01' as Day,
    typedTotal: 1 as Minor,
  };
  const told = await enterInvoice(await yard.as('accounts'), {
    ...invoice,
    lines: [yard.invoiced(order, 1 as Quantity)],
  });
  expect(told).toMatchObject({ refusals: [{ message: '“0226-01-01” isn’t a date between 2000 and 2100.' }] });
});
