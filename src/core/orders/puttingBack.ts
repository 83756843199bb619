import { isCharge } from './kinds';
import type { Spread } from './charges';
import type { LineKind } from './kinds';
import { addQ, NONE, toSupplierUnit, type Factor, type Quantity } from '../quantity/quantity';

type Line = {
  readonly kind: LineKind;
  readonly spread: Spread;
  readonly quantity: Quantity;
  readonly factor: Factor;
  readonly splits: readonly {
    readonly needId: number | null;
    readonly jobId: number | null;
    readonly quantity: Quantity;
  }[];
};

/**
 * Lines of a draft without the parts that cover these needs. What was only there because of them, bought beyond what
 * they asked for, goes with them, and so does a line of which nothing else is left, and a charge that then has no line to
 * follow.
 */
export function withoutNeeds<L extends Line>(lines: readonly L[], needIds: ReadonlySet<number>): L[] {
  const kept = lines.flatMap((line) => {
    const gone = line.splits.filter((s) => s.needId !== null && needIds.has(s.needId));
    if (gone.length === 0) return [line];
    const left = line.splits.filter((s) => !gone.includes(s));
    const surplus = (s: L['splits'][number]) =>
      s.needId === null && (s.jobId === null || gone.some((g) => g.jobId === s.jobId));
    if (left.every(surplus)) return [];
    const whole = addQ(NONE, ...left.map((s) => s.quantity));
    return [{ ...line, quantity: toSupplierUnit(whole, line.factor), splits: left }];
  });
  const carries = kept.some((l) => !isCharge(l));
  return carries ? kept : kept.filter((l) => !isCharge(l) || l.spread === 'amounts');
}
