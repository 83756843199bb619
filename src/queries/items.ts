import type { Day } from '@/core/calendar/workdays';
import type { UnitPrice } from '@/core/money/money';
import type { Quantity } from '@/core/quantity/quantity';
import type { Db } from '@/store/connection';
import { loadParts, loadSuppliers, type Part } from '@/store/gathering';
import type { Person } from '@/store/people';
import type { Item } from '@/store/tables';
import { permit } from './permit';
import { LIST_SHOWN } from './suppliers';
import { loadThing, type Thing } from './things';

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

export async function listItems(
  db: Db,
  person: Person,
  words?: string,
  after?: string,
): Promise<{ rows: ItemRow[]; more: boolean }> {
  permit(person, 'see money');
  const query = db('item as i')
    .leftJoin('costCode as c', 'c.id', 'i.costCodeId')
    .leftJoin('supplier as s', 's.id', 'i.supplierId')
    .leftJoin('supplierPart as p', (j) => j.on('p.itemId', 'i.id').andOn('p.supplierId', 'i.supplierId'));
  if (words) void query.where((w) => w.whereLike('i.number', `%${words}%`).orWhereLike('i.name', `%${words}%`));
  if (after) void query.where('i.number', '>', after);
  const rows = (await query
    .orderBy('i.number')
    .limit(LIST_SHOWN + 1)
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
      db.raw('(select b.price from price_break b where b.part_id = p.id order by b.from_quantity limit 1) as price'),
    )) as ItemRow[];
  return { rows: rows.slice(0, LIST_SHOWN), more: rows.length > LIST_SHOWN };
}

export type ItemView = {
  readonly item: Item;
  readonly parts: readonly (Part & { readonly supplier: string; readonly currency: string })[];
  readonly costCode: Thing | null;
  readonly supplier: Thing | null;
};

/** An item, with how its suppliers sell it. */
export async function loadItem(db: Db, person: Person, id: number): Promise<ItemView | undefined> {
  permit(person, 'see money');
  const item = await db('item').where({ id }).first();
  if (item === undefined) return undefined;
  const parts = [...(await loadParts(db, [id])).values()];
  const suppliers = await loadSuppliers(
    db,
    parts.map((p) => p.supplierId),
  );
  return {
    item,
    parts: parts.map((p) => {
      const { name = '', currency = '' } = suppliers.get(p.supplierId) ?? {};
      return { ...p, supplier: name, currency };
    }),
    costCode: await loadThing(db, person, 'costCode', item.costCodeId),
    supplier: await loadThing(db, person, 'supplier', item.supplierId),
  };
}

export type ItemPast = {
  readonly bought: readonly {
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
      .whereNot('o.state', 'calledOff')
      .orderBy('l.orderId', 'desc')
      .limit(LATEST)
      .select(
        { order: 'o.number', supplier: 's.name', day: 'o.sentOn' },
        'l.quantity',
        'l.unit',
        'l.price',
        'l.priceQuantity',
        'o.currency',
      )) as ItemPast['bought'],
    wanted: (await db('need as n')
      .join('job as j', 'j.id', 'n.jobId')
      .where({ 'n.itemId': itemId, 'j.state': 'live' })
      .whereRaw('n.open > 0')
      .orderByRaw("coalesce(n.needed_on, '~')")
      .limit(LATEST)
      .select('n.id', { job: 'j.number' }, 'n.open', 'n.unit', 'n.neededOn')) as ItemPast['wanted'],
  };
}
