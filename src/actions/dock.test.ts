import { must, q, refusedWith, TestCompany, TODAY } from '../../tests/support/company';
import { plusDays } from '@/core/calendar/workdays';
import type { Quantity } from '@/core/quantity/quantity';
import type { StoredOrder } from '@/store/orders';
import { insertOne } from '@/store/rows';
import { closeShort } from './ending';
import { inspect } from './inspecting';
import { issueStock, returnIssue } from './issuing';
import { moveStock, scrapStock, transferStock } from './moving';
import { addReason } from './reasons';
import { receive } from './receiving';
import { sendBack } from './sendingBack';
import { correctReceipt, takeBack } from './takingBack';

let yard: TestCompany;
let tube: number;

beforeEach(async () => {
  yard = await TestCompany.open();
  tube = yard.ids.items[0];
  await yard.db('supplier').update({ carriage: 0 as never });
});
afterEach(async () => yard.closeProven());

const need = (n: number, job: 0 | 1 = 0, more = {}) =>
  yard.need({
    item: tube,
    unit: 'MTR',
    quantity: n,
    price: 8,
    description: 'Tube',
    job,
    neededOn: '2026-06-10',
    ...more,
  });
const order = async (...picks: readonly { needId: number; buy: Quantity }[]) => yard.send(await yard.draft(picks));
const ordered = async (n: number) => {
  const needId = await need(n);
  return { needId, order: await order({ needId, buy: q(n) }) };
};
type Arrival = Parameters<typeof receive>[1]['arrivals'][number];
const take = async (of: StoredOrder, n: number, more: Partial<Arrival> = {}, head = {}) => {
  const { version, lines } = await yard.order(of.id);
  const arrival = { lineId: lines[0]?.id ?? 0, arrives: q(n), keepOver: false, ...more };
  const ref = { once: yard.once(), orderId: of.id, version, note: '', ...head };
  return receive(await yard.as('storekeeper'), { ...ref, arrivals: [arrival] });
};
const line = async (of: StoredOrder) => (await yard.order(of.id)).lines[0] as StoredOrder['lines'][number];
const reason = async (does: string) =>
  (
    await yard
      .db('reason')
      .where({ does: does as never })
      .first('id')
  )?.id ?? 0;
const openOf = async (id: number) => yard.db('need').where({ id }).first('open', 'missing');
const pile = async (jobId: number) => yard.db('stockSum').where({ itemId: tube, jobId }).first('quantity', 'value');
const numbered = (...numbers: readonly string[]) => numbers.map((number) => ({ number, quantity: q(1) }));
/** Every piece of the tube has a number from now on, and it is counted in pieces. */
const serial = async (numberPattern = '') => {
  await yard.db('item').where({ id: tube }).update({ tracking: 'serial', unit: 'C62', numberPattern });
};
const pieces = (n: number, job: 0 | 1 = 0) => need(n, job, { unit: 'C62' });

describe('goods that come for a job', () => {
  it('lie in stores as its own, at what they cost it, and cost it nothing more when they are issued', async () => {
    const { needId, order: of } = await ordered(12);
    must(await take(of, 5));
    const [own] = yard.ids.jobs;
    expect(await pile(own)).toEqual({ quantity: q(5), value: 4000 });
    expect(await yard.tab()).toEqual({ onOrder: 5600, received: 4000 });
    const at = { itemId: tube, placeId: 1, jobId: own };
    const { id } = must(
      await issueStock(await yard.as('storekeeper'), { once: yard.once(), ...at, to: { needId }, quantity: q(4) }),
    );
    expect(await yard.tab()).toEqual({ onOrder: 5600, received: 4000 });
    expect(await openOf(needId)).toEqual({ open: 0, missing: q(7) });
    const back = { once: yard.once(), issueId: id, version: 1, quantity: q(4), reason: '' };
    must(await returnIssue(await yard.as('storekeeper'), back));
    expect(await pile(own)).toEqual({ quantity: q(5), value: 4000 });
  });

  it('go to no other job unless they are transferred, and then their cost goes with them', async () => {
    const { needId, order: of } = await ordered(12);
    must(await take(of, 12));
    const [own, other] = yard.ids.jobs;
    const theirs = await need(5, 1);
    const at = { itemId: tube, placeId: 1, jobId: own };
    const keeper = await yard.as('storekeeper');
    const give = { once: yard.once(), ...at, to: { needId: theirs }, quantity: q(5) };
    expect(refusedWith(await issueStock(keeper, give))).toEqual(['stores.owner']);
    must(await transferStock(keeper, { ...give, reason: 'wanted there first' }));
    expect(await yard.tab(0)).toEqual({ planned: 4000, received: 9600, actual: -4000 });
    expect(await yard.tab(1)).toEqual({ actual: 4000 });
    expect([await openOf(needId), await openOf(theirs)]).toEqual([
      { open: q(5), missing: q(5) },
      { open: 0, missing: 0 },
    ]);
    expect(await pile(other)).toEqual({ quantity: q(5), value: 4000 });
    must(
      await transferStock(keeper, {
        ...{ once: yard.once(), itemId: tube, placeId: 1, jobId: own, quantity: q(7) },
        ...{ to: { stores: true }, reason: 'the job is smaller' },
      }),
    );
    expect(await pile(0)).toEqual({ quantity: q(7), value: 5600 });
    expect(await yard.tab(0)).toEqual({ planned: 9600, received: 9600, actual: -9600 });
  });

  it('cannot be charged elsewhere once they were issued, and are the other job’s when they are', async () => {
    const { order: of } = await ordered(4);
    must(await take(of, 4));
    const { chargeElsewhere } = await import('./charging');
    const now = await yard.order(of.id);
    const to = { jobId: yard.ids.jobs[1], costCodeId: yard.ids.codes[1] };
    const splits = [{ id: now.lines[0]?.splits[0]?.id ?? 0, ...to }];
    const ref = { orderId: of.id, version: now.version, reason: 'wrong job' };
    must(await chargeElsewhere(await yard.as('buyer'), { once: yard.once(), ...ref, splits }));
    expect(await pile(yard.ids.jobs[1])).toEqual({ quantity: q(4), value: 3200 });
    expect((await pile(yard.ids.jobs[0]))?.quantity).toBe(0);
    const at = { itemId: tube, placeId: 1, jobId: yard.ids.jobs[1] };
    must(await issueStock(await yard.as('storekeeper'), { once: yard.once(), ...at, to, quantity: q(1) }));
    const { version } = await yard.order(of.id);
    const back = [{ id: splits[0]?.id ?? 0, jobId: yard.ids.jobs[0], costCodeId: yard.ids.codes[1] }];
    const again = { once: yard.once(), orderId: of.id, version, splits: back, reason: 'after all' };
    expect(refusedWith(await chargeElsewhere(await yard.as('buyer'), again))).toEqual(['split.issued']);
  });

  it('that went straight to a site touch no stores', async () => {
    const { needId, order: of } = await ordered(6);
    const site = await insertOne(yard.db, 'deliveryPlace', { name: 'Slip', address: 'Slip 2', kind: 'site' });
    must(await take(of, 6, {}, { placeId: site }));
    expect(await yard.db('stockMove').select('id')).toEqual([]);
    expect(await openOf(needId)).toEqual({ open: 0, missing: 0 });
    expect(await yard.tab()).toEqual({ received: 4800 });
  });
});

describe('a delivery that is not as it was ordered', () => {
  it('takes what is over within the tolerance, the supplier’s own before the company’s', async () => {
    await yard.db('company').update({ overDelivery: 1000 });
    const { order: of } = await ordered(10);
    await yard.db('supplier').update({ overDelivery: 500 });
    expect(refusedWith(await take(of, 11))).toEqual(['receive.over']);
    await yard.db('supplier').update({ overDelivery: null });
    must(await take(of, 11));
    expect((await line(of)).received).toBe(q(11));
    expect(refusedWith(await take(of, 1))).toEqual(['receive.over']);
  });

  it('is awaited still for what was rejected, and says why', async () => {
    const { order: of } = await ordered(10);
    expect(refusedWith(await take(of, 10, { rejected: q(3) }))).toEqual(['receive.why']);
    must(await take(of, 10, { rejected: q(3), reasonId: await reason('damaged') }));
    expect(await line(of)).toMatchObject({ received: q(7), rejected: q(3) });
    expect(await yard.tab()).toEqual({ onOrder: 2400, received: 5600 });
    must(await take(of, 3));
    expect((await yard.order(of.id)).state).toBe('allIn');
  });

  it.each([
    ['toCome', { onOrder: 4800, received: 3200 }, 0],
    ['missing', { onOrder: 4800, received: 3200 }, 0],
    ['cancelled', { planned: 4800, received: 3200 }, 6],
  ] as const)('does at once what became of the rest: %s', async (does, tab, open) => {
    const { needId, order: of } = await ordered(10);
    const rest = { reasonId: await reason(does), promisedOn: '2026-06-20' };
    must(await take(of, 4, { rest }));
    expect(await yard.tab()).toEqual(tab);
    expect((await openOf(needId))?.open).toBe(q(open));
    expect((await line(of)).promisedOn).toBe(does === 'toCome' ? '2026-06-20' : null);
    expect(await yard.db('rest').first('quantity')).toEqual({ quantity: q(6) });
  });

  it('says where the rest was sent, and awaits it there', async () => {
    const { order: of } = await ordered(10);
    const site = await insertOne(yard.db, 'deliveryPlace', { name: 'Slip', address: 'Slip 2', kind: 'site' });
    const reasonId = await reason('elsewhere');
    expect(refusedWith(await take(of, 4, { rest: { reasonId } }))).toEqual(['receive.where']);
    must(await take(of, 4, { rest: { reasonId, placeId: site } }));
    must(await take(of, 6));
    // What came to the yard first lies there; the rest went by it.
    expect((await pile(yard.ids.jobs[0]))?.quantity).toBe(q(4));
    expect((await yard.order(of.id)).state).toBe('allIn');
  });

  it('may only say what becomes of a line that does not come at all', async () => {
    const { order: of } = await ordered(10);
    must(await take(of, 0, { rest: { reasonId: await reason('toCome'), promisedOn: '2026-06-20' } }));
    expect(await line(of)).toMatchObject({ received: 0, promisedOn: '2026-06-20' });
    const rejected = { rest: { reasonId: await reason('rejected') } };
    expect(refusedWith(await take(of, 0, rejected))).toEqual(['receive.rest']);
  });

  it('came on a day before, but not before it was ordered, and not in the future', async () => {
    const { order: of } = await ordered(10);
    const later = { day: plusDays(TODAY, 1) };
    expect(refusedWith(await take(of, 1, {}, later))).toEqual(['receive.day']);
    expect(refusedWith(await take(of, 1, {}, { day: plusDays(TODAY, -1) }))).toEqual(['receive.day']);
    await yard.db('purchaseOrder').update({ sentOn: plusDays(TODAY, -5) });
    must(await take(of, 1, {}, { day: plusDays(TODAY, -2) }));
    expect(await yard.db('receipt').first('day')).toEqual({ day: plusDays(TODAY, -2) });
    expect(await yard.db('posting').where({ stage: 'received' }).first('day')).toEqual({ day: plusDays(TODAY, -2) });
  });

  it('takes a reason of the company’s own, which is offered from then on', async () => {
    const words = { does: 'rejected' as const, name: 'Wrong thread' };
    const { id } = must(await addReason(await yard.as('storekeeper'), { once: yard.once(), ...words }));
    expect(must(await addReason(await yard.as('storekeeper'), { once: yard.once(), ...words })).id).toBe(id);
    const { order: of } = await ordered(10);
    must(await take(of, 10, { rejected: q(1), reasonId: id }));
  });
});

describe('what waits for its inspection', () => {
  const looked = async (of: StoredOrder, released: number, rejected: number, more = {}) => {
    const { version, lines } = await yard.order(of.id);
    const said = { lineId: lines[0]?.id ?? 0, released: q(released), rejected: q(rejected), ...more };
    const ref = { once: yard.once(), orderId: of.id, version };
    return inspect(await yard.as('storekeeper'), { ...ref, lines: [said] });
  };

  it('is in and not released until somebody says so, in parts, and named', async () => {
    await yard.db('item').where({ id: tube }).update({ inspected: 1 });
    const { needId, order: of } = await ordered(10);
    must(await take(of, 10));
    expect(await line(of)).toMatchObject({ received: 0, held: q(10) });
    expect(await yard.tab()).toEqual({ onOrder: 8000 });
    expect((await openOf(needId))?.missing).toBe(q(10));
    // It is here: nothing more is expected, and the line cannot be closed over it.
    expect(refusedWith(await take(of, 1))).toEqual(['receive.over']);
    const { version } = await yard.order(of.id);
    const end = { once: yard.once(), orderId: of.id, version, lineId: (await line(of)).id, reason: 'no' };
    expect(refusedWith(await closeShort(await yard.as('buyer'), end))).toEqual(['line.held']);
    expect(refusedWith(await looked(of, 11, 0))).toEqual(['inspect.held']);
    expect(refusedWith(await looked(of, 6, 1))).toEqual(['receive.why']);
    must(await looked(of, 6, 1, { reasonId: await reason('rejected') }));
    expect(await line(of)).toMatchObject({ received: q(6), held: q(3), rejected: q(1) });
    expect(await yard.tab()).toEqual({ onOrder: 3200, received: 4800 });
    must(await looked(of, 3, 0));
    expect((await pile(yard.ids.jobs[0]))?.quantity).toBe(q(9));
    const by = await yard.db('receipt as r').join('person as p', 'p.id', 'r.personId').where({ kind: 'inspection' });
    expect(by.map((r: { name: string }) => r.name)).toEqual(['The storekeeper', 'The storekeeper']);
  });

  it('releases the numbers that it was taken in with, and no others', async () => {
    await serial();
    await yard.db('item').where({ id: tube }).update({ inspected: 1 });
    const needId = await pieces(2);
    const of = await order({ needId, buy: q(2) });
    expect(refusedWith(await take(of, 2))).toEqual(['numbers.many']);
    must(await take(of, 2, { numbers: numbered('SN-1', 'SN-2') }));
    expect(refusedWith(await looked(of, 1, 0, { numbers: numbered('SN-9') }))).toEqual(['numbers.held']);
    const both = { numbers: numbered('SN-1'), rejectedNumbers: numbered('SN-1') };
    const why = { reasonId: await reason('rejected') };
    expect(refusedWith(await looked(of, 1, 1, { ...both, ...why }))).toEqual(['numbers.both']);
    must(await looked(of, 1, 1, { ...why, numbers: numbered('SN-1'), rejectedNumbers: numbered('SN-2') }));
    expect((await pile(yard.ids.jobs[0]))?.quantity).toBe(q(1));
  });

  it('can be taken back while nothing was said of it, the inspection before its delivery', async () => {
    await yard.db('item').where({ id: tube }).update({ inspected: 1 });
    const { order: of } = await ordered(10);
    const came = must(await take(of, 10));
    const said = must(await looked(of, 10, 0));
    const back = async (receiptId: number) => takeBack(await yard.as('storekeeper'), { once: yard.once(), receiptId });
    expect(refusedWith(await back(came.id))).toEqual(['receipt.later']);
    must(await back(said.id));
    expect(await line(of)).toMatchObject({ received: 0, held: q(10) });
    must(await back(came.id));
    expect(await line(of)).toMatchObject({ received: 0, held: 0 });
    expect(await yard.tab()).toEqual({ onOrder: 8000 });
  });
});

describe('serial numbers', () => {
  const three = async () => {
    await serial('SN-9999');
    const needId = await pieces(3);
    return { needId, of: await order({ needId, buy: q(3) }) };
  };

  it('are as many as pieces, read as the item’s do, and come in once', async () => {
    const { of } = await three();
    expect(refusedWith(await take(of, 2, { numbers: numbered('SN-0001') }))).toEqual(['numbers.many']);
    expect(refusedWith(await take(of, 1, { numbers: numbered('SN-01') }))).toEqual(['numbers.pattern']);
    expect(refusedWith(await take(of, 2, { numbers: numbered('SN-0001', 'sn-0001') }))).toEqual(['numbers.twice']);
    must(await take(of, 2, { numbers: numbered('SN-0001', 'SN-0002') }));
    const again = await take(of, 1, { numbers: numbered('SN-0002') });
    expect(again).toMatchObject({
      refusals: [{ message: 'SN-0002 lies in Yard, for job 412, so it cannot come again.' }],
    });
  });

  it('go to the job at their own cost, are chosen from those that are there, and come back', async () => {
    const { needId, of } = await three();
    must(await take(of, 3, { numbers: numbered('SN-0001', 'SN-0002', 'SN-0003') }));
    const at = { itemId: tube, placeId: 1, jobId: yard.ids.jobs[0], to: { needId } };
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
    expect((await pile(yard.ids.jobs[0]))?.quantity).toBe(q(2));
  });

  it('say where they are when they are with a job', async () => {
    const { needId, of } = await three();
    must(await take(of, 1, { numbers: numbered('SN-0001') }));
    const at = { itemId: tube, placeId: 1, jobId: yard.ids.jobs[0], to: { needId } };
    const give = { once: yard.once(), ...at, quantity: q(1), numbers: numbered('SN-0001') };
    must(await issueStock(await yard.as('storekeeper'), give));
    expect(await take(of, 1, { numbers: numbered('SN-0001') })).toMatchObject({
      refusals: [{ message: 'SN-0001 is with job 412, so it cannot come again.' }],
    });
  });
});

describe('goods that go back to their supplier', () => {
  const send = async (of: StoredOrder, n: number, from: 'rejected' | 'accepted', wants: 'replacement' | 'credit') => {
    const { version, lines } = await yard.order(of.id);
    const sent = { lineId: lines[0]?.id ?? 0, quantity: q(n), from, wants };
    const ref = { once: yard.once(), orderId: of.id, version, reason: 'faulty' };
    return sendBack(await yard.as('storekeeper'), { ...ref, lines: [sent] });
  };

  it('are on order again when a replacement is awaited, and are gone when they are credited', async () => {
    const { needId, order: of } = await ordered(10);
    must(await take(of, 10));
    must(await send(of, 2, 'accepted', 'replacement'));
    expect(await yard.tab()).toEqual({ onOrder: 1600, received: 6400 });
    expect((await pile(yard.ids.jobs[0]))?.quantity).toBe(q(8));
    must(await send(of, 3, 'accepted', 'credit'));
    expect(await yard.tab()).toEqual({ planned: 2400, onOrder: 1600, received: 4000 });
    expect(await openOf(needId)).toEqual({ open: q(3), missing: q(5) });
    must(await take(of, 2));
    expect((await yard.order(of.id)).state).toBe('allIn');
    expect(refusedWith(await send(of, 8, 'accepted', 'credit'))).toEqual(['return.more']);
  });

  it('stay actual until they are credited where they were billed', async () => {
    const { order: of } = await ordered(10);
    must(await take(of, 10));
    const { id } = must(await yard.bill(of, 10));
    must(await yard.match(id));
    must(await send(of, 4, 'accepted', 'credit'));
    expect(await yard.tab()).toEqual({ planned: 3200, actual: 8000 });
  });

  it('that were rejected are wanted no more when they are credited', async () => {
    const { needId, order: of } = await ordered(10);
    must(await take(of, 10, { rejected: q(4), reasonId: await reason('rejected') }));
    expect(refusedWith(await send(of, 5, 'rejected', 'credit'))).toEqual(['return.more']);
    const sent = must(await send(of, 4, 'rejected', 'credit'));
    expect(await yard.tab()).toEqual({ planned: 3200, received: 4800 });
    expect((await openOf(needId))?.open).toBe(q(4));
    must(await takeBack(await yard.as('storekeeper'), { once: yard.once(), receiptId: sent.id }));
    expect(await line(of)).toMatchObject({ rejected: q(4), givenUp: 0 });
    expect(await yard.tab()).toEqual({ onOrder: 3200, received: 4800 });
  });

  it('lie where they lay when they did not go after all', async () => {
    const { order: of } = await ordered(10);
    must(await take(of, 10));
    const sent = must(await send(of, 4, 'accepted', 'credit'));
    must(await takeBack(await yard.as('storekeeper'), { once: yard.once(), receiptId: sent.id }));
    expect(await pile(yard.ids.jobs[0])).toEqual({ quantity: q(10), value: 8000 });
    expect(await yard.tab()).toEqual({ received: 8000 });
  });
});

describe('a receipt that was wrong', () => {
  it('is put right in quantity and day while nothing rests on it', async () => {
    const { order: of } = await ordered(10);
    await yard.db('purchaseOrder').update({ sentOn: plusDays(TODAY, -9) });
    const came = must(await take(of, 8, {}, { day: plusDays(TODAY, -3) }));
    const put = async (receiptId: number, n: number) =>
      correctReceipt(await yard.as('storekeeper'), {
        ...{ once: yard.once(), receiptId, note: 'miscounted', day: plusDays(TODAY, -4) },
        arrivals: [{ lineId: (await line(of)).id, arrives: q(n), keepOver: false }],
      });
    const anew = must(await put(came.id, 6));
    expect(await line(of)).toMatchObject({ received: q(6) });
    const before = (day: string) =>
      yard.db('posting').where({ stage: 'received' }).where('day', '<=', day).sum({ sum: 'amount' });
    expect(await before(plusDays(TODAY, -4))).toEqual([{ sum: 4800 }]);
    expect(await before(plusDays(TODAY, -3))).toEqual([{ sum: 4800 }]);
    expect(refusedWith(await put(came.id, 5))).toEqual(['receipt.back']);
    const at = { itemId: tube, placeId: 1, jobId: yard.ids.jobs[0] };
    const to = { jobId: yard.ids.jobs[0], costCodeId: yard.ids.codes[1] };
    must(await issueStock(await yard.as('storekeeper'), { once: yard.once(), ...at, to, quantity: q(1) }));
    expect(await put(anew.id, 5)).toMatchObject({
      refusals: [{ message: expect.stringContaining('Tube was issued since R-00002 came') as string }],
    });
  });
});

describe('bins', () => {
  const bin = (name: string) => insertOne(yard.db, 'bin', { placeId: 1, name });
  const spots = async () =>
    (await yard.db('stockSpot').where('quantity', '>', 0).orderBy('binId').select('binId', 'quantity')).map((s) => [
      s.binId,
      s.quantity / 10_000,
    ]);

  it('are walked by in their order, and moving from one to another costs nothing', async () => {
    const { needId, order: of } = await ordered(10);
    const [far, near] = [await bin('A-10'), await bin('A-2')];
    must(await take(of, 6, { binId: far }));
    must(await take(of, 4, { binId: near }));
    const at = { itemId: tube, placeId: 1, jobId: yard.ids.jobs[0] };
    const keeper = await yard.as('storekeeper');
    must(await issueStock(keeper, { once: yard.once(), ...at, to: { needId }, quantity: q(5) }));
    expect(await spots()).toEqual([[far, 5]]);
    const move = { ...at, quantity: q(2), binId: far, toPlaceId: 1, toBinId: near };
    must(await moveStock(keeper, { once: yard.once(), ...move }));
    expect(await spots()).toEqual([
      [far, 3],
      [near, 2],
    ]);
    expect(refusedWith(await moveStock(keeper, { once: yard.once(), ...move, quantity: q(4) }))).toEqual([
      'stores.short',
    ]);
    expect(refusedWith(await moveStock(keeper, { once: yard.once(), ...move, toBinId: far }))).toEqual(['stores.same']);
  });

  it('what is scrapped of a job’s goods is to buy again, and its cost stays', async () => {
    const { needId, order: of } = await ordered(10);
    must(await take(of, 10));
    const at = { itemId: tube, placeId: 1, jobId: yard.ids.jobs[0], quantity: q(3) };
    must(await scrapStock(await yard.as('storekeeper'), { once: yard.once(), ...at, reason: 'dropped' }));
    expect(await yard.tab()).toEqual({ planned: 2400, received: 8000 });
    expect(await openOf(needId)).toEqual({ open: q(3), missing: q(3) });
  });
});
