import { minor, type Minor } from '../money/money';
import type { Account, Balance } from '../tab/postings';
import { NOTHING } from '../tab/stages';

/** What lies in stores and belongs to no job is the company's own cost until it is issued. */
export const STORES: Account = { jobId: null, costCodeId: null };

const actual = ({ jobId, costCodeId }: Account, value: number): Balance => ({
  account: { jobId, costCodeId },
  amounts: { ...NOTHING, actual: minor(value) },
});

/**
 * Where an issue stands on the tab: its job bears it and stores give it up. What a job took of its own goods stands where
 * its order put it already.
 *
 * @param issue - value in minor units of the company's currency, less what came back
 */
export const issueBalances = (
  issue: Account & { readonly ownerId: number | null; readonly value: Minor },
): readonly Balance[] => (issue.ownerId === null ? [actual(issue, issue.value), actual(STORES, -issue.value)] : []);

/** A change of stock as the tab sees it; value is what stores gain by it, or what goes from one owner to the other. */
export type StockChange = Account & {
  readonly kind: 'counted' | 'scrapped' | 'transferred' | 'difference';
  readonly value: Minor;
  readonly toJobId: number | null;
  readonly toCodeId: number | null;
};

/**
 * Where a change of stock stands on the tab. A transfer moves its cost from account to account; a count, what was
 * scrapped, and what an invoice or a return came to beyond what lies there, is gained or lost by stores. What is missed of a
 * job's own goods stays that job's cost: it was bought for it.
 */
export function changeBalances(change: StockChange): readonly Balance[] {
  const { kind, jobId, costCodeId, value, toJobId, toCodeId } = change;
  if (kind === 'transferred')
    return [actual({ jobId, costCodeId }, -value), actual({ jobId: toJobId, costCodeId: toCodeId }, value)];
  return jobId === null ? [actual(STORES, value)] : [];
}
