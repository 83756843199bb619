import { TestCompany, must, q, refusedWith } from '../../../tests/support/company';
import { numbered } from '../../../tests/support/dock';
import type { Minor } from '@/core/money/money';
import { belowMinimum, freeOf, toFillUp } from '@/core/stores/claims';
import { loadFreeStock } from '@/store/stock/piles';
import { loadStock } from '@/queries/stores/stock';
import { listStock } from '@/queries/stores/stores';
import { listToPick, loadPicking, loadPickPaper } from '@/queries/stores/picking';
import { addBin } from './bins';
import { countStock } from './counting';
import { issuePicked } from './issuing';
import { moveStock } from './moving';
import { receive } from '../dock/receiving';
import { unreserve, reserve } from '../buying/reserving';
import { reserveSome, allocateByDate } from './allocating';

let yard: TestCompany;
let tube: number;
let pump: number;

beforeEach(async () => {
  yard = await TestCompany.open();
  await yard.db('supplier').update({ carriage: 0 as never });
  [tube, pump] = [yard.ids.items[0], yard.ids.items[1]];
  await yard.db('item').where({ id: pump }).update({ tracking: 'serial', unit: 'C62' });
});
afterEach(async () => yard.closeProven());

const keeper = () => yard.as('storekeeper');
const need = (n: number, job: 0 | 1 = 0, neededOn = '2026-06-10', more = {}) =>
  yard.need({ item: tube, unit: 'MTR', quantity: n, price: 10, description: 'Tube', job, neededOn, ...more });
const pumps = (n: number) => need(n, 0, '2026-06-01', { item: pump, unit: 'C62', description: 'Pump' });

async function opening(itemId: number, n: number, value: number, numbers: readonly string[] = []) {
  const said = { seen: q(0), quantity: q(n), value: value as Minor, reason: 'Opening', numbers: numbered(...numbers) };
  must(await countStock(await keeper(), { once: yard.once(), itemId, placeId: 1, jobId: null, ...said }));
}

const reserving = async (needId: number, n: number, itemId = tube, jobId: number | null = null) =>
  reserveSome(await keeper(), { once: yard.once(), needId, itemId, placeId: 1, jobId, quantity: q(n) });
const list = async () => {
  const { db, actor } = await keeper();
  const [job] = await db('job').where({ id: yard.ids.jobs[0] });
  return (await loadPicking(db, actor, job?.number ?? ''))!;
};
const putBy = async (needId: number) =>
  (await yard.db('reservation').where({ needId }).whereNotNull('placeId')).reduce((sum, r) => sum + r.quantity, 0);
type Line = Parameters<typeof issuePicked>[1]['lines'][number];
const issuing = async (...lines: readonly Line[]) =>
  issuePicked(await keeper(), { once: yard.once(), jobId: yard.ids.jobs[0], lines: [...lines] });
const lineOf = (needId: number, itemId: number, n: number, more: Partial<Line> = {}): Line => ({
  ...{ needId, itemId, placeId: 1, ownerId: null, quantity: q(n), numbers: [] },
  ...more,
});

describe('a picking list', () => {
  it('walks by the bins, has what is put by and what is the job’s own, and leaves out what others have', async () => {
    const admin = await yard.as('administrator');
    const bins = [];
    for (const name of ['A10', 'A2']) bins.push(must(await addBin(admin, { once: yard.once(), placeId: 1, name })).id);
    await opening(tube, 20, 10_000);
    await opening(pump, 3, 9000, ['P-1', 'P-2', 'P-3']);
    for (const [k, n] of [8, 12].entries()) {
      const way = { itemId: tube, placeId: 1, jobId: null, binId: null, toPlaceId: 1, toBinId: bins[k] ?? 0 };
      must(await moveStock(await keeper(), { once: yard.once(), ...way, quantity: q(n) }));
    }
    const own = await need(4);
    const order = await yard.send(await yard.draft([{ needId: own, buy: q(4) }]));
    const { version, lines } = await yard.order(order.id);
    const arrivals = [{ lineId: lines[0]?.id ?? 0, arrives: q(4), keepOver: false }];
    must(await receive(await keeper(), { once: yard.once(), orderId: order.id, version, note: '', arrivals }));
    const [fromStores, two, others] = [await need(14), await pumps(2), await need(5, 1)];
    must(await reserving(fromStores, 14));
    must(await reserving(two, 2, pump));
    must(await reserving(others, 5));
    const { rows } = await list();
    expect(rows.map((r) => [r.needId, r.ownerId, r.wanted, r.from, r.numbers])).toEqual([
      [two, null, q(2), '', ['P-1', 'P-2', 'P-3']],
      [own, yard.ids.jobs[0], q(4), '', []],
      [fromStores, null, q(14), 'A2: 12, A10: 2', []],
    ]);
    const { db, actor } = await keeper();
    const paper = await loadPickPaper(db, actor, (await list()).job.number, '2026-05-12' as never);
    expect(paper?.lines.map((l) => [l.quantity, l.boxes])).toEqual([
      ['2', 2],
      ['4 m', 0],
      ['14 m', 0],
    ]);
    expect((await listToPick(db, actor, { most: 9 })).rows.map((j) => j.lines)).toEqual([2, 1]);
  });

  it('is issued in one step, each line at its cost on its own cost code, and is gone then', async () => {
    await opening(tube, 20, 10_000);
    await opening(pump, 3, 9000, ['P-1', 'P-2', 'P-3']);
    const [four, two] = [await need(4), await pumps(2)];
    must(await reserving(four, 4));
    must(await reserving(two, 2, pump));
    must(await issuing(lineOf(four, tube, 4), lineOf(two, pump, 2, { numbers: numbered('P-3', 'P-1') })));
    expect((await list()).rows).toEqual([]);
    const issues = await yard.db('issue').orderBy('id').select('needId', 'quantity', 'value');
    expect(issues).toEqual([
      { needId: four, quantity: q(4), value: 2000 },
      { needId: two, quantity: q(2), value: 6000 },
    ]);
    const left = await yard.db('stockSpot as s').join('lot as l', 'l.id', 's.lotId').where('s.quantity', '>', 0);
    expect(left.map((l) => (l as unknown as { number: string }).number)).toEqual(['P-2']);
    expect(await yard.db('audit').where({ action: 'issuePicked' }).count({ n: '*' })).toEqual([{ n: 1 }]);
  });

  it('counts in the unit of the item what a line wants in its own', async () => {
    await opening(tube, 6, 3000);
    const needId = await need(2500, 0, '2026-06-01', { unit: 'MMT', price: 0.01 });
    must(await reserving(needId, 2.5));
    const [row] = (await list()).rows;
    expect([row?.unit, row?.wanted]).toEqual(['MTR', q(2.5)]);
    must(await issuing(lineOf(needId, tube, 2)));
    expect((await list()).rows.map((r) => r.wanted)).toEqual([q(0.5)]);
    must(await issuing(lineOf(needId, tube, 0.5)));
    expect(await yard.db('need').where({ id: needId }).first('open', 'missing')).toEqual({ open: 0, missing: 0 });
    expect((await yard.db('issue').where({ needId }).sum({ v: 'value' }))[0]).toEqual({ v: 1250 });
  });

  it('is issued whole or not at all', async () => {
    await opening(tube, 20, 10_000);
    await opening(pump, 1, 3000, ['P-1']);
    const [four, two] = [await need(4), await pumps(2)];
    expect(
      refusedWith(await issuing(lineOf(four, tube, 4), lineOf(two, pump, 2, { numbers: numbered('P-1', 'P-9') }))),
    ).toEqual(['stores.short']);
    expect(refusedWith(await issuing(lineOf(four, tube, 4), lineOf(two, pump, 1)))).toEqual(['numbers.many']);
    expect(await yard.db('issue').count({ n: '*' })).toEqual([{ n: 0 }]);
    expect(refusedWith(await issuing())).toEqual(['pick.none']);
  });

  it('gives no line of another job, and nothing that another reserved', async () => {
    await opening(tube, 10, 5000);
    const [mine, theirs] = [await need(8), await need(6, 1)];
    must(await reserving(theirs, 6));
    expect(refusedWith(await issuing(lineOf(theirs, tube, 1)))).toEqual(['need.job']);
    expect(refusedWith(await issuing(lineOf(mine, tube, 5)))).toEqual(['stores.reserved']);
    must(await issuing(lineOf(mine, tube, 4)));
    expect(await putBy(theirs)).toBe(q(6));
  });

  it('issues what is on it once, whoever sends it at the same time', async () => {
    await opening(tube, 10, 5000);
    const mine = await need(8);
    const [once, sender] = [yard.once(), await keeper()];
    const send = () => issuePicked(sender, { once, jobId: yard.ids.jobs[0], lines: [lineOf(mine, tube, 5)] });
    await Promise.all([send(), send(), send()]);
    expect((await yard.db('stockSum').where({ itemId: tube, jobId: 0 }).first('quantity'))?.quantity).toBe(q(5));
  });

  it('gives out no more than is there when ten send it at once', async () => {
    await opening(tube, 10, 5000);
    const needs = [];
    for (let k = 0; k < 10; k += 1) needs.push(await need(3));
    const outcomes = await Promise.all(needs.map((id) => issuing(lineOf(id, tube, 3))));
    expect(outcomes.filter((o) => o.status === 'done').length).toBe(3);
    expect(outcomes.filter((o) => o.status === 'refused').length).toBe(7);
    expect(await yard.db('stockSum').where({ itemId: tube, jobId: 0 }).first('quantity', 'value')).toEqual({
      quantity: q(1),
      value: 500,
    });
  });
});

describe('what pieces with serial numbers are said to be worth', () => {
  const recount = async (seen: number, numbers: readonly string[], value: number | null) => {
    const said = {
      seen: q(seen),
      quantity: q(numbers.length),
      value: value as Minor,
      reason: 'Valued',
      numbers: numbered(...numbers),
    };
    must(await countStock(await keeper(), { once: yard.once(), itemId: pump, placeId: 1, jobId: null, ...said }));
  };
  const issueOne = async (number: string) => {
    const needId = await pumps(1);
    must(await issuing(lineOf(needId, pump, 1, { numbers: numbered(number) })));
    return (await yard.db('issue').where({ needId }).first('value'))?.value;
  };

  it('is shared among them, and among all anew when none was found', async () => {
    await opening(pump, 3, 10_000, ['P-1', 'P-2', 'P-3']);
    expect(await issueOne('P-2')).toBe(3333);
    await recount(2, ['P-1', 'P-3'], 5000);
    expect([await issueOne('P-3'), await issueOne('P-1')]).toEqual([2500, 2500]);
  });

  it('is what the found ones bear beside what the others cost', async () => {
    await opening(pump, 2, 4000, ['P-1', 'P-2']);
    await recount(2, ['P-1', 'P-2', 'P-3'], 7000);
    expect([await issueOne('P-3'), await issueOne('P-1')]).toEqual([3000, 2000]);
    await recount(1, ['P-2', 'P-4'], 1000);
    expect([await issueOne('P-4'), await issueOne('P-2')]).toEqual([500, 500]);
  });
});

describe('what is short', () => {
  it('is shared by hand: let go for one, reserved for another, never more than is free or wanted', async () => {
    await opening(tube, 10, 5000);
    const [first, second] = [await need(8, 0, '2026-06-01'), await need(6, 1, '2026-06-20')];
    must(await reserve(await keeper(), { once: yard.once(), jobId: yard.ids.jobs[0], needIds: [first] }));
    expect(refusedWith(await reserving(second, 3))).toEqual(['stores.reserved']);
    must(await unreserve(await keeper(), { jobId: yard.ids.jobs[0], needIds: [first] }));
    expect(refusedWith(await reserving(second, 7))).toEqual(['need.less']);
    must(await reserving(second, 6));
    must(await reserving(first, 4));
    expect([await putBy(first), await putBy(second)]).toEqual([q(4), q(6)]);
    expect(refusedWith(await reserving(first, 1, pump))).toEqual(['stores.item']);
  });

  it('is shared by date, whoever had it before', async () => {
    await opening(tube, 10, 5000);
    const [late, soon] = [await need(8, 0, '2026-06-20'), await need(6, 1, '2026-06-01')];
    must(await reserving(late, 8));
    must(await allocateByDate(await keeper(), { once: yard.once(), itemId: tube }));
    expect([await putBy(soon), await putBy(late)]).toEqual([q(6), q(4)]);
    expect(refusedWith(await allocateByDate(await keeper(), { once: yard.once(), itemId: pump }))).toEqual([
      'stores.none',
    ]);
  });
});

describe('what is free', () => {
  it('is told by SQL as the core tells it, whoever has a claim on what', async () => {
    const [a, b] = [await need(3), await need(4, 1)];
    await opening(tube, 20, 10_000);
    must(await reserving(a, 2));
    must(await reserving(b, 4));
    const { db } = yard;
    // Some of it is a job's own, with a claim of that job on it, and one is on an order still.
    await db('stockSum').insert({
      itemId: tube,
      placeId: 1,
      jobId: yard.ids.jobs[0],
      quantity: q(5),
      value: 0,
    } as never);
    await db('reservation').insert({
      needId: a,
      itemId: tube,
      placeId: 1,
      jobId: yard.ids.jobs[0],
      quantity: q(1),
      share: q(1),
      firm: 0,
    } as never);
    const [pile] = await db('stockSum').where({ itemId: tube, jobId: 0 });
    const claims = await db('reservation').where({ itemId: tube, jobId: null }).whereNotNull('placeId');
    const free = freeOf(
      pile?.quantity ?? q(0),
      claims.map((c) => c.quantity),
    );
    expect(free).toBe(q(14));
    expect((await loadFreeStock(db, [tube, pump])).get(tube)).toBe(free);
    expect((await loadFreeStock(db, [pump])).get(pump)).toBe(q(0));
    await db('stockLevel').insert({ itemId: tube, placeId: 1, keep: q(20) } as never);
    const row = (await listStock(db, (await keeper()).actor, { low: true })).rows.find((r) => r.id === tube);
    expect(row).toMatchObject({ onHand: q(20), reserved: q(6), free, below: belowMinimum({ free, keep: q(20) }) });
    const view = await loadStock(db, (await keeper()).actor, tube);
    expect(view).toMatchObject({ onHand: q(20), reserved: q(6), free });
    expect(toFillUp({ free, keep: q(20) }, q(2))).toBe(q(4));
    await db('stockSum').where({ jobId: yard.ids.jobs[0] }).delete();
    await db('reservation').where({ jobId: yard.ids.jobs[0] }).delete();
    await db('stockLevel').delete();
  });
});

describe('the jobs to pick for', () => {
  it('are those whose picking list has something on it', async () => {
    const needId = await need(3);
    await yard.db('item').where({ id: tube }).update({ stocked: 0 });
    const order = await yard.send(await yard.draft([{ needId, buy: q(3) }]));
    const { version, lines } = await yard.order(order.id);
    const arrivals = [{ lineId: lines[0]?.id ?? 0, arrives: q(4), keepOver: true }];
    must(await receive(await keeper(), { once: yard.once(), orderId: order.id, version, note: '', arrivals }));
    const jobs = async () => (await listToPick(yard.db, (await keeper()).actor, { most: 9 })).count;
    expect([await jobs(), (await list()).rows.length]).toEqual([1, 1]);
    must(await issuing(lineOf(needId, tube, 3, { ownerId: yard.ids.jobs[0] })));
    // One more came than was wanted: it is the job's, and no line wants it.
    expect([await jobs(), (await list()).rows.length]).toEqual([0, 0]);
  });
});
