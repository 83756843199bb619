import { simpleParser } from 'mailparser';
import type { Day } from '@/core/calendar/workdays';
import { loadOrderData } from '@/queries/company/files';
import { loadOrder } from '@/queries/orders/order';
import { previewOrder } from '@/queries/orders/preview';
import { loadPaper } from '@/workings/orders/paper';
import { must, q, refusedWith, TestCompany, TODAY } from '../../../tests/support/company';
import { orderInput, type OrderInput } from '../../../tests/support/typed';
import type { StoredOrder } from '@/store/orders';
import { confirmOrder } from './confirming';
import { cancelOrder, closeShort } from './ending';
import { orderLines } from './orders';
import { beginRevision, changeRevision, dropRevision } from './revising';
import { writeMessage } from './mailing';
import { beginSending, markSentByHand, sendOrder, settleInterrupted } from './sending';

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
  await yard.db('supplier').update({ carriage: 0 as never });
});
afterEach(() => yard.closeProven());

/** 12 m of hose at 8.00, sent. */
const sent = async () => yard.send(await yard.draft([{ needId: await yard.need(), buy: q(12) }]));

const begin = async (order: StoredOrder, reason = 'The job grew') =>
  beginRevision(await yard.as('buyer'), { once: yard.once(), orderId: order.id, version: order.version, reason });

/** Rewrites a revision as its form would, after `edit` has typed into the order as it was sent. */
async function rewrite(order: StoredOrder, edit: (text: OrderInput) => unknown) {
  const now = await yard.order(order.id);
  const text = orderInput(now);
  edit(text);
  const ref = { once: yard.once(), orderId: now.id, version: now.version };
  return changeRevision(await yard.as('buyer'), { ...ref, ...text } as never);
}

const more = (text: OrderInput, n = 15) => {
  const [line] = text.lines;
  if (line === undefined) throw new Error('There is no line.');
  line.quantity = q(n);
  if (line.splits[0] !== undefined) line.splits[0].quantity = q(n);
};

const send = async (order: StoredOrder) => {
  const { version } = await yard.order(order.id);
  return sendOrder(await yard.as('buyer'), { once: yard.once(), orderId: order.id, version });
};

describe('a revision', () => {
  it('goes no lower than what waits at the door, which can be released afterwards', async () => {
    const order = await sent();
    await yard.db('orderLine').where({ orderId: order.id }).update({ inspected: 1 });
    must(await yard.takeIn(order, 8));
    expect((await yard.order(order.id)).lines[0]?.held).toBe(q(8));
    must(await begin(await yard.order(order.id)));
    const refused = await rewrite(order, (text) => more(text, 2));
    expect(refusedWith(refused)).toEqual(['revise.less']);
    must(await rewrite(order, (text) => more(text, 8)));
    must(await send(order));
    expect((await yard.order(order.id)).lines[0]?.quantity).toBe(q(8));
  });

  it('moves nothing until it is sent, and then the difference', async () => {
    const order = await sent();
    must(await begin(order));
    must(await rewrite(order, more));
    expect(await yard.tab()).toEqual({ onOrder: 9600 });
    expect((await yard.order(order.id)).lines[0]?.quantity).toBe(q(12));
    must(await send(order));
    const after = await yard.order(order.id);
    expect([after.state, after.revision, after.lines[0]?.quantity, after.net]).toEqual(['sent', 1, q(15), 12_000]);
    expect(await yard.tab()).toEqual({ onOrder: 12_000 });
    expect(await yard.db('orderChange').where({ orderId: order.id })).toEqual([]);
    const kept = await yard.db('orderRevision').where({ orderId: order.id }).orderBy('number');
    expect(kept.map((k) => [k.number, k.reason])).toEqual([
      [0, 'As it was first sent'],
      [1, 'The job grew'],
    ]);
    expect(JSON.parse(kept[0]?.sent ?? '').lines[0].says.Quantity).toBe('12 m');
    expect(JSON.parse(kept[1]?.sent ?? '').lines[0].says.Quantity).toBe('15 m');
  });

  it('goes out with what it changes, in its mail and on its paper', async () => {
    const order = await sent();
    must(await begin(order));
    must(
      await rewrite(order, (text) => {
        more(text);
        text.carrier = 'Pallet';
      }),
    );
    const paper = await loadPaper(yard.db, order.id, TODAY);
    expect([paper?.revision, paper?.draft, paper?.revised, paper?.lines[0]?.notes]).toEqual([
      1,
      true,
      ['Carrier: none → Pallet'],
      ['Revised: quantity 12 m → 15 m'],
    ]);
    must(await send(order));
    const mail = await simpleParser(yard.sent.at(-1)?.raw ?? '');
    expect(mail.subject).toBe(`Purchase order ${order.number}, revision 1, from Test Yard`);
    expect(mail.text).toContain('Line 1, Hose: quantity 12 m → 15 m');
    expect(mail.attachments.map((a) => a.filename)).toEqual([`${order.number}.pdf`]);
    expect((await loadPaper(yard.db, order.id, TODAY))?.lines[0]?.notes).toEqual([]);
  });

  it('bears the day it was sent, on paper and as data, whenever it is looked at', async () => {
    const order = await sent();
    const [sentOn, later] = ['2026-05-20', '2026-06-03'] as [Day, Day];
    const { actor } = await yard.as('buyer');
    const days = async (today: Day) => {
      const data = await loadOrderData(yard.db, actor, order.number, 'ubl', today);
      const issued = /<cbc:IssueDate>(.*?)</.exec(data?.bytes.toString() ?? '')?.[1];
      return [issued, (await loadPaper(yard.db, order.id, today))?.date, data?.name];
    };
    expect(await days(later)).toEqual([TODAY, 'Tue 12 May 2026', `${order.number}.xml`]);
    must(await begin(order));
    must(await rewrite(order, more));
    expect(await days(later)).toEqual([later, 'Wed 3 Jun 2026', `${order.number}-draft.xml`]);
    const { version } = await yard.order(order.id);
    must(await sendOrder(await yard.as('buyer', sentOn), { once: yard.once(), orderId: order.id, version }));
    expect(await days(later)).toEqual([sentOn, 'Wed 20 May 2026', `${order.number}.xml`]);
  });

  it('tells before it goes what it does to the jobs', async () => {
    await yard.budget(11_000);
    const order = await sent();
    must(await begin(order));
    const view = await loadOrder(yard.db, await yard.as('buyer').then((s) => s.actor), order.number, TODAY);
    expect(view?.effects.map((e) => e.after.amounts.onOrder)).toEqual([9600]);
    const text = orderInput(order);
    more(text);
    const actor = (await yard.as('buyer')).actor;
    const told = await previewOrder(yard.db, actor, order.number, orderLines.parse(text.lines), TODAY);
    expect(told?.effects?.map((e) => [e.before.amounts.onOrder, e.after.amounts.onOrder])).toEqual([[9600, 12_000]]);
    expect(told?.changes?.map((c) => c.changes[0])).toEqual([{ what: 'Quantity', was: '12 m', is: '15 m' }]);
    must(await rewrite(order, more));
    must(await send(order));
    expect((await yard.tab()).onOrder).toBe(12_000);
  });

  it('adds lines and takes lines off; what it covered is to buy again', async () => {
    const [hose, clamp] = [await yard.need(), await yard.need({ description: 'Clamp', quantity: 4, price: 3 })];
    const order = await yard.send(
      await yard.draft([
        { needId: hose, buy: q(12) },
        { needId: clamp, buy: q(4) },
      ]),
    );
    must(await begin(order));
    must(
      await rewrite(order, (text) => {
        const [first, second] = text.lines;
        const added = { ...first, id: undefined, description: 'Seal', quantity: q(2), price: 50_000 };
        text.lines = [
          second,
          {
            ...added,
            splits: [{ jobId: yard.ids.jobs[1], costCodeId: yard.ids.codes[0], quantity: q(2), amount: null }],
          },
        ] as never;
      }),
    );
    must(await send(order));
    expect((await yard.order(order.id)).lines.map((l) => l.description)).toEqual(['Clamp', 'Seal']);
    expect([await yard.tab(0), await yard.tab(1)]).toEqual([{ planned: 9600, onOrder: 1200 }, { onOrder: 1000 }]);
    expect((await yard.db('need').where({ id: hose }).first('open'))?.open).toBe(q(12));
  });

  it('is never below what came or was invoiced, also when that comes while it is written', async () => {
    const order = await sent();
    must(await begin(order));
    must(await rewrite(order, (text) => more(text, 6)));
    must(await yard.takeIn(order, 8));
    expect(refusedWith(await rewrite(order, (text) => more(text, 7)))).toEqual(['revise.less']);
    expect(refusedWith(await send(order))).toEqual(['revise.less']);
    expect((await loadOrder(yard.db, (await yard.as('buyer')).actor, order.number, TODAY))?.checks[0]?.words).toContain(
      'are received or invoiced',
    );
    expect(await yard.tab()).toEqual({ onOrder: 3200, received: 6400 });
    must(await rewrite(order, (text) => more(text, 9)));
    must(await send(order));
    expect(await yard.tab()).toEqual({ planned: 2400, onOrder: 800, received: 6400 });
    expect((await yard.order(order.id)).state).toBe('partIn');
  });

  it('revalues what came and is not invoiced at its new price', async () => {
    const order = await sent();
    must(await yard.takeIn(order, 5));
    const now = await yard.order(order.id);
    must(await begin(now));
    must(await rewrite(order, (text) => ((text.lines[0] as { price: unknown }).price = 90_000)));
    must(await send(order));
    expect(await yard.tab()).toEqual({ onOrder: 6300, received: 4500 });
  });

  it('asks the supplier anew about the lines it changes', async () => {
    const order = await sent();
    await yard.db('orderLine').update({ confirmed: q(12), promisedOn: '2026-05-20' as never });
    await yard.db('purchaseOrder').update({ state: 'confirmed' });
    must(await begin(await yard.order(order.id)));
    must(await rewrite(order, more));
    must(await send(order));
    const after = await yard.order(order.id);
    expect([after.state, after.lines[0]?.confirmed, after.lines[0]?.promisedOn]).toEqual(['sent', null, null]);
  });

  it('is dropped without a trace on the jobs', async () => {
    const order = await sent();
    must(await begin(order));
    must(await rewrite(order, more));
    const { version } = await yard.order(order.id);
    must(await dropRevision(await yard.as('buyer'), { orderId: order.id, version }));
    expect([await yard.tab(), (await yard.order(order.id)).revision]).toEqual([{ onOrder: 9600 }, 0]);
    expect(refusedWith(await send(order))).toEqual(['order.state']);
  });

  it('says what it cannot be', async () => {
    const draft = await yard.draft([{ needId: await yard.need(), buy: q(1) }]);
    expect(refusedWith(await begin(draft))).toEqual(['order.state']);
    const order = await sent();
    expect(refusedWith(await begin(order, ' '))).toEqual(['input']);
    must(await begin(order));
    expect(refusedWith(await begin(await yard.order(order.id)))).toEqual(['revise.begun']);
    expect(refusedWith(await send(order))).toEqual(['revise.same']);
    expect((await begin(order)).status).toBe('clash');
    must(await rewrite(order, more));
    const stale = await changeRevision(await yard.as('buyer'), {
      once: yard.once(),
      orderId: order.id,
      version: 1,
      ...orderInput(order),
    } as never);
    expect(stale.status).toBe('clash');
  });

  it.each([
    ['failed', 'sent', 0],
    ['unknown', 'sent', 0],
  ] as const)('whose mail %s is not in force', async (came, state, revision) => {
    const order = await sent();
    must(await begin(order));
    must(await rewrite(order, more));
    yard.answer = { came, answer: 'no' };
    expect(must(await send(order)).came).toBe(came);
    const after = await yard.order(order.id);
    expect([after.state, after.revision, await yard.tab()]).toEqual([state, revision, { onOrder: 9600 }]);
    const again = await send(order);
    if (came === 'unknown') {
      expect(refusedWith(again)).toEqual(['send.unknown']);
      const ref = { once: yard.once(), orderId: order.id, version: after.version };
      must(await markSentByHand(await yard.as('buyer'), ref));
    } else {
      yard.answer = { came: 'taken', answer: 'yes' };
      must(await send(order));
    }
    expect([(await yard.order(order.id)).revision, await yard.tab()]).toEqual([1, { onOrder: 12_000 }]);
  });

  it('holds its order still while it is sent, and is asked about when the program stops then', async () => {
    const order = await sent();
    must(await begin(order));
    must(await rewrite(order, more));
    const buyer = await yard.as('buyer');
    const { version } = await yard.order(order.id);
    const id = must(await beginSending(buyer, { once: yard.once(), orderId: order.id, version }));
    expect(await yard.tab()).toEqual({ onOrder: 9600 });
    expect(refusedWith(await yard.takeIn(order, 1))).toEqual(['order.state']);
    must(
      await writeMessage(buyer, {
        messageId: id,
        letterId: 'x@y.example',
        papers: [{ name: 'a.pdf', type: 'application/pdf', bytes: Buffer.from('%PDF') }],
      }),
    );
    await settleInterrupted(yard.db, buyer.clock);
    const after = await yard.order(order.id);
    expect([after.state, after.revision]).toEqual(['sent', 0]);
    const view = await loadOrder(yard.db, buyer.actor, order.number, TODAY);
    expect(view?.mail?.state).toBe('unknown');
  });

  it('is sent once, however often it is asked for', async () => {
    const order = await sent();
    must(await begin(order));
    must(await rewrite(order, more));
    const { version } = await yard.order(order.id);
    const once = yard.once();
    const buyer = await yard.as('buyer');
    const before = yard.sent.length;
    const all = await Promise.all(
      Array.from({ length: 8 }, () => sendOrder(buyer, { once, orderId: order.id, version })),
    );
    expect(all.every((o) => o.status === 'done')).toBe(true);
    expect([yard.sent.length - before, (await yard.order(order.id)).revision]).toEqual([1, 1]);
  });

  it('goes on after a second one, each line keeping its own history', async () => {
    const order = await sent();
    for (const n of [15, 13]) {
      must(await begin(await yard.order(order.id), `to ${n}`));
      must(await rewrite(order, (text) => more(text, n)));
      must(await send(order));
    }
    const after = await yard.order(order.id);
    expect([after.revision, after.lines[0]?.id, await yard.tab()]).toEqual([
      2,
      order.lines[0]?.id,
      { onOrder: 10_400 },
    ]);
    const view = await loadOrder(yard.db, (await yard.as('buyer')).actor, order.number, TODAY);
    expect(view?.revisions.map((r) => r.reason)).toEqual(['to 13', 'to 15', 'As it was first sent']);
  });

  it('leaves a closed line until it is opened again, and an order that was cancelled', async () => {
    const order = await sent();
    const ref = { once: yard.once(), orderId: order.id, version: order.version };
    must(await yard.takeIn(order, 5));
    const { version } = await yard.order(order.id);
    must(
      await closeShort(await yard.as('buyer'), { ...ref, version, lineId: order.lines[0]?.id ?? 0, reason: 'no more' }),
    );
    must(await begin(await yard.order(order.id)));
    expect(refusedWith(await rewrite(order, more))).toEqual(['revise.ended']);
    const off = await sent();
    must(
      await cancelOrder(await yard.as('buyer'), {
        once: yard.once(),
        orderId: off.id,
        version: off.version,
        reason: 'x',
      }),
    );
    expect(refusedWith(await begin(await yard.order(off.id)))).toEqual(['order.state']);
  });
});

describe('what a supplier confirmed', () => {
  const answer = async (order: StoredOrder, said: { quantity: number; price: number; promisedOn: string }) => {
    const { version, lines } = await yard.order(order.id);
    const line = {
      lineId: lines[0]?.id ?? 0,
      quantity: q(said.quantity),
      price: said.price,
      promisedOn: said.promisedOn,
    };
    const ref = { once: yard.once(), orderId: order.id, version, theirNumber: 'C-1', note: '' };
    must(await confirmOrder(await yard.as('buyer'), { ...ref, lines: [line] } as never));
  };

  it('is taken over into a revision in one step, and is not asked again', async () => {
    const needs = [await yard.need({ quantity: 8 }), await yard.need({ job: 1, quantity: 4 })];
    const order = await yard.send(await yard.draft(needs.map((needId, k) => ({ needId, buy: q(k === 0 ? 8 : 4) }))));
    expect(order.lines).toHaveLength(1);
    await answer(order, { quantity: 9, price: 85_000, promisedOn: '2026-06-02' });
    const { version } = await yard.order(order.id);
    const ref = { once: yard.once(), orderId: order.id, version, reason: 'As confirmed' };
    must(await beginRevision(await yard.as('buyer'), { ...ref, asConfirmed: true }));
    expect(await yard.tab()).toEqual({ onOrder: 6400 });
    must(await send(order));
    const after = await yard.order(order.id);
    const [line] = after.lines;
    expect([line?.quantity, line?.price, line?.wantedOn, line?.confirmed]).toEqual([q(9), 85_000, '2026-06-02', q(9)]);
    // What it brings less is taken from the last part.
    expect(line?.splits.map((s) => [s.jobId, s.quantity])).toEqual([
      [yard.ids.jobs[0], q(8)],
      [yard.ids.jobs[1], q(1)],
    ]);
    expect([after.state, after.revision]).toEqual(['confirmed', 1]);
    expect([await yard.tab(), await yard.tab(1)]).toEqual([{ onOrder: 6800 }, { onOrder: 850, planned: 2400 }]);
  });

  it('is asked again where the revision says something else', async () => {
    const order = await sent();
    await answer(order, { quantity: 12, price: 85_000, promisedOn: '2026-06-02' });
    must(await begin(await yard.order(order.id)));
    must(await rewrite(order, more));
    must(await send(order));
    const after = await yard.order(order.id);
    expect([after.state, after.lines[0]?.confirmed]).toEqual(['sent', null]);
  });
});
