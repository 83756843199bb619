import { numbered, openDock, type Dock } from '../../../tests/support/dock';
import { must, q, refusedWith, type TestCompany, TODAY } from '../../../tests/support/company';
import { plusDays } from '@/core/calendar/workdays';
import type { StoredOrder } from '@/store/orders';
import { closeShort } from '../orders/ending';
import { inspect } from './inspecting';
import { issueStock, returnIssue } from '../stores/issuing';
import { returnGoods } from './sendingBack';
import { correctReceipt, reverseReceipt } from './correcting';

let yard: TestCompany;
let dock: Dock;

beforeEach(async () => {
  ({ yard, dock } = await openDock());
});
afterEach(async () => yard.closeProven());

describe('what waits for its inspection', () => {
  const looked = async (of: StoredOrder, released: number, rejected: number, more = {}) => {
    const { version, lines } = await yard.order(of.id);
    const said = { lineId: lines[0]?.id ?? 0, released: q(released), rejected: q(rejected), ...more };
    const ref = { once: yard.once(), orderId: of.id, version };
    return inspect(await yard.as('storekeeper'), { ...ref, lines: [said] });
  };

  it('is in and not released until somebody says so, in parts, and named', async () => {
    await yard.db('item').where({ id: dock.tube }).update({ inspected: 1 });
    const { needId, order: of } = await dock.ordered(10);
    must(await dock.take(of, 10));
    expect(await dock.line(of)).toMatchObject({ received: 0, held: q(10) });
    expect(await yard.tab()).toEqual({ onOrder: 8000 });
    expect((await dock.openOf(needId))?.missing).toBe(q(10));
    // It is here: nothing more is expected, and the line cannot be closed over it.
    expect(refusedWith(await dock.take(of, 1))).toEqual(['receive.over']);
    const { version } = await yard.order(of.id);
    const end = { once: yard.once(), orderId: of.id, version, lineId: (await dock.line(of)).id, reason: 'no' };
    expect(refusedWith(await closeShort(await yard.as('buyer'), end))).toEqual(['line.held']);
    expect(refusedWith(await looked(of, 11, 0))).toEqual(['inspect.held']);
    expect(refusedWith(await looked(of, 6, 1))).toEqual(['receive.why']);
    must(await looked(of, 6, 1, { reasonId: await dock.reason('rejected') }));
    expect(await dock.line(of)).toMatchObject({ received: q(6), held: q(3), rejected: q(1) });
    expect(await yard.tab()).toEqual({ onOrder: 3200, received: 4800 });
    must(await looked(of, 3, 0));
    expect((await dock.pile(yard.ids.jobs[0]))?.quantity).toBe(q(9));
    const by = await yard.db('receipt as r').join('person as p', 'p.id', 'r.personId').where({ kind: 'inspection' });
    expect(by.map((r: { name: string }) => r.name)).toEqual(['The storekeeper', 'The storekeeper']);
  });

  it('releases the numbers that it was taken in with, and no others', async () => {
    await dock.serial();
    await yard.db('item').where({ id: dock.tube }).update({ inspected: 1 });
    const needId = await dock.pieces(2);
    const of = await dock.order({ needId, buy: q(2) });
    expect(refusedWith(await dock.take(of, 2))).toEqual(['numbers.many']);
    must(await dock.take(of, 2, { numbers: numbered('SN-1', 'SN-2') }));
    expect(refusedWith(await looked(of, 1, 0, { numbers: numbered('SN-9') }))).toEqual(['numbers.held']);
    const both = { numbers: numbered('SN-1'), rejectedNumbers: numbered('SN-1') };
    const why = { reasonId: await dock.reason('rejected') };
    expect(refusedWith(await looked(of, 1, 1, { ...both, ...why }))).toEqual(['numbers.both']);
    must(await looked(of, 1, 1, { ...why, numbers: numbered('SN-1'), rejectedNumbers: numbered('SN-2') }));
    expect((await dock.pile(yard.ids.jobs[0]))?.quantity).toBe(q(1));
  });

  it('can be taken back while nothing was said of it, the inspection before its delivery', async () => {
    await yard.db('item').where({ id: dock.tube }).update({ inspected: 1 });
    const { order: of } = await dock.ordered(10);
    const came = must(await dock.take(of, 10));
    const said = must(await looked(of, 10, 0));
    const back = async (receiptId: number) =>
      reverseReceipt(await yard.as('storekeeper'), { once: yard.once(), receiptId });
    expect(refusedWith(await back(came.id))).toEqual(['receipt.later']);
    must(await back(said.id));
    expect(await dock.line(of)).toMatchObject({ received: 0, held: q(10) });
    must(await back(came.id));
    expect(await dock.line(of)).toMatchObject({ received: 0, held: 0 });
    expect(await yard.tab()).toEqual({ onOrder: 8000 });
  });
});

describe('serial numbers', () => {
  const three = async () => {
    await dock.serial('SN-9999');
    const needId = await dock.pieces(3);
    return { needId, of: await dock.order({ needId, buy: q(3) }) };
  };

  it('are as many as pieces, read as the item’s do, and come in once', async () => {
    const { of } = await three();
    expect(refusedWith(await dock.take(of, 2, { numbers: numbered('SN-0001') }))).toEqual(['numbers.many']);
    expect(refusedWith(await dock.take(of, 1, { numbers: numbered('SN-01') }))).toEqual(['numbers.pattern']);
    expect(refusedWith(await dock.take(of, 2, { numbers: numbered('SN-0001', 'sn-0001') }))).toEqual(['numbers.twice']);
    must(await dock.take(of, 2, { numbers: numbered('SN-0001', 'SN-0002') }));
    const again = await dock.take(of, 1, { numbers: numbered('SN-0002') });
    expect(again).toMatchObject({
      refusals: [
        { message: 'SN-0002 is in stock at Yard, for job 412, so it can’t be received again. Check the number.' },
      ],
    });
  });

  it('go to the job at their own cost, are chosen from those that are there, and come back', async () => {
    const { needId, of } = await three();
    must(await dock.take(of, 3, { numbers: numbered('SN-0001', 'SN-0002', 'SN-0003') }));
    const at = { itemId: dock.tube, placeId: 1, jobId: yard.ids.jobs[0], to: { needId } };
    const give = async (...numbers: readonly string[]) =>
      issueStock(await yard.as('storekeeper'), {
        ...{ once: yard.once(), ...at, quantity: q(numbers.length || 1) },
        numbers: numbered(...numbers),
      });
    expect(refusedWith(await give())).toEqual(['numbers.many']);
    expect(refusedWith(await give('SN-0009'))).toEqual(['numbers.unknown']);
    const { id } = must(await give('SN-0001', 'SN-0003'));
    expect(refusedWith(await give('SN-0001'))).toEqual(['stores.short']);
    const back = async (number: string) =>
      returnIssue(await yard.as('storekeeper'), {
        ...{ once: yard.once(), issueId: id, version: 1, quantity: q(1), reason: '' },
        numbers: numbered(number),
      });
    expect(refusedWith(await back('SN-0002'))).toEqual(['numbers.unknown']);
    must(await back('SN-0003'));
    expect((await dock.pile(yard.ids.jobs[0]))?.quantity).toBe(q(2));
  });

  it('say where they are when they are with a job', async () => {
    const { needId, of } = await three();
    must(await dock.take(of, 1, { numbers: numbered('SN-0001') }));
    const at = { itemId: dock.tube, placeId: 1, jobId: yard.ids.jobs[0], to: { needId } };
    const give = { once: yard.once(), ...at, quantity: q(1), numbers: numbered('SN-0001') };
    must(await issueStock(await yard.as('storekeeper'), give));
    expect(await dock.take(of, 1, { numbers: numbered('SN-0001') })).toMatchObject({
      refusals: [{ message: 'SN-0001 is with job 412, so it can’t be received again. Check the number.' }],
    });
  });
});

describe('goods that go back to their supplier', () => {
  const send = async (of: StoredOrder, n: number, from: 'rejected' | 'accepted', wants: 'replacement' | 'credit') => {
    const { version, lines } = await yard.order(of.id);
    const sent = { lineId: lines[0]?.id ?? 0, quantity: q(n), from, wants };
    const ref = { once: yard.once(), orderId: of.id, version, reason: 'faulty' };
    return returnGoods(await yard.as('storekeeper'), { ...ref, lines: [sent] });
  };

  it('are on order again when a replacement is awaited, and are gone when they are credited', async () => {
    const { needId, order: of } = await dock.ordered(10);
    must(await dock.take(of, 10));
    must(await send(of, 2, 'accepted', 'replacement'));
    expect(await yard.tab()).toEqual({ onOrder: 1600, received: 6400 });
    expect((await dock.pile(yard.ids.jobs[0]))?.quantity).toBe(q(8));
    must(await send(of, 3, 'accepted', 'credit'));
    expect(await yard.tab()).toEqual({ planned: 2400, onOrder: 1600, received: 4000 });
    expect(await dock.openOf(needId)).toEqual({ open: q(3), missing: q(5) });
    must(await dock.take(of, 2));
    expect((await yard.order(of.id)).state).toBe('allIn');
    expect(refusedWith(await send(of, 8, 'accepted', 'credit'))).toEqual(['return.more']);
  });

  it('stay actual until they are credited where they were invoiced', async () => {
    const { order: of } = await dock.ordered(10);
    must(await dock.take(of, 10));
    const { id } = must(await yard.invoice(of, 10));
    must(await yard.match(id));
    must(await send(of, 4, 'accepted', 'credit'));
    expect(await yard.tab()).toEqual({ planned: 3200, actual: 8000 });
  });

  it('that were rejected are wanted no more when they are credited', async () => {
    const { needId, order: of } = await dock.ordered(10);
    must(await dock.take(of, 10, { rejected: q(4), reasonId: await dock.reason('rejected') }));
    expect(refusedWith(await send(of, 5, 'rejected', 'credit'))).toEqual(['return.more']);
    const sent = must(await send(of, 4, 'rejected', 'credit'));
    expect(await yard.tab()).toEqual({ planned: 3200, received: 4800 });
    expect((await dock.openOf(needId))?.open).toBe(q(4));
    must(await reverseReceipt(await yard.as('storekeeper'), { once: yard.once(), receiptId: sent.id }));
    expect(await dock.line(of)).toMatchObject({ rejected: q(4), givenUp: 0 });
    expect(await yard.tab()).toEqual({ onOrder: 3200, received: 4800 });
  });

  it('lie where they lay when they did not go after all', async () => {
    const { order: of } = await dock.ordered(10);
    must(await dock.take(of, 10));
    const sent = must(await send(of, 4, 'accepted', 'credit'));
    must(await reverseReceipt(await yard.as('storekeeper'), { once: yard.once(), receiptId: sent.id }));
    expect(await dock.pile(yard.ids.jobs[0])).toEqual({ quantity: q(10), value: 8000 });
    expect(await yard.tab()).toEqual({ received: 8000 });
  });
});

describe('a receipt that was wrong', () => {
  it('is put right in quantity and day while nothing rests on it', async () => {
    yard.today = plusDays(TODAY, -9);
    const { order: of } = await dock.ordered(10);
    yard.today = TODAY;
    const came = must(await dock.take(of, 8, {}, { day: plusDays(TODAY, -3) }));
    const put = async (receiptId: number, n: number) =>
      correctReceipt(await yard.as('storekeeper'), {
        ...{ once: yard.once(), receiptId, note: 'miscounted', day: plusDays(TODAY, -4) },
        arrivals: [{ lineId: (await dock.line(of)).id, arrives: q(n), keepOver: false }],
      });
    const anew = must(await put(came.id, 6));
    expect(await dock.line(of)).toMatchObject({ received: q(6) });
    const before = (day: string) =>
      yard.db('posting').where({ stage: 'received' }).where('day', '<=', day).sum({ sum: 'amount' });
    expect(await before(plusDays(TODAY, -4))).toEqual([{ sum: 4800 }]);
    expect(await before(plusDays(TODAY, -3))).toEqual([{ sum: 4800 }]);
    expect(refusedWith(await put(came.id, 5))).toEqual(['receipt.back']);
    const at = { itemId: dock.tube, placeId: 1, jobId: yard.ids.jobs[0] };
    const to = { jobId: yard.ids.jobs[0], costCodeId: yard.ids.codes[1] };
    must(await issueStock(await yard.as('storekeeper'), { once: yard.once(), ...at, to, quantity: q(1) }));
    expect(await put(anew.id, 5)).toMatchObject({
      refusals: [{ message: expect.stringContaining('R-00002 can’t be reversed: Tube was issued since') as string }],
    });
  });
});
