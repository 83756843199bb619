import { findUnproven } from '@/store/ledger';
import { must, q, refusedWith, TestCompany, TODAY } from '../../tests/support/company';
import { enterInvoice, matchInvoice } from './invoices';
import { callOff } from './orders';
import { receive, takeBack } from './receiving';
import { markSentByHand, sendOrder, settleInterrupted } from './sending';

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
});
afterEach(async () => {
  const unproven = await findUnproven(yard.db);
  await yard.close();
  expect(unproven).toEqual({ needIds: [], splitIds: [] });
});

const lineIn = (orderId: number, lineId: number, n: number, keepOver = false) => ({
  once: yard.once(),
  orderId,
  note: '',
  arrivals: [{ lineId, arrives: q(n), keepOver }],
});

describe('sending', () => {
  it('mails the PDF and says so', async () => {
    const order = await yard.send(await yard.draft([{ needId: await yard.need(), buy: q(12) }]));
    expect(yard.sent.map((m) => m.to)).toEqual(['orders@eelmoor.example']);
    expect(await yard.db('message').select('state', 'answer')).toEqual([{ state: 'taken', answer: '250 taken' }]);
    expect((await yard.db('document').where({ orderId: order.id }).first('name')) as unknown).toEqual({
      name: 'K26-0001.pdf',
    });
  });

  it('leaves the order unsent when the mail server refuses it, and can be tried again', async () => {
    const order = await yard.draft([{ needId: await yard.need(), buy: q(12) }]);
    yard.answer = { taken: false, answer: '550 no such mailbox' };
    const failed = must(
      await sendOrder(await yard.as('buyer'), { once: yard.once(), orderId: order.id, version: order.version }),
    );
    expect(failed).toMatchObject({ taken: false, answer: '550 no such mailbox' });
    expect((await yard.order(order.id)).state).toBe('drafting');
    expect(await yard.tab()).toEqual({ drafted: 9600 + 2500 });
    yard.answer = { taken: true, answer: '250' };
    expect((await yard.send(await yard.order(order.id))).state).toBe('sent');
  });

  it('sends once however often the button is pressed', async () => {
    const order = await yard.draft([{ needId: await yard.need(), buy: q(12) }]);
    const buyer = await yard.as('buyer');
    const input = { once: yard.once(), orderId: order.id, version: order.version };
    const outcomes = await Promise.all([sendOrder(buyer, input), sendOrder(buyer, input), sendOrder(buyer, input)]);
    expect(outcomes.map((o) => must(o).taken)).toEqual([true, true, true]);
    expect(yard.sent).toHaveLength(1);
    expect(must(await sendOrder(buyer, input)).taken).toBe(true);
    expect(yard.sent).toHaveLength(1);
  });

  it('refuses an order without a price, and one that is sent already', async () => {
    const bare = await yard.draft([{ needId: await yard.need({ price: null }), buy: q(12) }]);
    expect(
      refusedWith(
        await sendOrder(await yard.as('buyer'), { once: yard.once(), orderId: bare.id, version: bare.version }),
      ),
    ).toEqual(['line.price']);
    const sent = await yard.send(await yard.draft([{ needId: await yard.need(), buy: q(12) }]));
    expect(
      refusedWith(
        await sendOrder(await yard.as('buyer'), { once: yard.once(), orderId: sent.id, version: sent.version }),
      ),
    ).toEqual(['order.state']);
  });

  it('can be done by hand where there is no address', async () => {
    await yard.db('supplier').where({ id: yard.ids.suppliers[0] }).update({ email: null });
    const order = await yard.draft([{ needId: await yard.need(), buy: q(12) }]);
    const ref = { orderId: order.id, version: order.version };
    expect(refusedWith(await sendOrder(await yard.as('buyer'), { once: yard.once(), ...ref }))).toEqual([
      'supplier.email',
    ]);
    must(await markSentByHand(await yard.as('buyer'), { once: yard.once(), ...ref }));
    expect((await yard.order(order.id)).state).toBe('sent');
  });

  it('does not pretend about a message that was under way when the program stopped', async () => {
    const order = await yard.draft([{ needId: await yard.need(), buy: q(12) }]);
    await yard
      .db('message')
      .insert({ orderId: order.id, recipient: 'x', subject: 'x', body: 'x', state: 'sending', personId: 1, at: TODAY });
    expect(
      refusedWith(
        await sendOrder(await yard.as('buyer'), { once: yard.once(), orderId: order.id, version: order.version }),
      ),
    ).toEqual(['order.sending']);
    expect(await settleInterrupted(yard.db)).toBe(1);
    expect((await yard.send(order)).state).toBe('sent');
  });
});

describe('calling off', () => {
  it('frees the money and gives the need back', async () => {
    const order = await yard.send(await yard.draft([{ needId: await yard.need(), buy: q(12) }]));
    must(
      await callOff(await yard.as('buyer'), {
        once: yard.once(),
        orderId: order.id,
        version: order.version,
        reason: 'cannot deliver',
      }),
    );
    expect(await yard.tab()).toEqual({ planned: 9600 });
  });

  it('is refused once something came', async () => {
    const order = await yard.send(await yard.draft([{ needId: await yard.need(), buy: q(12) }]));
    must(await receive(await yard.as('storekeeper'), lineIn(order.id, order.lines[0]?.id ?? 0, 1)));
    const now = await yard.order(order.id);
    expect(
      refusedWith(
        await callOff(await yard.as('buyer'), {
          once: yard.once(),
          orderId: now.id,
          version: now.version,
          reason: 'x',
        }),
      ),
    ).toEqual(['order.begun']);
  });
});

describe('the dock', () => {
  it('takes parts in, then the rest, and fills the job that needs it first', async () => {
    const late = await yard.need({ job: 1, quantity: 4, item: yard.ids.items[0], neededOn: '2026-06-20' });
    const soon = await yard.need({ job: 0, quantity: 6, item: yard.ids.items[0], neededOn: '2026-05-20' });
    const order = await yard.send(
      await yard.draft([
        { needId: late, buy: q(4) },
        { needId: soon, buy: q(6) },
      ]),
    );
    const lineId = order.lines[0]?.id ?? 0;
    const store = await yard.as('storekeeper');
    must(await receive(store, lineIn(order.id, lineId, 7)));
    const part = await yard.order(order.id);
    expect([part.state, part.lines[0]?.splits.map((s) => [s.jobId, s.received])]).toEqual([
      'partIn',
      [
        [yard.ids.jobs[1], q(1)],
        [yard.ids.jobs[0], q(6)],
      ],
    ]);
    must(await receive(store, lineIn(order.id, lineId, 3)));
    expect((await yard.order(order.id)).state).toBe('allIn');
  });

  it('keeps more than was ordered only when told to', async () => {
    const order = await yard.send(await yard.draft([{ needId: await yard.need(), buy: q(12) }]));
    const lineId = order.lines[0]?.id ?? 0;
    const store = await yard.as('storekeeper');
    expect(refusedWith(await receive(store, lineIn(order.id, lineId, 13)))).toEqual(['receive.over']);
    must(await receive(store, lineIn(order.id, lineId, 13, true)));
    expect(await yard.tab()).toEqual({ onOrder: 2500, received: 10_400 });
  });

  it('takes a receipt back, once', async () => {
    const order = await yard.send(await yard.draft([{ needId: await yard.need(), buy: q(12) }]));
    const store = await yard.as('storekeeper');
    must(await receive(store, lineIn(order.id, order.lines[0]?.id ?? 0, 12)));
    const { id } = (await yard.db('receipt').first('id')) as { id: number };
    must(await takeBack(store, { once: yard.once(), receiptId: id }));
    expect(await yard.tab()).toEqual({ onOrder: 9600 + 2500 });
    expect((await yard.order(order.id)).state).toBe('sent');
    expect(refusedWith(await takeBack(store, { once: yard.once(), receiptId: id }))).toEqual(['receipt.back']);
  });

  it('takes nothing in for an order that was not sent, nor half a piece', async () => {
    const draft = await yard.draft([{ needId: await yard.need({ unit: 'C62', supplier: 1 }), buy: q(12) }]);
    const lineId = draft.lines[0]?.id ?? 0;
    const store = await yard.as('storekeeper');
    expect(refusedWith(await receive(store, lineIn(draft.id, lineId, 1)))).toEqual(['order.state']);
    await yard.send(draft);
    expect(refusedWith(await receive(store, lineIn(draft.id, lineId, 0.5)))).toEqual(['receive.whole']);
    expect(refusedWith(await receive(store, { ...lineIn(draft.id, lineId, 1), arrivals: [] }))).toEqual([
      'receive.none',
    ]);
  });
});

describe('invoices', () => {
  const sentAndIn = async (received: number) => {
    const order = await yard.send(await yard.draft([{ needId: await yard.need(), buy: q(12) }]));
    if (received > 0)
      must(await receive(await yard.as('storekeeper'), lineIn(order.id, order.lines[0]?.id ?? 0, received)));
    return yard.order(order.id);
  };
  const bill = async (orderId: number, lineId: number, n: number, change: object = {}) =>
    enterInvoice(await yard.as('accounts'), {
      once: yard.once(),
      orderId,
      number: 'B-1',
      day: TODAY,
      typedTotal: Math.round(n * 960),
      lines: [{ lineId, quantity: q(n), price: 80_000, taxCodeId: 1 }],
      ...change,
    });
  const stateOf = async (id: number) =>
    (await yard.db('invoice').where({ id }).first('state', 'version')) as { state: string; version: number };

  it('that agree are matched by a click, with the charge, and settle the order', async () => {
    const order = await sentAndIn(12);
    const [line, carriage] = order.lines;
    const { id } = must(
      await bill(order.id, line?.id ?? 0, 12, {
        typedTotal: 14_520,
        lines: [
          { lineId: line?.id ?? 0, quantity: q(12), price: 80_000, taxCodeId: 1 },
          { lineId: carriage?.id ?? 0, quantity: q(1), price: 250_000, taxCodeId: 1 },
        ],
      }),
    );
    expect((await stateOf(id)).state).toBe('entered');
    must(await matchInvoice(await yard.as('buyer'), { once: yard.once(), invoiceId: id, version: 1, reason: '' }));
    expect(await yard.tab()).toEqual({ actual: 9600 + 2500 });
    expect((await yard.order(order.id)).state).toBe('settled');
  });

  it('that bill more than came are held until it comes', async () => {
    const order = await sentAndIn(5);
    const { id } = must(await bill(order.id, order.lines[0]?.id ?? 0, 12));
    expect((await stateOf(id)).state).toBe('held');
    expect(
      refusedWith(
        await matchInvoice(await yard.as('buyer'), { once: yard.once(), invoiceId: id, version: 1, reason: 'x' }),
      ),
    ).toEqual(['invoice.held']);
    must(await receive(await yard.as('storekeeper'), lineIn(order.id, order.lines[0]?.id ?? 0, 7)));
    expect((await stateOf(id)).state).toBe('entered');
  });

  it('that differ are passed by accounts, with a reason', async () => {
    const order = await sentAndIn(12);
    const { id } = must(await bill(order.id, order.lines[0]?.id ?? 0, 12, { typedTotal: 99 }));
    const accounts = await yard.as('accounts');
    expect(
      refusedWith(await matchInvoice(accounts, { once: yard.once(), invoiceId: id, version: 1, reason: '' })),
    ).toEqual(['invoice.reason']);
    must(
      await matchInvoice(accounts, { once: yard.once(), invoiceId: id, version: 1, reason: 'the paper is smudged' }),
    );
    expect(
      refusedWith(await matchInvoice(accounts, { once: yard.once(), invoiceId: id, version: 2, reason: 'again' })),
    ).toEqual(['invoice.matched']);
  });

  it('are not entered twice, nor dated after today, nor for an order that was not sent', async () => {
    const order = await sentAndIn(12);
    const lineId = order.lines[0]?.id ?? 0;
    must(await bill(order.id, lineId, 5));
    expect(refusedWith(await bill(order.id, lineId, 5))).toEqual(['invoice.number']);
    expect(refusedWith(await bill(order.id, lineId, 5, { number: 'B-2', day: '2026-05-13' }))).toEqual(['invoice.day']);
    const draft = await yard.draft([{ needId: await yard.need(), buy: q(1) }]);
    expect(refusedWith(await bill(draft.id, draft.lines[0]?.id ?? 0, 1, { number: 'B-3' }))).toEqual(['order.state']);
  });

  it('count what earlier bills took, matched or not', async () => {
    const order = await sentAndIn(12);
    const lineId = order.lines[0]?.id ?? 0;
    must(await bill(order.id, lineId, 12));
    const { id } = must(await bill(order.id, lineId, 1, { number: 'B-2' }));
    expect((await stateOf(id)).state).toBe('held');
  });

  it('take the tax that cannot be recovered on to the job', async () => {
    const order = await sentAndIn(12);
    const { id } = must(
      await bill(order.id, order.lines[0]?.id ?? 0, 12, {
        lines: [{ lineId: order.lines[0]?.id ?? 0, quantity: q(12), price: 80_000, taxCodeId: 2 }],
      }),
    );
    must(await matchInvoice(await yard.as('accounts'), { once: yard.once(), invoiceId: id, version: 1, reason: '' }));
    expect((await yard.tab()).actual).toBe(9600 + 1920);
  });
});
