import fc from 'fast-check';
import { agreeBudgetChange, changeBudgetChange, dropBudgetChange, writeBudgetChange } from '@/actions/jobs/budgets';
import { plusDays, type Day } from '@/core/calendar/workdays';
import { minor, type Minor } from '@/core/money/money';
import { loadBudget } from '@/queries/jobs/budgets';
import { TestCompany, TODAY } from '../../tests/support/company';
import { times } from '../../tests/support/proof';

/**
 * A second, plain account of a job's budget: it replays the changes that were written, in the order of their days, and
 * knows nothing of the rows that the application keeps beside them.
 */
type Change = { day: string; state: string; lines: { code: number | null; amount: number }[] };

async function changesOf(yard: TestCompany): Promise<Change[]> {
  const heads = (await yard.db.raw('select id, day, state from budget_change')) as {
    id: number;
    day: string;
    state: string;
  }[];
  const lines = (await yard.db.raw('select change_id as id, cost_code_id as code, amount from budget_change_line')) as {
    id: number;
    code: number | null;
    amount: number;
  }[];
  return heads.map((h) => ({ ...h, lines: lines.filter((l) => l.id === h.id) }));
}

const OPENED = 20_000;

function replay(changes: readonly Change[], code: number | null, opened: number, on: string): number {
  let budget = opened;
  for (const { day, state, lines } of changes)
    if (state === 'agreed' && day <= on) for (const l of lines) if (l.code === code) budget += l.amount;
  return budget;
}

const pending = (changes: readonly Change[], code: number | null): number => {
  let all = 0;
  for (const { state, lines } of changes)
    if (state === 'pending') for (const l of lines) if (l.code === code) all += l.amount;
  return all;
};

type Act = {
  act: 'write' | 'agreed' | 'agree' | 'drop' | 'mend';
  which: number;
  back: number;
  lines: [number, number][];
};

const act: fc.Arbitrary<Act> = fc.record({
  act: fc.constantFrom('write', 'agreed', 'agree', 'drop', 'mend'),
  which: fc.nat(9),
  back: fc.nat(12),
  // 3 stands for what is held back.
  lines: fc.uniqueArray(fc.tuple(fc.nat(3), fc.integer({ min: -9000, max: 15_000 })), {
    minLength: 1,
    maxLength: 3,
    selector: ([code]) => code,
  }),
});

async function play(yard: TestCompany, { act: what, which, back, lines }: Act): Promise<boolean> {
  const [jobId] = yard.ids.jobs;
  const lead = await yard.as('lead');
  const said = {
    day: plusDays(TODAY, -back),
    reason: 'Agreed',
    customerReference: '',
    agreedBy: '',
    quoteChange: null,
    lines: lines.map(([code, amount]) => ({ costCodeId: yard.ids.codes[code] ?? null, amount: minor(amount) })),
  };
  if (what === 'write' || what === 'agreed') {
    const agreed = what === 'agreed';
    return (await writeBudgetChange(lead, { once: yard.once(), jobId, agreed, ...said })).status === 'done';
  }
  const open = await yard.db('budgetChange').where({ state: 'pending' }).orderBy('id');
  const change = open[which % Math.max(open.length, 1)];
  if (change === undefined) return false;
  const ref = { once: yard.once(), changeId: change.id, version: change.version };
  if (what === 'agree') return (await agreeBudgetChange(lead, ref)).status === 'done';
  if (what === 'drop') return (await dropBudgetChange(lead, ref)).status === 'done';
  return (await changeBudgetChange(lead, { ...ref, ...said })).status === 'done';
}

let figures = 0;
let done = 0;

async function agrees(yard: TestCompany): Promise<void> {
  const changes = await changesOf(yard);
  const { actor } = await yard.as('lead');
  const [jobId] = yard.ids.jobs;
  for (let back = 13; back >= 0; back -= 1) {
    const on = plusDays(TODAY, -back);
    const told = await loadBudget(yard.db, actor, jobId, on as Day);
    for (const code of yard.ids.codes) {
      const theirs = replay(changes, code, code === yard.ids.codes[1] && on >= FROM ? OPENED : 0, on);
      expect({ on, code, budget: told.rows.find((r) => r.code.id === code)?.now ?? 0 }).toEqual({
        on,
        code,
        budget: theirs,
      });
      expect(theirs).toBeGreaterThanOrEqual(0);
      figures += 1;
    }
    const held = replay(changes, null, 0, on);
    expect({ on, held: told.contingency.now }).toEqual({ on, held });
    expect(held).toBeGreaterThanOrEqual(0);
    figures += 1;
  }
  const now = await loadBudget(yard.db, actor, jobId);
  for (const code of yard.ids.codes)
    expect(now.rows.find((r) => r.code.id === code)?.pending ?? 0).toBe(pending(changes, code));
  expect(now.contingency.pending).toBe(pending(changes, null));
  const sums = await yard.db('codeSum').where({ jobId }).select('costCodeId', 'budget');
  for (const { costCodeId, budget } of sums)
    expect(budget).toBe(replay(changes, costCodeId, costCodeId === yard.ids.codes[1] ? OPENED : 0, TODAY));
}

const FROM = plusDays(TODAY, -12);

describe('random histories of budget changes', () => {
  it('come to what a plain replay of them says, at every day, and never below zero', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(act, { minLength: 8, maxLength: 22 }), async (acts) => {
        const yard = await TestCompany.open();
        try {
          await yard.budget(OPENED as Minor);
          await yard.db.raw('drop trigger budget_is_never_changed');
          await yard.db('budgetEntry').update({ day: FROM });
          for (const a of acts) if (await play(yard, a)) done += 1;
          await agrees(yard);
        } finally {
          await yard.close();
        }
      }),
      { numRuns: times(10, 30), seed: 20_261_127 },
    );
    // So that a change of the actions cannot turn all of this into refusals unseen.
    expect(done).toBeGreaterThan(times(30, 100));
    expect(figures).toBeGreaterThan(times(300, 1000));
  }, 120_000);
});
