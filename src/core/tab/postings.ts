import { minor, type Minor } from '../money/money';
import { STAGES, type Amounts, type Stage } from './stages';

/** Where a posting belongs: a job's cost code, or the stores account when there is no job. */
export type Account = { readonly jobId: number | null; readonly costCodeId: number | null };

/** Where one line of the tab stands. */
export type Balance = { readonly account: Account; readonly amounts: Amounts };

export type Movement = Account & { readonly stage: Stage; readonly amount: Minor };

const keyOf = (a: Account) => `${a.jobId ?? '-'}/${a.costCodeId ?? '-'}`;

/** Where nothing stands any more. */
export const NOWHERE: readonly Balance[] = [];

/**
 * What an event posts for one line: where it stands now less where it stood, by account and stage.
 * Stages that did not move post nothing.
 *
 * @param before - the sum of the line's postings so far
 * @param after - the stage function of the line's present state, which may stand on several accounts
 * @returns amounts in minor units that, added to `before`, give `after`
 */
export function movements(before: readonly Balance[], after: readonly Balance[]): Movement[] {
  const accounts = new Map([...before, ...after].map((s) => [keyOf(s.account), s.account]));
  return [...accounts].flatMap(([key, account]) => {
    const at = (standings: readonly Balance[], stage: Stage) =>
      standings.reduce((sum, s) => (keyOf(s.account) === key ? sum + s.amounts[stage] : sum), 0);
    return STAGES.flatMap((stage) => {
      const amount = minor(at(after, stage) - at(before, stage));
      return amount === 0 ? [] : [{ ...account, stage, amount }];
    });
  });
}
