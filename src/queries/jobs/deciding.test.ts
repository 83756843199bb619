import { acceptOverspend, writeBudgetChange } from '@/actions/jobs/budgets';
import type { Minor } from '@/core/money/money';
import { must, q, refusedWith, TestCompany, TODAY } from '../../../tests/support/company';
import { loadDecide } from './deciding';
import { loadDecisions } from './decisions';
import { loadTab } from './job';

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
});
afterEach(() => yard.closeProven());

/** Code 02 of job 412 has a budget of 50.00 and is planned at 96.00; code 01 has 30.00 to spare, and 20.00 are held back. */
async function passed(): Promise<void> {
  await yard.budget(5000);
  await yard.need({ quantity: 12, price: 8 });
  await change([
    [yard.ids.codes[0], 3000],
    [null, 2000],
  ]);
}

const change = async (lines: readonly (readonly [number | null, number])[]) =>
  must(
    await writeBudgetChange(await yard.as('lead'), {
      once: yard.once(),
      jobId: yard.ids.jobs[0],
      agreed: true,
      ...{ day: TODAY, reason: 'x', customerReference: '', agreedBy: '', quoteChange: null },
      lines: lines.map(([costCodeId, amount]) => ({ costCodeId, amount: amount as Minor })),
    }),
  );

const decide = async () => {
  const { actor } = await yard.as('lead');
  const [job] = yard.ids.jobs;
  return loadDecide(yard.db, actor, job, await loadTab(yard.db, actor, job), '02');
};
const told = async () => {
  const { actor } = await yard.as('lead');
  const [id] = yard.ids.jobs;
  const tab = await loadTab(yard.db, actor, id);
  return (await loadDecisions(yard.db, actor, { id, number: '412' }, tab, TODAY)).filter((d) => d.word === 'Over');
};
const let1 = async (over: number, role: 'lead' | 'buyer' = 'lead') =>
  acceptOverspend(await yard.as(role), {
    once: yard.once(),
    jobId: yard.ids.jobs[0],
    costCodeId: yard.ids.codes[1],
    over: over as Minor,
    reason: 'Agreed with customer',
  });

describe('a budget that is passed', () => {
  it('offers what there is: another code, what is held back, and the drafts that put money on it', async () => {
    await passed();
    expect(await decide()).toMatchObject({
      code: { number: '02' },
      ways: { over: 4600, from: { costCodeId: yard.ids.codes[0], headroom: 3000 }, contingency: 2000 },
      from: { number: '01', name: 'Hull' },
      contingency: 2000,
      drafts: [],
    });
    const needId = (await yard.db('need').first('id'))?.id ?? 0;
    const order = await yard.draft([{ needId, buy: q(12) }]);
    expect((await decide())?.drafts).toEqual([{ number: order.number, supplier: 'Eelmoor Metals', value: 9600 }]);
  });

  it('is a decision until it is let be, and again when it passes by more', async () => {
    await passed();
    expect((await told()).map((d) => [d.step, d.href])).toEqual([['Decide', '/jobs/412?decide=02']]);
    expect(refusedWith(await let1(4600, 'buyer'))).toEqual(['right']);
    expect(refusedWith(await let1(4599))).toEqual(['over.moved']);
    must(await let1(4600));
    expect(await told()).toEqual([]);
    await yard.need({ quantity: 1, price: 1, description: 'Clip' });
    expect(await told()).toHaveLength(1);
  });

  it('is none once its budget is changed', async () => {
    await passed();
    await change([[yard.ids.codes[1], 4600]]);
    expect([await decide(), await told()]).toEqual([undefined, []]);
  });
});
