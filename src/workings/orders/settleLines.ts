import { followsLines, isCharge } from '@/core/orders/kinds';
import type { Day } from '@/core/calendar/workdays';
import type { Minor, UnitPrice } from '@/core/money/money';
import { pricesOf, type ChargeKind, type Spread } from '@/core/orders/charges';
import type { LineKind } from '@/core/orders/kinds';
import { SAME_UNIT, type Factor, type Quantity } from '@/core/quantity/quantity';
import { exactFactor, unitOf } from '@/core/quantity/units';
import { shareWeight } from '@/core/quantity/weight';
import { done, refusal, refused, type Refusal, type Result } from '@/core/result';
import type { Db } from '@/store/db';
import { factorOf, loadItems, loadParts, partKey } from '@/store/gathering';
import type { LineToSave, StoredLine, StoredOrder } from '@/store/orders';

/** A line of a draft as a person typed it: lines and parts without an id are new. */
export type TypedLine = {
  readonly id?: number | undefined;
  readonly kind: LineKind;
  readonly itemId: number | null;
  readonly description: string;
  readonly ourNumber: string;
  readonly theirNumber: string;
  readonly quantity: Quantity;
  readonly unit: string;
  /** Before the discount. */
  readonly price: UnitPrice | null;
  readonly priceQuantity: number;
  /** Hundredths of a percent. */
  readonly discount: number;
  readonly free: boolean;
  readonly note: string;
  readonly taxCodeId: number;
  readonly wantedOn: Day | null;
  readonly placeId: number | null;
  readonly chargeKind: ChargeKind | null;
  readonly chargeCodeId: number | null;
  readonly spread: Spread;
  readonly splits: readonly {
    readonly id?: number | undefined;
    readonly jobId: number | null;
    readonly costCodeId: number | null;
    /** In the line's share unit. */
    readonly quantity: Quantity;
    readonly amount?: Minor | null | undefined;
  }[];
};

/**
 * Brings typed lines together with what is stored of them: which needs they cover, and how their units convert.
 * @returns the lines as they are to be written; refused when what they stand on is gone, or a need's unit does not convert
 */
export async function settleLines(
  db: Db,
  order: StoredOrder,
  typed: readonly TypedLine[],
  today: Day,
): Promise<Result<LineToSave[]>> {
  const itemIds = typed.flatMap((l) => l.itemId ?? []);
  const [items, parts] = [await loadItems(db, itemIds), await loadParts(db, itemIds, today)];
  const lines: LineToSave[] = [];
  for (const [k, line] of typed.entries()) {
    const stored = order.lines.find((l) => l.id === line.id);
    const known = new Map(stored?.splits.map((s) => [s.id, s]));
    const gone = missing(line, stored, known) ?? uncoded(line, k);
    if (gone !== undefined) return refused(gone);
    const splits = line.splits.map(({ id, amount = null, ...rest }) => {
      const own = isCharge(line) ? { quantity: line.quantity } : {};
      const s = { ...rest, ...own, amount };
      const before = known.get(id ?? 0);
      // Bought for another job it no longer covers this job's need; under another cost code it still does.
      const needId = before !== undefined && before.jobId === s.jobId ? before.needId : null;
      return { ...(id === undefined ? {} : { id }), ...s, needId };
    });
    const item = items.get(line.itemId ?? 0);
    const part = parts.get(partKey(order.supplierId, line.itemId));
    const listed = (unit: string) =>
      item && part && line.unit === part.terms.unit ? factorOf(unit, item.unit, part) : undefined;
    const covers = splits.some((s) => s.needId !== null);
    const units = unitsOf(line, stored, covers, listed);
    if (units === undefined) return refused(unconverted(line, stored, k));
    const { id, ...rest } = line;
    lines.push({
      ...(id === undefined ? {} : { id }),
      ...rest,
      ...pricesOf(line),
      ...units,
      chargeKind: isCharge(line) ? (line.chargeKind ?? stored?.chargeKind ?? 'other') : null,
      weight: item === undefined ? null : shareWeight(item, units.shareUnit),
      splits: followsLines(line) ? (stored?.splits ?? []) : splits,
    });
  }
  return done(lines);
}

function missing(
  line: TypedLine,
  stored: StoredLine | undefined,
  known: ReadonlyMap<number, unknown>,
): Refusal | undefined {
  if (line.id !== undefined && stored === undefined)
    return refusal('line.missing', 'The order has changed: a line was removed. Refresh the order and try again.');
  return line.splits.some((s) => s.id !== undefined && !known.has(s.id))
    ? refusal(
        'split.missing',
        `The order has changed: a split of ${line.description} was removed. Refresh the order and try again.`,
      )
    : undefined;
}

const uncoded = (line: TypedLine, k: number): Refusal | undefined =>
  (!isCharge(line) || line.spread === 'amounts') &&
  line.splits.some((s) => (s.jobId === null) !== (s.costCodeId === null))
    ? refusal(
        'split.code',
        `${line.description}: choose a cost code for each job, and leave it empty for stores.`,
        `lines.${k}.splits`,
      )
    : undefined;

const unconverted = (line: TypedLine, stored: StoredLine | undefined, k: number): Refusal =>
  refusal(
    'line.unit',
    `${line.description} is for a need in ${unitOf(stored?.shareUnit ?? line.unit).name}s, and ${unitOf(line.unit).name}s can’t be converted. Enter it in ${unitOf(stored?.shareUnit ?? line.unit).name}s.`,
    `lines.${k}.unit`,
  );

/** The unit that a line's splits are in, and how it converts; undefined when a need's unit cannot be converted. */
function unitsOf(
  line: TypedLine,
  stored: StoredLine | undefined,
  covers: boolean,
  listed: (unit: string) => Factor | undefined,
): { shareUnit: string; factor: Factor } | undefined {
  if (isCharge(line)) return { shareUnit: line.unit, factor: SAME_UNIT };
  if (stored !== undefined && stored.unit === line.unit) return { shareUnit: stored.shareUnit, factor: stored.factor };
  const shareUnit = stored?.shareUnit ?? line.unit;
  const factor = exactFactor(line.unit, shareUnit) ?? listed(shareUnit);
  if (factor !== undefined) return { shareUnit, factor };
  return covers ? undefined : { shareUnit: line.unit, factor: SAME_UNIT };
}
