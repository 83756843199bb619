import fc from 'fast-check';
import { reserve } from '@/actions/buying/reserving';
import { closeShort } from '@/actions/orders/ending';
import { draftOrders } from '@/actions/orders/orders';
import type { Day } from '@/core/calendar/workdays';
import type { Minor } from '@/core/money/money';
import { headroomOf } from '@/core/tab/sums';
import { insertMany, insertOne } from '@/store/rows';
import { must, q, TestCompany, TODAY } from '../../tests/support/company';
import { times } from '../../tests/support/proof';
import type { NamedEffect } from '@/workings/orders/effects';
import { loadInvoice } from './invoices/invoices';
import { loadLevels } from '@/store/levels';
import { previewEnding } from './orders/ending';
import { loadOrder } from './orders/order';

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
});
afterEach(() => yard.closeProven());

const buyer = async () => (await yard.as('buyer')).actor;
const invoiceEffects = async (id: number) => (await loadInvoice(yard.db, await buyer(), id))?.effects ?? [];

/** What the ledger says now of the accounts that effects speak of. */
async function ledger(told: readonly NamedEffect[]) {
  const levels = await loadLevels(yard.db, yard.ids.jobs);
  return told.map((e) => {
    const now = levels.find((l) => l.jobId === e.jobId && l.costCodeId === e.costCodeId);
    return { budget: now?.budget, amounts: now?.amounts };
  });
}

/** An order for two jobs: some in, perhaps the rest closed short, and an invoice that waits to be matched. */
async function invoiceWaits({
  arrived,
  invoiced,
  price,
  short,
  total = 1,
}: {
  arrived: number;
  invoiced: number;
  price: number;
  short: boolean;
  /** What the paper says; by itself it differs from the lines. */
  total?: number;
}) {
  const picks = [
    { needId: await yard.need({ job: 0, quantity: 7, item: yard.ids.items[0] }), buy: q(7) },
    { needId: await yard.need({ job: 1, quantity: 5, item: yard.ids.items[0] }), buy: q(5) },
  ];
  const order = await yard.send(await yard.draft(picks));
  if (arrived > 0) must(await yard.takeIn(order, arrived));
  if (short) {
    const { version } = await yard.order(order.id);
    const line = { once: yard.once(), orderId: order.id, version, lineId: order.lines[0]?.id ?? 0, reason: 'no more' };
    must(await closeShort(await yard.as('buyer'), line));
  }
  const invoice = { typedTotal: total as Minor, lines: [yard.invoiced(order, invoiced, price)] };
  return { order, ...must(await yard.invoice(order, invoiced, invoice)) };
}

describe('what matching an invoice would do', () => {
  it('is what it then does, however much came, is invoiced, and at what price', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.record({
          arrived: fc.integer({ min: 0, max: 12 }),
          invoiced: fc.integer({ min: 1, max: 15 }),
          price: fc.integer({ min: 1, max: 2000 }).map((p) => p / 100),
          short: fc.boolean(),
        }),
        async (scene) => {
          const { id } = await invoiceWaits(scene.arrived === 12 ? { ...scene, short: false } : scene);
          const told = await invoiceEffects(id);
          expect(await ledger(told)).toEqual(told.map((e) => e.before));
          must(await yard.match(id, 'passed'));
          expect(await ledger(told)).toEqual(told.map((e) => e.after));
        },
      ),
      { numRuns: times(8, 25) },
    );
  });

  it('moves received to actual, with the difference in price, job by job', async () => {
    const { id } = await invoiceWaits({ arrived: 12, invoiced: 12, price: 8.5, short: false, total: 12_240 });
    const told = (await invoiceEffects(id)).map((e) => [
      e.job,
      e.before.amounts.received,
      e.after.amounts.received,
      e.after.amounts.actual,
      headroomOf(e.after) - headroomOf(e.before),
    ]);
    expect(told).toEqual([
      ['412', 5600, 0, 5950, -350],
      ['418', 4000, 0, 4250, -250],
    ]);
  });

  it('is over once it is matched: the budgets are told as they stand', async () => {
    const { id } = await invoiceWaits({ arrived: 12, invoiced: 12, price: 8, short: false });
    must(await yard.match(id, 'passed'));
    const told = await invoiceEffects(id);
    expect(told.map((e) => `${e.job} ${e.code}`)).toEqual(['412 02', '412 09', '418 02', '418 09']);
    expect(told.map((e) => e.before)).toEqual(told.map((e) => e.after));
    expect(await ledger(told)).toEqual(told.map((e) => e.after));
  });
});

describe('a job that reserved of what an order brings for stores', () => {
  /** Ten metres for stores at 12.00, six of them reserved for a need that would cost 10.00 a metre to buy. */
  async function reserved() {
    const [itemId] = yard.ids.items;
    const [supplierId] = yard.ids.suppliers;
    const partId = await insertOne(yard.db, 'supplierPart', { supplierId, itemId, unit: 'MTR' });
    await yard.db('item').where({ id: itemId }).update({ stocked: 1 });
    await insertMany(yard.db, 'priceBreak', [{ partId, fromQuantity: 0, price: 120_000 }]);
    const buyer = await yard.as('buyer');
    const stock = [{ itemId, supplierId, quantity: q(10) }];
    must(await draftOrders(buyer, { once: yard.once(), picks: [], stock, into: [] }));
    const { id } = (await yard.db('purchaseOrder').orderBy('id', 'desc').first('id'))!;
    await yard
      .db('purchaseOrder')
      .where({ id })
      .update({ wantedOn: '2026-05-20' as Day });
    const order = await yard.send(await yard.order(id));
    const needId = await yard.need({ item: itemId, quantity: 6, price: 10, neededOn: '2026-07-01' });
    must(await reserve(await yard.as('lead'), { once: yard.once(), jobId: yard.ids.jobs[0], needIds: [needId] }));
    return order;
  }
  const planned = (told: readonly NamedEffect[] | undefined) =>
    told?.map((e) => [e.job, e.before.amounts.planned, e.after.amounts.planned]);
  const ending = async (order: { id: number; number: string }) => {
    const { version, lines } = await yard.order(order.id);
    return { once: yard.once(), orderId: order.id, version, lineId: lines[0]?.id ?? 0, reason: 'no more' };
  };

  it('is told what it has to buy instead when the line is closed short, or the order cancelled', async () => {
    const order = await reserved();
    const { actor } = await yard.as('buyer');
    const asked = { lineId: null };
    const told = await previewEnding(yard.db, actor, order.number, { what: 'closeShort', ...asked });
    expect(planned(told)).toEqual([['412', 7200, 6000]]);
    expect(await previewEnding(yard.db, actor, order.number, { what: 'cancel', ...asked })).toEqual(told);
    must(await closeShort(await yard.as('buyer'), await ending(order)));
    expect(await ledger(told ?? [])).toEqual(told?.map((e) => e.after));
  });

  it('is told what its pieces cost by an invoice that differs', async () => {
    const order = await reserved();
    must(await yard.takeIn(order, 10));
    const { id } = must(await yard.invoice(order, 10, { lines: [yard.invoiced(order, 10, 15)] }));
    const told = await invoiceEffects(id);
    expect(planned(told)).toEqual([['412', 7200, 9000]]);
    must(await yard.match(id, 'passed'));
    expect(await ledger(told)).toEqual(told.map((e) => e.after));
  });
});

describe('an order’s page', () => {
  it('tells what a draft does to the budgets, and how they stand once it is sent', async () => {
    await yard.budget(10_000);
    const draft = await yard.draft([{ needId: await yard.need({ supplier: 1 }), buy: q(12) }]);
    const machinery = async () => {
      const view = await loadOrder(yard.db, await buyer(), draft.number, TODAY);
      const effect = view?.effects.find((e) => e.code === '02');
      return [effect?.before, effect?.after].map(
        (l) => l && [l.amounts.planned, l.amounts.drafted, l.amounts.onOrder, headroomOf(l)],
      );
    };
    expect(await machinery()).toEqual([
      [9600, 0, 0, 400],
      [0, 9600, 0, 400],
    ]);
    await yard.send(draft);
    expect(await machinery()).toEqual([
      [0, 0, 9600, 400],
      [0, 0, 9600, 400],
    ]);
  });

  it('checks each line against the lead time of its own part', async () => {
    await insertOne(yard.db, 'supplierPart', {
      supplierId: yard.ids.suppliers[0],
      itemId: yard.ids.items[0],
      unit: 'MTR',
      leadDays: 20,
    });
    const neededOn = '2026-05-22';
    const order = await yard.draft([
      { needId: await yard.need({ item: yard.ids.items[0], neededOn }), buy: q(12) },
      { needId: await yard.need({ neededOn }), buy: q(12) },
    ]);
    const checked = async (today: string) =>
      (await loadOrder(yard.db, await buyer(), order.number, today as Day))?.checks.map((c) => c.words);
    expect(await checked('2026-05-12')).toContain('Tube: required date is inside the 20-working-day lead time');
    expect(await checked('2026-04-20')).toContain('All required dates allow for lead time');
    await yard.send(order);
    expect(await checked('2026-05-12')).toEqual([]);
  });
});
