import { minor } from '../money/money';
import { byStage, plus, type Amounts } from './stages';
import { EMPTY_LEVEL, type Level } from './sums';

/** A change to one account: a job's cost code gains or loses amounts by stage. */
export type Change = { readonly jobId: number; readonly costCodeId: number; readonly amounts: Amounts };

export type Effect = {
  readonly jobId: number;
  readonly costCodeId: number;
  readonly before: Level;
  readonly after: Level;
};

/** What an account gains by stage when one of its lines goes from these amounts to those. */
export const moving = (jobId: number, costCodeId: number, from: Amounts, to: Amounts): Change => ({
  jobId,
  costCodeId,
  amounts: byStage((s) => minor(to[s] - from[s])),
});

const keyOf = (c: { jobId: number; costCodeId: number }) => `${c.jobId}/${c.costCodeId}`;

/**
 * What a set of changes does to every budget it touches.
 *
 * @param levels - the levels that the changes start from; an account without a level starts empty
 * @returns one effect for each account touched, in the order of the changes
 */
export function effects(
  levels: readonly (Level & { jobId: number; costCodeId: number })[],
  changes: readonly Change[],
): Effect[] {
  const known = new Map(levels.map((l) => [keyOf(l), { budget: l.budget, amounts: l.amounts }]));
  const found = new Map<string, Effect>();
  for (const change of changes) {
    const before = known.get(keyOf(change)) ?? EMPTY_LEVEL;
    const sofar = found.get(keyOf(change))?.after ?? before;
    found.set(keyOf(change), {
      jobId: change.jobId,
      costCodeId: change.costCodeId,
      before,
      after: { ...sofar, amounts: plus(sofar.amounts, change.amounts) },
    });
  }
  return [...found.values()];
}

/** The opposite of a change: what taking it away does. */
export const undoing = (change: Change): Change => ({
  ...change,
  amounts: byStage((s) => minor(-change.amounts[s])),
});
