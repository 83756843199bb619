import { numbered, openDock, type Dock } from '../../../tests/support/dock';
import { must, q, refusedWith, type TestCompany, TODAY } from '../../../tests/support/company';
import { plusDays } from '@/core/calendar/workdays';
import { loadDockOrder } from '@/queries/dock/order';
import { compareInvoice, differencesOf } from '@/store/invoices';
import { insertOne } from '@/store/rows';
import { issueStock, returnIssue } from '../stores/issuing';
import { saveItem } from '../items/items';
import { moveStock, scrapStock, transferStock } from '../stores/moving';
import { draftOrders } from '../orders/orders';
import { addReason, changeReason, retireReason } from '../company/reasons';
import { reverseReceipt } from './correcting';

let yard: TestCompany;
let dock: Dock;

beforeEach(async () => {
  ({ yard, dock } = await openDock());
});
afterEach(async () => yard.closeProven());

it('takes a thousand serial numbers that were pasted, and none where one stands there twice', async () => {
  await dock.serial();
  const order = await dock.order({ needId: await dock.pieces(1000), buy: q(1000) });
  const numbers = Array.from({ length: 1000 }, (_, k) => `SN-${k}`);
  const twice = await dock.take(order, 1000, { numbers: numbered(...numbers.slice(1), 'sn-7') });
  expect(refusedWith(twice)).toEqual(['numbers.twice']);
  expect(await yard.db('receipt').count({ n: '*' })).toEqual([{ n: 0 }]);
  must(await dock.take(order, 1000, { numbers: numbered(...numbers) }));
  expect(await yard.db('stockSpot').where('lotId', '>', 0).count({ n: '*' })).toEqual([{ n: 1000 }]);
}, 60_000);

describe('goods that come for a job', () => {
  it('lie in stores as its own, at what they cost it, and cost it nothing more when they are issued', async () => {
    const { needId, order: of } = await dock.ordered(12);
    must(await dock.take(of, 5));
    const [own] = yard.ids.jobs;
    expect(await dock.pile(own)).toEqual({ quantity: q(5), value: 4000 });
    expect(await yard.tab()).toEqual({ onOrder: 5600, received: 4000 });
    const at = { itemId: dock.tube, placeId: 1, jobId: own };
    const { id } = must(
      await issueStock(await yard.as('storekeeper'), { once: yard.once(), ...at, to: { needId }, quantity: q(4) }),
    );
    expect(await yard.tab()).toEqual({ onOrder: 5600, received: 4000 });
    expect(await dock.openOf(needId)).toEqual({ open: 0, missing: q(7) });
    const back = { once: yard.once(), issueId: id, version: 1, quantity: q(4), reason: '' };
    must(await returnIssue(await yard.as('storekeeper'), back));
    expect(await dock.pile(own)).toEqual({ quantity: q(5), value: 4000 });
  });

  it('go to no other job unless they are transferred, and then their cost goes with them', async () => {
    const { needId, order: of } = await dock.ordered(12);
    must(await dock.take(of, 12));
    const [own, other] = yard.ids.jobs;
    const theirs = await dock.need(5, 1);
    const at = { itemId: dock.tube, placeId: 1, jobId: own };
    const keeper = await yard.as('storekeeper');
    const give = { once: yard.once(), ...at, to: { needId: theirs }, quantity: q(5) };
    expect(refusedWith(await issueStock(keeper, give))).toEqual(['stores.owner']);
    must(await transferStock(keeper, { ...give, reason: 'wanted there first' }));
    expect(await yard.tab(0)).toEqual({ planned: 4000, received: 9600, actual: -4000 });
    expect(await yard.tab(1)).toEqual({ actual: 4000 });
    expect([await dock.openOf(needId), await dock.openOf(theirs)]).toEqual([
      { open: q(5), missing: q(5) },
      { open: 0, missing: 0 },
    ]);
    expect(await dock.pile(other)).toEqual({ quantity: q(5), value: 4000 });
    must(
      await transferStock(keeper, {
        ...{ once: yard.once(), itemId: dock.tube, placeId: 1, jobId: own, quantity: q(7) },
        ...{ to: { stores: true }, reason: 'the job is smaller' },
      }),
    );
    expect(await dock.pile(0)).toEqual({ quantity: q(7), value: 5600 });
    expect(await yard.tab(0)).toEqual({ planned: 9600, received: 9600, actual: -9600 });
  });

  it('cannot be charged elsewhere once they were issued, and are the other job’s when they are', async () => {
    const { order: of } = await dock.ordered(4);
    must(await dock.take(of, 4));
    const { chargeElsewhere } = await import('../orders/charging');
    const now = await yard.order(of.id);
    const to = { jobId: yard.ids.jobs[1], costCodeId: yard.ids.codes[1] };
    const splits = [{ id: now.lines[0]?.splits[0]?.id ?? 0, ...to }];
    const ref = { orderId: of.id, version: now.version, reason: 'wrong job' };
    must(await chargeElsewhere(await yard.as('buyer'), { once: yard.once(), ...ref, splits }));
    expect(await dock.pile(yard.ids.jobs[1])).toEqual({ quantity: q(4), value: 3200 });
    expect((await dock.pile(yard.ids.jobs[0]))?.quantity).toBe(0);
    const at = { itemId: dock.tube, placeId: 1, jobId: yard.ids.jobs[1] };
    must(await issueStock(await yard.as('storekeeper'), { once: yard.once(), ...at, to, quantity: q(1) }));
    const { version } = await yard.order(of.id);
    const back = [{ id: splits[0]?.id ?? 0, jobId: yard.ids.jobs[0], costCodeId: yard.ids.codes[1] }];
    const again = { once: yard.once(), orderId: of.id, version, splits: back, reason: 'after all' };
    expect(refusedWith(await chargeElsewhere(await yard.as('buyer'), again))).toEqual(['split.issued']);
  });

  it('that went straight to a site touch no stores', async () => {
    const { needId, order: of } = await dock.ordered(6);
    const site = await dock.site();
    must(await dock.take(of, 6, {}, { placeId: site }));
    expect(await yard.db('stockMove').select('id')).toEqual([]);
    expect(await dock.openOf(needId)).toEqual({ open: 0, missing: 0 });
    expect(await yard.tab()).toEqual({ received: 4800 });
  });
});

describe('a delivery that is not as it was ordered', () => {
  it('takes what is over within the tolerance, the supplier’s own before the company’s', async () => {
    await yard.db('company').update({ overDelivery: 1000 });
    const { order: of } = await dock.ordered(10);
    await yard.db('supplier').update({ overDelivery: 500 });
    expect(refusedWith(await dock.take(of, 11))).toEqual(['receive.over']);
    await yard.db('supplier').update({ overDelivery: null });
    must(await dock.take(of, 11));
    expect((await dock.line(of)).received).toBe(q(11));
    expect(refusedWith(await dock.take(of, 1))).toEqual(['receive.over']);
  });

  it('is awaited still for what was rejected, and says why', async () => {
    const { order: of } = await dock.ordered(10);
    expect(refusedWith(await dock.take(of, 10, { rejected: q(3) }))).toEqual(['receive.why']);
    must(await dock.take(of, 10, { rejected: q(3), reasonId: await dock.reason('damaged') }));
    expect(await dock.line(of)).toMatchObject({ received: q(7), rejected: q(3) });
    expect(await yard.tab()).toEqual({ onOrder: 2400, received: 5600 });
    must(await dock.take(of, 3));
    expect((await yard.order(of.id)).state).toBe('allIn');
  });

  it.each([
    ['toCome', { onOrder: 4800, received: 3200 }, 0],
    ['missing', { onOrder: 4800, received: 3200 }, 0],
    ['cancelled', { planned: 4800, received: 3200 }, 6],
  ] as const)('does at once what became of the rest: %s', async (does, tab, open) => {
    const { needId, order: of } = await dock.ordered(10);
    const rest = { reasonId: await dock.reason(does), promisedOn: '2026-06-20' };
    must(await dock.take(of, 4, { rest }));
    expect(await yard.tab()).toEqual(tab);
    expect((await dock.openOf(needId))?.open).toBe(q(open));
    expect((await dock.line(of)).promisedOn).toBe(does === 'toCome' ? '2026-06-20' : null);
    expect(await yard.db('rest').first('quantity')).toEqual({ quantity: q(6) });
  });

  it('tells of an invoice what was missing from the parcel, as long as that was said last and stands', async () => {
    const { order: of } = await dock.ordered(10);
    const missing = { rest: { reasonId: await dock.reason('missing') } };
    const { id: receiptId } = must(await dock.take(of, 3, missing));
    must(await reverseReceipt(await yard.as('storekeeper'), { once: yard.once(), receiptId }));
    const { id: invoiceId } = must(await yard.invoice(await yard.order(of.id), 10));
    const heldFor = async () => {
      const invoice = await yard.db('invoice').where({ id: invoiceId }).first();
      return invoice && differencesOf(await compareInvoice(yard.db, invoice)).map((d) => d.words);
    };
    expect(await heldFor()).toEqual(['Tube: 10 invoiced, 0 received.']);
    must(await dock.take(of, 4, missing));
    expect(await heldFor()).toEqual(['Tube: 10 invoiced, 4 received (6 short-delivered).']);
    must(await dock.take(of, 4));
    expect(await heldFor()).toEqual(['Tube: 10 invoiced, 8 received (2 short-delivered).']);
    must(await dock.take(of, 0, { rest: { reasonId: await dock.reason('toCome'), promisedOn: '2026-06-20' } }));
    expect(await heldFor()).toEqual(['Tube: 10 invoiced, 8 received.']);
  });

  it('says where the rest was sent, and awaits it there', async () => {
    const { order: of } = await dock.ordered(10);
    const site = await dock.site();
    const reasonId = await dock.reason('elsewhere');
    expect(refusedWith(await dock.take(of, 4, { rest: { reasonId } }))).toEqual(['receive.where']);
    must(await dock.take(of, 4, { rest: { reasonId, placeId: site } }));
    must(await dock.take(of, 6));
    // What came to the yard first lies there; the rest went by it.
    expect((await dock.pile(yard.ids.jobs[0]))?.quantity).toBe(q(4));
    expect((await yard.order(of.id)).state).toBe('allIn');
  });

  it('may only say what becomes of a line that does not come at all', async () => {
    const { order: of } = await dock.ordered(10);
    must(await dock.take(of, 0, { rest: { reasonId: await dock.reason('toCome'), promisedOn: '2026-06-20' } }));
    expect(await dock.line(of)).toMatchObject({ received: 0, promisedOn: '2026-06-20' });
    const rejected = { rest: { reasonId: await dock.reason('rejected') } };
    expect(refusedWith(await dock.take(of, 0, rejected))).toEqual(['receive.rest']);
  });

  it('came on a day before, but not before it was ordered, and not in the future', async () => {
    yard.today = plusDays(TODAY, -5);
    const { order: of } = await dock.ordered(10);
    yard.today = TODAY;
    const later = { day: plusDays(TODAY, 1) };
    expect(refusedWith(await dock.take(of, 1, {}, later))).toEqual(['receive.day']);
    expect(refusedWith(await dock.take(of, 1, {}, { day: plusDays(TODAY, -6) }))).toEqual(['receive.day']);
    must(await dock.take(of, 1, {}, { day: plusDays(TODAY, -2) }));
    expect(await yard.db('receipt').first('day')).toEqual({ day: plusDays(TODAY, -2) });
    expect(await yard.db('posting').where({ stage: 'received' }).first('day')).toEqual({ day: plusDays(TODAY, -2) });
  });

  it('takes a reason of the company’s own, which is offered from then on', async () => {
    const words = { does: 'rejected' as const, name: 'Wrong thread' };
    const { id } = must(await addReason(await yard.as('storekeeper'), { once: yard.once(), ...words }));
    expect(must(await addReason(await yard.as('storekeeper'), { once: yard.once(), ...words })).id).toBe(id);
    const { order: of } = await dock.ordered(10);
    must(await dock.take(of, 10, { rejected: q(1), reasonId: id }));
  });

  it('says a reason in other words, and offers it no more while one of its kind is left', async () => {
    const admin = await yard.as('administrator');
    const id = await dock.reason('damaged');
    const ref = (version: number) => ({ once: yard.once(), id, version });
    expect(refusedWith(await retireReason(admin, { ...ref(1), gone: true }))).toEqual(['reason.last']);
    must(await addReason(admin, { once: yard.once(), does: 'damaged', name: 'Wet' }));
    expect(refusedWith(await changeReason(admin, { ...ref(1), name: 'wet' }))).toEqual(['reason.known']);
    must(await changeReason(admin, { ...ref(1), name: 'Broken' }));
    must(await retireReason(admin, { ...ref(2), gone: true }));
    expect(await yard.db('reason').where({ id }).first('name', 'gone')).toEqual({ name: 'Broken', gone: 1 });
    must(await addReason(admin, { once: yard.once(), does: 'damaged', name: 'Broken' }));
    expect(await yard.db('reason').where({ id }).first('version', 'gone')).toEqual({ version: 4, gone: 0 });
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
    const { needId, order: of } = await dock.ordered(10);
    const [far, near] = [await bin('A-10'), await bin('A-2')];
    must(await dock.take(of, 6, { binId: far }));
    must(await dock.take(of, 4, { binId: near }));
    const shown = await loadDockOrder(yard.db, (await yard.as('storekeeper')).actor, of.number);
    expect(shown?.receipts.map((r) => r.lines.map((l) => l.binId))).toEqual([[near], [far]]);
    const at = { itemId: dock.tube, placeId: 1, jobId: yard.ids.jobs[0] };
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
    const { needId, order: of } = await dock.ordered(10);
    must(await dock.take(of, 10));
    const at = { itemId: dock.tube, placeId: 1, jobId: yard.ids.jobs[0], quantity: q(3) };
    must(await scrapStock(await yard.as('storekeeper'), { once: yard.once(), ...at, reason: 'dropped' }));
    expect(await yard.tab()).toEqual({ planned: 2400, received: 8000 });
    expect(await dock.openOf(needId)).toEqual({ open: q(3), missing: q(3) });
  });
});

describe('an item on order for stores', () => {
  it('that turns out to be no goods is money for what is invoiced, and nothing that stores hold', async () => {
    const itemId = yard.ids.items[1];
    const stock = [{ itemId, supplierId: yard.ids.suppliers[0], quantity: q(10) }];
    await yard.db('supplierPart').insert({ supplierId: yard.ids.suppliers[0], itemId, unit: 'MTR' });
    const drafted = must(await draftOrders(await yard.as('buyer'), { once: yard.once(), picks: [], stock }));
    const draft = await yard.order(drafted.orders[0]?.id ?? 0);
    await yard
      .db('orderLine')
      .where({ orderId: draft.id })
      .update({ price: 80_000 as never });
    const of = await yard.send(draft);
    const { id } = must(await yard.invoice(of, 4));
    must(await yard.match(id, 'paid ahead', 'manager'));
    const ofStores = async () =>
      (
        (await yard.db('posting').whereNull('jobId').groupBy('stage').select('stage').sum({ sum: 'amount' })) as {
          stage: string;
          sum: number;
        }[]
      ).filter((s) => s.sum !== 0);
    const before = await ofStores();
    expect(before.map((s) => s.stage)).not.toContain('actual');
    const item = await yard.db('item').where({ id: itemId }).first();
    const same = { number: 'CA-1', name: 'Cable', unit: 'MTR', version: item?.version ?? 0 };
    must(await saveItem(await yard.as('buyer'), { once: yard.once(), id: itemId, ...same, kind: 'service' }));
    expect((await ofStores()).map((s) => s.stage)).toContain('actual');
  });
});
