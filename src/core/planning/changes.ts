import type { Day } from '../calendar/workdays';
import type { Quantity } from '../quantity/quantity';

/** A branch as it is planned, or as its BOM has it now. */
export type Planned = {
  /** Its own place among the branches compared. */
  readonly at: number;
  /** The branch above it, by its place; undefined for what is made. */
  readonly parent: number | undefined;
  readonly itemId: number | null;
  readonly description: string;
  readonly unit: string;
  readonly quantity: Quantity;
  readonly neededOn: Day | null;
};

export type PlanChange = {
  /** The same for the same branch whenever it is asked. */
  readonly key: string;
  /** The branch as it is planned; undefined for one that is new. */
  readonly was: Planned | undefined;
  /** As it would be; undefined for one that is gone. */
  readonly is: Planned | undefined;
};

/** What a branch is known by from one version of a BOM to the next: what it is, below what. */
function keysOf(branches: readonly Planned[]): Map<number, string> {
  const keys = new Map<number, string>();
  const seen = new Map<string, number>();
  for (const { at, parent, itemId, description, unit } of branches) {
    const own = itemId === null ? `“${description}” ${unit}` : `item ${itemId}`;
    const bare = parent === undefined ? own : `${keys.get(parent) ?? ''} > ${own}`;
    const nth = (seen.get(bare) ?? 0) + 1;
    seen.set(bare, nth);
    keys.set(at, nth === 1 ? bare : `${bare} (${nth})`);
  }
  return keys;
}

/** Whether a branch is new, gone, or of another quantity or day. */
export const isChanged = ({ was, is }: PlanChange): boolean =>
  was === undefined || is === undefined || was.quantity !== is.quantity || was.neededOn !== is.neededOn;

/**
 * Sets a plan beside what it would be after a change further up: of the quantity, of a BOM's version, of a date.
 *
 * @param planned - the branches as they are planned, each after the one above it
 * @param fresh - as they come out now, in the same order
 * @returns every branch of either, with what it is on both sides: in the order of the fresh ones, those that are gone last
 */
export function beside(planned: readonly Planned[], fresh: readonly Planned[]): PlanChange[] {
  const [was, is] = [keysOf(planned), keysOf(fresh)];
  const before = new Map(planned.map((p) => [was.get(p.at) ?? '', p]));
  const now = new Set(is.values());
  return [
    ...fresh.map((f) => {
      const key = is.get(f.at) ?? '';
      return { key, was: before.get(key), is: f };
    }),
    ...planned.flatMap((p) => {
      const key = was.get(p.at) ?? '';
      return now.has(key) ? [] : [{ key, was: p, is: undefined }];
    }),
  ];
}
