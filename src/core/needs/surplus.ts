import { formatQuantity, quantity, type Quantity } from '../quantity/quantity';
import { done, refusal, refused, type Result } from '../result';
import type { SplitState } from '../tab/stages';

/** What becomes of what was bought for a need beyond what it is cut to. */
export const SURPLUS = ['job', 'stores'] as const;
export type Surplus = (typeof SURPLUS)[number];

type Covered = { readonly description: string; readonly covered: Quantity };

/** A need is not cut below what is drafted or ordered for it, unless it is said what becomes of the rest. */
export function cutFault(need: Covered, to: Quantity, said: Surplus | undefined, unit: string) {
  if (to >= need.covered || said !== undefined) return undefined;
  const measured = (q: number) => `${formatQuantity(quantity(q))} ${unit}`.trim();
  return refusal(
    'need.surplus',
    `${measured(need.covered)} of ${need.description} ${need.covered === 10_000 ? 'is' : 'are'} already drafted or ordered. Choose where the surplus ${measured(need.covered - to)} goes: keep on the job, or stores.`,
    'surplus',
  );
}

export type Move = {
  readonly splitId: number;
  /** What stays for the need; 0 when the whole split goes. */
  readonly keep: Quantity;
  readonly move: Quantity;
};

/**
 * Chooses what of a need's splits goes to stores: drafts first, then what is on order, never what is in or invoiced.
 *
 * @param over - in the need's unit
 * @returns each split that gives something up; or why so much cannot go
 */
export function moveSurplus(splits: readonly (SplitState & { readonly id: number })[], over: Quantity): Result<Move[]> {
  let left: number = over;
  const free = (s: SplitState) =>
    s.commitment === 'drafted' || s.commitment === 'sent'
      ? Math.max(s.ordered - Math.max(s.received, s.invoiced + s.claimed), 0)
      : 0;
  const byCertainty = [...splits].sort(
    (a, b) => Number(b.commitment === 'drafted') - Number(a.commitment === 'drafted') || b.id - a.id,
  );
  const moves = byCertainty.flatMap((s): Move[] => {
    const move = Math.min(left, free(s));
    if (move <= 0) return [];
    left -= move;
    return [{ splitId: s.id, keep: quantity(s.ordered - move), move: quantity(move) }];
  });
  return left > 0
    ? refused(
        refusal(
          'need.in',
          `Only ${formatQuantity(quantity(over - left))} of the surplus ${formatQuantity(over)} can go to stores: the rest is already received or invoiced, and stays on the job.`,
          'surplus',
        ),
      )
    : done(moves);
}
