import { copyFileSync, existsSync, mkdirSync, statSync } from 'node:fs';
import { dirname } from 'node:path';
import knex, { type Knex } from 'knex';
import { migrate, pendingMigrations } from './migrate';

/** A connection or a transaction: store functions take either. */
export type Db = Knex;

const toSnake = (name: string) => name.replace(/[A-Z]/g, (c) => `_${c.toLowerCase()}`);
const toCamel = (name: string) => name.replace(/_([a-z0-9])/g, (_, c: string) => c.toUpperCase());

const camelKeys = (row: unknown): unknown =>
  typeof row === 'object' && row !== null && !Buffer.isBuffer(row)
    ? Object.fromEntries(Object.entries(row).map(([k, v]) => [toCamel(k), v]))
    : row;

type Pragmatic = { pragma: (text: string) => unknown };

/** Opens the company's file; table columns are snake_case in it and camelCase in code. */
export function connect(file: string): Db {
  mkdirSync(dirname(file), { recursive: true });
  return knex({
    client: 'better-sqlite3',
    connection: { filename: file },
    useNullAsDefault: true,
    // Whatever goes wrong is thrown; Knex need not tell it on the console as well.
    log: { warn: () => {}, error: () => {}, deprecate: () => {}, debug: () => {} },
    pool: {
      min: 1,
      max: 1,
      afterCreate: (connection: Pragmatic, ready: (error: Error | null, connection: Pragmatic) => void) => {
        for (const pragma of [
          'journal_mode = WAL',
          'foreign_keys = ON',
          'busy_timeout = 5000',
          'synchronous = FULL',
          'cache_size = -32000',
        ]) {
          connection.pragma(pragma);
        }
        ready(null, connection);
      },
    },
    wrapIdentifier: (name, wrap) => wrap(name === '*' ? name : toSnake(name)),
    postProcessResponse: (result: unknown) => (Array.isArray(result) ? result.map(camelKeys) : camelKeys(result)),
  });
}

/**
 * Opens the file and brings it to the newest schema. A file with data is copied beside itself first.
 * @returns the connection and the backup's path, if one was made
 */
export async function open(file: string): Promise<{ db: Db; backup?: string }> {
  const hasData = existsSync(file) && statSync(file).size > 0;
  const db = connect(file);
  try {
    const pending = await pendingMigrations(db);
    if (pending.length === 0) return { db };
    const backup = hasData ? await copyBeside(db, file, pending[0] ?? '') : undefined;
    await migrate(db);
    return { db, backup };
  } catch (error) {
    await db.destroy();
    throw error;
  }
}

async function copyBeside(db: Db, file: string, step: string): Promise<string> {
  const backup = `${file}.before-${step}-${new Date().toISOString().replace(/[:.]/g, '-')}`;
  await db.raw('PRAGMA wal_checkpoint(TRUNCATE)');
  copyFileSync(file, backup);
  return backup;
}
