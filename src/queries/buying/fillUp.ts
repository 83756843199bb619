import { LIVE } from '@/core/jobs/states';
import type { Day } from '@/core/calendar/workdays';
import { addQ, NONE, type Quantity } from '@/core/quantity/quantity';
import { measured } from '@/core/quantity/units';
import { toFillUp } from '@/core/stores/claims';
import { groupBy } from '@/core/group';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';
import { loadStoresSplits, stillBrings } from '@/store/stock/arriving';
import { loadFreeStock } from '@/store/stock/piles';
import { among, rowsOf } from '@/store/rows';
import { contextFor, joined, NEED_COLUMNS, tagged, type NeedLine, type RawNeed } from './needLine';
import { permit } from '../permit';

/** Something below its minimum, and what of that is not on order either. */
export type BelowLevel = {
  readonly itemId: number;
  readonly number: string;
  readonly name: string;
  readonly unit: string;
  readonly below: Quantity;
  readonly words: string;
};

export type FillUp = { readonly needs: readonly NeedLine[]; readonly stock: readonly BelowLevel[] };

const SHOWN = 60;

/**
 * What else could ride along on an order to a supplier: what is still to buy from it, the soonest first, and what it
 * sells of what is below its minimum.
 * @param picked - needs that are on it already
 */
export async function loadFillUp(
  db: Db,
  person: Person,
  supplierId: number,
  picked: readonly number[],
  today: Day,
): Promise<FillUp> {
  permit(person, 'draft orders');
  const rows = await rowsOf<RawNeed>(
    joined(db)
      .where('j.state', LIVE)
      .where('n.supplierId', supplierId)
      .where('n.open', '>', 0)
      .whereNotIn('n.id', among(db, picked))
      .orderByRaw("coalesce(n.needed_on, '9999'), n.id")
      .limit(SHOWN)
      .select(...NEED_COLUMNS),
  );
  const context = await contextFor(db, rows, today);
  return { needs: rows.map((r) => tagged(r, context)), stock: await belowLevel(db, supplierId) };
}

async function belowLevel(db: Db, supplierId: number): Promise<BelowLevel[]> {
  const kept = await rowsOf<{ id: number; number: string; name: string; unit: string; keep: Quantity }>(
    db('stockLevel as k')
      .join('item as i', 'i.id', 'k.itemId')
      .where('i.stocked', 1)
      .where('i.bought', 1)
      .where((w) =>
        w
          .where('i.supplierId', supplierId)
          .orWhereExists(db('supplierPart as p').whereRaw('p.item_id = i.id').where({ supplierId })),
      )
      .groupBy('i.id')
      .orderBy('i.number')
      .select('i.id', 'i.number', 'i.name', 'i.unit')
      .sum({ keep: 'k.keep' }),
  );
  const ids = kept.map((k) => k.id);
  const free = await loadFreeStock(db, ids);
  const coming = groupBy(await loadStoresSplits(db, 'itemId', ids), (s) => s.itemId);
  return kept.flatMap(({ id, number, name, unit, keep }) => {
    const stock = { free: free.get(id) ?? NONE, keep };
    const comes = addQ(NONE, ...(coming.get(id) ?? []).map(stillBrings));
    const below = toFillUp(stock, comes);
    if (below === 0) return [];
    const onOrder = comes === 0 ? '' : `${measured(comes, unit)} on order, `;
    const words = `${measured(stock.free, unit)} free, ${onOrder}minimum ${measured(keep, unit)}`;
    return [{ itemId: id, number, name, unit, below, words }];
  });
}
