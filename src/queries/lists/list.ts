import type { Day } from '@/core/calendar/workdays';
import { decimalsOf } from '@/core/money/currencies';
import { PRICE_PLACES, type Minor, type UnitPrice } from '@/core/money/money';
import type { Right } from '@/core/people/rights';
import { PLACES, type Quantity } from '@/core/quantity/quantity';
import type { Cell, Column } from '@/formats/sheet/column';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';

/** What filters a list, as it stands in the address. */
export type ListQuery = Readonly<Record<string, string | undefined>>;

export type OpenList<R = never> = {
  readonly columns: readonly Column<R>[];
  readonly pages: AsyncIterable<readonly R[]>;
};

type ListRequest = {
  readonly db: Db;
  readonly person: Person;
  readonly query: ListQuery;
  readonly today: Day;
  readonly currency: string;
};

/** A list that can be taken out whole, as it is filtered and sorted. */
export type List = { readonly right: Right; readonly title: string; readonly open: (asked: ListRequest) => OpenList };

export const list = <R>(right: Right, title: string, open: (asked: ListRequest) => OpenList<R>): List => ({
  right,
  title,
  open: open as never,
});

export const text = (words: string | null | undefined): Cell => (words ? { text: words } : undefined);
/** Numbers of several things in one cell, which no program takes for one number. */
export const several = (numbers: string | null): Cell => text(numbers?.replaceAll(',', '; '));
export const day = (d: Day | null): Cell => (d === null ? undefined : { day: d });
export const money = (amount: Minor | null, currency: string): Cell =>
  amount === null ? undefined : { scaled: amount, places: decimalsOf(currency) };
export const price = (p: UnitPrice | null): Cell => (p === null ? undefined : { scaled: p, places: PRICE_PLACES });
export const measure = (q: Quantity | number): Cell => ({ scaled: q, places: PLACES });

type PageOfRows<R> = { readonly rows: readonly R[]; readonly next?: string | undefined };

/** Page after page of a list; each says where the next begins, or nothing after the last. */
export async function* everyPage<R>(
  look: (after: string | undefined) => Promise<PageOfRows<R>>,
): AsyncGenerator<readonly R[]> {
  let after: string | undefined;
  do {
    const { rows, next } = await look(after);
    yield rows;
    after = next;
  } while (after !== undefined);
}
