import { isNear, mayHaveSlip, plainWord } from '@/core/find/near';
import { wordsOf } from '@/core/find/words';
import { groupBy } from '@/core/group';
import type { Db } from './db';
import { whereIn, rowsOf } from './rows';
import type { LastUsed } from './tables';

/** What can be found, by the figure that its row ids in `find` begin with. */
const KINDS = {
  job: 1,
  quote: 2,
  need: 3,
  item: 4,
  supplier: 5,
  order: 6,
  receipt: 7,
  invoice: 8,
  person: 9,
  customer: 10,
  costCode: 11,
  place: 12,
  lot: 13,
} as const;

export type FindKind = keyof typeof KINDS;
export const FIND_KINDS = Object.keys(KINDS) as FindKind[];

const SPAN = 1_000_000_000_000;

/** What is sought: for each word typed, those that do. */
export type Sought = readonly (readonly string[])[];

export const soughtFor = (text: string): Sought => wordsOf(text).map((w) => [w]);

const NEAR = 20;

/**
 * The same where nothing has what was typed: for a word that nothing begins with, those that it may be meant for.
 * @returns undefined where every word is there, or nothing is near one
 */
export async function soughtNear(db: Db, text: string): Promise<Sought | undefined> {
  const sought: (readonly string[])[] = [];
  const slipped: string[] = [];
  for (const word of wordsOf(text).map(plainWord)) {
    const known = await rowsOf(
      db.raw('select 1 from find_word where term >= ? and term < ? limit 1', [word, `${word}\uffff`]),
    );
    if (known.length > 0) sought.push([word]);
    else if (!mayHaveSlip(word)) return undefined;
    else slipped.push(word);
  }
  if (slipped.length === 0) return undefined;
  const words = await rowsOf<{ term: string }>(
    db.raw("select term from find_word where length(term) >= ? and term not glob '*[0-9]*'", [
      Math.min(...slipped.map((w) => w.length)) - 1,
    ]),
  );
  for (const word of slipped)
    sought.push(
      words
        .filter((w) => isNear(word, w.term))
        .slice(0, NEAR)
        .map((w) => w.term),
    );
  return sought.some((near) => near.length === 0) ? undefined : sought;
}

/** Every word sought begins a word of the thing, in any order. */
const asked = (sought: Sought): string =>
  sought.map((words) => `(${words.map((w) => `"${w}"*`).join(' OR ')})`).join(' AND ');

/** Ids of the things of a kind that have all words sought, the newest first; the newest of all when none is. */
export async function findIds(db: Db, kind: FindKind, sought: Sought, most: number): Promise<number[]> {
  const from = KINDS[kind] * SPAN;
  const match = asked(sought);
  const where = match === '' ? '' : 'find match ? and';
  const rows = await rowsOf<{ id: number }>(
    db.raw(
      `select rowid - ${from} as id from find where ${where} rowid between ${from} and ${from + SPAN - 1} order by rowid desc limit ?`,
      match === '' ? [most] : [match, most],
    ),
  );
  return rows.map((r) => r.id);
}

/** What a person used last of a kind, among what has all words typed; the latest first. */
export async function lastUsedIds(
  db: Db,
  personId: number,
  kind: FindKind,
  text: string,
  most: number,
): Promise<number[]> {
  const rows = await db('lastUsed').where({ personId, kind }).orderBy('at', 'desc').limit(50).select('thingId');
  const used = rows.map((r) => r.thingId);
  const match = asked(soughtFor(text));
  if (match === '' || used.length === 0) return used.slice(0, most);
  const from = KINDS[kind] * SPAN;
  const found = await rowsOf<{ id: number }>(
    db.raw(
      `select rowid - ${from} as id from find where find match ? and rowid in (select value + ${from} from json_each(?))`,
      [match, JSON.stringify(used)],
    ),
  );
  const fits = new Set(found.map((f) => f.id));
  return used.filter((id) => fits.has(id)).slice(0, most);
}

/** What a person used last, of every kind, the latest first. */
export const listLastUsed = (db: Db, personId: number, most: number): Promise<LastUsed[]> =>
  db('lastUsed').where({ personId }).orderBy('at', 'desc').limit(most);

/** Ids of what has a number that begins as typed, the lowest first. */
export async function idsByNumber(
  db: Db,
  table: 'item' | 'job' | 'costCode',
  column: 'number' | 'code',
  text: string,
  most: number,
): Promise<number[]> {
  const typed = text.trim();
  if (typed === '') return [];
  const rows = await rowsOf<{ id: number }>(
    db(table as 'item')
      .where(column as 'number', '>=', typed)
      .where(column as 'number', '<', `${typed}\uffff`)
      .orderBy(column as 'number')
      .limit(most)
      .select('id'),
  );
  return rows.map((r) => r.id);
}

/** What a thing is called by, the surest first. */
const CALLED: Readonly<Partial<Record<FindKind, readonly string[]>>> = {
  item: [
    'select number as word, id from item where number collate nocase in (select value from json_each(?))',
    'select gtin as word, id from item where gtin in (select value from json_each(?))',
    'select name as word, id from item where name collate nocase in (select value from json_each(?))',
    'select their_number as word, item_id as id from supplier_part where their_number collate nocase in (select value from json_each(?))',
  ],
  job: [
    'select number as word, id from job where number collate nocase in (select value from json_each(?))',
    'select name as word, id from job where name collate nocase in (select value from json_each(?))',
  ],
  costCode: [
    'select code as word, id from cost_code where code collate nocase in (select value from json_each(?))',
    'select name as word, id from cost_code where name collate nocase in (select value from json_each(?))',
    "select code || ' ' || name as word, id from cost_code where code || ' ' || name collate nocase in (select value from json_each(?))",
  ],
  supplier: ['select name as word, id from supplier where name collate nocase in (select value from json_each(?))'],
  customer: ['select name as word, id from customer where name collate nocase in (select value from json_each(?))'],
  place: [
    "select name as word, id from delivery_place where kind <> 'once' and closed = 0 and name collate nocase in (select value from json_each(?))",
  ],
  person: ['select name as word, id from person where name collate nocase in (select value from json_each(?))'],
};

/** Things of a kind that are called exactly by one of these words; `rank` 0 is the surest. */
export async function idsCalled(
  db: Db,
  kind: FindKind,
  words: readonly string[],
): Promise<{ word: string; id: number; rank: number }[]> {
  const asked = JSON.stringify(words);
  const found = [];
  for (const [rank, sql] of (CALLED[kind] ?? []).entries())
    for (const row of await rowsOf<{ word: string; id: number }>(db.raw(sql, [asked]))) found.push({ ...row, rank });
  return found;
}

/** All that a code may say to call each of these items: our number, its GTIN, and what its suppliers call it. */
export async function codesOf(db: Db, itemIds: readonly number[]): Promise<(itemId: number) => readonly string[]> {
  const ids = [...new Set(itemIds)];
  const items = await whereIn(db, 'item', 'id', ids);
  const theirs = groupBy(await whereIn(db, 'supplierPart', 'itemId', ids), (p) => p.itemId);
  const codes = new Map(
    items.map((i) => [i.id, [i.number, i.gtin ?? '', ...(theirs.get(i.id) ?? []).map((p) => p.theirNumber)]]),
  );
  return (itemId) => (codes.get(itemId) ?? []).filter((c) => c !== '');
}

const KEPT = 50;

/** Notes that a person used a thing just now; the oldest beyond so many are forgotten. */
export async function noteUse(trx: Db, personId: number, kind: FindKind, thingId: number, at: string): Promise<void> {
  await trx('lastUsed').insert({ personId, kind, thingId, at }).onConflict(['personId', 'kind', 'thingId']).merge();
  const beyond = trx('lastUsed')
    .where({ personId, kind })
    .orderBy('at', 'desc')
    .offset(KEPT)
    .limit(1000)
    .select('thingId');
  await trx('lastUsed').where({ personId, kind }).whereIn('thingId', beyond).delete();
}
