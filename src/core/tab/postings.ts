import { minor, ZERO, type Minor } from '../money/money';
import { STAGES, type Amounts, type Stage } from './stages';

/** Where a posting belongs: a job's cost code, or the stores account when there is no job. */
export type Account = { readonly jobId: number | null; readonly costCodeId: number | null };

/** Where one line of the tab stands. */
export type Standing = { readonly account: Account; readonly amounts: Amounts };

export type Movement = Account & { readonly stage: Stage; readonly amount: Minor };

const keyOf = (a: Account) => `${a.jobId ?? '-'}/${a.costCodeId ?? '-'}`;

/**
 * What an event posts for one line: where it stands now less where it stood, by account and stage.
 * Stages that did not move post nothing.
 *
 * @param before - the sum of the line's postings so far
 * @param after - the stage function of the line's present state; undefined when the line is gone
 * @returns amounts in minor units that, added to `before`, give `after`
 */
export function movements(before: readonly Standing[], after: Standing | undefined): Movement[] {
  const accounts = new Map<string, Account>();
  for (const s of after === undefined ? before : [...before, after]) accounts.set(keyOf(s.account), s.account);
  return [...accounts.values()].flatMap((account) => {
    const was = before.filter((s) => keyOf(s.account) === keyOf(account));
    const is = after !== undefined && keyOf(after.account) === keyOf(account) ? after.amounts : undefined;
    return STAGES.flatMap((stage) => {
      const amount = minor((is?.[stage] ?? ZERO) - was.reduce((sum, s) => sum + s.amounts[stage], 0));
      return amount === 0 ? [] : [{ ...account, stage, amount }];
    });
  });
}
