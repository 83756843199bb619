import type { Day } from '../calendar/workdays';
import { subtract, ZERO, type Minor } from '../money/money';
import type { Quantity } from '../quantity/quantity';

/** A line of a quote as its buy list takes it: one that is bought, and agreed to. */
export type BoughtLine = {
  readonly id: number;
  readonly description: string;
  readonly unit: string;
  readonly quantity: Quantity;
  readonly neededOn: Day | null;
};

/** The same of a revision; `fromLineId` is the line of the quote before that it was copied from. */
export type RevisedLine = BoughtLine & { readonly fromLineId: number | null };

export type LineChange = {
  /** The same for the same line whenever it is asked. */
  readonly key: string;
  /** The line as it was won; undefined for one that is new. */
  readonly was: BoughtLine | undefined;
  /** As the revision has it; undefined for one that is gone. */
  readonly is: RevisedLine | undefined;
};

const isChanged = ({ was, is }: LineChange): boolean =>
  was === undefined || is === undefined || was.quantity !== is.quantity || was.neededOn !== is.neededOn;

/**
 * What a revision changes of the lines that were bought of the quote before: their quantity, their day, and which there
 * are. A line that is measured in another unit now is another line.
 */
export function revisionChanges(won: readonly BoughtLine[], revised: readonly RevisedLine[]): LineChange[] {
  const before = new Map(won.map((l) => [l.id, l]));
  const pairs = revised.map((is): LineChange => {
    const was = before.get(is.fromLineId ?? 0);
    const same = was !== undefined && was.unit === is.unit;
    return { key: same ? `line ${was.id}` : `new ${is.id}`, was: same ? was : undefined, is };
  });
  const kept = new Set(pairs.flatMap(({ was }) => was?.id ?? []));
  const gone = won
    .filter((l) => !kept.has(l.id))
    .map((was): LineChange => ({ key: `line ${was.id}`, was, is: undefined }));
  return [...pairs, ...gone].filter(isChanged);
}

/** By how much a budget differs from the one before, by cost code; codes that stay are left out. */
export function budgetChange(
  before: ReadonlyMap<number, Minor>,
  after: ReadonlyMap<number, Minor>,
): Map<number, Minor> {
  const codes = new Set([...before.keys(), ...after.keys()]);
  return new Map(
    [...codes].flatMap((code) => {
      const by = subtract(after.get(code) ?? ZERO, before.get(code) ?? ZERO);
      return by === 0 ? [] : [[code, by] as const];
    }),
  );
}
