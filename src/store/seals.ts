import { createHash } from 'node:crypto';
import type { Knex } from 'knex';
import type { Db } from './db';
import { among, chunks, insertMany, rowsOf } from './rows';
import type { Sealed } from './tables';

/**
 * What is sealed, and which of its columns in which order: a column that is added later is no part of it, so that what
 * was sealed stays as it is.
 */
const SEALED = {
  posting: [
    'id',
    'tabLineId',
    'jobId',
    'costCodeId',
    'stage',
    'amount',
    'event',
    'document',
    'documentId',
    'personId',
    'day',
    'at',
  ],
  budgetEntry: ['id', 'jobId', 'costCodeId', 'kind', 'amount', 'reason', 'quoteId', 'personId', 'day', 'at'],
  heldEntry: ['id', 'jobId', 'amount', 'changeId', 'personId', 'day', 'at'],
  audit: ['id', 'at', 'day', 'personId', 'action', 'words', 'changes'],
} as const satisfies Record<Sealed, readonly string[]>;

const SOURCES = Object.keys(SEALED) as Sealed[];

/** A row as it is sealed: its columns in their order; an audit record has what it is about as well. */
type SealedRow = { readonly id: number; readonly values: readonly unknown[] };

/** What the first row is sealed with. */
const START = '0'.repeat(64);

/**
 * The hash of a row: SHA-256 (FIPS 180-4), in hexadecimal, of the hash before it, a line feed, and the JSON text of its
 * source and values, all in UTF-8.
 */
const hashOf = (previous: string, source: Sealed, values: readonly unknown[]): string =>
  createHash('sha256')
    .update(`${previous}\n${JSON.stringify([source, ...values])}`)
    .digest('hex');

async function readRows(db: Db, source: Sealed, ids: readonly number[]): Promise<SealedRow[]> {
  const columns = SEALED[source];
  const rows = await rowsOf<Record<string, unknown>>(
    db(source as string)
      .whereIn('id', among(db, ids))
      .orderBy('id')
      .select(...columns),
  );
  const subjects = source === 'audit' ? await subjectsOf(db, ids) : undefined;
  return rows.map((row) => {
    const id = row.id as number;
    const values = columns.map((c) => row[c]);
    return { id, values: subjects === undefined ? values : [...values, subjects.get(id) ?? []] };
  });
}

/** What audit records are about, by kind and id. */
async function subjectsOf(db: Db, auditIds: readonly number[]): Promise<Map<number, [string, number][]>> {
  const rows = await db('auditSubject')
    .whereIn('auditId', among(db, auditIds))
    .orderBy(['auditId', 'kind', 'subjectId'])
    .select('auditId', 'kind', 'subjectId');
  const all = new Map<number, [string, number][]>();
  for (const { auditId, kind, subjectId } of rows)
    all.set(auditId, [...(all.get(auditId) ?? []), [kind, subjectId] as [string, number]]);
  return all;
}

/** How far each table had been written, by its highest id. */
export type Marks = Readonly<Record<Sealed, number>>;

/** Before anything was written. */
export const NOTHING_WRITTEN: Marks = { posting: 0, budgetEntry: 0, heldEntry: 0, audit: 0 };

export async function marksNow(trx: Db): Promise<Marks> {
  const highest = SOURCES.map((s) => trx.raw('(select coalesce(max(id), 0) from ??) as ??', [s, s]));
  const [marks] = await rowsOf<Marks>(trx.select(highest));
  return marks ?? NOTHING_WRITTEN;
}

/** Seals what was written since; a row that came in beside the application stays without a seal, and is found by that. */
export async function sealSince(trx: Db, marks: Marks): Promise<void> {
  const now = await marksNow(trx);
  const written = SOURCES.filter((source) => now[source] > marks[source]);
  if (written.length === 0) return;
  const last = await trx('seal').orderBy('id', 'desc').first();
  let [id, hash] = [last?.id ?? 0, last?.hash ?? START];
  for (const source of written) {
    const fresh = await idsOf(trx, source, (q) => q.where('id', '>', marks[source]));
    for (const part of chunks(fresh)) {
      const seals = (await readRows(trx, source, part)).map((row) => {
        hash = hashOf(hash, source, row.values);
        return { id: (id += 1), source, rowId: row.id, hash };
      });
      await insertMany(trx, 'seal', seals);
    }
  }
}

async function idsOf(
  db: Db,
  source: Sealed,
  which: (query: Knex.QueryBuilder) => Knex.QueryBuilder,
): Promise<number[]> {
  const rows = await rowsOf<{ id: number }>(
    which(db(source as string))
      .orderBy('id')
      .select('id'),
  );
  return rows.map((r) => r.id);
}

/** A row of the record that is not as it was sealed, or is not there, or was put in beside the application. */
export type Fault = {
  readonly what: 'changed' | 'missing' | 'unsealed';
  readonly source: Sealed | 'seal';
  readonly rowId: number;
};

export type RecordCheck = {
  readonly rows: number;
  /** The last hash of the chain; noted elsewhere, it proves later that nothing before it was made anew. */
  readonly head: string;
  readonly faults: readonly Fault[];
  /** The number of the seal that has the hash one asked for, if there is one. */
  readonly known?: number;
};

/**
 * Goes through the whole record, a part at a time.
 *
 * @param noted a hash that was the head at some time; it has to be in the chain still
 * @returns what is wrong, each row by its id, and how far the record goes
 */
export async function checkRecord(db: Db, noted?: string): Promise<RecordCheck> {
  const faults: Fault[] = [];
  const ids = (await db('seal').orderBy('id').select('id')).map((s) => s.id);
  let [expected, previous] = [1, START];
  let known: number | undefined;
  for (const part of chunks(ids)) {
    const seals = await db('seal').whereIn('id', among(db, part)).orderBy('id');
    const rows = new Map<string, SealedRow>();
    for (const source of SOURCES) {
      const own = seals.filter((s) => s.source === source).map((s) => s.rowId);
      for (const row of await readRows(db, source, own)) rows.set(`${source}/${row.id}`, row);
    }
    for (const { id, source, rowId, hash } of seals) {
      for (; expected < id; expected += 1) faults.push({ what: 'missing', source: 'seal', rowId: expected });
      const row = rows.get(`${source}/${rowId}`);
      if (row === undefined) faults.push({ what: 'missing', source, rowId });
      else if (hashOf(previous, source, row.values) !== hash) faults.push({ what: 'changed', source, rowId });
      if (hash === noted) known = id;
      [expected, previous] = [id + 1, hash];
    }
  }
  for (const source of SOURCES) {
    const stray = await idsOf(db, source, (q) => q.whereNotIn('id', db('seal').where({ source }).select('rowId')));
    faults.push(...stray.map((rowId) => ({ what: 'unsealed' as const, source, rowId })));
  }
  return { rows: ids.length, head: previous, faults, known };
}
