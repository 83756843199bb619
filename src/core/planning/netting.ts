import type { Day } from '../calendar/workdays';
import { groupBy } from '../group';
import {
  fromSupplierUnit,
  least,
  quantity,
  subtractQ,
  toSupplierUnit,
  type Factor,
  type Quantity,
} from '../quantity/quantity';

/** How a job's buy list is planned: all it needs, or what stores and incoming orders do not cover. */
export const PLANNING = ['inFull', 'shortfall'] as const;
export type Planning = (typeof PLANNING)[number];

export const PLANNING_NAMES: Readonly<Record<Planning, string>> = {
  inFull: 'full quantity',
  shortfall: 'shortfall only',
};

export type Requirement = {
  readonly needId: number;
  readonly itemId: number;
  readonly jobId: number;
  /** The last day on which it may arrive; null when there is no day. */
  readonly by: Day | null;
  /** What is still open, in the need's unit. */
  readonly open: Quantity;
  /** How many of the need's unit are in how many of the item's. */
  readonly factor: Factor;
};

/** Where something may be had from: stock at a place, or a part of an order that goes to stores. */
export type Source =
  | {
      readonly kind: 'stock';
      readonly placeId: number;
      /** Whose it is; null for the company's. */ readonly jobId: number | null;
    }
  | { readonly kind: 'coming'; readonly splitId: number; readonly on: Day | null };

export type Supply = {
  readonly source: Source;
  readonly itemId: number;
  /** What nobody has a claim on, in the item's unit. */
  readonly free: Quantity;
};

export type Cover = {
  readonly needId: number;
  readonly itemId: number;
  readonly source: Source;
  /** In the item's unit, and in the need's. */
  readonly quantity: Quantity;
  readonly share: Quantity;
};

const mayServe = (source: Source, { jobId, by }: Requirement): boolean =>
  source.kind === 'stock'
    ? source.jobId === null || source.jobId === jobId
    : by === null || (source.on !== null && source.on <= by);

/** A job's own stock before the company's, stock before what is coming, and that in the order of its days. */
const rank = (source: Source): string =>
  source.kind === 'stock' ? (source.jobId === null ? '1' : '0') : `2${source.on ?? '~'}`;

/**
 * What of these requirements stores and incoming orders cover: the earliest needed takes first, from the job's own stock,
 * from free stock, then from what comes in time. Nothing is counted for two.
 * Source: time-phased netting of gross requirements against on hand and scheduled receipts, as in Orlicky, Material
 * Requirements Planning (1975); from memory.
 *
 * @returns what is taken from where; what a requirement still lacks is to be bought
 */
export function netting(requirements: readonly Requirement[], supplies: readonly Supply[]): Cover[] {
  const left = new Map(supplies.map((s) => [s, s.free] as const));
  const byItem = groupBy(
    [...supplies].sort((a, b) => rank(a.source).localeCompare(rank(b.source))),
    (s) => s.itemId,
  );
  const order = [...requirements].sort((a, b) => (a.by ?? '~').localeCompare(b.by ?? '~') || a.needId - b.needId);
  return order.flatMap((requirement) => {
    const { needId, itemId, factor } = requirement;
    let open = requirement.open;
    return (byItem.get(itemId) ?? []).flatMap((supply): Cover[] => {
      const free = left.get(supply) ?? quantity(0);
      if (open <= 0 || free <= 0 || !mayServe(supply.source, requirement)) return [];
      const taken = least(free, toSupplierUnit(open, factor));
      const share = least(open, fromSupplierUnit(taken, factor));
      if (share <= 0) return [];
      left.set(supply, subtractQ(free, taken));
      open = subtractQ(open, share);
      return [{ needId, itemId, source: supply.source, quantity: taken, share }];
    });
  });
}
