import type { Day } from '@/core/calendar/workdays';
import type { UnitPrice } from '@/core/money/money';
import { priceFrom } from '@/core/money/rate';
import type { Quantity } from '@/core/quantity/quantity';
import { priceFor, pricePerNeedUnit, quantityToOrder } from '@/core/sourcing/terms';
import { loadRates } from './company';
import type { Db } from './db';
import { loadItems, loadParts, loadSuppliers, partKey, termsFor } from './gathering';

export type Wanted = { readonly itemId: number | null; readonly unit: string; readonly quantity: Quantity };

export type Estimate = {
  readonly supplierId: number | null;
  readonly costCodeId: number | null;
  /** What the usual supplier asks for one of the unit when so many are had, in the company's currency. */
  readonly price: UnitPrice | null;
};

const UNKNOWN: Estimate = { supplierId: null, costCodeId: null, price: null };

/**
 * What is known of buying items: from whom they are usually had, on which cost code, and for how much by quantity.
 * `from` asks another supplier's price than the usual one's; null stands for none.
 */
export async function loadEstimates(
  db: Db,
  itemIds: readonly number[],
  today: Day,
): Promise<(wanted: Wanted, from?: number | null) => Estimate> {
  const items = await loadItems(db, itemIds);
  const parts = await loadParts(db, itemIds, today);
  const suppliers = await loadSuppliers(db, [
    ...[...items.values()].flatMap((i) => i.supplierId ?? []),
    ...[...parts.values()].map((p) => p.supplierId),
  ]);
  const rates = await loadRates(db, today);
  return ({ itemId, unit, quantity }, from) => {
    const item = items.get(itemId ?? 0);
    if (item === undefined) return UNKNOWN;
    const { costCodeId } = item;
    const supplierId = from === undefined ? item.supplierId : from;
    const rate = rates.get(suppliers.get(supplierId ?? 0)?.currency ?? '');
    const terms = termsFor({ supplierId, itemId, unit }, parts, item);
    const found =
      parts.has(partKey(supplierId, itemId)) && terms !== undefined
        ? priceFor(quantityToOrder(quantity, terms).quantity, terms.prices)
        : undefined;
    if (found === undefined || terms === undefined || rate === undefined)
      return { supplierId, costCodeId, price: null };
    return { supplierId, costCodeId, price: priceFrom(pricePerNeedUnit(found, terms.factor), rate) };
  };
}
