import { rowsOf } from '@/store/rows';
import type { Knex } from 'knex';
import { minor, type Minor } from '@/core/money/money';

/** How a list is asked for in the address: by which column, `-` before it for the largest first, and from where on. */
export type SortAndAfter = { readonly sort?: string | undefined; readonly after?: string | undefined };

export type Sorts = {
  /** The row's id, which parts rows that are alike. */
  readonly id: string;
  /** By column of the list, the SQL that it is sorted by; never null. */
  readonly by: Readonly<Record<string, string>>;
  /** How it is sorted when nothing is asked: a column, `-` before it for the largest first. */
  readonly first: string;
};

export type Page<R> = {
  readonly rows: readonly R[];
  /** Where the next page begins; undefined behind the last. */
  readonly next: string | undefined;
  /** Columns that it can be sorted by. */
  readonly sorts: readonly string[];
};

function sortOf({ id, by, first }: Sorts, asked: string | undefined): { sql: string; down: boolean } {
  const read = (text: string) => ({ key: text.replace(/^-/, ''), down: text.startsWith('-') });
  const wanted = read(asked ?? '');
  const { key, down } = Object.hasOwn(by, wanted.key) ? wanted : read(first);
  return { sql: by[key] ?? id, down };
}

/** Where a page ended: the value it was sorted by, and the id of its last row. */
function cursorOf(after: string | undefined): readonly [string | number, number] | undefined {
  try {
    const [value, id] = JSON.parse(after ?? '') as unknown[];
    const known = typeof value === 'string' || typeof value === 'number';
    return known && typeof id === 'number' ? [value, id] : undefined;
  } catch {
    return undefined;
  }
}

const raw = (query: Knex.QueryBuilder, sql: string) => (query.client as { raw: (sql: string) => Knex.Raw }).raw(sql);

/** A page of a query, sorted as asked and going on behind the last row of the page before. */
export async function pageOf<R extends { readonly id: number }>(
  query: Knex.QueryBuilder,
  sorts: Sorts,
  { sort, after }: SortAndAfter,
  size: number,
): Promise<Page<R>> {
  const { sql, down } = sortOf(sorts, sort);
  const way = down ? 'desc' : 'asc';
  const cursor = cursorOf(after);
  if (cursor !== undefined) void query.whereRaw(`(${sql}, ${sorts.id}) ${down ? '<' : '>'} (?, ?)`, [...cursor]);
  const rows = await rowsOf<R & { sortedBy: string | number }>(
    query
      .orderByRaw(`${sql} ${way}, ${sorts.id} ${way}`)
      .limit(size + 1)
      .select(raw(query, `${sql} as sorted_by`)),
  );
  const page = rows.slice(0, size);
  const last = page.at(-1);
  return {
    rows: page.map(({ sortedBy: _, ...row }) => row as unknown as R),
    sorts: Object.keys(sorts.by),
    next: rows.length > size && last !== undefined ? JSON.stringify([last.sortedBy, last.id]) : undefined,
  };
}

/** What a list comes to: all that its filters find, and not only what is shown. */
export type Foot = {
  readonly count: number;
  /** By column of the list, a sum for each currency. */
  readonly sums: Readonly<Record<string, readonly { readonly currency: string; readonly amount: Minor }[]>>;
};

/**
 * Sums over all that a query finds, worked out by the database; all are in one currency.
 * @param columns - SQL of what is summed, in minor units, by column of the list
 */
export async function footIn(
  currency: string,
  query: Knex.QueryBuilder,
  columns: Readonly<Record<string, string>>,
): Promise<Foot> {
  const sums = Object.entries(columns).map(([key, sql]) => `coalesce(sum(${sql}), 0) as "${key}"`);
  const [found] = await rowsOf<Record<string, Minor> & { readonly n: number }>(
    query.clone().select(raw(query, ['count(*) as n', ...sums].join(', '))),
  );
  const amountIn = (key: string) => [{ currency, amount: found?.[key] ?? minor(0) }];
  return {
    count: found?.n ?? 0,
    sums: Object.fromEntries(Object.keys(columns).map((key) => [key, amountIn(key)])),
  };
}

/**
 * The same where each row may be in another currency; a sum that comes to nothing is left out.
 * @param columns - SQL of what is summed, in minor units, by column of the list
 * @param currency - SQL of the currency that a row is in
 */
export async function footOf(
  query: Knex.QueryBuilder,
  columns: Readonly<Record<string, string>>,
  currency: string,
): Promise<Foot> {
  const keys = Object.keys(columns);
  const sums = keys.map((key, k) => `sum(${columns[key]}) as sum${k}`);
  const rows = await rowsOf<Record<string, number | null> & { readonly currency: string; readonly n: number }>(
    query
      .clone()
      .groupByRaw(currency)
      .orderByRaw(currency)
      .select(raw(query, [`${currency} as currency`, 'count(*) as n', ...sums].join(', '))),
  );
  return {
    count: rows.reduce((all, r) => all + r.n, 0),
    sums: Object.fromEntries(
      keys.map((key, k) => [
        key,
        rows.map((r) => ({ currency: r.currency, amount: minor(r[`sum${k}`] ?? 0) })).filter((s) => s.amount !== 0),
      ]),
    ),
  };
}
