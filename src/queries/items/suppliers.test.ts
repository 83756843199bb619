import { plusDays, type Day } from '@/core/calendar/workdays';
import { returnGoods } from '@/actions/dock/sendingBack';
import { inspect } from '@/actions/dock/inspecting';
import { must, q, type TestCompany, TODAY } from '../../../tests/support/company';
import { openDock, type Dock } from '../../../tests/support/dock';
import { chaseOrder } from '@/actions/orders/sending';
import { listOrders } from '../orders/orders';
import { listOpenLines } from './openLines';
import { loadDaysKept, loadSupplier, listSuppliers } from './suppliers';

let yard: TestCompany;
let dock: Dock;
beforeEach(async () => {
  ({ yard, dock } = await openDock());
});
afterEach(() => yard.closeProven());

const supplier = () => yard.ids.suppliers[0];

it('counts what was delivered by its day, and not our own inspections or what went back', async () => {
  await yard.db('item').where({ id: dock.tube }).update({ inspected: 1 });
  const { order } = await dock.ordered(10);
  const wantedOn = (await dock.line(order)).wantedOn as Day;
  const on = async (day: Day) => {
    yard.today = day;
    const { version } = await yard.order(order.id);
    return { once: yard.once(), orderId: order.id, version };
  };
  await on(wantedOn);
  must(await dock.take(order, 10));
  const lineId = (await dock.line(order)).id;
  const released = { lineId, released: q(10), rejected: q(0) };
  const later = plusDays(wantedOn, 3);
  must(await inspect(await yard.as('storekeeper', later), { ...(await on(later)), lines: [released] }));
  const lines = [{ lineId, quantity: q(2), from: 'accepted' as const, wants: 'replacement' as const }];
  must(await returnGoods(await yard.as('storekeeper'), { ...(await on(later)), reason: 'faulty', lines }));
  expect(await loadDaysKept(yard.db, supplier(), later)).toEqual({ came: 1, kept: 1 });
  must(await dock.take(order, 2));
  expect(await loadDaysKept(yard.db, supplier(), later)).toEqual({ came: 2, kept: 1 });
});

it('has on order what the ledger has, and as many open orders as the list of them', async () => {
  const { order } = await dock.ordered(10);
  await yard.draft([{ needId: await dock.need(3), buy: q(3) }]);
  must(await dock.take(order, 4));
  const { actor } = await yard.as('manager');
  const view = await loadSupplier(yard.db, actor, supplier(), TODAY);
  expect(view?.open).toEqual({ orders: 2, onOrder: 4800, ever: 2 });
  const { rows } = await listSuppliers(yard.db, actor);
  expect(rows.find((s) => s.id === supplier())).toMatchObject({ openOrders: 2, onOrder: 4800 });
  const open = await listOrders(yard.db, actor, { supplierId: supplier(), show: 'open' }, TODAY);
  expect(open.rows).toHaveLength(2);
});

it('tells what is still to come, the late first, and when it was asked after', async () => {
  const [soon, late] = [await dock.ordered(10), await dock.ordered(5)];
  must(await dock.take(late.order, 2));
  await yard
    .db('orderLine')
    .where({ orderId: late.order.id })
    .update({ promisedOn: plusDays(TODAY, -2) });
  must(await chaseOrder(await yard.as('buyer'), { once: yard.once(), orderId: late.order.id }));
  const done = await dock.ordered(1);
  must(await dock.take(done.order, 1));
  const lines = await listOpenLines(yard.db, (await yard.as('buyer')).actor, supplier(), TODAY);
  expect(lines).toMatchObject([
    { order: late.order.number, left: q(3), came: q(2), late: true, promisedOn: plusDays(TODAY, -2), chasedOn: TODAY },
    { order: soon.order.number, left: q(10), came: 0, late: false, promisedOn: null, chasedOn: null },
  ]);
});
