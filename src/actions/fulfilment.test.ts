import type { Day } from '@/core/calendar/workdays';
import type { Minor } from '@/core/money/money';
import { must, q, refusedWith, TestCompany, TODAY } from '../../tests/support/company';
import { orderInput } from '../../tests/support/typed';
import { insertOne } from '@/store/rows';
import { cancelOrder } from './orders/ending';
import { changeOrder, draftOrders, holdOrder } from './orders/orders';
import { receive } from './dock/receiving';
import { reverseReceipt } from './dock/correcting';
import { markSentByHand, sendOrder, settleInterrupted, type Post } from './orders/sending';

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
});
afterEach(() => yard.closeProven());

describe('sending', () => {
  it('mails the PDF and says so', async () => {
    const order = await yard.send(await yard.draft([{ needId: await yard.need(), buy: q(12) }]));
    expect(yard.sent.map((m) => m.to)).toEqual(['orders@eelmoor.example']);
    expect(await yard.db('message').select('state', 'answer')).toEqual([{ state: 'taken', answer: '250 taken' }]);
    expect((await yard.db('document').where({ aboutId: order.id }).first('about', 'name')) as unknown).toEqual({
      about: 'order',
      name: 'K26-0001.pdf',
    });
  });

  it('leaves the order unsent when the mail server refuses it, and can be tried again', async () => {
    const order = await yard.draft([{ needId: await yard.need(), buy: q(12) }]);
    yard.answer = { came: 'failed', answer: '550 no such mailbox' };
    const failed = must(
      await sendOrder(await yard.as('buyer'), { once: yard.once(), orderId: order.id, version: order.version }),
    );
    expect(failed).toMatchObject({ came: 'failed', answer: '550 no such mailbox' });
    expect((await yard.order(order.id)).state).toBe('drafting');
    expect(await yard.tab()).toEqual({ drafted: 9600 + 2500 });
    yard.answer = { came: 'taken', answer: '250' };
    expect((await yard.send(await yard.order(order.id))).state).toBe('sent');
  });

  it('sends once however often the button is pressed', async () => {
    const order = await yard.draft([{ needId: await yard.need(), buy: q(12) }]);
    const buyer = await yard.as('buyer');
    const input = { once: yard.once(), orderId: order.id, version: order.version };
    const outcomes = await Promise.all([sendOrder(buyer, input), sendOrder(buyer, input), sendOrder(buyer, input)]);
    expect(outcomes.map((o) => must(o).came)).toEqual(['taken', 'taken', 'taken']);
    expect(yard.sent).toHaveLength(1);
    expect(must(await sendOrder(buyer, input)).came).toBe('taken');
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

  it('keeps the order as it is while its mail is under way', async () => {
    const order = await yard.draft([{ needId: await yard.need(), buy: q(12) }]);
    const buyer = await yard.as('buyer');
    const ref = { orderId: order.id, version: order.version };
    let answer: (said: { came: 'taken'; answer: string }) => void = () => {};
    let sending: ReturnType<typeof sendOrder> | undefined;
    await new Promise<void>((under) => {
      const post: Post = () => new Promise((done) => (under(), (answer = done)));
      sending = sendOrder({ ...buyer, post }, { once: yard.once(), ...ref });
    });
    const now = await yard.order(order.id);
    const current = { orderId: order.id, version: now.version };
    const text = { placeId: 1, wantedOn: '', carrier: '', instructions: 'new', lines: [] };
    expect(refusedWith(await changeOrder(buyer, { once: yard.once(), ...current, ...text }))).toEqual(['order.state']);
    expect(refusedWith(await cancelOrder(buyer, { once: yard.once(), ...current, reason: 'no' }))).toEqual([
      'order.state',
    ]);
    expect(refusedWith(await holdOrder(buyer, { ...current, hold: true }))).toEqual(['order.state']);
    expect(refusedWith(await sendOrder(buyer, { once: yard.once(), ...current }))).toEqual(['order.state']);
    const more = { needId: await yard.need({ description: 'Clamp' }), buy: q(1) };
    const join = { once: yard.once(), picks: [more], into: [current] };
    expect(refusedWith(await draftOrders(buyer, join))).toEqual(['order.state']);
    answer({ came: 'taken', answer: '250 taken' });
    expect(must((await sending) as Awaited<ReturnType<typeof sendOrder>>).came).toBe('taken');
    expect(await yard.order(order.id)).toMatchObject({ state: 'sent', lines: now.lines, instructions: '' });
  });

  it('goes back to where it was when the mail fails', async () => {
    const draft = await yard.draft([{ needId: await yard.need(), buy: q(12) }]);
    must(await holdOrder(await yard.as('buyer'), { orderId: draft.id, version: draft.version, hold: true }));
    yard.answer = { came: 'failed', answer: '550 no such mailbox' };
    expect((await yard.send(await yard.order(draft.id))).state).toBe('heldOpen');
  });

  it('asks for the right before it sets a paper', async () => {
    const order = await yard.draft([{ needId: await yard.need(), buy: q(12) }]);
    let set = 0;
    const setPaper = async () => new Uint8Array((set += 1));
    const input = { once: yard.once(), orderId: order.id, version: order.version };
    for (const role of ['lead', 'storekeeper', 'accounts'] as const) {
      const sender = { ...(await yard.as(role)), setPaper };
      expect(refusedWith(await sendOrder(sender, input))).toEqual(['right']);
      expect(refusedWith(await markSentByHand(sender, input))).toEqual(['right']);
    }
    expect(set).toBe(0);
  });

  it('sends nothing when the paper cannot be set, and says so', async () => {
    const order = await yard.draft([{ needId: await yard.need(), buy: q(12) }]);
    const setPaper = () => Promise.reject(new Error('it took too long'));
    const input = { once: yard.once(), orderId: order.id, version: order.version };
    const sent = must(await sendOrder({ ...(await yard.as('buyer')), setPaper }, input));
    expect(sent).toMatchObject({
      came: 'failed',
      answer: 'The order’s PDF couldn’t be made (it took too long). Nothing was sent: tell your administrator.',
    });
    expect([(await yard.order(order.id)).state, yard.sent.length]).toEqual(['drafting', 0]);
  });

  it('asks before it sends again what may have arrived, and the second copy is the same letter', async () => {
    const draft = await yard.draft([{ needId: await yard.need(), buy: q(12) }]);
    yard.answer = { came: 'unknown', answer: 'no answer' };
    const order = await yard.send(draft);
    expect(order.state).toBe('drafting');
    yard.answer = { came: 'taken', answer: '250' };
    const again = { once: yard.once(), orderId: order.id, version: order.version };
    const late = await yard.as('buyer', '2026-06-03' as Day);
    expect(refusedWith(await sendOrder(late, again))).toEqual(['send.unknown']);
    expect(yard.sent).toHaveLength(1);
    expect(must(await sendOrder(late, { ...again, again: true })).came).toBe('taken');
    const ids = yard.sent.map(({ raw }) => /^Message-ID: (.*)$/im.exec(raw.toString())?.[1]);
    expect(ids[0]).toMatch(/^<K26-[0-9]+\.[0-9a-f]{20}@yard\.example>$/);
    expect(ids[1]).toBe(ids[0]);
  });

  it('is another letter once the order is another', async () => {
    const draft = await yard.draft([{ needId: await yard.need(), buy: q(12) }]);
    yard.answer = { came: 'failed', answer: '550' };
    const order = await yard.send(draft);
    const typed = { ...orderInput(order), instructions: 'Leave at the gate' };
    must(
      await changeOrder(await yard.as('buyer'), {
        once: yard.once(),
        orderId: order.id,
        version: order.version,
        ...typed,
      }),
    );
    await yard.send(await yard.order(order.id));
    const ids = yard.sent.map(({ raw }) => /^Message-ID: (.*)$/im.exec(raw.toString())?.[1]);
    expect(ids[1]).not.toBe(ids[0]);
  });

  it.each([
    ['before its message was written: it did not go', null, 'failed'],
    ['after: it may have arrived', Buffer.from('mail'), 'unknown'],
  ] as const)('settles what was under way when the program stopped %s', async (_, raw, state) => {
    const order = await yard.draft([{ needId: await yard.need(), buy: q(12) }]);
    const { actor, clock } = await yard.as('buyer');
    const about = { about: 'order', aboutId: order.id, recipient: 'x', subject: 'x', body: 'x', raw };
    await insertOne(yard.db, 'message', { ...about, state: 'sending', personId: actor.id, at: TODAY });
    await yard.db('purchaseOrder').where({ id: order.id }).update({ state: 'sending', sentFrom: 'drafting' });
    expect(await settleInterrupted(yard.db, clock)).toBe(1);
    const now = await yard.order(order.id);
    expect([now.state, now.sentFrom]).toEqual(['drafting', null]);
    expect(await yard.db('message').first('state')).toEqual({ state });
    expect(await settleInterrupted(yard.db, clock)).toBe(0);
  });
});

describe('calling off', () => {
  it('frees the money and gives the need back', async () => {
    const order = await yard.send(await yard.draft([{ needId: await yard.need(), buy: q(12) }]));
    must(
      await cancelOrder(await yard.as('buyer'), {
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
    must(await yard.takeIn(order, 1));
    const now = await yard.order(order.id);
    expect(
      refusedWith(
        await cancelOrder(await yard.as('buyer'), {
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
    must(await yard.takeIn(order, 7));
    const part = await yard.order(order.id);
    expect([part.state, part.lines[0]?.splits.map((s) => [s.jobId, s.received])]).toEqual([
      'partIn',
      [
        [yard.ids.jobs[1], q(1)],
        [yard.ids.jobs[0], q(6)],
      ],
    ]);
    must(await yard.takeIn(order, 3));
    expect((await yard.order(order.id)).state).toBe('allIn');
  });

  it('keeps more than was ordered only when told to', async () => {
    const order = await yard.send(await yard.draft([{ needId: await yard.need(), buy: q(12) }]));
    expect(refusedWith(await yard.takeIn(order, 13))).toEqual(['receive.over']);
    must(await yard.takeIn(order, 13, true));
    expect(await yard.tab()).toEqual({ onOrder: 2500, received: 10_400 });
  });

  it('takes no line in twice in one delivery, which would pass for less than it is', async () => {
    const order = await yard.send(await yard.draft([{ needId: await yard.need(), buy: q(12) }]));
    const arrival = { lineId: order.lines[0]?.id ?? 0, arrives: q(8), keepOver: false };
    const input = { once: yard.once(), orderId: order.id, version: order.version, note: '' };
    const outcome = await receive(await yard.as('storekeeper'), { ...input, arrivals: [arrival, arrival] });
    expect(refusedWith(outcome)).toEqual(['input']);
    expect(await yard.tab()).toEqual({ onOrder: 9600 + 2500 });
  });

  it('takes a receipt back, once', async () => {
    const order = await yard.send(await yard.draft([{ needId: await yard.need(), buy: q(12) }]));
    const store = await yard.as('storekeeper');
    must(await yard.takeIn(order, 12));
    const { id } = (await yard.db('receipt').first('id')) as { id: number };
    must(await reverseReceipt(store, { once: yard.once(), receiptId: id }));
    expect(await yard.tab()).toEqual({ onOrder: 9600 + 2500 });
    expect((await yard.order(order.id)).state).toBe('sent');
    expect(refusedWith(await reverseReceipt(store, { once: yard.once(), receiptId: id }))).toEqual(['receipt.back']);
  });

  it('takes nothing in for an order that was not sent, nor half a piece', async () => {
    const draft = await yard.draft([{ needId: await yard.need({ unit: 'C62', supplier: 1 }), buy: q(12) }]);
    expect(refusedWith(await yard.takeIn(draft, 1))).toEqual(['order.state']);
    await yard.send(draft);
    expect(refusedWith(await yard.takeIn(draft, 0.5))).toEqual(['quantity.whole']);
    const { version } = await yard.order(draft.id);
    const nothing = { once: yard.once(), orderId: draft.id, version, note: '', arrivals: [] };
    expect(refusedWith(await receive(await yard.as('storekeeper'), nothing))).toEqual(['receive.none']);
  });
});

describe('invoices', () => {
  const sentAndIn = async (received: number) => {
    const order = await yard.send(await yard.draft([{ needId: await yard.need(), buy: q(12) }]));
    if (received > 0) must(await yard.takeIn(order, received));
    return yard.order(order.id);
  };
  const stateOf = async (id: number) =>
    ((await yard.db('invoice').where({ id }).first('state')) as { state: string }).state;

  it('that agree are matched by a click, with the charge, and settle the order', async () => {
    const order = await sentAndIn(12);
    const carriage = { ...yard.invoiced(order, 1, 25), lineId: order.lines[1]?.id ?? 0 };
    const invoice = { typedTotal: 14_520 as Minor, lines: [yard.invoiced(order, 12), carriage] };
    const { id } = must(await yard.invoice(order, 12, invoice));
    expect(await stateOf(id)).toBe('entered');
    must(await yard.match(id, '', 'buyer'));
    expect(await yard.tab()).toEqual({ actual: 9600 + 2500 });
    expect((await yard.order(order.id)).state).toBe('settled');
  });

  it('that invoice more than came are held until it comes', async () => {
    const order = await sentAndIn(5);
    const { id } = must(await yard.invoice(order, 12));
    expect(await stateOf(id)).toBe('held');
    expect(refusedWith(await yard.match(id, 'x', 'buyer'))).toEqual(['invoice.held']);
    must(await yard.takeIn(order, 7));
    expect(await stateOf(id)).toBe('entered');
  });

  it('that differ are passed by accounts, with a reason', async () => {
    const { id } = must(await yard.invoice(await sentAndIn(12), 12, { typedTotal: 99 as Minor }));
    expect(refusedWith(await yard.match(id))).toEqual(['invoice.reason']);
    must(await yard.match(id, 'the paper is smudged'));
    expect(refusedWith(await yard.match(id, 'again', 'accounts', 2))).toEqual(['invoice.matched']);
  });

  it('are not entered twice, nor dated after today, nor for an order that was not sent', async () => {
    const order = await sentAndIn(12);
    must(await yard.invoice(order, 5, { number: 'B-1' }));
    expect(refusedWith(await yard.invoice(order, 5, { number: 'B-1' }))).toEqual(['invoice.number']);
    expect(refusedWith(await yard.invoice(order, 5, { day: '2026-05-13' }))).toEqual(['invoice.day']);
    const draft = await yard.draft([{ needId: await yard.need(), buy: q(1) }]);
    expect(refusedWith(await yard.invoice(draft, 1))).toEqual(['order.state']);
  });

  it('invoice no line twice', async () => {
    const order = await sentAndIn(12);
    const outcome = await yard.invoice(order, 12, { lines: [yard.invoiced(order, 6), yard.invoiced(order, 6)] });
    expect(refusedWith(outcome)).toEqual(['input']);
  });

  it('count what earlier invoices took, matched or not', async () => {
    const order = await sentAndIn(12);
    must(await yard.invoice(order, 12));
    expect(await stateOf(must(await yard.invoice(order, 1)).id)).toBe('held');
  });

  it('take the tax that cannot be recovered on to the job', async () => {
    const order = await sentAndIn(12);
    const { id } = must(await yard.invoice(order, 12, { lines: [{ ...yard.invoiced(order, 12), taxCodeId: 2 }] }));
    must(await yard.match(id));
    expect((await yard.tab()).actual).toBe(9600 + 1920);
  });
});
