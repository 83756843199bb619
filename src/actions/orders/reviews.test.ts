import { must, q, refusedWith, TestCompany } from '../../../tests/support/company';
import { loadReview } from '@/queries/orders/reviews';
import { draftOrders } from './orders';
import { saveReviewPoints, tickPoint, waiveReview } from './reviews';
import { markSentByHand } from './sending';

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
});
afterEach(() => yard.closeProven());

const points = async (...words: string[]) =>
  saveReviewPoints(await yard.as('administrator'), { kind: 'repair', points: words });
const idOf = async (words: string) => (await yard.db('reviewPoint').where({ words }).first('id'))!.id;
const tick = async (words: string, ticked = true) =>
  tickPoint(await yard.as('lead'), { jobId: yard.ids.jobs[0], pointId: await idOf(words), ticked });
const drafting = async (needId: number) =>
  draftOrders(await yard.as('buyer'), { once: yard.once(), picks: [{ needId, buy: q(12) }] });

describe('what is looked over before work starts', () => {
  beforeEach(async () => void must(await points('Dates possible', 'Prices confirmed')));

  it('keeps a job from being ordered for, until each point is ticked by name and day', async () => {
    const needId = await yard.need();
    expect(await drafting(needId)).toMatchObject({
      refusals: [{ code: 'job.review', message: expect.stringContaining('Dates possible and Prices confirmed') }],
    });
    must(await tick('Dates possible'));
    expect(refusedWith(await drafting(needId))).toEqual(['job.review']);
    must(await tick('Prices confirmed'));
    must(await drafting(needId));
    const { actor, db } = await yard.as('lead');
    expect((await loadReview(db, actor, yard.ids.jobs[0])).points).toMatchObject([
      { words: 'Dates possible', who: 'The lead', day: '2026-05-12' },
      { words: 'Prices confirmed', who: 'The lead' },
    ]);
  });
  it('keeps an order from being sent that was drafted before a point was opened', async () => {
    must(await tick('Dates possible'));
    must(await tick('Prices confirmed'));
    const order = await yard.draft([{ needId: await yard.need(), buy: q(12) }]);
    must(await tick('Dates possible', false));
    const ref = { once: yard.once(), orderId: order.id, version: order.version };
    expect(refusedWith(await markSentByHand(await yard.as('buyer'), ref))).toEqual(['job.review']);
  });
  it('is waived for a reason, and asked for again', async () => {
    const needId = await yard.need();
    const waiving = async (reason: string | null) =>
      waiveReview(await yard.as('manager'), { jobId: yard.ids.jobs[0], reason });
    expect(refusedWith(await waiving('  '))).toEqual(['input']);
    must(await waiving('the customer is afloat'));
    must(await drafting(needId));
    must(await waiving(null));
    expect(refusedWith(await drafting(await yard.need()))).toEqual(['job.review']);
    const other = await yard.need({ job: 1 });
    expect(refusedWith(await drafting(other))).toEqual(['job.review']);
  });
  it('keeps its ticks when the list changes, and asks only what is on it', async () => {
    must(await tick('Dates possible'));
    must(await points('Terms agreed', 'Dates possible'));
    const { actor, db } = await yard.as('lead');
    expect((await loadReview(db, actor, yard.ids.jobs[0])).points.map((p) => [p.words, p.who])).toEqual([
      ['Terms agreed', null],
      ['Dates possible', 'The lead'],
    ]);
    expect(refusedWith(await tick('Prices confirmed'))).toEqual(['missing']);
    expect(refusedWith(await points('Twice', 'Twice'))).toEqual(['input']);
    expect(refusedWith(await points(''))).toEqual(['input']);
  });
});
