import { TestCompany, must, q, refusedWith, TODAY } from '../../../tests/support/company';
import type { Minor } from '@/core/money/money';
import type { Day } from '@/core/calendar/workdays';
import { cancelOrder } from '../orders/ending';
import { changeOrder, draftOrders } from '../orders/orders';
import { orderInput } from '../../../tests/support/typed';
import { reverseReceipt } from '../dock/correcting';
import { choosePlanning, unreserve, planAll, reserve } from '../buying/reserving';
import { countStock, takeCounts } from './counting';
import { issueStock, returnIssue } from './issuing';
import { keepLevel } from './stores';
import { readCountFile } from '@/queries/stores/countFile';
import { listStock, stockFilter, sumStock } from '@/queries/stores/stores';

let yard: TestCompany;
let tube: number;
let own: { itemId: number; placeId: number; jobId: null };

beforeEach(async () => {
  yard = await TestCompany.open();
  tube = yard.ids.items[0];
  own = { itemId: tube, placeId: 1, jobId: null };
});
afterEach(async () => yard.closeProven());

const counting = async (n: number, value: number | null, seen = 0) =>
  countStock(await yard.as('storekeeper'), {
    once: yard.once(),
    ...own,
    seen: q(seen),
    quantity: q(n),
    value: value as Minor | null,
    reason: 'Opening count',
  });

const pile = () => yard.db('stockSum').where({ itemId: tube, jobId: 0 }).first('quantity', 'value');
const need = (quantity: number, job: 0 | 1 = 0, neededOn = '2026-06-10') =>
  yard.need({ item: tube, unit: 'MTR', quantity, price: 10, description: 'Tube', job, neededOn });
const openOf = async (id: number) => (await yard.db('need').where({ id }).first('open', 'missing'))!;
const issue = async (n: number, needId: number) =>
  issueStock(await yard.as('storekeeper'), { once: yard.once(), ...own, to: { needId }, quantity: q(n) });
const reserving = async (needId: number, job: 0 | 1 = 0) =>
  reserve(await yard.as('lead'), { once: yard.once(), jobId: yard.ids.jobs[job], needIds: [needId] });

describe('planning all jobs anew', () => {
  const plan = async () => must(await planAll(await yard.as('lead'), { once: yard.once() }));
  const shortfall = async (job: 0 | 1) => {
    const { version } = (await yard.db('job').where({ id: yard.ids.jobs[job] }).first('version'))!;
    const asked = { jobId: yard.ids.jobs[job], version, planning: 'shortfall' as const };
    must(await choosePlanning(await yard.as('lead'), asked));
  };

  it('gives what there is to what is needed first, whichever job’s, and moves nothing twice', async () => {
    const late = await need(12, 0, '2026-06-20');
    await shortfall(0);
    must(await counting(10, 5000));
    await shortfall(0);
    expect((await openOf(late)).open).toBe(q(2));
    const early = await need(8, 1, '2026-06-01');
    await shortfall(1);
    expect((await openOf(early)).open).toBe(q(8));
    expect(await plan()).toEqual({ lines: 2, moved: 2, jobs: 2 });
    expect([(await openOf(early)).open, (await openOf(late)).open]).toEqual([0, q(10)]);
    expect(await plan()).toEqual({ lines: 2, moved: 0, jobs: 0 });
  });
  it('leaves alone what a person reserved, and jobs that buy in full', async () => {
    must(await counting(10, 5000));
    const firm = await need(6, 0, '2026-06-20');
    must(await reserving(firm));
    const inFull = await need(3, 0, '2026-05-20');
    const other = await need(8, 1, '2026-06-01');
    await shortfall(1);
    await plan();
    expect(await Promise.all([firm, inFull, other].map(async (id) => (await openOf(id)).open))).toEqual([
      0,
      q(3),
      q(4),
    ]);
  });
});

describe('counting', () => {
  it('opens a pile with its value, and puts it right at its average', async () => {
    must(await counting(18, 10_000));
    must(await counting(12, null, 18));
    expect(await pile()).toEqual({ quantity: q(12), value: 6667 });
  });
  it('asks to count again when the pile moved meanwhile', async () => {
    must(await counting(18, 10_000));
    expect(refusedWith(await counting(12, null, 0))).toEqual(['stores.moved']);
  });
  it('takes what is reserved down to what is there', async () => {
    must(await counting(18, 10_000));
    const id = await need(12);
    must(await reserving(id));
    expect(await openOf(id)).toEqual({ open: 0, missing: 0 });
    must(await counting(5, null, 18));
    expect(await openOf(id)).toEqual({ open: q(7), missing: q(7) });
  });
  it('comes from a file, all of it or none', async () => {
    const file = async (...lines: string[]) => {
      const text = ['Item,Count,Value,Level,Reason', ...lines].join('\n');
      const { actor } = await yard.as('storekeeper');
      const read = await readCountFile(yard.db, actor, new TextEncoder().encode(text));
      if (!read.ok) throw new Error(read.refusals[0]?.message);
      return read.value;
    };
    const take = async (rows: Awaited<ReturnType<typeof file>>['taken']) =>
      takeCounts(await yard.as('storekeeper'), { once: yard.once(), rows: [...rows] });
    const { number } = (await yard.db('item').where({ id: tube }).first('number'))!;
    const told = await file(`${number},18,100.00,25,opening`, 'NO-1,1,,,');
    expect(told).toMatchObject({ count: 1, moved: 1, leftCount: 1, counts: [{ number, before: 0, after: q(18) }] });
    must(await take(told.taken));
    expect(await pile()).toEqual({ quantity: q(18), value: 10_000 });
    expect(await yard.db('stockLevel').where({ itemId: tube }).first('keep')).toEqual({ keep: q(25) });
    // What was read before stock moved is not taken over it, nor the rest of the file.
    const stale = await file(`${number},12,,,`);
    const id = await need(3);
    must(await reserving(id));
    must(await issue(3, id));
    const [part] = stale.taken[0]!.parts;
    const other = { ...stale.taken[0]!, itemId: yard.ids.items[1], parts: [{ ...part!, seen: q(0) }] };
    expect(refusedWith(await take([other, stale.taken[0]!]))).toEqual(['stores.moved']);
    expect(await pile()).toEqual({ quantity: q(15), value: 8333 });
    expect(await yard.db('stockSum').where({ itemId: yard.ids.items[1] })).toEqual([]);
  });
  it('keeps a level, and takes it away', async () => {
    const keep = async (n: number) =>
      must(await keepLevel(await yard.as('storekeeper'), { itemId: tube, placeId: 1, keep: q(n) }));
    await keep(20);
    expect(await yard.db('stockLevel').first('keep')).toEqual({ keep: q(20) });
    await keep(0);
    expect(await yard.db('stockLevel').first()).toBeUndefined();
  });
});

describe('reserving', () => {
  it('plans what is reserved at its stores cost, and the rest at the estimate', async () => {
    must(await counting(18, 10_000));
    const id = await need(20);
    expect(await yard.tab()).toEqual({ planned: 20_000 });
    must(await reserving(id));
    // 18 m at their 100.00, and 2 m at 10.00.
    expect(await yard.tab()).toEqual({ planned: 12_000 });
    must(await unreserve(await yard.as('lead'), { jobId: yard.ids.jobs[0], needIds: [id] }));
    expect(await yard.tab()).toEqual({ planned: 20_000 });
  });
  it('leaves to others what they reserved', async () => {
    must(await counting(18, 10_000));
    const [first, second] = [await need(12), await need(12, 1)];
    must(await reserving(first));
    must(await reserving(second, 1));
    expect(await openOf(second)).toEqual({ open: q(6), missing: q(6) });
    expect(refusedWith(await issue(13, first))).toEqual(['stores.reserved']);
  });
  it('has nothing to reserve where nothing is free', async () =>
    expect(refusedWith(await reserving(await need(3)))).toEqual(['stores.none']));
});

describe('issuing', () => {
  it('posts what it cost in stores as actual, and takes it back at the same', async () => {
    must(await counting(18, 10_000));
    const id = await need(6);
    must(await reserving(id));
    const { id: issueId } = must(await issue(6, id));
    expect(await yard.tab()).toEqual({ actual: 3333 });
    expect(await pile()).toEqual({ quantity: q(12), value: 6667 });
    must(
      await returnIssue(await yard.as('storekeeper'), {
        once: yard.once(),
        issueId,
        version: 1,
        quantity: q(2),
        reason: 'not used',
      }),
    );
    // 4 of 6 m stay: 22.22; 2 m are wanted again at 10.00.
    expect(await yard.tab()).toEqual({ actual: 2222, planned: 2000 });
    expect(await pile()).toEqual({ quantity: q(14), value: 7778 });
  });
  it('is charged to a cost code where no line asks for it', async () => {
    must(await counting(4, 4000));
    const to = { jobId: yard.ids.jobs[0], costCodeId: yard.ids.codes[0] };
    must(await issueStock(await yard.as('storekeeper'), { once: yard.once(), ...own, to, quantity: q(4) }));
    expect(await yard.tab()).toEqual({ actual: 4000 });
    expect(await pile()).toEqual({ quantity: 0, value: 0 });
  });
  it('gives out no more than is there, and to no job that is not live', async () => {
    must(await counting(4, 4000));
    const id = await need(6);
    expect(refusedWith(await issue(5, id))).toEqual(['stores.short']);
    await yard.db('job').where({ id: yard.ids.jobs[0] }).update({ state: 'complete' });
    expect(refusedWith(await issue(4, id))).toEqual(['job.state']);
  });
  it('takes what plans only count on', async () => {
    must(await counting(6, 6000));
    const [first, second] = [await need(6), await need(6, 1)];
    const job = { jobId: yard.ids.jobs[0], version: 1, planning: 'shortfall' as const };
    must(await choosePlanning(await yard.as('lead'), job));
    expect(await openOf(first)).toEqual({ open: 0, missing: 0 });
    must(await issue(6, second));
    expect(await openOf(first)).toEqual({ open: q(6), missing: q(6) });
  });
});

describe('what comes for stores', () => {
  /** An order of so many metres for stores, at 12.00. */
  async function ordered(n: number, wantedOn = '2026-05-20') {
    const order = await yard.draft([{ needId: await yard.need({ quantity: 1, price: 12 }), buy: q(1) }]);
    const input = orderInput(order);
    const [line] = input.lines;
    const [part] = line?.splits ?? [];
    const lines = [
      {
        ...line!,
        itemId: tube,
        description: 'Tube',
        quantity: q(n),
        splits: [{ ...part!, jobId: null, costCodeId: null, needId: null, quantity: q(n) }],
      },
    ];
    const ref = { once: yard.once(), orderId: order.id, version: order.version };
    must(await changeOrder(await yard.as('buyer'), { ...input, ...ref, wantedOn, lines }));
    return yard.send(await yard.order(order.id));
  }

  it('lies there at what it cost, and is reserved where it was reserved on order', async () => {
    const order = await ordered(10);
    const id = await need(6);
    must(await reserving(id));
    expect(await openOf(id)).toEqual({ open: 0, missing: q(6) });
    must(await yard.takeIn(order, 4));
    expect(await pile()).toEqual({ quantity: q(4), value: 4800 });
    expect(await openOf(id)).toEqual({ open: 0, missing: q(2) });
    must(await yard.takeIn(order, 6));
    expect(await openOf(id)).toEqual({ open: 0, missing: 0 });
    must(await issue(6, id));
    // The other line that was drafted away is wanted again: 1 m at 12.00.
    expect(await yard.tab()).toEqual({ actual: 7200, planned: 1200 });
  });
  it('does not count when it comes after the day it is needed', async () => {
    await ordered(10, '2026-06-11');
    expect(refusedWith(await reserving(await need(6, 0, '2026-06-10')))).toEqual(['stores.none']);
  });
  it('goes back with its receipt as long as nothing rests on it', async () => {
    const order = await ordered(10);
    must(await yard.takeIn(order, 4));
    const [receipt] = await yard.db('receipt').select('id');
    const back = async () => reverseReceipt(await yard.as('manager'), { once: yard.once(), receiptId: receipt!.id });
    const id = await need(3);
    must(await reserving(id));
    expect(refusedWith(await back())).toEqual(['receipt.stock']);
    must(await unreserve(await yard.as('lead'), { jobId: yard.ids.jobs[0], needIds: [id] }));
    must(await back());
    expect(await pile()).toEqual({ quantity: 0, value: 0 });
  });
  it('is let go when its order is cancelled', async () => {
    const order = await ordered(10);
    const id = await need(6);
    must(await reserving(id));
    const ref = { once: yard.once(), orderId: order.id, version: order.version };
    must(await cancelOrder(await yard.as('buyer'), { ...ref, reason: 'no use' }));
    expect(await openOf(id)).toEqual({ open: q(6), missing: q(6) });
    expect(await yard.db('reservation').first()).toBeUndefined();
  });
});

it('a plan of the shortfall counts stores for one job only', async () => {
  must(await counting(10, 10_000));
  const [late, soon] = [await need(8, 0, '2026-07-01'), await need(8, 1, '2026-06-01')];
  const plan = async (job: 0 | 1, version: number, planning: 'inFull' | 'shortfall', day: Day = TODAY) =>
    choosePlanning(await yard.as('lead', day), { jobId: yard.ids.jobs[job], version, planning });
  must(await plan(1, 1, 'shortfall'));
  must(await plan(0, 1, 'shortfall'));
  expect([await openOf(soon), await openOf(late)].map((n) => n.open)).toEqual([0, q(6)]);
  expect(refusedWith(await plan(0, 1, 'inFull'))).toEqual(['clash']);
  must(await plan(1, 2, 'inFull'));
  must(await plan(0, 2, 'shortfall'));
  expect([await openOf(soon), await openOf(late)].map((n) => n.open)).toEqual([q(8), 0]);
});

it('what nothing went out of for long is slow, and what of it is left is worth what it was', async () => {
  const { db } = yard;
  const keeper = await yard.as('storekeeper', '2025-06-01' as Day);
  const said = { seen: q(0), quantity: q(10), value: 5000 as Minor, reason: 'Opening count' };
  must(await countStock(keeper, { once: yard.once(), ...own, ...said }));
  const slow = async (show: string, today: string) => {
    const filter = stockFilter({ show }, today as Day);
    const rows = (await listStock(db, keeper.actor, filter)).rows;
    return rows.map((r) => [r.id, r.lastOut]);
  };
  expect(await slow('slow', '2025-09-01')).toEqual([]);
  expect(await slow('slow', '2026-03-01')).toEqual([[tube, null]]);
  expect(await slow('dead', '2026-03-01')).toEqual([]);
  const to = { jobId: yard.ids.jobs[0], costCodeId: yard.ids.codes[0] };
  must(
    await issueStock(await yard.as('storekeeper', '2026-02-01' as Day), {
      once: yard.once(),
      ...own,
      to,
      quantity: q(1),
    }),
  );
  expect(await slow('slow', '2026-03-01')).toEqual([]);
  expect(await slow('slow', '2026-09-01')).toEqual([[tube, '2026-02-01']]);
  const sum = await sumStock(db, (await yard.as('manager')).actor, stockFilter({ show: 'slow' }, '2026-09-01' as Day));
  expect(sum.sums.value?.map((v) => v.amount)).toEqual([4500]);
});

it('a file of opening counts brings serial numbers and lots, all of them or none', async () => {
  await yard.db('item').where({ id: tube }).update({ tracking: 'serial', unit: 'C62' });
  const { number } = (await yard.db('item').where({ id: tube }).first('number'))!;
  const file = (rows: string) => Buffer.from(`Item,Serial number,Quantity,Value\n${rows}`);
  const keeper = await yard.as('manager');
  const read = await readCountFile(yard.db, keeper.actor, file(`${number},SN-1,1,40\n${number},SN-2,1,60`));
  if (!read.ok) throw new Error('not read');
  must(await takeCounts(keeper, { once: yard.once(), rows: [...read.value.taken] }));
  expect(await pile()).toEqual({ quantity: q(2), value: 10_000 });
  const lots = await yard
    .db('stockSpot as s')
    .join('lot as l', 'l.id', 's.lotId')
    .orderBy('l.number')
    .select('l.number');
  expect(lots).toEqual([{ number: 'SN-1' }, { number: 'SN-2' }]);
});

it('what is below its minimum is ordered up to it, less what is drafted and on order already', async () => {
  await yard.db('item').where({ id: tube }).update({ stocked: 1, supplierId: yard.ids.suppliers[0] });
  const keeper = await yard.as('storekeeper');
  must(await keepLevel(keeper, { itemId: tube, placeId: 1, keep: q(30) }));
  const low = async () =>
    (await listStock(yard.db, keeper.actor, stockFilter({ show: 'low' }, TODAY))).rows.find((r) => r.id === tube);
  const before = await low();
  expect(before?.supplierId).toBe(yard.ids.suppliers[0]);
  const stock = [{ itemId: tube, supplierId: yard.ids.suppliers[0], quantity: q(12) }];
  must(await draftOrders(await yard.as('buyer'), { once: yard.once(), picks: [], stock }));
  const after = await low();
  expect([before?.toOrder, after?.toOrder]).toEqual([before?.below, q((before?.below ?? 0) / 10_000 - 12)]);
  // It is not on order before it is sent.
  expect(after?.coming).toBe(0);
});
