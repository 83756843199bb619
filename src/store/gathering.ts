import type { Day } from '@/core/calendar/workdays';
import { groupBy } from '@/core/group';
import { SAME_UNIT, through, type Factor, type Quantity } from '@/core/quantity/quantity';
import { exactFactor } from '@/core/quantity/units';
import { holdsOn } from '@/core/sourcing/prices';
import { anyQuantity, type PartTerms } from '@/core/sourcing/terms';
import type { Db } from './db';
import { whereIn } from './rows';
import type { Item, NeedRow, Supplier, SupplierPart } from './tables';

export type SoldPart = Pick<SupplierPart, 'id' | 'supplierId' | 'itemId' | 'theirNumber' | 'leadDays'> & {
  /** The conversion is between the item's unit and the supplier's. */
  readonly terms: PartTerms;
};

/** How suppliers sell these items, by supplier and item, at the prices that hold on a day. */
export async function loadParts(db: Db, itemIds: readonly number[], on: Day): Promise<Map<string, SoldPart>> {
  const rows = await whereIn(db, 'supplierPart', 'itemId', itemIds);
  const prices = groupBy(
    (
      await whereIn(
        db,
        'priceBreak',
        'partId',
        rows.map((r) => r.id),
      )
    ).filter((p) => holdsOn(p, on)),
    (p) => p.partId,
  );
  return new Map(
    rows.map((r) => {
      const factor: Factor = { many: r.factorMany, one: r.factorOne };
      const breaks = (prices.get(r.id) ?? []).map((p) => ({
        from: p.fromQuantity,
        price: p.price,
        priceQuantity: p.priceQuantity,
      }));
      const terms: PartTerms = { unit: r.unit, factor, minimum: r.minimum, pack: r.pack, prices: breaks };
      const { id, supplierId, itemId, theirNumber, leadDays } = r;
      return [partKey(supplierId, itemId), { id, supplierId, itemId, theirNumber, leadDays, terms }];
    }),
  );
}

export const partKey = (supplierId: number | null, itemId: number | null): string => `${supplierId}/${itemId}`;

/** How many of `unit` are in how many of the supplier's unit, for an item kept in its own unit; undefined when unknown. */
export function factorOf(unit: string, itemUnit: string, part: SoldPart): Factor | undefined {
  if (unit === part.terms.unit) return SAME_UNIT;
  const own = exactFactor(itemUnit, unit);
  return own && through(own, part.terms.factor);
}

/**
 * The terms on which a need can be bought: those of the supplier's part, or any quantity in the need's unit.
 * @returns undefined when the need is measured in a unit that the item's cannot be converted to
 */
export function termsFor(
  need: Pick<NeedRow, 'supplierId' | 'itemId' | 'unit'>,
  parts: ReadonlyMap<string, SoldPart>,
  item: Pick<Item, 'unit'> | undefined,
): PartTerms | undefined {
  const part = parts.get(partKey(need.supplierId, need.itemId));
  if (part === undefined || item === undefined) return anyQuantity(need.unit);
  const factor = factorOf(need.unit, item.unit, part);
  return factor && { ...part.terms, factor };
}

export const loadSuppliers = async (db: Db, ids: readonly number[]): Promise<Map<number, Supplier>> =>
  new Map((await whereIn(db, 'supplier', 'id', ids)).map((s) => [s.id, s]));

export const loadItems = async (db: Db, ids: readonly number[]): Promise<Map<number, Item>> =>
  new Map((await whereIn(db, 'item', 'id', ids)).map((i) => [i.id, i]));

export const earliest = (days: readonly (Day | null)[]): Day | null => days.filter((d) => d !== null).sort()[0] ?? null;

export type Picked = {
  readonly needId: number;
  readonly buy: Quantity;
  /** Another supplier than the need has, to see what that would make. */
  readonly supplierId?: number | undefined;
};

/** The picked needs in the order of the picks. */
export async function loadPickedRows(db: Db, picks: readonly Picked[]): Promise<(NeedRow & { buy: Quantity })[]> {
  const rows = new Map(
    (
      await whereIn(
        db,
        'need',
        'id',
        picks.map((p) => p.needId),
      )
    ).map((r) => [r.id, r]),
  );
  return picks.flatMap((p) => {
    const row = rows.get(p.needId);
    return row === undefined ? [] : [{ ...row, buy: p.buy, supplierId: p.supplierId ?? row.supplierId }];
  });
}
