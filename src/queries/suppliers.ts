import { AWAITED } from '@/core/orders/states';
import { may } from '@/core/people/rights';
import type { Minor, UnitPrice } from '@/core/money/money';
import type { Quantity } from '@/core/quantity/quantity';
import { loadTaxCodes } from '@/store/company';
import type { Db } from '@/store/connection';
import { loadParts, type Part } from '@/store/gathering';
import type { Person } from '@/store/people';
import type { Item, Supplier } from '@/store/tables';
import { permit } from './permit';
import { loadThing, type Thing } from './things';
import { listed } from './sql';

export type SupplierRow = Supplier & { readonly openOrders: number; readonly onOrder: Minor; readonly toBuy: number };

export const LIST_SHOWN = 200;

export async function listSuppliers(db: Db, person: Person, words?: string): Promise<SupplierRow[]> {
  permit(person, 'see orders');
  permit(person, 'see money');
  const query = db('supplier as s');
  if (words) void query.whereLike('s.name', `%${words}%`);
  return (await query
    .orderBy('s.name')
    .limit(LIST_SHOWN)
    .select(
      's.*',
      db.raw(
        `(select count(*) from purchase_order o where o.supplier_id = s.id and o.state in (${listed(AWAITED)})) as open_orders`,
      ),
      db.raw(
        `(select coalesce(sum(o.net), 0) from purchase_order o where o.supplier_id = s.id and o.state in (${listed(AWAITED)})) as on_order`,
      ),
      db.raw('(select count(*) from need n where n.supplier_id = s.id and n.open > 0) as to_buy'),
    )) as SupplierRow[];
}

export type SupplierView = {
  readonly supplier: Supplier;
  readonly orders: readonly {
    readonly id: number;
    readonly number: string;
    readonly state: string;
    readonly net: Minor;
    readonly sentOn: string | null;
  }[];
  readonly parts: readonly {
    readonly itemId: number;
    readonly number: string;
    readonly name: string;
    readonly theirNumber: string;
    readonly unit: string;
    readonly price: UnitPrice | null;
    readonly priceQuantity: number;
    readonly pack: Quantity;
    readonly minimum: Quantity;
    readonly breaks: number;
  }[];
};

export async function loadSupplier(db: Db, person: Person, id: number): Promise<SupplierView | undefined> {
  permit(person, 'see money');
  const supplier = await db('supplier').where({ id }).first();
  if (supplier === undefined) return undefined;
  return {
    supplier,
    orders: (await db('purchaseOrder')
      .where({ supplierId: id })
      .orderBy('id', 'desc')
      .limit(12)
      .select('id', 'number', 'state', 'net', 'sentOn')) as SupplierView['orders'],
    parts: (await db('supplierPart as p')
      .join('item as i', 'i.id', 'p.itemId')
      .where('p.supplierId', id)
      .orderBy('i.number')
      .limit(LIST_SHOWN)
      .select(
        'p.itemId',
        'i.number',
        'i.name',
        'p.theirNumber',
        'p.unit',
        'p.pack',
        'p.minimum',
        db.raw('(select b.price from price_break b where b.part_id = p.id order by b.from_quantity limit 1) as price'),
        db.raw(
          '(select b.price_quantity from price_break b where b.part_id = p.id order by b.from_quantity limit 1) as price_quantity',
        ),
        db.raw('(select count(*) from price_break b where b.part_id = p.id) as breaks'),
      )) as SupplierView['parts'],
  };
}

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
      { code: 'c.code', codeName: 'c.name', supplier: 's.name', theirNumber: 'p.theirNumber', currency: 's.currency' },
      db.raw('(select b.price from price_break b where b.part_id = p.id order by b.from_quantity limit 1) as price'),
    )) as ItemRow[];
  return { rows: rows.slice(0, LIST_SHOWN), more: rows.length > LIST_SHOWN };
}

export type ItemView = {
  readonly item: Item;
  readonly parts: readonly Part[];
  readonly costCode: Thing | null;
  readonly supplier: Thing | null;
};

export async function loadItem(db: Db, person: Person, id: number): Promise<ItemView | undefined> {
  permit(person, 'see money');
  const item = await db('item').where({ id }).first();
  if (item === undefined) return undefined;
  return {
    item,
    parts: [...(await loadParts(db, [id])).values()],
    costCode: await loadThing(db, person, 'costCode', item.costCodeId),
    supplier: await loadThing(db, person, 'supplier', item.supplierId),
  };
}

export async function loadSupplierForm(db: Db, person: Person) {
  permit(person, 'see money');
  return { taxes: await loadTaxCodes(db), mayKeep: may(person, 'keep suppliers') };
}
