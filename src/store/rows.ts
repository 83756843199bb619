import type { Tables } from 'knex/types/tables.js';
import type { Db } from './connection';

const CHUNK = 400;

export type Table = keyof Tables;

/** SQLite takes a limited number of values in one statement, so long lists go in parts. */
export function chunks<T>(all: readonly T[], size = CHUNK): T[][] {
  return Array.from({ length: Math.ceil(all.length / size) }, (_, k) => all.slice(k * size, (k + 1) * size));
}

export async function insertMany(db: Db, table: string, rows: readonly object[]): Promise<void> {
  for (const part of chunks(rows)) await db(table).insert(part);
}

/** Inserts one row and returns its id. */
export async function insertOne(db: Db, table: string, row: object): Promise<number> {
  const [made] = (await db(table).insert(row).returning('id')) as { id: number }[];
  if (made === undefined) throw new Error(`Nothing was inserted into ${table}.`);
  return made.id;
}

/** Reads a list by ids in parts; the order is that of the table. */
export async function whereIn<T extends Table>(
  db: Db,
  table: T,
  column: keyof Tables[T] & string,
  ids: readonly number[],
): Promise<Tables[T][]> {
  const found: Tables[T][] = [];
  for (const part of chunks([...new Set(ids)]))
    found.push(...((await db(table as string).whereIn(column, part)) as Tables[T][]));
  return found;
}

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
