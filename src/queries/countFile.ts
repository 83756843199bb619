import type { RowLeft } from '@/core/columns';
import { minor, type Minor } from '@/core/money/money';
import { may } from '@/core/people/rights';
import { NONE, type Quantity } from '@/core/quantity/quantity';
import { done, type Result } from '@/core/result';
import { readCounts, type CountedRow } from '@/core/stores/rows';
import { readSheet } from '@/formats/sheet/read';
import { loadCompany } from '@/store/company';
import type { Db } from '@/store/connection';
import type { Person } from '@/store/people';
import { permit } from './permit';

export type CountFile = {
  readonly counts: readonly {
    readonly number: string;
    readonly name: string;
    readonly unit: string;
    readonly place: string;
    readonly before: Quantity;
    readonly after: Quantity | null;
    readonly keep: Quantity | null;
  }[];
  /** How many rows are taken, and how many of them change what lies there. */
  readonly count: number;
  readonly moved: number;
  /** What they make of the value of stores; null without the right to see money, or where a row leaves it to the average. */
  readonly value: Minor | null;
  readonly left: readonly RowLeft[];
  readonly leftCount: number;
  /** As the action takes it. */
  readonly taken: readonly (Omit<CountedRow, 'row' | 'numbers'> & {
    readonly numbers: CountedRow['numbers'][number][];
    readonly seen: Quantity;
  })[];
};

const SHOWN = 200;

/** What a file of counts and levels says, beside what lies in stores now. */
export async function readCountFile(db: Db, person: Person, bytes: Uint8Array): Promise<Result<CountFile>> {
  permit(person, 'keep stores');
  const sheet = await readSheet(bytes);
  if (!sheet.ok) return sheet;
  const { decimalMark, currency } = await loadCompany(db);
  const items = await db('item').select('id', 'number', 'name', 'unit', 'kind', 'tracking', 'numberPattern');
  const places = await db('deliveryPlace').where({ kind: 'own', closed: 0 }).orderBy('id').select('id', 'name');
  const { headings, rows, mark } = sheet.value;
  const read = readCounts(headings, rows, { items, places, mark: mark ?? decimalMark, currency });
  if (!read.ok) return read;
  const piles = new Map((await db('stockSum').where({ jobId: 0 })).map((s) => [`${s.itemId}/${s.placeId}`, s]));
  const named = { items: new Map(items.map((i) => [i.id, i])), places: new Map(places.map((p) => [p.id, p.name])) };
  const told = read.value.rows.map((r) => ({ ...r, pile: piles.get(`${r.itemId}/${r.placeId}`) }));
  const valued = told.every((r) => r.quantity === null || r.value !== null);
  return done({
    counts: told.slice(0, SHOWN).map(({ itemId, placeId, quantity, keep, pile }) => {
      const { number = '', name = '', unit = 'C62' } = named.items.get(itemId) ?? {};
      const before = pile?.quantity ?? NONE;
      return { number, name, unit, place: named.places.get(placeId) ?? '', before, after: quantity, keep };
    }),
    count: told.length,
    moved: told.filter((r) => r.quantity !== null && r.quantity !== (r.pile?.quantity ?? 0)).length,
    value:
      valued && may(person, 'see money')
        ? minor(told.reduce((sum, r) => sum + (r.quantity === null ? 0 : (r.value ?? 0) - (r.pile?.value ?? 0)), 0))
        : null,
    left: read.value.left.slice(0, SHOWN),
    leftCount: read.value.left.length,
    taken: told.map(({ row: _, pile, numbers, ...r }) => ({
      ...{ ...r, numbers: [...numbers] },
      seen: pile?.quantity ?? NONE,
    })),
  });
}
