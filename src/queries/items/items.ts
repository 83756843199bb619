import { LIVE } from '@/core/jobs/states';
import type { Day } from '@/core/calendar/workdays';
import type { UnitPrice } from '@/core/money/money';
import type { DatedPrice } from '@/core/sourcing/prices';
import type { Quantity } from '@/core/quantity/quantity';
import type { Db } from '@/store/db';
import { loadParts, loadSuppliers, partKey, type SoldPart } from '@/store/gathering';
import { loadPaid, type Paid } from '@/store/paid';
import type { Person } from '@/store/people';
import type { Item, PriceBreakRow, Supplier, SupplierPart } from '@/store/tables';
import { pageOf, type SortAndAfter, type Foot, type Page } from '../page';
import { permit } from '../permit';
import { countOf } from '../sql';
import { HOLDS, LIST_SHOWN } from './suppliers';
import { loadChoice, type Choice } from '../frame/choices';

export type ItemRow = {
  readonly id: number;
  readonly number: string;
  readonly name: string;
  readonly unit: string;
  readonly stocked: number;
  readonly code: string | null;
  readonly codeName: string | null;
  readonly supplier: string | null;
  readonly theirNumber: string | null;
  readonly price: UnitPrice | null;
  /** The unit that the price is for, as the supplier sells it. */
  readonly priceUnit: string | null;
  readonly currency: string | null;
};

export type WordsFilter = SortAndAfter & { readonly words?: string | undefined };

const ITEM_SORTS = {
  id: 'i.id',
  first: 'number',
  by: {
    number: 'i.number',
    name: 'i.name',
    unit: 'i.unit',
    code: "coalesce(c.code, '')",
    supplier: "coalesce(s.name, '')",
    theirs: "coalesce(p.their_number, '')",
  },
} as const;

function foundItems(db: Db, { words }: WordsFilter) {
  const query = db('item as i');
  if (words) void query.where((w) => w.whereLike('i.number', `%${words}%`).orWhereLike('i.name', `%${words}%`));
  return query;
}

/** Items by number unless they are sorted otherwise; a page at a time. */
export async function listItems(db: Db, person: Person, today: Day, filter: WordsFilter = {}): Promise<Page<ItemRow>> {
  permit(person, 'see money');
  const query = foundItems(db, filter)
    .leftJoin('costCode as c', 'c.id', 'i.costCodeId')
    .leftJoin('supplier as s', 's.id', 'i.supplierId')
    .leftJoin('supplierPart as p', (j) => j.on('p.itemId', 'i.id').andOn('p.supplierId', 'i.supplierId'))
    .select(
      'i.id',
      'i.number',
      'i.name',
      'i.unit',
      'i.stocked',
      {
        code: 'c.code',
        codeName: 'c.name',
        supplier: 's.name',
        theirNumber: 'p.theirNumber',
        currency: 's.currency',
        priceUnit: 'p.unit',
      },
      db.raw(`(select b.price from price_break b where ${HOLDS} order by b.from_quantity limit 1) as price`, [
        today,
        today,
      ]),
    );
  return pageOf<ItemRow>(query, ITEM_SORTS, filter, LIST_SHOWN);
}

/** How many items a filter finds. */
export async function sumItems(db: Db, person: Person, filter: WordsFilter): Promise<Foot> {
  permit(person, 'see money');
  return { count: await countOf(foundItems(db, filter)), sums: {} };
}

/** How a supplier sells an item, at the prices of the day and those to come. */
export type PartView = SoldPart & {
  readonly supplier: string;
  readonly currency: string;
  readonly usual: boolean;
  /** Working days it takes, its own or the supplier's. */
  readonly takes: number;
  readonly paid: Paid | null;
  readonly toCome: readonly DatedPrice[];
};

export type ItemView = {
  readonly item: Item;
  readonly parts: readonly PartView[];
  readonly costCode: Choice | null;
  readonly supplier: Choice | null;
};

/** An item, with how its suppliers sell it. */
export async function loadItem(db: Db, person: Person, id: number, today: Day): Promise<ItemView | undefined> {
  permit(person, 'see money');
  const item = await db('item').where({ id }).first();
  if (item === undefined) return undefined;
  const parts = [...(await loadParts(db, [id], today)).values()];
  const suppliers = await loadSuppliers(
    db,
    parts.map((p) => p.supplierId),
  );
  const paid = await loadPaid(db, [id]);
  const prices = await pricesOf(
    db,
    parts.map((p) => p.id),
  );
  return {
    item,
    parts: parts.map((p) => {
      const { name = '', currency = '', leadDays = 0 } = suppliers.get(p.supplierId) ?? {};
      return {
        ...p,
        supplier: name,
        currency,
        usual: item.supplierId === p.supplierId,
        takes: p.leadDays ?? leadDays,
        paid: paid.get(partKey(p.supplierId, id)) ?? null,
        toCome: prices.filter((b) => b.partId === p.id && b.fromDay > today).map(asPrice),
      };
    }),
    costCode: await loadChoice(db, person, 'costCode', item.costCodeId, today),
    supplier: await loadChoice(db, person, 'supplier', item.supplierId, today),
  };
}

const pricesOf = (db: Db, partIds: readonly number[]): Promise<PriceBreakRow[]> =>
  db('priceBreak').whereIn('partId', partIds).orderBy(['fromDay', 'fromQuantity']);

const asPrice = ({ partId: _, fromQuantity: from, ...price }: PriceBreakRow): DatedPrice => ({ from, ...price });

export type SoldView = {
  readonly item: Item;
  readonly supplier: Supplier;
  /** undefined where this supplier has not sold it so far. */
  readonly part: SupplierPart | undefined;
  readonly usual: boolean;
  /** Those that were, are and will be, the earliest first. */
  readonly prices: readonly DatedPrice[];
};

/** How a supplier sells an item, to be said or changed. */
export async function loadSold(
  db: Db,
  person: Person,
  itemId: number,
  supplierId: number,
): Promise<SoldView | undefined> {
  permit(person, 'keep suppliers');
  const item = await db('item').where({ id: itemId }).first();
  const supplier = await db('supplier').where({ id: supplierId }).first();
  if (item === undefined || supplier === undefined) return undefined;
  const part = await db('supplierPart').where({ itemId, supplierId }).first();
  return {
    item,
    supplier,
    part,
    usual: item.supplierId === supplierId,
    prices: part === undefined ? [] : (await pricesOf(db, [part.id])).map(asPrice),
  };
}

export type ItemPast = {
  readonly bought: readonly {
    readonly id: number;
    readonly order: string;
    readonly supplier: string;
    readonly day: Day;
    readonly quantity: Quantity;
    readonly unit: string;
    readonly price: UnitPrice | null;
    readonly priceQuantity: number;
    readonly currency: string;
  }[];
  readonly wanted: readonly {
    readonly id: number;
    readonly job: string;
    readonly open: Quantity;
    readonly unit: string;
    readonly neededOn: Day | null;
  }[];
};

const LATEST = 10;

/** When an item was bought last and for how much, and which jobs want it now. */
export async function loadItemPast(db: Db, person: Person, itemId: number): Promise<ItemPast> {
  permit(person, 'see money');
  return {
    bought: (await db('orderLine as l')
      .join('purchaseOrder as o', 'o.id', 'l.orderId')
      .join('supplier as s', 's.id', 'o.supplierId')
      .where('l.itemId', itemId)
      .whereNotNull('o.sentOn')
      .whereNot('o.state', 'cancelled')
      .orderBy('l.orderId', 'desc')
      .limit(LATEST)
      .select(
        'l.id',
        { order: 'o.number', supplier: 's.name', day: 'o.sentOn' },
        'l.quantity',
        'l.unit',
        'l.price',
        'l.priceQuantity',
        'o.currency',
      )) as ItemPast['bought'],
    wanted: (await db('need as n')
      .join('job as j', 'j.id', 'n.jobId')
      .where({ 'n.itemId': itemId, 'j.state': LIVE })
      .whereRaw('n.open > 0')
      .orderByRaw("coalesce(n.needed_on, '~')")
      .limit(LATEST)
      .select('n.id', { job: 'j.number' }, 'n.open', 'n.unit', 'n.neededOn')) as ItemPast['wanted'],
  };
}
