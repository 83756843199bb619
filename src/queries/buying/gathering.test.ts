import { confirmOrder } from '@/actions/orders/confirming';
import { closeShort } from '@/actions/orders/ending';
import { draftOrders, putBack } from '@/actions/orders/orders';
import { countStock } from '@/actions/stores/counting';
import { keepLevel } from '@/actions/stores/stores';
import { must, q, refusedWith, TestCompany, TODAY } from '../../../tests/support/company';
import type { Day } from '@/core/calendar/workdays';
import { loadAtHand, loadBecame } from './atHand';
import { loadDesk } from '../frame/desk';
import { loadFillUp } from './fillUp';
import { loadGatherPreview } from './gather';
import { listOrders, sumOrders } from '../orders/orders';
import { listOpenNeeds, type GatherGroup } from './openNeeds';
import { loadOrderedBefore } from '../orders/orderedBefore';
import { loadSwitched } from './switching';

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
});
afterEach(() => yard.closeProven());

const buyer = async () => (await yard.as('buyer')).actor;
const LATER = '2026-06-20' as Day;

/** Eelmoor sells cable from 20 at 8.50 instead of 10.00, and Pellam at 9.00 flat. */
async function priced() {
  const { db, ids } = yard;
  for (const [supplier, prices] of [
    [
      0,
      [
        [0, 100_000],
        [200_000, 85_000],
      ],
    ],
    [1, [[0, 90_000]]],
  ] as const) {
    const part = {
      supplierId: ids.suppliers[supplier],
      itemId: ids.items[1],
      unit: 'MTR',
      factorMany: 1,
      factorOne: 1,
    };
    const [made] = await db('supplierPart').insert(part).returning('id');
    for (const [from, price] of prices)
      await db('priceBreak').insert({
        partId: made?.id ?? 0,
        fromQuantity: from as never,
        price: price as never,
        priceQuantity: 1,
      });
  }
}

describe('what is picked', () => {
  it('says what break is near, and how far the smallest order is', async () => {
    await priced();
    await yard.db('supplier').update({ minimumOrder: 50_000 as never });
    const needId = await yard.need({ item: yard.ids.items[1], quantity: 18 });
    const { bundles } = await loadGatherPreview(yard.db, await buyer(), TODAY, {
      picks: [{ needId, buy: q(18) }],
      joins: {},
    });
    expect(bundles[0]?.breaks).toEqual([
      { words: 'Cable: 2 m more reaches the 8.50 break, £\u202f10.00 less in total', saves: true },
    ]);
    expect(bundles[0]?.belowMinimum).toBe(32_000);
  });

  it('may have something for stores beside, on the line of the same part and at its break', async () => {
    await priced();
    const needId = await yard.need({ item: yard.ids.items[1], quantity: 18 });
    const stock = [{ itemId: yard.ids.items[1], supplierId: yard.ids.suppliers[0], quantity: q(6) }];
    const picks = [{ needId, buy: q(18) }];
    const told = await loadGatherPreview(yard.db, await buyer(), TODAY, { picks, stock, joins: {} });
    const made = must(await draftOrders(await yard.as('buyer'), { once: yard.once(), picks, stock }));
    const order = await yard.order(made.orders[0]?.id ?? 0);
    expect(order.lines[0]?.splits.map((s) => [s.jobId, s.quantity, s.value])).toEqual([
      [yard.ids.jobs[0], q(18), 15_300],
      [null, q(6), 5100],
    ]);
    expect([order.lines[0]?.price, told.bundles[0]?.goods]).toEqual([85_000, 20_400]);
    expect(await yard.tab()).toMatchObject({ drafted: expect.any(Number) });
  });

  it('may be for stores alone, of what is kept there', async () => {
    await priced();
    const stock = (itemId: number) => [{ itemId, supplierId: yard.ids.suppliers[0], quantity: q(6) }];
    const draft = async (itemId: number) =>
      draftOrders(await yard.as('buyer'), { once: yard.once(), picks: [], stock: stock(itemId) });
    expect(refusedWith(await draft(yard.ids.items[0]))).toEqual(['item.stocked']);
    const { orders } = must(await draft(yard.ids.items[1]));
    expect((await yard.order(orders[0]?.id ?? 0)).lines[0]?.splits.map((s) => s.jobId)).toEqual([null]);
    expect(refusedWith(await draftOrders(await yard.as('buyer'), { once: yard.once(), picks: [] }))).toEqual([
      'picks.none',
    ]);
  });

  it('tells the second buyer who has it', async () => {
    const needId = await yard.need();
    const order = await yard.draft([{ needId, buy: q(12) }]);
    const again = await draftOrders(await yard.as('manager'), { once: yard.once(), picks: [{ needId, buy: q(12) }] });
    expect(JSON.stringify(again)).toContain(`The buyer has it on ${order.number}.`);
  });
});

describe('lines on a draft', () => {
  const put = async (orderId: number, needIds: number[]) => {
    const { version } = await yard.order(orderId);
    return putBack(await yard.as('buyer'), { once: yard.once(), orderId, version, needIds });
  };

  it('are put back from it, and are to buy again', async () => {
    const [one, other] = [await yard.need({ quantity: 8 }), await yard.need({ job: 1, quantity: 4 })];
    const order = await yard.draft([
      { needId: one, buy: q(8) },
      { needId: other, buy: q(4) },
    ]);
    const [became] = await loadBecame(yard.db, await buyer(), one);
    expect(became).toMatchObject({ order: order.number, drafted: true, quantity: q(8), by: 'The buyer' });
    must(await put(order.id, [one]));
    const after = await yard.order(order.id);
    expect(after.lines.map((l) => [l.kind, l.quantity])).toEqual([
      ['goods', q(4)],
      ['charge', q(1)],
    ]);
    expect([await yard.tab(), await loadBecame(yard.db, await buyer(), one)]).toEqual([{ planned: 6400 }, []]);
    // With the last line its carriage goes as well.
    must(await put(order.id, [other]));
    expect((await yard.order(order.id)).lines).toEqual([]);
    expect(refusedWith(await put(order.id, [other]))).toEqual(['need.notHere']);
  });

  it('take what was bought beyond them along, and not what stands there for others', async () => {
    await priced();
    await yard.db('supplierPart').update({ pack: q(10) });
    const needId = await yard.need({ item: yard.ids.items[1], quantity: 18 });
    const packed = await yard.draft([{ needId, buy: q(18) }]);
    expect(packed.lines[0]?.splits.map((s) => [s.jobId, s.quantity])).toEqual([
      [yard.ids.jobs[0], q(18)],
      [null, q(2)],
    ]);
    must(await put(packed.id, [needId]));
    expect((await yard.order(packed.id)).lines).toEqual([]);
    const sent = await yard.send(await yard.draft([{ needId, buy: q(18) }]));
    expect(refusedWith(await put(sent.id, [needId]))).toEqual(['order.state']);
  });

  it('are told with what of their part there is and comes', async () => {
    await priced();
    const { ids } = yard;
    const needId = await yard.need({ item: ids.items[1], quantity: 18, neededOn: '2026-06-20' });
    await yard.send(await yard.draft([{ needId, buy: q(18) }]));
    const keeper = await yard.as('storekeeper');
    must(
      await countStock(keeper, {
        once: yard.once(),
        itemId: ids.items[1],
        placeId: 1,
        jobId: null,
        seen: q(0),
        quantity: q(7),
        value: 700,
        reason: 'x',
      } as never),
    );
    const told = await loadAtHand(yard.db, await buyer(), ids.items[1]);
    expect(told).toMatchObject({ unit: 'MTR', onHand: q(7), free: q(7), promised: [] });
    expect(told?.coming).toEqual([
      {
        ...{ order: expect.stringMatching(/^K26-/), supplier: 'Eelmoor Metals', job: '412' },
        ...{ on: expect.any(String), quantity: q(18), unit: 'MTR' },
      },
    ]);
  });
});

describe('what was ordered before', () => {
  it('is told once for each part, as it was ordered last, and never of a draft', async () => {
    for (const quantity of [4, 6])
      await yard.send(await yard.draft([{ needId: await yard.need({ quantity }), buy: q(quantity) }]));
    await yard.send(
      await yard.draft([{ needId: await yard.need({ supplier: 1, description: 'Elsewhere' }), buy: q(12) }]),
    );
    const draft = await yard.draft([{ needId: await yard.need({ description: 'Drafted' }), buy: q(12) }]);
    const look = async (words: string) =>
      (await loadOrderedBefore(yard.db, await buyer(), draft.number, words))?.map((l) => [
        l.description,
        l.quantity,
        l.times,
      ]);
    expect(await look('')).toEqual([['Hose', q(6), 2]]);
    expect(await look('ho')).toEqual([['Hose', q(6), 2]]);
    expect(await look('%')).toEqual([]);
  });
});

describe('lines to buy', () => {
  it('stand together by supplier, job, part, cost code or day', async () => {
    const { ids } = yard;
    const made = [
      await yard.need({ job: 1, item: ids.items[0], neededOn: '2026-06-01' }),
      await yard.need({ supplier: 1, neededOn: '2026-05-20' }),
      await yard.need({ item: ids.items[0], supplier: null, neededOn: '2026-07-01' }),
      await yard.need({ item: ids.items[1] }),
    ];
    const order = async (group: GatherGroup) =>
      (await listOpenNeeds(yard.db, await buyer(), TODAY, { group })).rows.map((n) => made.indexOf(n.id));
    expect(await order('supplier')).toEqual([3, 0, 1, 2]);
    expect(await order('job')).toEqual([3, 1, 2, 0]);
    expect(await order('item')).toEqual([1, 3, 0, 2]);
    expect(await order('day')).toEqual([1, 0, 2, 3]);
    expect((await order('code')).sort()).toEqual([0, 1, 2, 3]);
  });
});

describe('what could ride along', () => {
  it('is what is needed later, and what stores are low of', async () => {
    await priced();
    const { db, ids } = yard;
    const now = await yard.need({ neededOn: '2026-05-20' });
    const later = await yard.need({ neededOn: '2026-07-20', description: 'Later' });
    await yard.need({ supplier: 1, description: 'Of another' });
    const keeper = await yard.as('storekeeper');
    must(await keepLevel(keeper, { itemId: ids.items[1], placeId: 1, keep: q(50) }));
    const look = async (picked: number[]) => loadFillUp(db, await buyer(), ids.suppliers[0], picked, TODAY);
    const found = await look([now]);
    expect([found.needs.map((n) => n.id), found.stock]).toEqual([
      [later],
      [
        {
          itemId: ids.items[1],
          number: 'CA-1',
          name: 'Cable',
          unit: 'MTR',
          below: q(50),
          words: '0 m free, minimum 50 m',
        },
      ],
    ]);
    const stock = [{ itemId: ids.items[1], supplierId: ids.suppliers[0], quantity: q(30) }];
    must(await draftOrders(await yard.as('buyer'), { once: yard.once(), picks: [], stock }));
    expect((await look([now])).stock.map((s) => s.below)).toEqual([q(20)]);
  });
});

describe('another supplier for a picked line', () => {
  it('is told with what it does to all that is picked: price, breaks and carriage of both', async () => {
    await priced();
    const { ids } = yard;
    // 18 at Eelmoor: 180.00 with 25.00 carriage; the other line keeps Eelmoor's carriage.
    const needId = await yard.need({ item: ids.items[1], quantity: 18 });
    const other = await yard.need({ quantity: 2, price: 10 });
    const picks = [
      { needId, buy: q(18) },
      { needId: other, buy: q(2) },
    ];
    const found = await loadSwitched(yard.db, await buyer(), { needId, picks }, TODAY);
    expect(found.map((s) => [s.name, s.effect])).toEqual([
      ['Pellam Bearings', { inAll: -18_00 + 14_00, carriage: 1400 }],
      ['Eelmoor Metals', { inAll: 0, carriage: 0 }],
    ]);
    const alone = await loadSwitched(yard.db, await buyer(), { needId, picks: [] }, TODAY);
    expect(alone[0]?.effect).toEqual({ inAll: -18_00 - 25_00 + 14_00, carriage: -1100 });
  });
});

describe('the list of orders', () => {
  it('is found by any number, by supplier, by day and by what is late', async () => {
    const { db, ids } = yard;
    const one = await yard.send(
      await yard.draft([{ needId: await yard.need({ item: ids.items[0], neededOn: '2026-05-20' }), buy: q(12) }]),
    );
    const two = await yard.send(
      await yard.draft([{ needId: await yard.need({ supplier: 1, neededOn: '2026-07-20' }), buy: q(12) }]),
    );
    await db('orderLine').where({ orderId: two.id }).update({ theirNumber: 'XJ-900' });
    await db('purchaseOrder').where({ id: two.id }).update({ theirNumber: 'AB-77' });
    const found = async (filter: Parameters<typeof listOrders>[2]) =>
      (await listOrders(db, await buyer(), filter, LATER)).rows.map((o) => o.id);
    expect(await found({ words: 'tu-1' })).toEqual([one.id]);
    expect(await found({ words: 'xj-9' })).toEqual([two.id]);
    expect(await found({ words: 'ab-77' })).toEqual([two.id]);
    expect(await found({ words: 'Pellam' })).toEqual([two.id]);
    expect(await found({ supplierId: ids.suppliers[0] })).toEqual([one.id]);
    expect(await found({ by: '2026-06-01' as Day })).toEqual([one.id]);
    expect(await found({ lateOn: LATER })).toEqual([one.id]);
    expect((await sumOrders(db, await buyer(), { lateOn: LATER })).count).toBe(1);
    const row = (await listOrders(db, await buyer(), {}, LATER)).rows.find((o) => o.id === one.id);
    expect(row?.late).toBe(true);
    const lineId = one.lines[0]?.id ?? 0;
    must(
      await closeShort(await yard.as('buyer'), {
        once: yard.once(),
        orderId: one.id,
        version: one.version,
        lineId,
        reason: 'x',
      }),
    );
    expect(await found({ lateOn: LATER })).toEqual([]);
  });
});

describe('the desk', () => {
  it('says which orders are to be chased: late ones, and those that nobody confirmed', async () => {
    const late = await yard.send(
      await yard.draft([{ needId: await yard.need({ neededOn: '2026-05-20' }), buy: q(12) }]),
    );
    const silent = await yard.send(
      await yard.draft([{ needId: await yard.need({ neededOn: '2026-09-20' }), buy: q(12) }]),
    );
    const chase = async (on: Day) =>
      (await loadDesk(yard.db, await buyer(), on))
        .find((g) => g.title === 'To chase')
        ?.rows.map((r) => [r.word, r.href]);
    expect(await chase(TODAY)).toBeUndefined();
    const promise = async (order: typeof silent, promisedOn: string) => {
      const said = { lineId: order.lines[0]?.id ?? 0, quantity: q(12), price: order.lines[0]?.price, promisedOn };
      const ref = { once: yard.once(), orderId: order.id, version: (await yard.order(order.id)).version };
      must(await confirmOrder(await yard.as('buyer'), { ...ref, theirNumber: '', note: '', lines: [said] } as never));
    };
    await promise(late, '2026-05-21');
    expect(await chase(TODAY)).toEqual([['Late', `/orders/${late.number}`]]);
    await promise(late, '2026-05-18');
    expect(await chase(TODAY)).toBeUndefined();
    expect(await chase(LATER)).toEqual([
      ['Late', `/orders/${late.number}`],
      ['Unconfirmed', `/orders/${silent.number}`],
    ]);
  });
});
