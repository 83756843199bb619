import type { Minor } from '@/core/money/money';
import { must, q, refusedWith, TestCompany, TODAY } from '../../../tests/support/company';
import { changeNeed } from './needs';
import { closeShort } from '../orders/ending';
import { changeOrder, draftOrders, holdOrder } from '../orders/orders';

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
});
afterEach(() => yard.closeProven());

describe('the worked example, through the actions', () => {
  it('moves one amount through its stages to the penny', async () => {
    const needId = await yard.need();
    expect(await yard.tab()).toEqual({ planned: 9600 });
    const drafted = await yard.draft([{ needId, buy: q(12) }]);
    const [line, carriage] = drafted.lines;
    if (line === undefined || carriage === undefined) throw new Error('The order has a line and carriage.');
    expect(await yard.tab()).toEqual({ drafted: 9600 + 2500 });
    const buyer = await yard.as('buyer');
    const text = { placeId: drafted.placeId, wantedOn: '', carrier: '', instructions: '' };
    must(
      await changeOrder(buyer, {
        once: yard.once(),
        orderId: drafted.id,
        version: drafted.version,
        ...text,
        lines: [{ ...line, wantedOn: '', price: 75_000, splits: line.splits.map((s) => ({ ...s })) }],
      }),
    );
    expect(await yard.tab()).toEqual({ drafted: 9000 });
    const sent = await yard.send(await yard.order(drafted.id));
    expect(sent).toMatchObject({ state: 'sent', sentOn: TODAY });
    expect(await yard.tab()).toEqual({ onOrder: 9000 });
    must(await yard.takeIn(sent, 5));
    expect(await yard.tab()).toEqual({ onOrder: 5250, received: 3750 });
    const invoice = { typedTotal: 4680 as Minor, lines: [yard.invoiced(sent, 5, 7.8)] };
    const { id } = must(await yard.invoice(sent, 5, invoice));
    expect(await yard.tab()).toEqual({ onOrder: 5250, received: 3750 });
    must(await yard.match(id, 'agreed by phone'));
    expect(await yard.tab()).toEqual({ onOrder: 5250, actual: 3900 });
    const open = await yard.order(sent.id);
    must(
      await closeShort(buyer, {
        once: yard.once(),
        orderId: open.id,
        version: open.version,
        lineId: line.id,
        reason: 'the rest is not made any more',
      }),
    );
    expect(await yard.tab()).toEqual({ planned: 5600, actual: 3900 });
    expect((await yard.order(sent.id)).state).toBe('settled');
    must(
      await changeNeed(buyer, {
        needId,
        version: 1,
        description: 'Hose',
        quantity: q(5),
        unit: 'MTR',
        costCodeId: yard.ids.codes[1],
        price: 80_000,
        supplierId: yard.ids.suppliers[0],
        neededOn: '',
      }),
    );
    expect(await yard.tab()).toEqual({ actual: 3900 });
  });
});

describe('drafting', () => {
  it('bundles two jobs by supplier, one line for the same part, each job with its own split', async () => {
    const a = await yard.need({ quantity: 30, item: yard.ids.items[0], description: 'Tube' });
    const b = await yard.need({ job: 1, quantity: 20, item: yard.ids.items[0], description: 'Tube' });
    const c = await yard.need({ job: 1, supplier: 1, description: 'Bearing', unit: 'C62', quantity: 4 });
    const { orders } = must(
      await draftOrders(await yard.as('buyer'), {
        once: yard.once(),
        picks: [a, b, c].map((needId, k) => ({ needId, buy: q([30, 20, 4][k] ?? 0) })),
      }),
    );
    expect(orders.map((o) => o.number)).toEqual(['K26-0001', 'K26-0002']);
    const first = await yard.order(orders[0]?.id ?? 0);
    expect(first.lines.map((l) => [l.description, l.quantity, l.splits.map((s) => [s.jobId, s.quantity])])).toEqual([
      [
        'Tube',
        q(50),
        [
          [yard.ids.jobs[0], q(30)],
          [yard.ids.jobs[1], q(20)],
        ],
      ],
    ]);
    expect(await yard.tab(0)).toEqual({ drafted: 24_000 });
  });

  it('never buys the same need twice', async () => {
    const needId = await yard.need();
    await yard.draft([{ needId, buy: q(12) }]);
    expect(
      refusedWith(await draftOrders(await yard.as('buyer'), { once: yard.once(), picks: [{ needId, buy: q(12) }] })),
    ).toEqual(['need.open']);
  });

  it('does not take one line twice in one go', async () => {
    const pick = { needId: await yard.need(), buy: q(8) };
    const outcome = await draftOrders(await yard.as('buyer'), { once: yard.once(), picks: [pick, pick] });
    expect(outcome).toMatchObject({
      status: 'refused',
      refusals: [{ message: 'The same line was selected twice. Refresh Gather and select again.' }],
    });
    expect(await yard.tab()).toEqual({ planned: 9600 });
  });

  it('lets part of a line be bought now', async () => {
    const needId = await yard.need();
    await yard.draft([{ needId, buy: q(5) }]);
    expect(await yard.tab()).toEqual({ planned: 5600, drafted: 4000 + 2500 });
  });

  it('acts once however often the button is pressed', async () => {
    const needId = await yard.need();
    const input = { once: yard.once(), picks: [{ needId, buy: q(12) }] };
    const buyer = await yard.as('buyer');
    const [one, two] = await Promise.all([draftOrders(buyer, input), draftOrders(buyer, input)]);
    expect(must(one)).toEqual(must(two));
    expect(await yard.db('purchaseOrder').select('number')).toHaveLength(1);
  });

  it('refuses lines without a supplier, and writes nothing of the rest', async () => {
    const good = await yard.need();
    const bad = await yard.need({ supplier: null });
    expect(
      refusedWith(
        await draftOrders(await yard.as('buyer'), {
          once: yard.once(),
          picks: [good, bad].map((needId) => ({ needId, buy: q(12) })),
        }),
      ),
    ).toEqual(['need.supplier']);
    expect(await yard.db('purchaseOrder').select('id')).toEqual([]);
  });

  it.each([
    ['zero', 0],
    ['a negative quantity', -1],
  ])('refuses %s', async (_, buy) => {
    const needId = await yard.need();
    expect(
      refusedWith(await draftOrders(await yard.as('buyer'), { once: yard.once(), picks: [{ needId, buy: q(buy) }] })),
    ).toEqual(['need.buy']);
  });

  it('is not for the storekeeper', async () => {
    const needId = await yard.need();
    expect(
      refusedWith(
        await draftOrders(await yard.as('storekeeper'), { once: yard.once(), picks: [{ needId, buy: q(1) }] }),
      ),
    ).toEqual(['right']);
  });
});

describe('changing an order', () => {
  const terms = { placeId: 1, wantedOn: '', carrier: '', instructions: '' };

  it('shows the second of two people how it stands now, and changes nothing', async () => {
    const order = await yard.draft([{ needId: await yard.need(), buy: q(12) }]);
    const input = {
      once: yard.once(),
      orderId: order.id,
      version: order.version,
      ...terms,
      lines: order.lines.map((l) => ({ ...l, wantedOn: '', splits: [...l.splits] })),
    };
    must(await changeOrder(await yard.as('buyer'), { ...input, carrier: 'Van' }));
    const second = await changeOrder(await yard.as('manager'), { ...input, once: yard.once(), carrier: 'Parcel' });
    expect(second).toMatchObject({ status: 'clash', theirs: { carrier: 'Van', version: order.version + 1 } });
    expect((await yard.order(order.id)).carrier).toBe('Van');
  });

  it('puts what a removed line covered back on the buy list', async () => {
    const order = await yard.draft([{ needId: await yard.need(), buy: q(12) }]);
    must(
      await changeOrder(await yard.as('buyer'), {
        once: yard.once(),
        orderId: order.id,
        version: order.version,
        ...terms,
        lines: [],
      }),
    );
    expect(await yard.tab()).toEqual({ planned: 9600 });
  });

  it('keeps a split the same line of the ledger while it is charged to the same job', async () => {
    const order = await yard.draft([{ needId: await yard.need(), buy: q(12) }]);
    const before = await yard.db('posting').count({ n: '*' });
    must(
      await changeOrder(await yard.as('buyer'), {
        once: yard.once(),
        orderId: order.id,
        version: order.version,
        ...terms,
        carrier: 'Van',
        lines: order.lines.map((l) => ({ ...l, wantedOn: '', splits: [...l.splits] })),
      }),
    );
    expect(await yard.db('posting').count({ n: '*' })).toEqual(before);
  });

  it('charges one line to several jobs and to stores', async () => {
    const order = await yard.draft([{ needId: await yard.need(), buy: q(12) }]);
    const [line] = order.lines;
    if (line === undefined) throw new Error('There is a line.');
    const splits = [
      ...line.splits.map((s) => ({ ...s, quantity: q(6) })),
      { jobId: yard.ids.jobs[1], costCodeId: yard.ids.codes[0], needId: null, quantity: q(4) },
      { jobId: null, costCodeId: null, needId: null, quantity: q(2) },
    ];
    must(
      await changeOrder(await yard.as('buyer'), {
        once: yard.once(),
        orderId: order.id,
        version: order.version,
        ...terms,
        lines: [{ ...line, wantedOn: '', splits }],
      }),
    );
    expect([await yard.tab(0), await yard.tab(1)]).toEqual([{ drafted: 4800, planned: 4800 }, { drafted: 3200 }]);
  });

  it('refuses parts that do not add up and another order’s line', async () => {
    const order = await yard.draft([{ needId: await yard.need(), buy: q(12) }]);
    const [line] = order.lines;
    if (line === undefined) throw new Error('There is a line.');
    const change = async (lines: object[]) =>
      changeOrder(await yard.as('buyer'), {
        once: yard.once(),
        orderId: order.id,
        version: order.version,
        ...terms,
        lines: lines as never,
      });
    expect(
      refusedWith(await change([{ ...line, wantedOn: '', splits: [{ ...line.splits[0], quantity: q(3) }] }])),
    ).toEqual(['split.sum']);
    expect(refusedWith(await change([{ ...line, id: 999, wantedOn: '' }]))).toEqual(['line.missing']);
    const twice = [1, 2].map(() => ({ ...line, wantedOn: '', splits: [...line.splits] }));
    expect(refusedWith(await change(twice))).toEqual(['input']);
  });

  it('holds a draft open and takes it up again', async () => {
    const order = await yard.draft([{ needId: await yard.need(), buy: q(12) }]);
    must(await holdOrder(await yard.as('buyer'), { orderId: order.id, version: order.version, hold: true }));
    const held = await yard.order(order.id);
    expect(held.state).toBe('heldOpen');
    must(await holdOrder(await yard.as('buyer'), { orderId: order.id, version: held.version, hold: false }));
    expect((await yard.order(order.id)).state).toBe('drafting');
  });
});
