import type { Day } from '@/core/calendar/workdays';
import type { Rate } from '@/core/money/rate';
import type { Tables } from 'knex/types/tables.js';
import type { Db } from './db';

const CHUNK = 2000;

export type Table = keyof Tables;

/** Long lists are worked through in parts, so that not all of a large file is held at once. */
export function chunks<T>(all: readonly T[], size = CHUNK): T[][] {
  return Array.from({ length: Math.ceil(all.length / size) }, (_, k) => all.slice(k * size, (k + 1) * size));
}

/** A value as it is written: any figure, day or rate; of states and kinds only those that there are. */
type Value<V> = V extends number ? number : V extends Day | Rate ? string : V;

/** A row as it is written: what it leaves out is as the schema has it. */
export type Written<T extends Table> = { readonly [K in keyof Tables[T]]?: Value<Tables[T][K]> | null };

/** Inserts rows in one statement, however many: they are handed over as JSON, which SQLite takes apart itself. */
export async function insertMany<T extends Table>(db: Db, table: T, rows: readonly Written<T>[]): Promise<void> {
  const columns = [...new Set(rows.flatMap((row) => Object.keys(row)))];
  if (columns.length === 0) return;
  const values = rows.map((row) => columns.map((c) => (row as Readonly<Record<string, unknown>>)[c] ?? null));
  const taken = columns.map((_, k) => `value ->> ${k}`).join(', ');
  await db.raw(`insert into ?? (${columns.map(() => '??').join(', ')}) select ${taken} from json_each(?)`, [
    table,
    ...columns,
    JSON.stringify(values),
  ]);
}

/** Inserts one row and returns its id. */
export async function insertOne<T extends Table>(db: Db, table: T, row: Written<T>): Promise<number> {
  const [made] = (await db(table as string)
    .insert(row)
    .returning('id')) as { id: number }[];
  if (made === undefined) throw new Error(`Nothing was inserted into ${table}.`);
  return made.id;
}

/** A list of ids to look among, however long, in one value. */
export const among = (db: Db, ids: readonly number[]) =>
  db.raw('select value from json_each(?)', JSON.stringify(ids)) as unknown as readonly number[];

/** Reads a list by ids; the order is that of the table. */
export const whereIn = <T extends Table>(
  db: Db,
  table: T,
  column: keyof Tables[T] & string,
  ids: readonly number[],
): Promise<Tables[T][]> =>
  ids.length === 0
    ? Promise.resolve([])
    : (db(table as string).whereIn(column, among(db, ids)) as unknown as Promise<Tables[T][]>);

/** The next count of a named series, unbroken because it is taken inside the caller's transaction. */
export async function nextCount(trx: Db, series: string): Promise<number> {
  const [row] = await trx('counter')
    .insert({ name: series, last: 1 })
    .onConflict('name')
    .merge({ last: trx.raw('last + 1') as unknown as number })
    .returning('last');
  if (row === undefined) throw new Error(`The series ${series} gave no number.`);
  return row.last;
}

/**
 * The rows of a query that joins, sums or is written in SQL, by the columns that it selects: what no type can be derived of
 * is said beside it.
 */
export const rowsOf = <T>(query: PromiseLike<unknown>): Promise<T[]> => query as Promise<T[]>;

/** The first row of such a query; undefined where it finds none. */
export const rowOf = <T>(query: PromiseLike<unknown>): Promise<T | undefined> => query as Promise<T | undefined>;

/** A list of core's own words as SQL text, for the places where Knex cannot bind one. */
export const listed = (words: readonly string[]): string => words.map((w) => `'${w.replaceAll("'", "''")}'`).join(', ');
