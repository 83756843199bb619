import { startOrder } from '@/actions/orders/repeating';
import { must, q, refusedWith, TestCompany, TODAY } from '../../../tests/support/company';
import { insertMany, insertOne } from '@/store/rows';
import { listOrders } from '../orders/orders';
import { listPaidParts, loadPriceCourse } from './priceCourse';
import { loadSupplier } from './suppliers';

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
});
afterEach(() => yard.closeProven());

const buyer = async () => (await yard.as('buyer')).actor;

describe('prices over time', () => {
  it('are as listed for the least quantity and as paid, for one of the unit', async () => {
    const { db, ids } = yard;
    const part = { supplierId: ids.suppliers[0], itemId: ids.items[0], unit: 'MTR', factorMany: 1, factorOne: 1 };
    const partId = await insertOne(db, 'supplierPart', part);
    for (const [fromQuantity, price, fromDay, untilDay] of [
      [0, 100_000, '2026-01-01', '2026-05-31'],
      [100_000, 80_000, '2026-01-01', null],
      [0, 120_000, '2026-06-01', null],
    ] as const)
      await insertMany(db, 'priceBreak', [{ partId, fromQuantity, price, priceQuantity: 1, fromDay, untilDay }]);
    const order = async (quantity: number) =>
      yard.send(await yard.draft([{ needId: await yard.need({ item: ids.items[0], quantity }), buy: q(quantity) }]));
    const [first, second] = [await order(2), await order(20)];
    await order(3);
    const called = await yard.draft([{ needId: await yard.need({ item: ids.items[1] }), buy: q(12) }]);
    expect(called.state).toBe('drafting');
    expect((await listPaidParts(db, await buyer(), ids.suppliers[0])).map((p) => [p.number, p.times])).toEqual([
      ['TU-1', 3],
    ]);
    const course = await loadPriceCourse(db, await buyer(), ids.suppliers[0], ids.items[0]);
    expect(course?.paid.map((p) => p.price).sort()).toEqual([100_000, 100_000, 80_000].sort());
    expect(course?.paid.slice(0, 2).map((p) => p.order)).not.toContain(undefined);
    expect(course?.listed).toEqual([
      { fromDay: '2026-01-01', untilDay: '2026-05-31', price: 100_000 },
      { fromDay: '2026-06-01', untilDay: null, price: 120_000 },
    ]);
    expect(await loadPriceCourse(db, await buyer(), ids.suppliers[1], ids.items[0])).toBeUndefined();
    const view = await loadSupplier(db, await buyer(), ids.suppliers[0], TODAY);
    expect(view?.open.orders).toBe(4);
    expect(view?.open.ever).toBe(4);
    expect(view?.open.onOrder).toBe(first.net + second.net + 3000 + 2500);
  });
});

describe('an order that is begun at its supplier', () => {
  it('has nothing on it yet, and is found by its value and job once it has', async () => {
    const { db, ids } = yard;
    const made = must(await startOrder(await yard.as('buyer'), { once: yard.once(), supplierId: ids.suppliers[1] }));
    expect((await yard.order(made.id)).lines).toEqual([]);
    await yard.draft([{ needId: await yard.need(), buy: q(12) }]);
    const found = async (filter: object) => (await listOrders(db, await buyer(), filter, TODAY)).rows.map((o) => o.net);
    expect(await found({ job: '412' })).toEqual([12_100]);
    expect(await found({ job: '418' })).toEqual([]);
    expect(await found({ least: 121 })).toEqual([12_100]);
    expect(await found({ least: 122 })).toEqual([]);
    const inCurrency = (currency: string) => db('purchaseOrder').where('net', 12_100).update({ currency });
    await inCurrency('JPY');
    expect(await found({ least: 12_100 })).toEqual([12_100]);
    await inCurrency('KWD');
    expect(await found({ least: 12 })).toEqual([12_100]);
    expect(await found({ least: 13 })).toEqual([]);
    expect(await found({})).toEqual([12_100, 0]);
  });

  it('needs the rate of its currency', async () => {
    const supplierId = await insertOne(yard.db, 'supplier', { name: 'Motor', currency: 'EUR', taxCodeId: 1 });
    expect(refusedWith(await startOrder(await yard.as('buyer'), { once: yard.once(), supplierId }))).toEqual([
      'rate.none',
    ]);
  });
});
