import { previewEnding } from '@/queries/orders/ending';
import Papa from 'papaparse';
import { loadOrderData } from '@/queries/company/files';
import { loadOrderForm } from '@/queries/orders/order';
import { loadPaper } from '@/workings/orders/paper';
import { must, q, refusedWith, TestCompany, TODAY } from '../../../tests/support/company';
import { changeDraft, firstLine, orderInput } from '../../../tests/support/typed';
import type { StoredOrder } from '@/store/orders';
import { chargeElsewhere } from './charging';
import { confirmOrder } from './confirming';
import { cancelOrder, closeShort, draftAgain, reopenLines } from './ending';
import { changeOrder } from './orders';
import { addPlace } from '../company/places';
import { repeatOrder } from './repeating';
import { sendOrder } from './sending';
import { saveSupplier } from '../items/suppliers';

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
  await yard.db('supplier').update({ carriage: 0 as never });
});
afterEach(() => yard.closeProven());

const draft = async (change: Parameters<TestCompany['need']>[0] = {}) =>
  yard.draft([{ needId: await yard.need(change), buy: q(change.quantity ?? 12) }]);
const again = (order: StoredOrder) => yard.order(order.id);
const buyer = () => yard.as('buyer');
const sender = async () => (await buyer()).actor;

async function rename(order: StoredOrder, number: string) {
  const now = await again(order);
  const ref = { once: yard.once(), orderId: now.id, version: now.version, number };
  return changeOrder(await buyer(), { ...ref, ...orderInput(now) } as never);
}

describe('an order’s number', () => {
  it('is set by hand, and is always its own', async () => {
    const [one, two] = [await draft(), await draft()];
    expect(must(await rename(one, 'FRAMES-7')).number).toBe('FRAMES-7');
    expect(refusedWith(await rename(two, 'frames-7'))).toEqual(['order.number']);
    for (const wrong of ['a b', 'a/b', '', '../x', '#1', 'ü/1'])
      expect(refusedWith(await rename(two, wrong))).toEqual(['order.number']);
    expect((await again(one)).counted).toBeNull();
  });

  it('of the pattern is passed over where somebody took it, and a count given up is taken up where no gap may be', async () => {
    const one = await draft();
    must(await rename(one, 'K26-0003'));
    expect([(await draft()).number, (await draft()).number]).toEqual(['K26-0002', 'K26-0004']);
    await yard.db('company').update({ orderGaps: 'fill' });
    const five = await draft();
    must(await rename(five, 'BY-HAND'));
    expect([(await draft()).number, (await draft()).number]).toEqual(['K26-0005', 'K26-0006']);
  });

  it('names its job where the pattern says so', async () => {
    await yard.db('company').update({ orderPattern: '{job}-{000}' });
    expect((await draft()).number).toBe('412-001');
    const both = [await yard.need(), await yard.need({ job: 1 })];
    expect((await yard.draft(both.map((needId) => ({ needId, buy: q(1) })))).number).toBe('X-002');
  });
});

describe('where an order goes', () => {
  it('is a place of ours, of a customer, of a supplier, or one of its own; a line may go elsewhere', async () => {
    const order = await draft();
    const said = { name: 'Pier 4', address: 'Pier 4\nTown', instructions: 'by boat' };
    const once = must(await addPlace(await buyer(), { once: yard.once(), kept: { as: 'once' }, ...said }));
    const site = await addPlace(await buyer(), {
      once: yard.once(),
      kept: { as: 'site', jobId: yard.ids.jobs[0] },
      ...said,
      name: 'The slip',
    });
    must(
      await changeDraft(yard, order, (text) => {
        text.placeId = once.id;
        firstLine(text).placeId = must(site).id;
      }),
    );
    const paper = await loadPaper(yard.db, order.id, TODAY);
    expect([paper?.deliverTo.name, paper?.lines[0]?.notes]).toEqual(['Pier 4', ['Deliver to The slip, Pier 4, Town']]);
    const clash = { once: yard.once(), kept: { as: 'own' as const }, ...said, name: 'the slip' };
    expect(refusedWith(await addPlace(await buyer(), clash))).toEqual(['place.name']);
  });

  it('follows a supplier’s addresses, and one of a customer’s takes the place of the one before', async () => {
    const supplier = { name: 'Zinc Works', email: '', currency: 'GBP', address: 'Zinc Lane' };
    const addresses = [{ whatFor: 'collecting', address: 'Gate 2' }];
    const { id } = must(
      await saveSupplier(await buyer(), { once: yard.once(), id: null, version: 0, ...supplier, addresses }),
    );
    const places = () =>
      yard.db('deliveryPlace').where({ supplierId: id, closed: 0 }).orderBy('id').select('name', 'address');
    expect(await places()).toEqual([
      { name: 'Zinc Works', address: 'Zinc Lane' },
      { name: 'Zinc Works, collecting', address: 'Gate 2' },
    ]);
    must(await saveSupplier(await buyer(), { once: yard.once(), id, version: 1, ...supplier, address: 'New Lane' }));
    expect(await places()).toEqual([{ name: 'Zinc Works', address: 'New Lane' }]);
    const kept = { as: 'customer', customerId: 1, which: 'invoicing' } as const;
    for (const name of ['Old office', 'New office'])
      must(await addPlace(await buyer(), { once: yard.once(), kept, name, address: 'x', instructions: '' }));
    expect(await yard.db('deliveryPlace').where({ customerId: 1, closed: 0 }).select('name')).toEqual([
      { name: 'New office' },
    ]);
  });
});

describe('prices and charges', () => {
  it('carry a discount of the line to the tab, and keep the price before it', async () => {
    const order = await draft();
    must(await changeDraft(yard, order, (text) => (firstLine(text).discount = 1250)));
    const [line] = (await again(order)).lines;
    expect([line?.price, line?.grossPrice, line?.net, await yard.tab()]).toEqual([
      70_000,
      80_000,
      8400,
      { drafted: 8400 },
    ]);
    expect((await loadPaper(yard.db, order.id, TODAY))?.lines[0]?.price).toBe('8.00, less 12.5 %');
  });

  it('take a discount on the order, in pounds or as a share, with tax that cannot be recovered', async () => {
    await yard.db('supplier').update({ taxCodeId: 2 });
    const order = await draft();
    const discount = {
      kind: 'charge',
      itemId: null,
      description: 'Discount',
      ourNumber: '',
      theirNumber: '',
      quantity: q(1),
      unit: 'C62',
      priceQuantity: 1,
      free: false,
      note: '',
      placeId: null,
      chargeKind: 'discount',
      spread: 'value',
      taxCodeId: 2,
      wantedOn: '',
      chargeCodeId: null,
      splits: [],
    };
    must(
      await changeDraft(yard, order, (text) => text.lines.push({ ...discount, price: null, discount: 1000 } as never)),
    );
    expect([(await again(order)).net, await yard.tab()]).toEqual([8640, { drafted: 10_368 }]);
    must(await changeDraft(yard, await again(order), (text) => (firstLine(text).price = 100_000 as never)));
    expect((await again(order)).net).toBe(10_800);
    // Its list has all that it comes to, and says that it is a draft.
    const file = await loadOrderData(yard.db, await sender(), order.number, 'csv', TODAY);
    const { data } = Papa.parse<Record<string, string>>(file?.bytes.toString() ?? '', {
      header: true,
      skipEmptyLines: true,
    });
    expect(data.map((r) => [r['Description'], r['Quantity'], r['Net GBP']])).toEqual([
      ['Hose', '12.0000', '120.00'],
      ['Discount', '', '-12.00'],
    ]);
    expect([file?.name, data[0]?.['\ufeffOrder'] ?? data[0]?.['Order']]).toEqual([
      `${order.number}-draft.csv`,
      `${order.number} (draft)`,
    ]);
  });

  it('say what was paid before, wherever, the latest first', async () => {
    for (const [n, supplier] of [0, 1, 0, 1, 0, 0].entries())
      await yard.send(await draft({ item: yard.ids.items[0], supplier: supplier as 0 | 1, price: n + 1, quantity: 2 }));
    const order = await draft({ item: yard.ids.items[0] });
    const { terms } = await loadOrderForm(yard.db, await sender(), order, TODAY);
    expect(terms[0]?.past.map((p) => [p.price, p.supplier])).toEqual([
      [60_000, 'Eelmoor Metals'],
      [50_000, 'Eelmoor Metals'],
      [40_000, 'Pellam Bearings'],
      [30_000, 'Eelmoor Metals'],
      [20_000, 'Pellam Bearings'],
    ]);
  });

  it('ask whether nothing is meant', async () => {
    const order = await draft({ price: 0 });
    const send = async () =>
      sendOrder(await buyer(), { once: yard.once(), orderId: order.id, version: (await again(order)).version });
    expect(refusedWith(await send())).toEqual(['line.free']);
    must(await changeDraft(yard, order, (text) => (firstLine(text).free = true)));
    expect(must(await send()).came).toBe('taken');
    expect((await loadPaper(yard.db, order.id, TODAY))?.lines[0]?.price).toBe('free of charge');
  });
});

describe('a line of an order that was sent', () => {
  it('shows what closing it frees, and is opened again', async () => {
    await yard.budget(20_000);
    const order = await yard.send(await draft());
    must(await yard.takeIn(order, 5));
    const lineId = order.lines[0]?.id ?? 0;
    const [ahead] = (await previewEnding(yard.db, await sender(), order.number, { what: 'closeShort', lineId })) ?? [];
    const ref = async () => ({ once: yard.once(), orderId: order.id, version: (await again(order)).version, lineId });
    must(await closeShort(await buyer(), { ...(await ref()), reason: 'sold out' }));
    const closed = await yard.tab();
    expect([closed, ahead?.after.amounts.onOrder, ahead?.after.amounts.planned]).toEqual([
      { received: 4000, planned: 5600 },
      0,
      5600,
    ]);
    const [back] = (await previewEnding(yard.db, await sender(), order.number, { what: 'openAgain', lineId })) ?? [];
    must(await reopenLines(await buyer(), { ...(await ref()), reason: 'found some' }));
    expect([await yard.tab(), back?.after.amounts.onOrder, (await again(order)).state]).toEqual([
      { onOrder: 5600, received: 4000 },
      5600,
      'partIn',
    ]);
    expect(refusedWith(await reopenLines(await buyer(), { ...(await ref()), reason: 'x' }))).toEqual(['line.open']);
  });

  it('is charged to another job with all that came and was invoiced, and covers its buy list', async () => {
    const order = await yard.send(await draft({ item: yard.ids.items[0] }));
    must(await yard.takeIn(order, 5));
    const { id } = must(await yard.invoice(await again(order), 5));
    must(await yard.match(id));
    const need = await yard.need({ job: 1, item: yard.ids.items[0], quantity: 20, price: 8 });
    const splits = [{ id: order.lines[0]?.splits[0]?.id ?? 0, jobId: yard.ids.jobs[1], costCodeId: yard.ids.codes[1] }];
    const ref = {
      once: yard.once(),
      orderId: order.id,
      version: (await again(order)).version,
      reason: 'meant for 418',
    };
    must(await chargeElsewhere(await buyer(), { ...ref, splits }));
    expect([await yard.tab(0), await yard.tab(1)]).toEqual([
      { planned: 9600 },
      { planned: 6400, onOrder: 5600, actual: 4000 },
    ]);
    expect((await yard.db('need').where({ id: need }).first('open'))?.open).toBe(q(8));
  });

  it('takes uninvoiced carriage along, and leaves what is invoiced', async () => {
    await yard.db('supplier').update({ carriage: 2500 as never, carriageFreeFrom: null });
    const order = await yard.send(await draft());
    const move = async (jobId: number) => {
      const now = await again(order);
      const id = now.lines[0]?.splits[0]?.id ?? 0;
      const splits = [{ id, jobId, costCodeId: yard.ids.codes[1] }];
      const ref = { once: yard.once(), orderId: now.id, version: now.version };
      return chargeElsewhere(await buyer(), { ...ref, splits, reason: 'x' });
    };
    must(await move(yard.ids.jobs[1]));
    expect(await yard.tab(1)).toEqual({ onOrder: 12_100 });
    const carriage = (await again(order)).lines[1];
    const lines = [{ lineId: carriage?.id ?? 0, quantity: q(1), price: 250_000 as never, taxCodeId: 1 }];
    must(await yard.match(must(await yard.invoice(order, 1, { lines, typedTotal: 3000 as never })).id));
    must(await move(yard.ids.jobs[0]));
    expect([await yard.tab(0), await yard.tab(1)]).toEqual([{ onOrder: 9600 }, { actual: 2500 }]);
  });

  it('is not charged elsewhere from a draft, out of stores, or apart from the lines it follows', async () => {
    await yard.db('supplier').update({ carriage: 2500 as never });
    const drafted = await draft();
    const attempt = async (order: StoredOrder, id: number) =>
      refusedWith(
        await chargeElsewhere(await buyer(), {
          once: yard.once(),
          orderId: order.id,
          version: order.version,
          splits: [{ id, jobId: yard.ids.jobs[1], costCodeId: yard.ids.codes[0] }],
          reason: 'x',
        }),
      );
    expect(await attempt(drafted, drafted.lines[0]?.splits[0]?.id ?? 0)).toEqual(['order.state']);
    const order = await yard.send(drafted);
    expect(await attempt(order, order.lines[1]?.splits[0]?.id ?? 0)).toEqual(['line.follows']);
    expect(await attempt(order, 9999)).toEqual(['missing']);
  });
});

describe('an order that was cancelled', () => {
  it('is drafted again while its lines are still to buy, and not once its supplier had it', async () => {
    const order = await draft();
    const off = async (of: StoredOrder) =>
      cancelOrder(await buyer(), {
        once: yard.once(),
        orderId: of.id,
        version: (await again(of)).version,
        reason: 'x',
      });
    const back = async (of: StoredOrder) =>
      draftAgain(await buyer(), { orderId: of.id, version: (await again(of)).version });
    must(await off(order));
    must(await back(order));
    expect([(await again(order)).state, await yard.tab()]).toEqual(['drafting', { drafted: 9600 }]);
    must(await off(order));
    await yard.draft([{ needId: order.lines[0]?.splits[0]?.needId ?? 0, buy: q(12) }]);
    expect(refusedWith(await back(order))).toEqual(['need.open']);
    const out = await yard.send(await draft());
    must(await off(out));
    expect(refusedWith(await back(out))).toEqual(['order.sent']);
  });
});

describe('the same order again', () => {
  it('is drafted at today’s prices, for the same jobs, with carriage as it is now', async () => {
    const { db, ids } = yard;
    const reel = { supplierId: ids.suppliers[0], itemId: ids.items[0], unit: 'MTR', factorMany: 1, factorOne: 1 };
    const [part] = await db('supplierPart').insert(reel).returning('id');
    await db('priceBreak').insert({
      partId: part?.id ?? 0,
      fromQuantity: 0 as never,
      price: 80_000 as never,
      priceQuantity: 1,
    });
    const needs = [
      await yard.need({ item: ids.items[0] }),
      await yard.need({ job: 1, description: 'Clamp', price: 3 }),
    ];
    const order = await yard.send(await yard.draft(needs.map((needId) => ({ needId, buy: q(12) }))));
    await db('priceBreak').update({ price: 95_000 as never });
    await db('supplier').update({ carriage: 2500 as never, carriageFreeFrom: null });
    const made = must(await repeatOrder(await buyer(), { once: yard.once(), orderId: order.id }));
    const again = await yard.order(made.id);
    expect(again.lines.map((l) => [l.description, l.price, l.splits.map((s) => [s.jobId, s.needId])])).toEqual([
      ['Tube', 95_000, [[ids.jobs[0], null]]],
      ['Clamp', 30_000, [[ids.jobs[1], null]]],
      [
        'Carriage',
        250_000,
        [
          [ids.jobs[0], null],
          [ids.jobs[1], null],
        ],
      ],
    ]);
    const one = must(
      await repeatOrder(await buyer(), { once: yard.once(), orderId: order.id, lineIds: [order.lines[1]?.id ?? 0] }),
    );
    expect((await yard.order(one.id)).lines.map((l) => l.description)).toEqual(['Clamp', 'Carriage']);
    expect(
      refusedWith(await repeatOrder(await buyer(), { once: yard.once(), orderId: order.id, lineIds: [9999] })),
    ).toEqual(['repeat.none']);
    await db('job').where({ id: ids.jobs[1] }).update({ state: 'complete' });
    expect((await repeatOrder(await buyer(), { once: yard.once(), orderId: order.id })).status).toBe('refused');
  });
});

describe('a supplier’s answer', () => {
  it('is written down line by line, and makes the order confirmed once every line is', async () => {
    const needs = [await yard.need(), await yard.need({ description: 'Clamp', price: 3 })];
    const order = await yard.send(await yard.draft(needs.map((needId) => ({ needId, buy: q(12) }))));
    const said = async (k: number, change: object = {}) =>
      confirmOrder(await buyer(), {
        once: yard.once(),
        orderId: order.id,
        version: (await again(order)).version,
        theirNumber: 'AB-77',
        note: '',
        lines: [
          {
            lineId: order.lines[k]?.id ?? 0,
            quantity: q(12),
            price: 85_000 as never,
            promisedOn: '2026-05-20',
            ...change,
          },
        ],
      });
    expect(must(await said(0)).state).toBe('sent');
    expect(must(await said(1)).state).toBe('confirmed');
    const after = await again(order);
    expect([after.theirNumber, after.lines[0]?.promisedOn, after.lines[0]?.confirmedPrice]).toEqual([
      'AB-77',
      '2026-05-20',
      85_000,
    ]);
    // What they ask is told, and moves nothing: it is for the buyer to revise.
    expect(await yard.tab()).toEqual({ onOrder: 13_200 });
    expect(refusedWith(await said(0, { promisedOn: '2026-04-01' }))).toEqual(['confirm.day']);
    expect(refusedWith(await said(0, { lineId: 9999 }))).toEqual(['missing']);
    expect(await yard.db('confirmation').where({ orderId: order.id })).toHaveLength(2);
    must(
      await cancelOrder(await buyer(), { once: yard.once(), orderId: order.id, version: after.version, reason: 'x' }),
    );
    expect(refusedWith(await said(0))).toEqual(['order.state']);
  });
});
