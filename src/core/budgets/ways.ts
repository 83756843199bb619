import { minor, type Minor } from '../money/money';

/** A cost code with what is left of its budget. */
export type Room = { readonly costCodeId: number; readonly headroom: Minor };

/** How a budget that is passed can be made whole: more of it, from another cost code, or from what is held back. */
export type Ways = {
  readonly over: Minor;
  /** The other code with the most room, as far as that goes; null where none has any. */
  readonly from: Room | null;
  /** How much of it what is held back covers. */
  readonly contingency: Minor;
};

/**
 * What can be done about a budget that is passed.
 *
 * @param rooms - of every cost code of the job
 * @param contingency - what is held back of the job's money
 * @returns undefined where the budget is not passed
 */
export function waysOut(costCodeId: number, rooms: readonly Room[], contingency: Minor): Ways | undefined {
  const headroom = rooms.find((r) => r.costCodeId === costCodeId)?.headroom ?? minor(0);
  if (headroom >= 0) return undefined;
  const over = minor(-headroom);
  const [most] = rooms
    .filter((r) => r.costCodeId !== costCodeId && r.headroom > 0)
    .sort((a, b) => b.headroom - a.headroom);
  return {
    over,
    from: most === undefined ? null : { ...most, headroom: minor(Math.min(most.headroom, over)) },
    contingency: minor(Math.min(Math.max(contingency, 0), over)),
  };
}
