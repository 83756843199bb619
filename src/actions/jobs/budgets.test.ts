import { loadDesk } from '@/queries/frame/desk';
import type { Day } from '@/core/calendar/workdays';
import { minor, type Minor } from '@/core/money/money';
import { loadBudget } from '@/queries/jobs/budgets';
import { loadCompletion } from '@/queries/jobs/completion';
import { loadContingency } from '@/store/budgets';
import { loadLevels, loadLevelsOn } from '@/store/levels';
import { must, refusedWith, TestCompany, TODAY } from '../../../tests/support/company';
import {
  agreeBudgetChange,
  changeBudgetChange,
  dropBudgetChange,
  noteBudget,
  setCompletion,
  writeBudgetChange,
} from './budgets';

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
});
afterEach(() => yard.closeProven());

type Lines = readonly (readonly [code: 0 | 1 | 2 | null, amount: number])[];
const linesOf = (lines: Lines) =>
  lines.map(([code, amount]) => ({
    costCodeId: code === null ? null : yard.ids.codes[code],
    amount: amount as Minor,
  }));

const said = (lines: Lines, day: string = TODAY) => ({
  day: day as Day,
  reason: 'Customer wants more',
  customerReference: 'VO 7',
  agreedBy: 'The customer',
  quoteChange: 50_000 as Minor,
  lines: linesOf(lines),
});

const write = async (lines: Lines, { role = 'lead', agreed = true, day = TODAY as string, on = TODAY as Day } = {}) =>
  writeBudgetChange(await yard.as(role as 'lead', on), {
    once: yard.once(),
    jobId: yard.ids.jobs[0],
    agreed,
    ...said(lines, day),
  });

const budgets = async (on?: Day) => {
  const [job] = yard.ids.jobs;
  const levels = on === undefined ? await loadLevels(yard.db, [job]) : await loadLevelsOn(yard.db, job, on);
  return Object.fromEntries(levels.map((l) => [yard.ids.codes.indexOf(l.costCodeId), l.budget]));
};
const view = async (on?: Day) => loadBudget(yard.db, (await yard.as('lead')).actor, yard.ids.jobs[0], on);

describe('a budget change', () => {
  it('counts once it is agreed, under a number of the job’s own', async () => {
    await yard.budget(100_000);
    const first = must(await write([[1, 5000]], { agreed: false }));
    expect(first.number).toBe(1);
    expect(await budgets()).toEqual({ 1: 100_000 });
    expect((await view()).whole).toMatchObject({ now: 100_000, pending: 5000 });
    must(await agreeBudgetChange(await yard.as('manager'), { once: yard.once(), changeId: first.id, version: 1 }));
    expect(await budgets()).toEqual({ 1: 105_000 });
    expect((await view()).whole).toMatchObject({ opening: 100_000, changed: 5000, now: 105_000, pending: 0 });
    expect(must(await write([[0, 1]])).number).toBe(2);
    const again = await agreeBudgetChange(await yard.as('lead'), { once: yard.once(), changeId: first.id, version: 2 });
    expect(refusedWith(again)).toEqual(['change.decided']);
  });

  it('is written by a buyer, and agreed by a lead only', async () => {
    expect(refusedWith(await write([[1, 1]], { role: 'buyer' }))).toEqual(['right']);
    const { id } = must(await write([[1, 1]], { role: 'buyer', agreed: false }));
    const by = async (role: 'buyer' | 'lead') =>
      agreeBudgetChange(await yard.as(role), { once: yard.once(), changeId: id, version: 1 });
    expect(refusedWith(await by('buyer'))).toEqual(['right']);
    must(await by('lead'));
  });

  it('is put right or dropped while it is not agreed, and its number stays taken', async () => {
    const { id } = must(await write([[1, 1]], { role: 'buyer', agreed: false }));
    const ref = { changeId: id, version: 1 };
    must(await changeBudgetChange(await yard.as('buyer'), { once: yard.once(), ...ref, ...said([[0, 700]]) }));
    expect(
      (await changeBudgetChange(await yard.as('buyer'), { once: yard.once(), ...ref, ...said([[0, 1]]) })).status,
    ).toBe('clash');
    expect((await view()).whole.pending).toBe(700);
    must(await dropBudgetChange(await yard.as('buyer'), { changeId: id, version: 2 }));
    expect((await view()).whole.pending).toBe(0);
    expect(must(await write([[1, 1]])).number).toBe(2);
  });

  it('that waits stands on the desk of who may agree, until it is decided', async () => {
    await yard.budget(100_000);
    const waiting = async (role: 'lead' | 'buyer') =>
      (await loadDesk(yard.db, (await yard.as(role)).actor, TODAY)).find((g) => g.title === 'To agree');
    const change = must(await write([[1, 5000]], { agreed: false, role: 'buyer' }));
    expect(await waiting('lead')).toMatchObject({
      count: 1,
      rows: [
        { text: expect.stringContaining('Budget change 1 for 412, +£\u202f50.00') as string, href: '/jobs/412/budget' },
      ],
    });
    expect(await waiting('buyer')).toBeUndefined();
    must(await agreeBudgetChange(await yard.as('lead'), { once: yard.once(), changeId: change.id, version: 1 }));
    expect(await waiting('lead')).toBeUndefined();
  });

  it('of somebody else is dropped by who may agree', async () => {
    const { id } = must(await write([[1, 1]], { agreed: false }));
    expect(refusedWith(await dropBudgetChange(await yard.as('buyer'), { changeId: id, version: 1 }))).toEqual([
      'change.others',
    ]);
    must(await dropBudgetChange(await yard.as('manager'), { changeId: id, version: 1 }));
  });

  it('counts from its day on, at any past date, and stands on the first day as it was opened', async () => {
    must(await write([[1, 1000]], { day: '2026-05-01', on: '2026-05-01' as Day }));
    must(
      await write(
        [
          [1, 200],
          [2, 30],
        ],
        { day: '2026-05-08' },
      ),
    );
    must(
      await write([
        [1, -500],
        [2, 500],
      ]),
    );
    const day = (d: string) => d as Day;
    expect(await budgets(day('2026-04-30'))).toEqual({});
    expect(await budgets(day('2026-05-07'))).toEqual({ 1: 1000 });
    expect(await budgets(day('2026-05-08'))).toEqual({ 1: 1200, 2: 30 });
    expect(await budgets()).toEqual({ 1: 700, 2: 530 });
    expect((await view(day('2026-05-08'))).whole).toMatchObject({ opening: 1000, changed: 230, now: 1230 });
  });

  it('holds money back, which is no budget until it is released', async () => {
    await yard.budget(10_000);
    must(
      await write([
        [1, -3000],
        [null, 3000],
      ]),
    );
    expect(await budgets()).toEqual({ 1: 7000 });
    expect((await view()).contingency.now).toBe(3000);
    expect(
      refusedWith(
        await write([
          [2, 3001],
          [null, -3001],
        ]),
      ),
    ).toEqual(['change.below']);
    must(
      await write([
        [2, 1000],
        [null, -1000],
      ]),
    );
    expect(await budgets()).toEqual({ 1: 7000, 2: 1000 });
    expect(await loadContingency(yard.db, yard.ids.jobs[0])).toBe(minor(2000));
    expect((await view()).changes.map((c) => [c.kind, c.total])).toEqual([
      ['release', 0],
      ['holdBack', 0],
    ]);
  });

  it('is refused on a closed job, also when it was written before', async () => {
    await yard.budget(1000);
    const { id } = must(await write([[1, 1]], { agreed: false }));
    await yard.db('job').update({ state: 'complete' });
    expect(refusedWith(await write([[1, 1]]))).toEqual(['job.closed']);
    const agreed = await agreeBudgetChange(await yard.as('lead'), { once: yard.once(), changeId: id, version: 1 });
    expect(refusedWith(agreed)).toEqual(['job.closed']);
  });

  it('sent twice under one key counts once', async () => {
    const lead = await yard.as('lead');
    const input = { once: yard.once(), jobId: yard.ids.jobs[0], agreed: true, ...said([[1, 500]]) };
    const both = [must(await writeBudgetChange(lead, input)), must(await writeBudgetChange(lead, input))];
    expect(both[0]).toEqual(both[1]);
    expect(await budgets()).toEqual({ 1: 500 });
  });

  it('tells what the customer pays by it', async () => {
    must(await write([[1, 500]]));
    const [change] = (await view()).changes;
    expect([change?.quoteChange, change?.customerReference, change?.agreedBy, change?.decider]).toEqual([
      50_000,
      'VO 7',
      'The customer',
      'The lead',
    ]);
  });
});

describe('a note beside a budget', () => {
  it('stands there until it is emptied', async () => {
    await yard.budget(100);
    const note = async (words: string) =>
      must(await noteBudget(await yard.as('buyer'), { jobId: yard.ids.jobs[0], costCodeId: yard.ids.codes[1], words }));
    await note('Price of zinc is fixed until June');
    expect((await view()).rows[0]?.note).toBe('Price of zinc is fixed until June');
    await note('');
    expect(await yard.db('budgetNote')).toEqual([]);
  });
});

describe('what is said of how a cost code ends', () => {
  const say = async (amount: number | null, done: number | null, on: Day = TODAY, reason = 'The last plate is cut') =>
    setCompletion(await yard.as('buyer', on), {
      once: yard.once(),
      jobId: yard.ids.jobs[0],
      costCodeId: yard.ids.codes[1],
      amount: amount as Minor | null,
      done,
      reason,
    });
  const row = async (on?: Day) =>
    (await loadCompletion(yard.db, (await yard.as('lead')).actor, yard.ids.jobs[0], on)).rows[0];

  it('takes the place of what is planned, from its day on, until it is said otherwise', async () => {
    await yard.budget(100_000);
    await yard.need({ quantity: 12, price: 8 });
    expect((await row())?.ends).toMatchObject({ atCompletion: 9600, variance: 90_400 });
    const later = '2026-05-20' as Day;
    must(await say(30_000, 5000));
    must(await say(null, null, later, 'As planned after all'));
    expect((await row(TODAY))?.ends).toMatchObject({ atCompletion: 30_000, variance: 70_000 });
    expect((await row(TODAY))?.ends.earned?.value).toBe(50_000);
    expect((await row(later))?.ends).toMatchObject({ atCompletion: 9600 });
    expect((await row(later))?.said).toBeNull();
    // The ledger itself is not touched by it.
    expect(await yard.tab()).toEqual({ planned: 9600 });
  });

  it.each([
    ['below zero', -1, null, 'x'],
    ['more than all of it done', 1, 10_001, 'x'],
    ['without a reason', 1, null, ' '],
  ])('is refused %s', async (_, amount, done, reason) => {
    await yard.budget(100);
    expect(refusedWith(await say(amount, done, TODAY, reason))).toEqual(['input']);
  });
});
