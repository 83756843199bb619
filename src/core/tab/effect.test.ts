import { minor, type Minor } from '../money/money';
import { effects, moving, undoing } from './effect';
import { NOTHING, type Amounts } from './stages';

const amounts = (change: Partial<Record<keyof Amounts, number>>): Amounts => ({
  ...NOTHING,
  ...(change as Partial<Record<keyof Amounts, Minor>>),
});
const drafting = (jobId: number, costCodeId: number, value: Minor) =>
  moving(jobId, costCodeId, NOTHING, amounts({ drafted: value }));
const level = { jobId: 1, costCodeId: 2, budget: minor(1000), amounts: amounts({ planned: 300, actual: 100 }) };

describe('what a purchase does to budgets', () => {
  it('adds up all changes to one account, and keeps the level it starts from', () => {
    const found = effects(
      [level],
      [drafting(1, 2, minor(250)), moving(1, 2, amounts({ planned: 300 }), amounts({ planned: 60 }))],
    );
    expect(found).toEqual([
      {
        jobId: 1,
        costCodeId: 2,
        before: { budget: 1000, amounts: level.amounts },
        after: { budget: 1000, amounts: amounts({ planned: 60, drafted: 250, actual: 100 }) },
      },
    ]);
  });

  it('starts an account that has no budget from nothing', () => {
    expect(effects([level], [drafting(1, 9, minor(25))])).toMatchObject([
      { costCodeId: 9, before: { budget: 0 }, after: { budget: 0, amounts: { drafted: 25 } } },
    ]);
  });

  it('leaves accounts alone that nothing touches', () => expect(effects([level], [])).toEqual([]));

  it('can be taken back', () => {
    const changes = [drafting(1, 2, minor(250)), moving(1, 2, amounts({ planned: 300 }), amounts({}))];
    const there = effects([level], changes).map((e) => ({ jobId: 1, costCodeId: 2, ...e.after }));
    expect(effects(there, changes.map(undoing))[0]?.after.amounts).toEqual(level.amounts);
  });
});
