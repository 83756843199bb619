import type { Minor, UnitPrice } from '@/core/money/money';
import type { StoredOrder } from '@/store/orders';
import { must, q, refusedWith, TestCompany, TODAY } from '../../../tests/support/company';
import { changeDraft, firstLine, orderInput, type OrderInput } from '../../../tests/support/typed';
import { chargeElsewhere } from './charging';
import { closeShort, reopenLines } from './ending';
import { draftOrders, holdOrder, putBack } from './orders';
import { beginRevision, changeRevision } from './revising';
import { sendOrder } from './sending';

/** What an order can be, in pairs and triples: figures are worked out by hand. */

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
  await yard.db('supplier').update({ carriage: 0 as Minor });
});
afterEach(() => yard.closeProven());

const buyer = () => yard.as('buyer');
const refOf = async (order: StoredOrder) => {
  const { version } = await yard.order(order.id);
  return { once: yard.once(), orderId: order.id, version };
};
const change = async (order: StoredOrder, edit: (text: OrderInput) => unknown) =>
  must(await changeDraft(yard, await yard.order(order.id), edit));
const pounds = (n: number) => Math.round(n * 10_000) as UnitPrice;

/** A line beside those there are: a charge, or a discount. */
const beside = (text: OrderInput, of: object) =>
  text.lines.push({ ...firstLine(text), id: undefined, itemId: null, kind: 'charge', splits: [], ...of } as never);

/** Both jobs want some hose: so many metres, for these. */
async function ofBoth(metres: readonly [number, number]): Promise<StoredOrder> {
  const picks = [];
  for (const job of [0, 1] as const) {
    const needId = await yard.need({ job, quantity: metres[job], description: `Hose ${job}` });
    picks.push({ needId, buy: q(metres[job]) });
  }
  return yard.draft(picks);
}

describe('a currency without minor units', () => {
  it('with a discount on the order, carriage by quantity and tax that cannot be recovered', async () => {
    await yard.db('exchangeRate').insert({ currency: 'JPY', day: TODAY, rate: '0.005' as never });
    await yard.db('supplier').update({ currency: 'JPY', taxCodeId: 2 });
    const order = await ofBoth([3, 7]);
    await change(order, (text) => {
      text.lines.forEach((l, k) => (l.price = pounds([333, 101][k] ?? 0)));
      beside(text, { chargeKind: 'discount', description: 'Discount', discount: 1000, price: null, quantity: q(1) });
      beside(text, {
        chargeKind: 'carriage',
        description: 'Carriage',
        price: pounds(500),
        quantity: q(1),
        spread: 'quantity',
      });
    });
    // ¥ 999 + 707 − 171 + 500 = 2,035 and 407 of tax, shared 200, 141, −34 and 100.
    const now = await yard.order(order.id);
    expect(now.lines.map((l) => l.net)).toEqual([999, 707, -171, 500]);
    expect([now.net, now.gross]).toEqual([2035, 2442]);
    // In pence 600 + 424 − 103 + 300: the discount by value is −60 and −43, carriage by quantity 90 and 210.
    expect([await yard.tab(0), await yard.tab(1)]).toEqual([{ drafted: 630 }, { drafted: 591 }]);
    await yard.send(now);
    expect([await yard.tab(0), await yard.tab(1)]).toEqual([{ onOrder: 630 }, { onOrder: 591 }]);
  });
});

describe('lines that are free of charge', () => {
  it('take an equal share of a charge by value, and more of one by quantity', async () => {
    const order = await ofBoth([3, 9]);
    await change(order, (text) => {
      text.lines.forEach((l) => Object.assign(l, { price: 0, free: true }));
      beside(text, { chargeKind: 'handling', description: 'Handling', price: pounds(10.01), quantity: q(1) });
      beside(text, {
        chargeKind: 'carriage',
        description: 'Carriage',
        price: pounds(4),
        quantity: q(1),
        spread: 'quantity',
      });
    });
    expect([await yard.tab(0), await yard.tab(1)]).toEqual([{ drafted: 501 + 100 }, { drafted: 500 + 300 }]);
  });
});

describe('a line that was closed short while its invoice waits', () => {
  it('keeps what the invoice claims through a revision of another line, and is opened again whole', async () => {
    const order = await yard.send(await ofBoth([12, 4]));
    const [first, second] = order.lines;
    must(await yard.takeIn(order, 3));
    must(await yard.invoice(await yard.order(order.id), 5));
    must(await closeShort(await buyer(), { ...(await refOf(order)), lineId: first?.id ?? 0, reason: 'no more' }));
    // 3 m are in and 5 m claimed of 12 m at 8.00; 7 m are to buy again.
    expect(await yard.tab(0)).toEqual({ onOrder: 1600, received: 2400, planned: 5600 });

    must(await beginRevision(await buyer(), { ...(await refOf(order)), reason: 'dearer' }));
    const text = orderInput(await yard.order(order.id));
    const dearer = text.lines.find((l) => l.id === second?.id);
    Object.assign(dearer ?? {}, { price: pounds(11) });
    must(await changeRevision(await buyer(), { ...(await refOf(order)), ...text } as never));
    must(await sendOrder(await buyer(), await refOf(order)));
    expect([await yard.tab(0), await yard.tab(1)]).toEqual([
      { onOrder: 1600, received: 2400, planned: 5600 },
      { onOrder: 4400 },
    ]);

    must(await reopenLines(await buyer(), { ...(await refOf(order)), lineId: first?.id ?? 0, reason: 'they have it' }));
    expect(await yard.tab(0)).toEqual({ onOrder: 7200, received: 2400 });
  });

  it('is not revised to less than the invoice claims', async () => {
    const order = await yard.send(await ofBoth([12, 4]));
    must(await yard.invoice(order, 5));
    must(await beginRevision(await buyer(), { ...(await refOf(order)), reason: 'less' }));
    const text = orderInput(await yard.order(order.id));
    const line = firstLine(text);
    Object.assign(line, { quantity: q(4), splits: line.splits.map((s) => ({ ...s, quantity: q(4) })) });
    const less = await changeRevision(await buyer(), { ...(await refOf(order)), ...text } as never);
    expect(refusedWith(less)).toEqual(['revise.less']);
    Object.assign(line, { quantity: q(5), splits: line.splits.map((s) => ({ ...s, quantity: q(5) })) });
    must(await changeRevision(await buyer(), { ...(await refOf(order)), ...text } as never));
    must(await sendOrder(await buyer(), await refOf(order)));
    expect(await yard.tab(0)).toEqual({ onOrder: 4000, planned: 5600 });
  });
});

describe('two people on one order', () => {
  const both = async (one: Promise<unknown>, other: Promise<unknown>) =>
    (await Promise.all([one, other])).map((o) => (o as { status: string }).status).sort();

  it('of whom one puts a line back while the other sends it: one of the two is done', async () => {
    const order = await ofBoth([12, 4]);
    const needId = order.lines[0]?.splits[0]?.needId ?? 0;
    const [ref, other] = [await refOf(order), await refOf(order)];
    expect(await both(putBack(await buyer(), { ...ref, needIds: [needId] }), sendOrder(await buyer(), other))).toEqual([
      'clash',
      'done',
    ]);
    const { state } = await yard.order(order.id);
    expect(await yard.tab(0)).toEqual(state === 'drafting' ? { planned: 9600 } : { onOrder: 9600 });
    expect(await yard.tab(1)).toEqual(state === 'drafting' ? { drafted: 3200 } : { onOrder: 3200 });
  });

  it('of whom one joins it while the other takes it up from being held open: nothing is bought twice', async () => {
    const order = await ofBoth([12, 4]);
    must(await holdOrder(await buyer(), { ...(await refOf(order)), hold: true }));
    const needId = await yard.need({ quantity: 5, description: 'Clip' });
    const { version } = await yard.order(order.id);
    const join = async () =>
      draftOrders(await buyer(), {
        once: yard.once(),
        picks: [{ needId, buy: q(5) }],
        into: [{ orderId: order.id, version }],
      });
    const outcomes = await both(join(), join());
    expect(outcomes.filter((o) => o === 'done')).toHaveLength(1);
    expect((await yard.order(order.id)).lines.filter((l) => l.description === 'Clip')).toHaveLength(1);
    expect(await yard.tab(0)).toEqual({ drafted: 9600 + 4000 });
  });
});

describe('an order charged to another job', () => {
  it('is refused while a revision of it is written, which would charge it back', async () => {
    const order = await yard.send(await yard.draft([{ needId: await yard.need(), buy: q(12) }]));
    must(await beginRevision(await buyer(), { ...(await refOf(order)), reason: 'dearer' }));
    const text = orderInput(await yard.order(order.id));
    firstLine(text).price = pounds(9);
    must(await changeRevision(await buyer(), { ...(await refOf(order)), ...text } as never));
    const splits = [{ id: order.lines[0]?.splits[0]?.id ?? 0, jobId: yard.ids.jobs[1], costCodeId: yard.ids.codes[1] }];
    const moved = await chargeElsewhere(await buyer(), { ...(await refOf(order)), splits, reason: 'meant for 418' });
    expect(refusedWith(moved)).toEqual(['revise.begun']);
    must(await sendOrder(await buyer(), await refOf(order)));
    must(await chargeElsewhere(await buyer(), { ...(await refOf(order)), splits, reason: 'meant for 418' }));
    expect([await yard.tab(0), await yard.tab(1)]).toEqual([{ planned: 9600 }, { onOrder: 10_800 }]);
  });
});
