import { plusDays, type Day } from '@/core/calendar/workdays';
import { OPEN, OPEN_AT_SUPPLIER } from '@/core/orders/states';
import type { Minor, UnitPrice } from '@/core/money/money';
import type { Quantity } from '@/core/quantity/quantity';
import { loadCompany, loadOfferedTaxes } from '@/store/company';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';
import type { Supplier, SupplierAddress, SupplierClosed, SupplierContact } from '@/store/tables';
import { footOf, pageOf, type SortAndAfter, type Foot, type Page } from '../page';
import { among, listed, rowsOf } from '@/store/rows';
import { permit } from '../permit';

export type SupplierRow = Supplier & {
  readonly openOrders: number;
  /** In the company's currency. */ readonly onOrder: Minor;
  readonly toBuy: number;
};

export const LIST_SHOWN = 200;

const COUNTED = {
  openOrders: `(select count(*) from purchase_order o where o.supplier_id = s.id and o.state in (${listed(OPEN)}))`,
  /** The stage of the ledger, in the company's currency. */
  onOrder: `(select coalesce(sum(p.amount), 0) from purchase_order o join order_line l on l.order_id = o.id
    join split x on x.line_id = l.id join posting p on p.tab_line_id = x.id and p.stage = 'onOrder'
    where o.supplier_id = s.id and o.state in (${listed(OPEN_AT_SUPPLIER)}))`,
  toBuy: '(select count(*) from need n where n.supplier_id = s.id and n.open > 0)',
} as const;

const SUPPLIER_SORTS = {
  id: 's.id',
  first: 'name',
  by: {
    name: 's.name',
    email: "coalesce(s.email, '')",
    lead: 's.lead_days',
    carriage: 's.carriage',
    free: 'coalesce(s.carriage_free_from, 0)',
    toBuy: COUNTED.toBuy,
    open: COUNTED.openOrders,
    onOrder: COUNTED.onOrder,
  },
} as const;

type SupplierFilter = SortAndAfter & { readonly words?: string | undefined };

function foundSuppliers(db: Db, { words }: SupplierFilter) {
  const query = db('supplier as s');
  if (words) void query.where((w) => w.whereLike('s.name', `%${words}%`).orWhereLike('s.delivers', `%${words}%`));
  return query;
}

/** Suppliers by name unless they are sorted otherwise; a page at a time. */
export async function listSuppliers(db: Db, person: Person, filter: SupplierFilter = {}): Promise<Page<SupplierRow>> {
  permit(person, 'see orders');
  permit(person, 'see money');
  const query = foundSuppliers(db, filter).select(
    's.*',
    db.raw(`${COUNTED.openOrders} as open_orders`),
    db.raw(`${COUNTED.onOrder} as on_order`),
    db.raw(`${COUNTED.toBuy} as to_buy`),
  );
  return pageOf<SupplierRow>(query, SUPPLIER_SORTS, filter, LIST_SHOWN);
}

/** What stands on order at all suppliers that a filter finds. */
export async function sumSuppliers(db: Db, person: Person, filter: SupplierFilter): Promise<Foot> {
  permit(person, 'see orders');
  permit(person, 'see money');
  return footOf(foundSuppliers(db, filter), { onOrder: COUNTED.onOrder }, '(select currency from company)');
}

/** What a supplier has several of. */
export type SupplierLists = {
  readonly contacts: readonly (Pick<SupplierContact, 'name' | 'whatFor' | 'email' | 'phone'> & {
    readonly getsOrders: boolean;
  })[];
  readonly addresses: readonly Pick<SupplierAddress, 'whatFor' | 'address'>[];
  readonly closed: readonly Pick<SupplierClosed, 'fromDay' | 'untilDay' | 'words'>[];
};

const loadLists = async (db: Db, supplierId: number): Promise<SupplierLists> => ({
  contacts: await db('supplierContact')
    .where({ supplierId })
    .orderBy('place')
    .select('name', 'whatFor', 'email', 'phone', 'getsOrders')
    .then((rows) => rows.map((c) => ({ ...c, getsOrders: c.getsOrders === 1 }))),
  addresses: await db('supplierAddress').where({ supplierId }).orderBy('place').select('whatFor', 'address'),
  closed: await db('supplierClosed').where({ supplierId }).orderBy('fromDay').select('fromDay', 'untilDay', 'words'),
});

export type SupplierView = {
  readonly supplier: Supplier;
  readonly lists: SupplierLists;
  readonly tax: string;
  readonly kept: DaysKept;
  /** What stands on order there, in the company's currency, how many orders are open, and how many there ever were. */
  readonly open: { readonly orders: number; readonly onOrder: Minor; readonly ever: number };
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

/** Lines that were delivered over the last year, and how many of them by the day they were wanted. */
export type DaysKept = { readonly came: number; readonly kept: number };

const YEAR = 365;

export async function loadDaysKept(db: Db, supplierId: number, today: Day): Promise<DaysKept> {
  const [row] = await rowsOf<DaysKept>(
    db.raw(
      `select count(*) as came, coalesce(sum(r.day <= l.wanted_on), 0) as kept
     from purchase_order o join receipt r on r.order_id = o.id
     join receipt_line x on x.receipt_id = r.id join order_line l on l.id = x.line_id
     where o.supplier_id = ? and r.day >= ? and l.wanted_on is not null and r.kind = 'delivery'
       and not exists (select 1 from receipt b where b.reverses_id = r.id)`,
      [supplierId, plusDays(today, -YEAR)],
    ),
  );
  return row ?? { came: 0, kept: 0 };
}

/** A price of part `p` that holds on a day, given twice. */
export const HOLDS = "b.part_id = p.id and b.from_day <= ? and coalesce(b.until_day, '9999') >= ?";

/** A supplier, to look at: its latest orders, what it sells, and how it keeps its days. */
export async function loadSupplier(db: Db, person: Person, id: number, today: Day): Promise<SupplierView | undefined> {
  permit(person, 'see money');
  const supplier = await db('supplier').where({ id }).first();
  if (supplier === undefined) return undefined;
  const [open] = (await db('supplier as s')
    .where('s.id', id)
    .select(
      db.raw(`${COUNTED.openOrders} as orders`),
      db.raw(`${COUNTED.onOrder} as on_order`),
      db.raw('(select count(*) from purchase_order o where o.supplier_id = s.id) as ever'),
    )) as unknown as [SupplierView['open']];
  return {
    supplier,
    open,
    lists: await loadLists(db, id),
    tax: (await db('taxCode').where({ id: supplier.taxCodeId }).first('name'))?.name ?? '',
    kept: await loadDaysKept(db, id, today),
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
        db.raw(`(select b.price from price_break b where ${HOLDS} order by b.from_quantity limit 1) as price`, [
          today,
          today,
        ]),
        db.raw(
          `(select b.price_quantity from price_break b where ${HOLDS} order by b.from_quantity limit 1) as price_quantity`,
          [today, today],
        ),
        db.raw(`(select count(*) from price_break b where ${HOLDS}) as breaks`, [today, today]),
      )) as SupplierView['parts'],
  };
}

export type SoldRow = {
  readonly partId: number;
  readonly number: string;
  readonly name: string;
  readonly theirNumber: string;
  readonly unit: string;
  readonly minimum: Quantity;
  readonly pack: Quantity;
  readonly from: Quantity;
  readonly price: UnitPrice;
  readonly priceQuantity: number;
};

const PARTS_PAGE = 500;

/** What a supplier sells at the prices of a day: a row for each price, some parts at a time. */
export async function listSold(
  db: Db,
  person: Person,
  supplierId: number,
  today: Day,
  after = '0',
): Promise<{ rows: readonly SoldRow[]; next: string | undefined }> {
  permit(person, 'see money');
  const parts = await db('supplierPart')
    .where({ supplierId: Number.isSafeInteger(supplierId) ? supplierId : 0 })
    .where('id', '>', Number(after))
    .orderBy('id')
    .limit(PARTS_PAGE)
    .select('id');
  const rows = await rowsOf<SoldRow>(
    db('supplierPart as p')
      .join('item as i', 'i.id', 'p.itemId')
      .join('priceBreak as b', 'b.partId', 'p.id')
      .whereIn(
        'p.id',
        among(
          db,
          parts.map((p) => p.id),
        ),
      )
      .whereRaw(HOLDS, [today, today])
      .orderBy(['p.id', 'b.fromQuantity'])
      .select(
        { partId: 'p.id', from: 'b.fromQuantity' },
        'i.number',
        'i.name',
        'p.theirNumber',
        'p.unit',
        'p.minimum',
        'p.pack',
        'b.price',
        'b.priceQuantity',
      ),
  );
  const last = parts.at(-1);
  return { rows, next: parts.length < PARTS_PAGE || last === undefined ? undefined : String(last.id) };
}

export async function loadSupplierForm(db: Db, person: Person, taxCodeId?: number) {
  permit(person, 'see money');
  const { currency, week } = await loadCompany(db);
  return {
    taxes: await loadOfferedTaxes(db, taxCodeId === undefined ? [] : [taxCodeId]),
    companyCurrency: currency,
    week: week.split(',').map(Number),
  };
}
