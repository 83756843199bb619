import { plusDays, type Day } from '@/core/calendar/workdays';
import type { Minor } from '@/core/money/money';
import { may } from '@/core/people/rights';
import { addQ, NONE, type Quantity } from '@/core/quantity/quantity';
import { loadCompany } from '@/store/company';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';
import { toFillUp } from '@/core/stores/claims';
import { loadStoresSplits, stillBrings } from '@/store/stock/arriving';
import { OWN_CLAIMED, OWN_FREE, OWN_STOCK } from '@/store/stock/piles';
import { footIn, pageOf, type SortAndAfter, type Foot, type Page } from '../page';
import { permit } from '../permit';
import { LIST_SHOWN } from '../items/suppliers';

export type StockRow = {
  readonly id: number;
  readonly number: string;
  readonly name: string;
  readonly unit: string;
  /** The company's own at all places, and of that what is reserved or counted on. */
  readonly onHand: Quantity;
  readonly reserved: Quantity;
  readonly free: Quantity;
  /** What belongs to jobs. */
  readonly ofJobs: Quantity;
  readonly coming: Quantity;
  /** What is to be kept at all places together; 0 for none. */
  readonly keep: Quantity;
  /** By how much what is free is below that. */
  readonly below: Quantity;
  /** What of that is still to order, beyond what is drafted and on order for stores, and from whom it is bought. */
  readonly toOrder: Quantity;
  readonly supplierId: number | null;
  readonly supplier: string | null;
  /** null without the right to see money. */
  readonly value: Minor | null;
  /** When some of it was issued last; null for never. */
  readonly lastOut: Day | null;
};

export type StockFilter = SortAndAfter & {
  readonly words?: string | undefined;
  /** Only what is below its minimum. */
  readonly low?: boolean | undefined;
  /** Only what lay here before this day already, and of which nothing went out since. */
  readonly stillSince?: Day | undefined;
};

/** How many days nothing went out of what is slow, and of what is dead. */
const STILL: Readonly<Record<string, number>> = { slow: 182, dead: 730 };

/** A filter from the words of an address. */
export function stockFilter(query: Readonly<Record<string, string | undefined>>, today: Day): StockFilter {
  const still = STILL[query.show ?? ''];
  return {
    ...{ words: query.words, sort: query.sort, after: query.after, low: query.show === 'low' },
    stillSince: still === undefined ? undefined : plusDays(today, -still),
  };
}

const VALUE = '(select coalesce(sum(s.value), 0) from stock_sum s where s.item_id = i.id and s.job_id = 0)';
const OF_JOBS = '(select coalesce(sum(s.quantity), 0) from stock_sum s where s.item_id = i.id and s.job_id <> 0)';
const KEEP = '(select coalesce(sum(l.keep), 0) from stock_level l where l.item_id = i.id)';

/** What of an item `i` is below its minimum, as the core's `belowMinimum` has it. */
const BELOW = `max(${KEEP} - ${OWN_FREE}, 0)`;

const LAST_OUT = "(select max(m.day) from stock_move m where m.item_id = i.id and m.kind = 'issued')";
const FIRST_IN = '(select min(m.day) from stock_move m where m.item_id = i.id and m.quantity > 0)';

const STOCK_SORTS = {
  id: 'i.id',
  first: 'number',
  by: {
    number: 'i.number',
    name: 'i.name',
    onHand: OWN_STOCK,
    reserved: OWN_CLAIMED,
    free: OWN_FREE,
    ofJobs: OF_JOBS,
    keep: KEEP,
    lastOut: LAST_OUT,
  },
} as const;

const IN_STORES = 'select id from item where stocked = 1 union select item_id from stock_sum where quantity > 0';

/** Goods that are stocked, or lie somewhere. */
function foundStock(db: Db, { words, low, stillSince }: StockFilter) {
  const query = db('item as i').whereIn('i.kind', ['material', 'part']).whereRaw(`i.id in (${IN_STORES})`);
  if (words) void query.where((w) => w.whereLike('i.number', `%${words}%`).orWhereLike('i.name', `%${words}%`));
  if (low === true) void query.whereRaw(`${BELOW} > 0`);
  if (stillSince !== undefined)
    void query.whereRaw(`${OWN_STOCK} > 0 and ${FIRST_IN} <= ? and coalesce(${LAST_OUT}, '') <= ?`, [
      stillSince,
      stillSince,
    ]);
  return query;
}

/** What lies in stores, by number unless it is sorted otherwise; a page at a time. */
export async function listStock(db: Db, person: Person, filter: StockFilter = {}): Promise<Page<StockRow>> {
  permit(person, 'see stores');
  const query = foundStock(db, filter)
    .leftJoin('supplier as v', 'v.id', 'i.supplierId')
    .select(
      'i.id',
      'i.number',
      'i.name',
      'i.unit',
      { supplierId: 'v.id', supplier: 'v.name' },
      db.raw(`${OWN_STOCK} as on_hand, ${OWN_CLAIMED} as reserved, ${OWN_FREE} as free, ${BELOW} as below`),
      db.raw(`${OF_JOBS} as of_jobs, ${KEEP} as keep, ${VALUE} as value, ${LAST_OUT} as last_out`),
    );
  const page = await pageOf<Omit<StockRow, 'coming' | 'toOrder'>>(query, STOCK_SORTS, filter, LIST_SHOWN);
  const coming = await loadStoresSplits(
    db,
    'itemId',
    page.rows.map((r) => r.id),
  );
  const money = may(person, 'see money');
  return {
    ...page,
    rows: page.rows.map((r) => {
      const own = coming.filter((s) => s.itemId === r.id);
      return {
        ...r,
        value: money ? r.value : null,
        coming: addQ(NONE, ...own.map((s) => s.toCome)),
        toOrder: toFillUp(r, addQ(NONE, ...own.map(stillBrings))),
      };
    }),
  };
}

/** How many items a filter finds, and what they are worth. */
export async function sumStock(db: Db, person: Person, filter: StockFilter): Promise<Foot> {
  permit(person, 'see stores');
  const { currency } = await loadCompany(db);
  return footIn(currency, foundStock(db, filter), may(person, 'see money') ? { value: VALUE } : {});
}
