import { TestCompany, must, q, refusedWith, TODAY } from '../../../tests/support/company';
import type { Day } from '@/core/calendar/workdays';
import type { UnitPrice } from '@/core/money/money';
import { loadAhead, loadPlanChanges } from '@/queries/buying/planAhead';
import { loadPlanView } from '@/queries/buying/plan';
import { insertOne } from '@/store/rows';
import { readBomFile } from '@/queries/items/boms';
import { importBoms, changeBranch, removeBom, saveBom } from '../items/boms';
import { chooseWork, leaveOut, planFromBom, acceptPlanChanges } from './planning';
import { choosePlanning } from './reserving';
import { countStock } from '../stores/counting';

let yard: TestCompany;
let ladder: number;
let stringer: number;
let tube: number;
let tread: number;

type Line = Parameters<typeof saveBom>[1]['lines'][number];

const line = (itemId: number | null, quantity: number, change: Partial<Line> = {}): Line => ({
  gotBy: 'bought',
  itemId,
  description: `Part ${itemId}`,
  quantity: q(quantity),
  unit: 'MTR',
  per: 'piece',
  scrap: 0,
  offsetDays: 0,
  offsetFrom: 'start',
  costCodeId: null,
  price: (10 * 10_000) as UnitPrice,
  ...change,
});

const writing = async (itemId: number, lines: Line[], change: Partial<Parameters<typeof saveBom>[1]> = {}) =>
  saveBom(await yard.as('lead'), {
    once: yard.once(),
    ...{ itemId, bomId: null, version: 0, fromDay: '2026-01-05', note: '', makingDays: 2, lines },
    ...change,
  });

beforeEach(async () => {
  yard = await TestCompany.open();
  [tube] = yard.ids.items;
  const code = yard.ids.codes[0];
  ladder = await insertOne(yard.db, 'item', { number: 'LADDER', name: 'Ladder', unit: 'C62' });
  stringer = await insertOne(yard.db, 'item', { number: 'STR', name: 'Stringer pair', unit: 'C62' });
  tread = await insertOne(yard.db, 'item', { number: 'TREAD', name: 'Tread', unit: 'C62', costCodeId: code });
  await yard.db('item').where({ id: tube }).update({ costCodeId: code, supplierId: yard.ids.suppliers[0] });
  await yard
    .db('job')
    .where({ id: yard.ids.jobs[0] })
    .update({ startsOn: '2026-06-01' as Day, dueOn: '2026-06-30' as Day });
  must(await writing(stringer, [line(tube, 4.8, { scrap: 300 })]));
  must(
    await writing(ladder, [
      line(stringer, 1, { gotBy: 'made', unit: 'C62', offsetDays: 5 }),
      line(tread, 6, { unit: 'C62', price: 20_000 as UnitPrice }),
      line(null, 3, { gotBy: 'labour', unit: 'HUR', description: 'Welding' }),
    ]),
  );
});
afterEach(async () => yard.closeProven());

describe('a branch of a tree', () => {
  const bomOf = async (itemId: number) => (await yard.db('bom').where({ itemId }).first('id', 'version'))!;
  const lines = async (bomId: number) => yard.db('bomLine').where({ bomId }).orderBy('place');
  const change = async (itemId: number, lineId: number | null, changed: Line | null) => {
    const { id: bomId, version: at } = await bomOf(itemId);
    const input = { once: yard.once(), bomId, version: at, lineId, line: changed };
    return changeBranch(await yard.as('lead'), input);
  };

  it('is changed, put on and taken off in the BOM that it stands in', async () => {
    const { id } = await bomOf(stringer);
    const [first] = await lines(id);
    must(await change(stringer, first!.id, line(tube, 5)));
    must(await change(stringer, null, line(tread, 2, { unit: 'C62' })));
    expect((await lines(id)).map((l) => [l.id === first!.id, l.itemId, l.quantity])).toEqual([
      [true, tube, q(5)],
      [false, tread, q(2)],
    ]);
    must(await change(stringer, first!.id, null));
    expect((await lines(id)).map((l) => l.itemId)).toEqual([tread]);
    expect((await bomOf(stringer)).version).toBe(4);
  });
  it('never leaves a BOM empty, in a loop, or over another’s change', async () => {
    const { id, version: at } = await bomOf(stringer);
    const [first] = await lines(id);
    expect(refusedWith(await change(stringer, first!.id, null))).toEqual(['bom.empty']);
    expect(refusedWith(await change(stringer, 999, line(tube, 1)))).toEqual(['missing']);
    const loop = line(ladder, 1, { gotBy: 'made', unit: 'C62' });
    expect(refusedWith(await change(stringer, null, loop))).toEqual(['bom.loop']);
    must(await change(stringer, first!.id, line(tube, 5)));
    const late = { once: yard.once(), bomId: id, version: at, lineId: first!.id, line: line(tube, 6) };
    expect(await changeBranch(await yard.as('lead'), late)).toMatchObject({ status: 'clash' });
  });
});

const job = () => yard.ids.jobs[0];
const version = async () => (await yard.db('job').where({ id: job() }).first('version'))!.version;
const taking = async (n: number) =>
  planFromBom(await yard.as('lead'), {
    once: yard.once(),
    ...{ jobId: job(), version: await version(), itemId: ladder, quantity: q(n), codeId: null },
  });
const needs = () =>
  yard.db('need').where({ jobId: job() }).orderBy('id').select('itemId', 'quantity', 'neededOn', 'open', 'price');
const lineOf = async (description: string) =>
  (await yard.db('planLine').where({ jobId: job(), description }).first('id'))!.id;

describe('a job takes a BOM', () => {
  it('and every bought branch of it is on the buy list, for the day it is needed', async () => {
    expect(must(await taking(10))).toEqual({ lines: 2 });
    expect(await needs()).toEqual([
      // 10 × 4.8 m with 3 % lost, for the stringers that are needed 5 days after 1 June and take 2 to make.
      { itemId: tube, quantity: q(49.44), open: q(49.44), neededOn: '2026-06-04', price: 100_000 },
      { itemId: tread, quantity: q(60), open: q(60), neededOn: '2026-06-01', price: 20_000 },
    ]);
    expect(await yard.tab()).toEqual({ planned: 49_440 + 12_000 });
  });
  it('once only, and only a BOM that there is', async () => {
    must(await taking(10));
    expect(refusedWith(await taking(5))).toEqual(['plan.twice']);
    const of = { jobId: job(), version: await version(), quantity: q(1), codeId: null };
    expect(refusedWith(await planFromBom(await yard.as('lead'), { once: yard.once(), ...of, itemId: tread }))).toEqual([
      'plan.bom',
    ]);
  });
  it('not when somebody else planned it meanwhile, nor for a job that is not live', async () => {
    const input = { jobId: job(), version: 1, itemId: ladder, quantity: q(2), codeId: null };
    must(await planFromBom(await yard.as('lead'), { once: yard.once(), ...input }));
    expect(refusedWith(await planFromBom(await yard.as('lead'), { once: yard.once(), ...input }))).toEqual(['clash']);
    await yard.db('job').where({ id: job() }).update({ state: 'quoted' });
    expect(refusedWith(await taking(1))).toEqual(['job.state']);
  });
  it('asks for a cost code where a part has none', async () => {
    await yard.db('item').where({ id: tread }).update({ costCodeId: null });
    expect(refusedWith(await taking(10))).toEqual(['need.code']);
    const input = { jobId: job(), version: 1, itemId: ladder, quantity: q(2), codeId: yard.ids.codes[2] };
    must(await planFromBom(await yard.as('lead'), { once: yard.once(), ...input }));
  });
  it('keeps the BOM it was planned by', async () => {
    must(await taking(1));
    const [bom] = await yard.db('bom').where({ itemId: ladder });
    expect(refusedWith(await removeBom(await yard.as('lead'), { bomId: bom!.id, version: 1 }))).toEqual(['bom.used']);
  });
});

describe('parts of a plan', () => {
  beforeEach(async () => void must(await taking(10)));
  const leaving = async (description: string, reason: string | null) =>
    leaveOut(await yard.as('lead'), {
      jobId: job(),
      version: await version(),
      lineIds: [await lineOf(description)],
      reason,
    });

  it('are left out for a reason with what is below them, and taken in again', async () => {
    must(await leaving('Part ' + stringer, 'the customer brings them'));
    expect((await needs()).map((n) => n.quantity)).toEqual([0, q(60)]);
    expect(await yard.tab()).toEqual({ planned: 12_000 });
    must(await leaving('Part ' + stringer, null));
    expect((await needs()).map((n) => n.quantity)).toEqual([q(49.44), q(60)]);
  });
  it('ask what becomes of what is ordered', async () => {
    const [first] = await yard.db('need').where({ jobId: job() }).orderBy('id').select('id');
    await yard.send(await yard.draft([{ needId: first!.id, buy: q(49.44) }]));
    expect(refusedWith(await leaving('Part ' + stringer, 'no more'))).toEqual(['need.surplus']);
    must(
      await leaveOut(await yard.as('lead'), {
        jobId: job(),
        version: await version(),
        lineIds: [await lineOf('Part ' + stringer)],
        reason: 'no more',
        surplus: 'stores',
      }),
    );
    expect((await yard.db('split').whereNull('jobId').select('quantity')).map((s) => s.quantity)).toEqual([q(49.44)]);
  });
  it('are work of its own, or seen to apart', async () => {
    const way = async (work: 'own' | 'apart') =>
      must(
        await chooseWork(await yard.as('lead'), {
          jobId: job(),
          version: await version(),
          lineId: await lineOf('Part ' + stringer),
          work,
        }),
      );
    await way('own');
    const { actor, db } = await yard.as('lead');
    const of = { id: job(), number: '412', name: 'Job 412', startsOn: null };
    const view = await loadPlanView(db, actor, of, TODAY);
    expect(view.work.map((w) => [w.number, w.startsOn])).toEqual([
      ['412-1', '2026-06-04'],
      ['412', '2026-06-01'],
    ]);
    await way('apart');
    expect((await needs()).map((n) => n.quantity)).toEqual([0, q(60)]);
  });
});

describe('what changes further up', () => {
  beforeEach(async () => void must(await taking(10)));

  const ahead = async (quantity = 10) => {
    const { actor, db } = await yard.as('lead');
    const rootId = await lineOf('Ladder');
    const [root] = await loadPlanChanges(db, actor, job(), TODAY, { rootId, quantity: q(quantity) });
    return root!;
  };
  const taken = async (accepted: readonly string[], quantity = 10) =>
    acceptPlanChanges(await yard.as('lead'), {
      once: yard.once(),
      ...{ jobId: job(), version: await version(), rootId: await lineOf('Ladder'), quantity: q(quantity) },
      ...{ accepted: [...accepted], codeId: null },
    });

  it('is shown before, and changes what is accepted only', async () => {
    expect((await ahead()).changes).toEqual([]);
    const { changes } = await ahead(12);
    expect(changes.map((c) => [c.was?.quantity, c.is?.quantity])).toEqual([
      [q(10), q(12)],
      [q(10), q(12)],
      [q(49.44), q(59.328)],
      [q(60), q(72)],
      [q(30), q(36)],
    ]);
    const treads = changes.filter((c) => c.is?.quantity === q(72)).map((c) => c.key);
    must(await taken(treads, 12));
    expect((await needs()).map((n) => n.quantity)).toEqual([q(49.44), q(72)]);
    must(
      await taken(
        (await ahead(12)).changes.map((c) => c.key),
        12,
      ),
    );
    expect((await needs()).map((n) => n.quantity)).toEqual([q(59.328), q(72)]);
    expect((await ahead(12)).changes).toEqual([]);
  });
  it('takes new parts in and old ones out with a new version of the BOM', async () => {
    const lines = [line(tread, 6, { unit: 'C62' }), line(tube, 1)];
    must(await writing(ladder, lines, { fromDay: '2026-05-01' }));
    const { changes } = await ahead();
    expect(changes.map((c) => [c.description, c.was === null, c.is === null])).toEqual([
      [`Part ${tube}`, true, false],
      [`Part ${stringer}`, false, true],
      [`Part ${tube}`, false, true],
      ['Welding', false, true],
    ]);
    must(await taken(changes.map((c) => c.key)));
    expect((await needs()).map((n) => n.quantity)).toEqual([0, q(60), q(10)]);
    expect((await ahead()).changes).toEqual([]);
  });
  it('says what of it is bought already, and moves days with the job', async () => {
    const [first] = await yard.db('need').where({ jobId: job() }).orderBy('id').select('id');
    await yard.draft([{ needId: first!.id, buy: q(20) }]);
    await yard
      .db('job')
      .where({ id: job() })
      .update({ startsOn: '2026-06-02' as Day });
    const { changes } = await ahead();
    expect(changes.filter((c) => c.bought > 0).map((c) => [c.bought, c.was?.neededOn, c.is?.neededOn])).toEqual([
      [q(20), '2026-06-04', '2026-06-05'],
    ]);
    must(await taken(changes.map((c) => c.key)));
    expect((await needs()).map((n) => n.neededOn)).toEqual(['2026-06-05', '2026-06-02']);
  });
  it('is not taken on when it comes out otherwise by now', async () => {
    const keys = (await ahead(12)).changes.map((c) => c.key);
    expect(refusedWith(await taken(keys, 10))).toEqual(['plan.moved']);
  });
});

it('shows what either plan would buy, and does that', async () => {
  must(await taking(10));
  must(
    await countStock(await yard.as('storekeeper'), {
      once: yard.once(),
      ...{ itemId: tube, placeId: 1, jobId: null, seen: q(0), quantity: q(6), value: 5000, reason: 'Opening count' },
    } as never),
  );
  const { actor, db } = await yard.as('lead');
  const ahead = await loadAhead(db, actor, job(), TODAY);
  expect(ahead.planned).toEqual({ inFull: 61_440, shortfall: 61_440 - 6000 + 5000 });
  expect(ahead.lines.map((l) => l.then)).toEqual([{ inFull: q(49.44), shortfall: q(43.44) }]);
  const input = { jobId: job(), version: await version(), planning: 'shortfall' as const };
  must(await choosePlanning(await yard.as('lead'), input));
  expect(await yard.tab()).toEqual({ planned: ahead.planned?.shortfall });
});

describe('a BOM', () => {
  it('that would contain itself is refused with its way', async () => {
    const again = await writing(stringer, [line(ladder, 1, { gotBy: 'made', unit: 'C62' })], { fromDay: '2026-02-01' });
    expect(again).toMatchObject({
      refusals: [
        { code: 'bom.loop', message: 'This BOM would contain itself: STR → LADDER → STR. Remove one of those lines.' },
      ],
    });
  });
  it.each([
    ['no lines', [], 'input'],
    ['a made part that is no item', [line(null, 1, { gotBy: 'made', description: 'Frame' })], 'bom.made'],
    ['nothing of a part', [line(1, 0)], 'input'],
    ['less than nothing', [line(1, -2)], 'input'],
    ['an unknown part', [line(9999, 1)], 'missing'],
    ['a unit that does not fit', [line(1, 1, { unit: 'KGM' })], 'bom.unit'],
  ] as const)('with %s is refused', async (_, lines, code) =>
    expect(refusedWith(await writing(tread, [...lines]))).toEqual([code]),
  );
  it('begins on a day of its own, and clashes with another’s change', async () => {
    expect(refusedWith(await writing(ladder, [line(tube, 1)]))).toEqual(['bom.day']);
    const [bom] = await yard.db('bom').where({ itemId: ladder });
    const lines = [line(tube, 2)];
    must(await writing(ladder, lines, { bomId: bom!.id, version: 1 }));
    expect(refusedWith(await writing(ladder, lines, { bomId: bom!.id, version: 1 }))).toEqual(['clash']);
    must(await removeBom(await yard.as('lead'), { bomId: bom!.id, version: 2 }));
    expect(await yard.db('bom').where({ itemId: ladder })).toEqual([]);
  });
});

describe('BOMs from a file', () => {
  const file = async (text: string) => {
    const { actor, db } = await yard.as('lead');
    const read = await readBomFile(db, actor, ladder, new TextEncoder().encode(text), '2026-05-01' as Day);
    if (!read.ok) throw new Error(JSON.stringify(read.refusals));
    return read.value;
  };
  const bringing = async (boms: Awaited<ReturnType<typeof file>>['taken']) =>
    importBoms(await yard.as('lead'), {
      once: yard.once(),
      fromDay: '2026-05-01',
      boms: boms.map((b) => ({ ...b, lines: [...b.lines] })),
    });

  it('are told beside those that hold, and brought in as versions from a day on', async () => {
    const told = await file('Level,Item,Qty\n0,LADDER,1\n1,STR,2\n2,TU-1,3\n1,TREAD,8');
    expect(told.boms).toEqual([
      { number: 'LADDER', name: 'Ladder', lines: 2, before: 3 },
      { number: 'STR', name: 'Stringer pair', lines: 1, before: 1 },
    ]);
    expect(must(await bringing(told.taken))).toEqual({ boms: 2, lines: 3 });
    must(await taking(10));
    expect((await needs()).map((n) => [n.itemId, n.quantity])).toEqual([
      [tube, q(60)],
      [tread, q(80)],
    ]);
    // Brought in once more they take the place of those of the same day.
    must(await bringing(told.taken));
    expect((await yard.db('bom').where({ itemId: ladder })).length).toBe(2);
  });
  it('are all taken or none, and none that loop', async () => {
    const told = await file('Parent,Item,Qty\nSTR,TREAD,1\nTREAD,LADDER,1');
    expect(await bringing(told.taken)).toMatchObject({
      refusals: [
        {
          code: 'bom.loop',
          message: 'This BOM would contain itself: STR → TREAD → LADDER → STR. Remove one of those lines.',
        },
      ],
    });
    expect((await yard.db('bom').where({ fromDay: '2026-05-01' as Day })).length).toBe(0);
    const wrong = await file('Level,Item,Qty\n1,STR,2\n2,TU-1,0');
    expect([wrong.taken, wrong.problems.length]).toEqual([[], 1]);
    expect(refusedWith(await bringing([]))).toEqual(['input']);
  });
  it('come with 20,000 rows', async () => {
    const parts = Array.from({ length: 5 }, (_, k) => `P${k}`);
    for (const number of parts) await insertOne(yard.db, 'item', { number, name: number, unit: 'C62' });
    const rows = parts.flatMap((p) => [`1,${p},1`, ...Array.from({ length: 3999 }, () => '2,TU-1,0.5')]);
    const told = await file(`Level,Item,Qty\n${rows.join('\n')}`);
    expect(must(await bringing(told.taken))).toEqual({ boms: 6, lines: 20_000 });
  });
});
