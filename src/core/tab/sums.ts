import { add, subtract, type Minor } from '../money/money';
import { COMMITTED, NOTHING, plus, STAGES, sumOf, type Amounts, type Stage } from './stages';

/** A budget and what stands against it: one cost code of a job, or the whole job. */
export type Level = { readonly budget: Minor; readonly amounts: Amounts };

/** on order + received + actual */
export const committedOf = (level: Level): Minor => sumOf(level.amounts, COMMITTED);

/** planned + drafted + committed */
export const forecastOf = (level: Level): Minor => sumOf(level.amounts);

/** budget − forecast; negative is over. */
export const headroomOf = (level: Level): Minor => subtract(level.budget, forecastOf(level));

export const EMPTY_LEVEL: Level = { budget: 0 as Minor, amounts: NOTHING };

export const addLevels = (levels: readonly Level[]): Level =>
  levels.reduce(
    (sum, l) => ({ budget: add(sum.budget, l.budget), amounts: plus(sum.amounts, l.amounts) }),
    EMPTY_LEVEL,
  );

export type Segment = { readonly stage: Stage; readonly amount: Minor; readonly from: number; readonly to: number };

/**
 * How a budget is drawn in its sight glass: stages stacked from the most certain, as shares of the scale.
 * The scale holds the budget or the forecast, whichever is larger.
 *
 * @returns `segments` and `max` from 0 to 1; `over` is what passes the budget, undefined when nothing does
 */
export function gauge(level: Level): {
  segments: readonly Segment[];
  max: number;
  over?: { from: number; to: number };
} {
  const forecast = forecastOf(level);
  const scale = Math.max(level.budget, forecast, 1);
  let at = 0;
  const segments = [...STAGES].reverse().flatMap((stage) => {
    const amount = level.amounts[stage];
    if (amount <= 0) return [];
    const from = at / scale;
    at += amount;
    return [{ stage, amount, from, to: at / scale }];
  });
  const max = level.budget / scale;
  return at > level.budget ? { segments, max, over: { from: max, to: at / scale } } : { segments, max };
}
