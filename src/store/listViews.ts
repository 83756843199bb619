import type { Db } from './db';

/** Which columns of a list a person sees, in order, and which are left out. */
export type KeptColumns = { readonly order: readonly string[]; readonly hidden: readonly string[] };

export type KeptView = { readonly id: number; readonly list: string; readonly name: string; readonly query: string };

const MOST_VIEWS = 30;

/** The columns that a person chose, by list. */
export async function loadKeptColumns(db: Db, personId: number): Promise<Record<string, KeptColumns>> {
  const rows = await db('listColumns').where({ personId });
  return Object.fromEntries(
    rows.map((r) => [r.list, { order: JSON.parse(r.shown) as string[], hidden: JSON.parse(r.hidden) as string[] }]),
  );
}

export const loadKeptViews = (db: Db, personId: number): Promise<KeptView[]> =>
  db('listView').where({ personId }).orderBy('name').select('id', 'list', 'name', 'query');

export async function keepColumns(trx: Db, personId: number, list: string, { order, hidden }: KeptColumns) {
  const row = { personId, list, shown: JSON.stringify(order), hidden: JSON.stringify(hidden) };
  await trx('listColumns').insert(row).onConflict(['personId', 'list']).merge();
}

/** Keeps a view by name, in the place of one that was called so. @returns whether there was room for it */
export async function keepView(trx: Db, personId: number, { list, name, query }: Omit<KeptView, 'id'>) {
  const names = (await trx('listView').where({ personId, list }).select('name')).map((v) => v.name);
  if (names.length >= MOST_VIEWS && !names.includes(name)) return false;
  await trx('listView').insert({ personId, list, name, query }).onConflict(['personId', 'list', 'name']).merge();
  return true;
}

export const dropView = (trx: Db, personId: number, id: number) => trx('listView').where({ personId, id }).delete();
