import { asDay, type Day } from '@/core/calendar/workdays';
import type { Minor, Rate, UnitPrice } from '@/core/money/money';
import type { Factor, Quantity } from '@/core/quantity/quantity';
import { groupBy } from '@/core/group';
import { anyQuantity, type PartTerms, type PriceBreak } from '@/core/sourcing/terms';
import type { Db } from './connection';
import { whereIn } from './rows';

export type Supplier = {
  readonly id: number;
  readonly name: string;
  readonly contact: string;
  readonly email: string | null;
  readonly address: string;
  readonly currency: string;
  readonly rate: Rate;
  readonly paymentDays: number;
  readonly leadDays: number;
  readonly carriage: Minor;
  readonly carriageFreeFrom: Minor | null;
  readonly taxCodeId: number;
  readonly carrier: string;
  readonly version: number;
};

export type NeedRow = {
  readonly id: number;
  readonly jobId: number;
  readonly itemId: number | null;
  readonly description: string;
  readonly quantity: Quantity;
  readonly unit: string;
  readonly costCodeId: number;
  readonly price: UnitPrice | null;
  readonly priceQuantity: number;
  readonly supplierId: number | null;
  readonly neededOn: Day | null;
  readonly open: Quantity;
  readonly version: number;
};

export type Part = {
  readonly id: number;
  readonly supplierId: number;
  readonly itemId: number;
  readonly theirNumber: string;
  readonly leadDays: number | null;
  readonly terms: PartTerms;
};

type PartRow = {
  id: number;
  supplierId: number;
  itemId: number;
  theirNumber: string;
  unit: string;
  factorMany: number;
  factorOne: number;
  minimum: Quantity;
  pack: Quantity;
  leadDays: number | null;
};

/** How suppliers sell these items, by supplier and item. */
export async function loadParts(db: Db, itemIds: readonly number[]): Promise<Map<string, Part>> {
  const rows = await whereIn<PartRow>(db, 'supplierPart', 'itemId', itemIds);
  const prices = groupBy(
    await whereIn<PriceBreak & { partId: number; fromQuantity: Quantity }>(
      db,
      'priceBreak',
      'partId',
      rows.map((r) => r.id),
    ),
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
      return [
        partKey(r.supplierId, r.itemId),
        {
          id: r.id,
          supplierId: r.supplierId,
          itemId: r.itemId,
          theirNumber: r.theirNumber,
          leadDays: r.leadDays,
          terms,
        },
      ];
    }),
  );
}

export const partKey = (supplierId: number | null, itemId: number | null): string => `${supplierId}/${itemId}`;

/** The terms on which a need can be bought: the supplier's part, or any quantity in the need's unit. */
export const termsFor = (
  need: Pick<NeedRow, 'supplierId' | 'itemId' | 'unit'>,
  parts: ReadonlyMap<string, Part>,
): PartTerms => parts.get(partKey(need.supplierId, need.itemId))?.terms ?? anyQuantity(need.unit);

export const loadSuppliers = async (db: Db, ids: readonly number[]): Promise<Map<number, Supplier>> =>
  new Map((await whereIn<Supplier>(db, 'supplier', 'id', ids)).map((s) => [s.id, s]));

export const earliest = (days: readonly (Day | null)[]): Day | null =>
  asDay(days.filter((d) => d !== null).sort()[0] ?? '') ?? null;

export type Picked = { readonly needId: number; readonly buy: Quantity };

/** The picked needs in the order of the picks. */
export async function loadPickedRows(db: Db, picks: readonly Picked[]): Promise<(NeedRow & { buy: Quantity })[]> {
  const rows = new Map(
    (
      await whereIn<NeedRow>(
        db,
        'need',
        'id',
        picks.map((p) => p.needId),
      )
    ).map((r) => [r.id, r]),
  );
  return picks.flatMap((p) => {
    const row = rows.get(p.needId);
    return row === undefined ? [] : [{ ...row, buy: p.buy }];
  });
}
