import { mkdirSync } from 'node:fs';
import { dirname } from 'node:path';
import knex, { type Knex } from 'knex';
import './tables';

/** A connection or a transaction: store functions take either. */
export type Db = Knex;

const remembered = (change: (name: string) => string) => {
  const known = new Map<string, string>();
  return (name: string): string => {
    const before = known.get(name);
    if (before !== undefined) return before;
    const made = change(name);
    known.set(name, made);
    return made;
  };
};
const toSnake = remembered((name) => name.replace(/[A-Z]/g, (c) => `_${c.toLowerCase()}`));
const toCamel = remembered((name) => name.replace(/_([a-z0-9])/g, (_, c: string) => c.toUpperCase()));

const isRow = (row: unknown): row is Record<string, unknown> =>
  typeof row === 'object' && row !== null && !Buffer.isBuffer(row);

/** All rows of a statement have the same columns, so that they are named once. */
function camelRows(rows: readonly unknown[]): unknown[] {
  const [first] = rows;
  if (!isRow(first)) return [...rows];
  const columns = Object.keys(first).map((column) => [column, toCamel(column)] as const);
  return (rows as readonly Record<string, unknown>[]).map((row) => {
    const named: Record<string, unknown> = {};
    for (const [column, name] of columns) named[name] = row[column];
    return named;
  });
}

type Connection = { pragma: (text: string) => unknown; prepare: (sql: string) => unknown };

/**
 * A change takes its turn at the file when it begins, and waits for it: SQLite refuses one at once that has read first, when
 * another program writes meanwhile (sqlite.org/lang_transaction.html).
 */
function beginToWrite(connection: Connection): void {
  const prepare = connection.prepare.bind(connection);
  connection.prepare = (sql) => prepare(sql === 'BEGIN;' ? 'BEGIN IMMEDIATE;' : sql);
}

const SETTINGS = [
  'journal_mode = WAL',
  'foreign_keys = ON',
  'busy_timeout = 5000',
  'synchronous = FULL',
  'cache_size = -32000',
];

type Use = { readonly connections?: number; readonly settings?: readonly string[]; readonly writes?: boolean };

/**
 * Opens the company's file; table columns are snake_case in it and camelCase in code. There is one connection that
 * writes, so that changes follow one another.
 */
export function connect(file: string, { connections = 1, settings = SETTINGS, writes = true }: Use = {}): Db {
  mkdirSync(dirname(file), { recursive: true });
  return knex({
    client: 'better-sqlite3',
    connection: { filename: file },
    useNullAsDefault: true,
    // Whatever goes wrong is thrown; Knex need not tell it on the console as well.
    log: { warn: () => {}, error: () => {}, deprecate: () => {}, debug: () => {} },
    // An error tells its statement without what was bound into it: that may be anybody's secret, and logs are read.
    compileSqlOnError: false,
    pool: {
      min: 1,
      max: connections,
      afterCreate: (connection: Connection, ready: (error: Error | null, connection: Connection) => void) => {
        if (writes) beginToWrite(connection);
        for (const setting of settings) connection.pragma(setting);
        ready(null, connection);
      },
    },
    wrapIdentifier: (name, wrap) => wrap(name === '*' ? name : toSnake(name)),
    postProcessResponse: (result: unknown) =>
      Array.isArray(result) ? camelRows(result) : isRow(result) ? camelRows([result])[0] : result,
  });
}

// A reader's own pages go stale with every change that is written, so it looks at the file where it lies.
const READING = ['query_only = ON', 'busy_timeout = 5000', 'cache_size = -16000', 'mmap_size = 1073741824'];

/** Connections that only read. A transaction on one sees a single moment, whatever is written meanwhile. */
export const connectReaders = (file: string): Db => connect(file, { connections: 4, settings: READING, writes: false });

/** Reads with one view of the file: everything that \`read\` asks is of the same moment. */
export const snapshot = <T>(readers: Db, read: (db: Db) => Promise<T>): Promise<T> => readers.transaction(read);
