import { rowsOf } from '@/store/rows';
import type { RowLeft } from '@/core/columns';
import { add, subtract, ZERO, type Minor } from '@/core/money/money';
import { may } from '@/core/people/rights';
import { addQ, NONE, type Quantity } from '@/core/quantity/quantity';
import { done, type Result } from '@/core/result';
import type { Numbered } from '@/core/stores/numbers';
import { worth } from '@/core/stores/pile';
import { readCounts, type CountedPart, type CountedRow } from '@/core/stores/rows';
import { readSheet } from '@/formats/sheet/read';
import { loadCompany } from '@/store/company';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';
import type { Item } from '@/store/tables';
import { permit } from '../permit';

export type CountFile = {
  readonly counts: readonly {
    readonly number: string;
    readonly name: string;
    readonly unit: string;
    /** With its bin, where one was counted. */
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
  readonly taken: readonly (Omit<CountedRow, 'row' | 'parts'> & { readonly parts: SeenPart[] })[];
};

type SeenPart = Omit<CountedPart, 'numbers' | 'values'> & {
  readonly numbers: Numbered[];
  readonly values: Minor[];
  readonly seen: Quantity;
};

const SHOWN = 200;

/** What a file of counts and levels says, beside what lies in stores now. */
export async function readCountFile(db: Db, person: Person, bytes: Uint8Array): Promise<Result<CountFile>> {
  permit(person, 'keep stores');
  const sheet = await readSheet(bytes);
  if (!sheet.ok) return sheet;
  const { decimalMark, currency } = await loadCompany(db);
  const items = await db('item').select('id', 'number', 'name', 'unit', 'kind', 'tracking', 'numberPattern');
  const bins = await db('bin').where({ closed: 0 }).select('id', 'placeId', 'name');
  const own = await db('deliveryPlace').where({ kind: 'own', closed: 0 }).orderBy('id').select('id', 'name');
  const places = own.map((p) => ({ ...p, bins: bins.filter((b) => b.placeId === p.id) }));
  const { headings, mark } = sheet.value;
  const read = readCounts(headings, sheet.value.rows, { items, places, mark: mark ?? decimalMark, currency });
  if (!read.ok) return read;
  const piles = new Map((await db('stockSum').where({ jobId: 0 })).map((s) => [`${s.itemId}/${s.placeId}`, s]));
  const inBins = await inEachBin(db);
  const itemsById = new Map(items.map((i) => [i.id, i]));
  const rows = read.value.rows.map((r) => {
    const pile = piles.get(`${r.itemId}/${r.placeId}`) ?? { quantity: NONE, value: ZERO };
    const seen = ({ binId }: CountedPart) =>
      binId === undefined ? pile.quantity : (inBins.get(`${r.itemId}/${r.placeId}/${binId}`) ?? NONE);
    const parts = r.parts.map((p): SeenPart => ({
      ...{ ...p, numbers: [...p.numbers], values: [...p.values] },
      seen: seen(p),
    }));
    const counted = addQ(NONE, ...parts.map((p) => p.seen));
    // Pieces with serial numbers in bins that were not counted keep their own cost, which the average does not tell.
    const told = r.value !== null && (counted === pile.quantity || itemsById.get(r.itemId)?.tracking !== 'serial');
    return { ...r, parts, gain: told ? subtract(r.value, worth(counted, pile)) : null };
  });
  const valued = rows.every((r) => r.parts.length === 0 || r.gain !== null);
  const told = rows.flatMap((r) =>
    tellRow(
      r,
      itemsById.get(r.itemId),
      places.find((p) => p.id === r.placeId),
    ),
  );
  return done({
    counts: told.slice(0, SHOWN),
    count: rows.length,
    moved: rows.filter((r) => r.parts.some((p) => p.quantity !== p.seen)).length,
    value: valued && may(person, 'see money') ? add(ZERO, ...rows.map((r) => r.gain ?? ZERO)) : null,
    left: read.value.left.slice(0, SHOWN),
    leftCount: read.value.left.length,
    taken: rows.map(({ row: _, gain: __, ...r }) => r),
  });
}

type Named = { readonly id: number; readonly name: string };

/** A row as the page tells it: a line for each bin that was counted. */
function tellRow(
  { parts, keep }: { readonly parts: readonly SeenPart[]; readonly keep: Quantity | null },
  { number = '', name = '', unit = 'C62' }: Partial<Item> = {},
  place?: Named & { readonly bins: readonly Named[] },
): CountFile['counts'] {
  const row = { number, name, unit, place: place?.name ?? '' };
  if (parts.length === 0) return [{ ...row, before: NONE, after: null, keep }];
  return parts.map(({ binId, seen, quantity }, k) => {
    const bin = place?.bins.find((b) => b.id === binId);
    const at = bin === undefined ? row.place : `${row.place}, ${bin.name}`;
    return { ...row, place: at, before: seen, after: quantity, keep: k === 0 ? keep : null };
  });
}

/** What the company has of each item in each bin, in the item's unit; by item, place and bin. */
async function inEachBin(db: Db): Promise<Map<string, Quantity>> {
  const rows = await rowsOf<{ itemId: number; placeId: number; binId: number; quantity: Quantity }>(
    db('stockSpot')
      .where({ jobId: 0 })
      .where('quantity', '>', 0)
      .groupBy('itemId', 'placeId', 'binId')
      .select('itemId', 'placeId', 'binId')
      .sum({ quantity: 'quantity' }),
  );
  return new Map(rows.map((r) => [`${r.itemId}/${r.placeId}/${r.binId}`, r.quantity]));
}
