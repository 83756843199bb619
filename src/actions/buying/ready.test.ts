import { q, TestCompany, must } from '../../../tests/support/company';
import { openDock, type Dock } from '../../../tests/support/dock';
import type { Day } from '@/core/calendar/workdays';
import { loadBuyList } from '@/queries/buying/buyList';
import { loadDesk } from '@/queries/frame/desk';
import { loadMaterial } from '@/queries/buying/material';
import { beginCount, countLines, endCounting, postCount } from '../stores/countSheets';
import { markLine } from '../dock/lineMarks';
import { keepPaper, removePaper } from '../dock/papers';
import { chooseMail } from '../people/people';
import { reverseReceipt } from '../dock/correcting';

let yard: TestCompany;
let dock: Dock;

beforeEach(async () => ({ yard, dock } = await openDock()));
afterEach(async () => yard.closeProven());

const jobId = () => yard.ids.jobs[0];
const readyOn = async () => (await yard.db('job').where({ id: jobId() }).first('readyOn'))?.readyOn;
const notices = async () => (await yard.db('notice').orderBy('id')).map((n) => [n.subject, n.path]);
const wishes = async () => must(await chooseMail(await yard.as('lead'), { of: 'mailReady', on: true }));
const standing = async (needId: number) => {
  const { db, actor } = await yard.as('storekeeper');
  const { rows } = await loadBuyList(db, actor, jobId(), '2026-05-12' as Day);
  return rows.find((r) => r.id === needId)?.standing;
};
const material = async () => {
  const { db, actor } = await yard.as('storekeeper');
  return (await loadMaterial(db, actor, [jobId()])).get(jobId());
};
const told = async (role: 'lead' | 'buyer') => {
  const { db, actor } = await yard.as(role);
  return (await loadDesk(db, actor, '2026-05-12' as Day)).flatMap((g) => (g.title === 'To start' ? g.rows : []));
};

describe('the material of a job', () => {
  it('is complete with its last piece, and then its lead is told, on the desk and once by mail', async () => {
    await wishes();
    const [one, two] = [await dock.ordered(4), await dock.ordered(2)];
    must(await dock.take(one.order, 4));
    expect([await readyOn(), await notices()]).toEqual([null, []]);
    expect(await material()).toMatchObject({ lines: 2, missing: 1, toOrder: 0, readyOn: null });
    must(await dock.take(two.order, 1));
    expect(await standing(two.needId)).toBe('partIn');
    must(await dock.take(two.order, 1));
    expect([await standing(one.needId), await standing(two.needId)]).toEqual(['in', 'in']);
    const { number } = (await yard.db('job').where({ id: jobId() }).first('number'))!;
    expect(await notices()).toEqual([[`Work can start on ${number}: all material is in`, `/jobs/${number}/buy-list`]]);
    expect((await told('lead')).map((r) => r.word)).toEqual(['Ready']);
    expect(await material()).toMatchObject({ missing: 0, readyOn: await readyOn() });
  });

  it('waits again when a receipt is taken back, and is told of anew when it comes again', async () => {
    await wishes();
    const { order } = await dock.ordered(4);
    must(await dock.take(order, 4));
    expect(await readyOn()).not.toBeNull();
    const receipt = (await yard.db('receipt').first('id'))!.id;
    must(await reverseReceipt(await yard.as('storekeeper'), { once: yard.once(), receiptId: receipt }));
    expect(await readyOn()).toBeNull();
    must(await dock.take(order, 4));
    expect((await notices()).length).toBe(2);
  });

  it('is not mailed to who does not wish it', async () => {
    const { order } = await dock.ordered(4);
    must(await dock.take(order, 4));
    expect(await notices()).toEqual([]);
    expect((await told('lead')).map((r) => r.word)).toEqual(['Ready']);
  });

  it('is not complete before its certificate is attached, nor when that is taken out again', async () => {
    await yard.db('item').where({ id: dock.tube }).update({ certificate: 1 });
    const { order, needId } = await dock.ordered(4);
    must(await dock.take(order, 4));
    expect([await standing(needId), await readyOn()]).toEqual(['uncertified', null]);
    const paper = { about: 'certificate' as const, aboutId: (await dock.line(order)).id, name: 'melt.pdf' };
    const bytes = Buffer.from('%PDF-1.4\n%%EOF\n');
    const { id } = must(await keepPaper(await yard.as('storekeeper'), { once: yard.once(), ...paper, bytes }));
    expect(await standing(needId)).toBe('in');
    expect(await readyOn()).not.toBeNull();
    must(await removePaper(await yard.as('storekeeper'), { documentId: id }));
    expect([await standing(needId), await readyOn()]).toEqual(['uncertified', null]);
  });

  it('waits again for what a counting sheet misses of its own goods, and does not lose what it cost', async () => {
    const { order, needId } = await dock.ordered(4);
    must(await dock.take(order, 4));
    expect(await readyOn()).not.toBeNull();
    const keeper = await yard.as('storekeeper');
    const { id: countId } = must(await beginCount(keeper, { once: yard.once(), placeId: 1, binId: null, blind: true }));
    const line = await yard.db('stockCountLine').where({ countId }).first('id', 'jobId');
    expect(line?.jobId).toBe(jobId());
    must(await countLines(keeper, { countId, lines: [{ lineId: line?.id ?? 0, was: null, counted: q(3) }] }));
    must(await endCounting(keeper, { countId, version: 1 }));
    const received = () => yard.db('tabSum').where({ jobId: jobId(), stage: 'received' }).sum({ n: 'amount' });
    const before = await received();
    must(await postCount(keeper, { once: yard.once(), countId, version: 2, reason: 'lost' }));
    expect(await received()).toEqual(before);
    expect(await dock.openOf(needId)).toEqual({ open: q(1), missing: q(1) });
    expect([await standing(needId), await readyOn()]).toEqual(['partIn', null]);
  });

  it('waits for what one line alone is marked for', async () => {
    const { order, needId } = await dock.ordered(4);
    const lineId = (await dock.line(order)).id;
    const marking = async (marks: { inspected: boolean; certificate: boolean }) =>
      must(await markLine(await yard.as('storekeeper'), { lineId, ...marks }));
    await marking({ inspected: true, certificate: false });
    must(await dock.take(order, 1));
    expect((await dock.line(order)).held).toBe(q(1));
    await marking({ inspected: false, certificate: true });
    must(await dock.take(order, 3));
    expect(await standing(needId)).toBe('held');
    expect(await readyOn()).toBeNull();
  });

  it('tells apart what waits to be inspected, for the line that would get it', async () => {
    await yard.db('item').where({ id: dock.tube }).update({ inspected: 1 });
    const [soon, late] = [
      await dock.need(4, 0, { neededOn: '2026-06-01' }),
      await dock.need(4, 0, { neededOn: '2026-06-20' }),
    ];
    const order = await dock.order({ needId: soon, buy: q(4) }, { needId: late, buy: q(4) });
    must(await dock.take(order, 5));
    expect([await standing(soon), await standing(late)]).toEqual(['held', 'partIn']);
  });
});
