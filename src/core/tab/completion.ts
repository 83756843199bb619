import { minor, type Minor } from '../money/money';
import { committedOf, forecastOf, type Level } from './sums';

/** What somebody says of how a cost code ends. */
export type Estimate = {
  /** What it comes to in the end, in the place of what is planned; null leaves that to the forecast. */
  readonly amount: Minor | null;
  /** How much of the work is done, in hundredths of a percent; null where nobody said. */
  readonly done: number | null;
};

export type Completion = {
  /** Received and actual: the cost of what was got so far (AC). */
  readonly incurred: Minor;
  /** Cost at completion (EAC): the forecast, or what was said, and no less than what is committed or drafted. */
  readonly atCompletion: Minor;
  /** What is still to come of it (ETC = EAC − AC). */
  readonly toComplete: Minor;
  /** Budget − cost at completion (VAC); negative ends over. */
  readonly variance: Minor;
  /** The rest is known only where somebody said how much is done. */
  readonly earned?: {
    /** Budget × share done (EV), to the minor unit, half away from zero. */
    readonly value: Minor;
    /** EV − AC; negative costs more than it earned. */
    readonly costVariance: Minor;
    /** EV ÷ AC in ten-thousandths; null before anything was incurred. */
    readonly costIndex: number | null;
    /** Cost at completion if it goes on costing what it did: BAC ÷ CPI; null where nothing was earned or incurred. */
    readonly byIndex: Minor | null;
    /** (BAC − EV) ÷ (BAC − AC) in ten-thousandths: what the rest has to earn for each unit spent, to end on budget; null once the budget is spent. */
    readonly toCompleteIndex: number | null;
  };
};

const FULL = 10_000n;

/** Divides, half away from zero. The divisor is above zero. */
const rounded = (n: bigint, by: bigint): number => {
  const half = by / 2n;
  return Number(n >= 0n ? (n + half) / by : -((-n + half) / by));
};

/**
 * How a cost code, or a whole job, ends. Source of the terms and formulas: earned value management as in ANSI/EIA-748 and
 * PMI's Practice Standard for Earned Value Management (EV, AC, BAC, EAC, ETC, VAC, CV, CPI, TCPI).
 *
 * @example a budget of 2,000.00 of which 1,200.00 are incurred and half is done: CPI 0.8333, by index 2,400.00
 */
export function completionOf(level: Level, { amount, done }: Estimate = { amount: null, done: null }): Completion {
  const { budget, amounts } = level;
  const incurred = minor(amounts.received + amounts.actual);
  const sure = committedOf(level) + amounts.drafted;
  const atCompletion = amount === null ? forecastOf(level) : minor(Math.max(amount, sure));
  const common = {
    incurred,
    atCompletion,
    toComplete: minor(atCompletion - incurred),
    variance: minor(budget - atCompletion),
  };
  if (done === null) return common;
  const [bac, ac] = [BigInt(budget), BigInt(incurred)];
  const ev = BigInt(rounded(bac * BigInt(done), FULL));
  return {
    ...common,
    earned: {
      value: minor(Number(ev)),
      costVariance: minor(Number(ev - ac)),
      costIndex: ac > 0n ? rounded(ev * FULL, ac) : null,
      byIndex: ac > 0n && ev > 0n ? minor(rounded(bac * ac, ev)) : null,
      toCompleteIndex: bac > ac ? rounded((bac - ev) * FULL, bac - ac) : null,
    },
  };
}

/** How a whole job ends: each of its cost codes as it was estimated. */
export function completionOfAll(of: readonly Completion[]): Pick<Completion, 'incurred' | 'atCompletion' | 'variance'> {
  const sum = (amount: (c: Completion) => Minor) => minor(of.reduce((all, c) => all + amount(c), 0));
  return {
    incurred: sum((c) => c.incurred),
    atCompletion: sum((c) => c.atCompletion),
    variance: sum((c) => c.variance),
  };
}
