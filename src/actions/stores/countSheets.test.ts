import { TestCompany, must, q, refusedWith } from '../../../tests/support/company';
import { numbered } from '../../../tests/support/dock';
import { listCounted, loadCount } from '@/queries/stores/counts';
import type { Minor } from '@/core/money/money';
import { addBin } from './bins';
import { countStock } from './counting';
import { beginCount, countFound, countLines, dropCount, endCounting, postCount } from './countSheets';
import { issueStock } from './issuing';
import { moveStock } from './moving';

let yard: TestCompany;
let tube: number;

beforeEach(async () => {
  yard = await TestCompany.open();
  tube = yard.ids.items[0];
  await opening(12, 6000);
});
afterEach(async () => yard.closeProven());

const keeper = () => yard.as('storekeeper');

async function opening(n: number, value: number, seen = 0) {
  const said = { seen: q(seen), quantity: q(n), value: value as Minor, reason: 'Opening' };
  must(await countStock(await keeper(), { once: yard.once(), itemId: tube, placeId: 1, jobId: null, ...said }));
}

const begin = async (more: { binId?: number | null; blind?: boolean } = {}) =>
  must(await beginCount(await keeper(), { once: yard.once(), placeId: 1, binId: null, blind: false, ...more }));
const view = async (id: number, role: 'storekeeper' | 'manager' = 'storekeeper') => {
  const { db, actor } = await yard.as(role);
  return (await loadCount(db, actor, id))!;
};
const type = async (
  id: number,
  counted: number,
  more: { before?: boolean; row?: number; was?: number | null } = {},
) => {
  const row = (await view(id)).rows[more.row ?? 0]!;
  const was = more.was === undefined ? row.counted : more.was === null ? null : q(more.was);
  const line = { lineId: row.id, was, counted: q(counted), before: more.before ?? false };
  return countLines(await keeper(), { countId: id, lines: [line] });
};
const compare = async (id: number, again = false) =>
  endCounting(await keeper(), { countId: id, version: (await view(id)).head.version, again });
const post = async (id: number, role: 'storekeeper' | 'manager' = 'storekeeper', reason = 'Miscounted before') =>
  postCount(await yard.as(role), { once: yard.once(), countId: id, version: (await view(id)).head.version, reason });
const pile = () => yard.db('stockSum').where({ itemId: tube, jobId: 0, placeId: 1 }).first('quantity', 'value');
const issue = async (n: number) => {
  const needId = await yard.need({ item: tube, unit: 'MTR', quantity: n, price: 5, description: 'Tube' });
  const what = { itemId: tube, placeId: 1, jobId: null, to: { needId }, quantity: q(n) };
  must(await issueStock(await keeper(), { once: yard.once(), ...what }));
};

describe('a counting sheet', () => {
  it('posts what is missed at its average, with its reason, once it was looked over', async () => {
    const { id, number } = await begin();
    expect(number).toBe('C26-0001');
    must(await type(id, 10));
    expect(refusedWith(await post(id))).toEqual(['count.state']);
    must(await compare(id));
    const { rows, head } = await view(id, 'manager');
    expect(rows.map((r) => [r.book, r.counted, r.difference, r.worth])).toEqual([[q(12), q(10), q(-2), -1000]]);
    expect([head.lines, head.counted, head.differ]).toEqual([1, 1, 1]);
    must(await post(id));
    expect(await pile()).toEqual({ quantity: q(10), value: 5000 });
    const move = await yard.db('stockMove').orderBy('id', 'desc').first();
    expect([move?.kind, move?.quantity, move?.value, move?.reason]).toEqual([
      'counted',
      q(-2),
      -1000,
      'Miscounted before',
    ]);
    expect((await view(id)).head.state).toBe('posted');
  });

  it('allows for what moves after it was counted', async () => {
    const { id } = await begin();
    must(await type(id, 11));
    await issue(3);
    must(await compare(id));
    must(await post(id));
    expect(await pile()).toEqual({ quantity: q(8), value: 4000 });
  });

  it('takes what was typed after a move for counted after it, unless it is said that it was before', async () => {
    const { id } = await begin();
    await issue(3);
    expect((await view(id)).rows[0]).toMatchObject({ hasMoved: true, moved: q(-3), book: q(9) });
    must(await type(id, 12));
    expect((await view(id)).rows[0]?.difference).toBe(q(3));
    must(await type(id, 12, { before: true }));
    expect((await view(id)).rows[0]?.difference).toBe(0);
    must(await compare(id));
    must(await post(id));
    expect((await pile())?.quantity).toBe(q(9));
  });

  it('never goes below nothing: what left meanwhile cannot be missed as well', async () => {
    const { id } = await begin();
    must(await type(id, 2));
    await issue(5);
    must(await compare(id));
    expect(refusedWith(await post(id, 'manager'))).toEqual(['count.moved']);
    expect((await pile())?.quantity).toBe(q(7));
    expect((await view(id)).head.state).toBe('counted');
    must(await compare(id, true));
    must(await type(id, 7));
    must(await compare(id));
    expect(must(await post(id)).lines).toBe(0);
  });

  it('tells a blind counter nothing of the book before all is compared', async () => {
    const { id } = await begin({ blind: true });
    must(await type(id, 10));
    const blind = await view(id, 'manager');
    expect(blind.rows[0]).toMatchObject({ book: null, moved: null, difference: null, worth: null });
    expect(blind.head.differ).toBe(0);
    must(await compare(id));
    expect((await view(id)).rows[0]).toMatchObject({ book: q(12), difference: q(-2), worth: null });
  });

  it('needs a manager where its differences come to much together', async () => {
    await yard.db('company').update({ countLimit: 900 as Minor });
    const { id } = await begin();
    must(await type(id, 10));
    must(await compare(id));
    const told = await post(id);
    expect(refusedWith(told)).toEqual(['stores.limit']);
    expect(JSON.stringify(told)).not.toMatch(/\d\.\d\d/);
    const { db, actor } = await yard.as('manager');
    expect((await listCounted(db, actor)).map((c) => c.differ)).toEqual([1]);
    must(await post(id, 'manager'));
    expect((await pile())?.quantity).toBe(q(10));
  });

  it('does not take back what somebody else counted of the same line', async () => {
    const { id } = await begin();
    must(await type(id, 10));
    expect(refusedWith(await type(id, 11, { was: null }))).toEqual(['count.clash']);
    expect((await view(id)).rows[0]?.counted).toBe(q(10));
    must(await type(id, 11, { was: 10 }));
  });

  it('counts a bin alone, and goods that lie in the wrong one', async () => {
    const bin = async (name: string) =>
      must(await addBin(await yard.as('administrator'), { once: yard.once(), placeId: 1, name })).id;
    const [one, two] = [await bin('A1'), await bin('A2')];
    const way = { itemId: tube, placeId: 1, jobId: null, binId: null, toPlaceId: 1, toBinId: one, quantity: q(5) };
    must(await moveStock(await keeper(), { once: yard.once(), ...way }));
    const { id } = await begin({ binId: one });
    expect((await view(id)).rows.map((r) => [r.bin, r.book])).toEqual([['A1', q(5)]]);
    expect(
      refusedWith(await beginCount(await keeper(), { once: yard.once(), placeId: 1, binId: null, blind: false })),
    ).toEqual(['count.twice']);
    const other = await begin({ binId: two });
    must(await type(id, 3));
    const found = { countId: other.id, itemId: tube, binId: two, number: '', quantity: q(2) };
    expect(refusedWith(await countFound(await keeper(), { once: yard.once(), ...found, binId: one }))).toEqual([
      'count.bin',
    ]);
    must(await countFound(await keeper(), { once: yard.once(), ...found }));
    for (const c of [id, other.id]) {
      must(await compare(c));
      must(await post(c));
    }
    const spots = await yard.db('stockSpot').where('quantity', '>', 0).orderBy('binId').select('binId', 'quantity');
    expect(spots).toEqual([
      { binId: 0, quantity: q(7) },
      { binId: one, quantity: q(3) },
      { binId: two, quantity: q(2) },
    ]);
    expect((await pile())?.quantity).toBe(q(12));
  });

  it('follows serial numbers: what is not there goes at its own cost, what lies elsewhere by the book is not found twice', async () => {
    const pump = yard.ids.items[1];
    await yard.db('item').where({ id: pump }).update({ tracking: 'serial', unit: 'C62' });
    const said = {
      seen: q(0),
      quantity: q(2),
      value: 9000 as Minor,
      reason: 'Opening',
      numbers: numbered('P-1', 'P-2'),
    };
    must(await countStock(await keeper(), { once: yard.once(), itemId: pump, placeId: 1, jobId: null, ...said }));
    const { id } = await begin();
    const rows = (await view(id)).rows;
    const at = (number: string) => rows.findIndex((r) => r.number === number);
    must(await type(id, 1, { row: at('P-1') }));
    must(await type(id, 0, { row: at('P-2') }));
    expect(refusedWith(await type(id, 2, { row: at('P-1') }))).toEqual(['count.serial']);
    const found = { once: yard.once(), countId: id, itemId: pump, binId: null, quantity: q(1) };
    expect(refusedWith(await countFound(await keeper(), { ...found, number: 'P-1' }))).toEqual(['count.there']);
    expect(refusedWith(await countFound(await keeper(), { ...found, once: yard.once(), number: '' }))).toEqual([
      'numbers.many',
    ]);
    must(await compare(id));
    must(await post(id));
    const left = await yard.db('stockSum').where({ itemId: pump, jobId: 0 }).first('quantity', 'value');
    expect(left).toEqual({ quantity: q(1), value: 4500 });
  });

  it('is posted once, however many post it at once', async () => {
    const { id } = await begin();
    must(await type(id, 10));
    must(await compare(id));
    const { version } = (await view(id)).head;
    const sender = await keeper();
    const send = () => postCount(sender, { once: yard.once(), countId: id, version, reason: 'lost' });
    const outcomes = await Promise.all(Array.from({ length: 10 }, send));
    expect(outcomes.map((o) => o.status).sort()).toEqual([...Array.from({ length: 9 }, () => 'clash'), 'done']);
    expect((await pile())?.quantity).toBe(q(10));
  });

  it('can be given up, and then changes nothing', async () => {
    const { id } = await begin();
    must(await type(id, 1));
    must(await dropCount(await keeper(), { countId: id, version: (await view(id)).head.version }));
    expect(refusedWith(await type(id, 2))).toEqual(['count.state']);
    expect((await pile())?.quantity).toBe(q(12));
    expect((await begin()).number).toBe('C26-0002');
  });

  it('is not compared before anything is counted', async () => {
    const { id } = await begin();
    expect(refusedWith(await compare(id))).toEqual(['count.none']);
    expect((await view(id)).head.state).toBe('open');
  });
});
