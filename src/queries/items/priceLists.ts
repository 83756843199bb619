import type { Day } from '@/core/calendar/workdays';
import type { RowLeft } from '@/core/columns';
import { groupBy } from '@/core/group';
import { done, refusal, refused, type Result } from '@/core/result';
import {
  compareList,
  readPriceList,
  summaryOf,
  type ListedItem,
  type ListedPart,
  type ListSummary,
  type PartChange,
} from '@/core/sourcing/list';
import { holdsOn } from '@/core/sourcing/prices';
import { readSheet } from '@/formats/sheet/read';
import { loadCompany } from '@/store/company';
import type { Db } from '@/store/db';
import { loadSuppliers } from '@/store/gathering';
import type { Person } from '@/store/people';
import { whereIn } from '@/store/rows';
import { permit } from '../permit';

export type PriceFile = {
  readonly currency: string;
  readonly summary: ListSummary;
  /** Parts of this supplier that are not on the list: they keep their prices. */
  readonly unlisted: number;
  /** What changes most, first. */
  readonly changes: readonly (Pick<PartChange, 'isNew' | 'prices' | 'dearerForMore'> & {
    readonly number: string;
    readonly name: string;
    readonly unit: string;
  })[];
  /** How many parts change. */
  readonly count: number;
  readonly left: readonly RowLeft[];
  readonly leftCount: number;
  /** What changes, as the action takes it. */
  readonly taken: readonly ReturnType<typeof takenOf>[];
};

const SHOWN = 200;

/** What a supplier's price list holds, and what it would change from a day on. */
export async function readPriceFile(
  db: Db,
  person: Person,
  supplierId: number,
  bytes: Uint8Array,
  on: Day,
): Promise<Result<PriceFile>> {
  permit(person, 'keep suppliers');
  const supplier = (await loadSuppliers(db, [supplierId])).get(supplierId);
  if (supplier === undefined) return refused(refusal('missing', 'This supplier no longer exists.'));
  const sheet = await readSheet(bytes);
  if (!sheet.ok) return sheet;
  const { headings, rows, mark } = sheet.value;
  const { decimalMark } = await loadCompany(db);
  const items = await loadListedItems(db, supplierId, on);
  const read = readPriceList(headings, rows, items, mark ?? decimalMark);
  if (!read.ok) return read;
  const { parts, left } = read.value;
  const all = compareList(parts);
  const changing = all.filter((c) => !c.same);
  const listed = new Set(parts.map((p) => p.item.id));
  return done({
    currency: supplier.currency,
    summary: summaryOf(all),
    unlisted: items.filter((i) => i.sold !== undefined && !listed.has(i.id)).length,
    changes: changing.slice(0, SHOWN).map(({ part, isNew, prices, dearerForMore }) => ({
      ...{ number: part.item.number, name: part.item.name, unit: part.unit },
      ...{ isNew, prices, dearerForMore },
    })),
    count: changing.length,
    left: left.slice(0, SHOWN),
    leftCount: left.length,
    taken: changing.map(({ part }) => takenOf(part)),
  });
}

/** All items, with how a supplier sells them on a day. */
async function loadListedItems(db: Db, supplierId: number, on: Day): Promise<ListedItem[]> {
  const parts = new Map((await db('supplierPart').where({ supplierId })).map((p) => [p.itemId, p]));
  const ids = [...parts.values()].map((p) => p.id);
  const held = (await whereIn(db, 'priceBreak', 'partId', ids)).filter((p) => holdsOn(p, on));
  const prices = groupBy(held, (p) => p.partId);
  return (await db('item').select('id', 'number', 'name', 'unit', 'gtin')).map((item) => {
    const part = parts.get(item.id);
    if (part === undefined) return item;
    const { id, theirNumber, unit, factorMany: many, factorOne: one, minimum, pack, leadDays } = part;
    const own = (prices.get(id) ?? []).map(({ fromQuantity: from, ...price }) => ({ from, ...price }));
    return { ...item, sold: { theirNumber, unit, factor: { many, one }, minimum, pack, leadDays, prices: own } };
  });
}

const takenOf = ({ item, factor, prices, ...part }: ListedPart) => ({
  ...part,
  itemId: item.id,
  factorMany: factor.many,
  factorOne: factor.one,
  breaks: prices.map(({ from: fromQuantity, price, priceQuantity }) => ({ fromQuantity, price, priceQuantity })),
});
