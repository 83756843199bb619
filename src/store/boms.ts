import type { Bom, BomLine, Boms } from '@/core/boms/bom';
import { componentsOf } from '@/core/boms/levels';
import type { Day } from '@/core/calendar/workdays';
import { groupBy } from '@/core/group';
import type { Db } from './db';
import { among, whereIn, rowsOf } from './rows';
import type { BomLineRow, BomRow } from './tables';

const asLine = ({ bomId: _, place: __, offsetDays: days, offsetFrom: from, ...line }: BomLineRow): BomLine => ({
  ...line,
  offset: { days, from },
});

/** BOMs with their lines. */
export async function withLines(db: Db, rows: readonly BomRow[]): Promise<Bom[]> {
  const lines = groupBy(
    (
      await whereIn(
        db,
        'bomLine',
        'bomId',
        rows.map((r) => r.id),
      )
    ).sort((a, b) => a.place - b.place),
    (l) => l.bomId,
  );
  return rows.map(({ id, itemId, makingDays }) => ({
    id,
    itemId,
    makingDays,
    lines: (lines.get(id) ?? []).map(asLine),
  }));
}

/** The versions of these items' BOMs that hold on a day: for each the last that begins by then. */
export const bomsOn = (db: Db, itemIds: readonly number[], on: Day): Promise<BomRow[]> =>
  rowsOf<BomRow>(
    db('bom as b')
      .whereIn('b.itemId', among(db, itemIds))
      .whereRaw('b.from_day = (select max(x.from_day) from bom x where x.item_id = b.item_id and x.from_day <= ?)', [
        on,
      ])
      .select('b.*'),
  );

/** The BOMs that hold on a day of what is made in these, over all levels; a loop ends where it comes again. */
export async function loadBomsBelow(db: Db, from: readonly Bom[], on: Day): Promise<Boms> {
  const boms = new Map(from.map((b) => [b.itemId, b]));
  let open = [...new Set(from.flatMap(componentsOf))].filter((id) => !boms.has(id));
  while (open.length > 0) {
    const found = await withLines(db, await bomsOn(db, open, on));
    for (const bom of found) boms.set(bom.itemId, bom);
    open = [...new Set(found.flatMap(componentsOf))].filter((id) => !boms.has(id));
  }
  return boms;
}

/** An item's BOM that holds on a day, with the BOMs below it; undefined when it has none. */
export async function findBom(db: Db, itemId: number, on: Day): Promise<{ bom: Bom; boms: Boms } | undefined> {
  const [bom] = await withLines(db, await bomsOn(db, [itemId], on));
  return bom === undefined ? undefined : { bom, boms: await loadBomsBelow(db, [bom], on) };
}
