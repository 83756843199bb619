import { rowsOf } from './rows';
import type { Knex } from 'knex';
import * as ground from './migrations/001-ground';
import * as signing from './migrations/002-signing';
import * as entry from './migrations/003-entry';
import * as lists from './migrations/004-lists';
import * as planning from './migrations/005-planning';
import * as sources from './migrations/006-sources';
import * as orders from './migrations/007-orders';
import * as signoff from './migrations/008-signoff';
import * as budgets from './migrations/009-budgets';
import * as completion from './migrations/010-completion';
import * as record from './migrations/011-record';
import * as settings from './migrations/012-settings';
import * as stock from './migrations/013-stock';
import * as due from './migrations/014-due';
import * as names from './migrations/015-names';
import * as sums from './migrations/016-sums';
import * as days from './migrations/017-days';
import * as pieces from './migrations/018-pieces';
import * as near from './migrations/019-near';
import * as numbers from './migrations/020-numbers';

/** A step of the schema: plain SQL that runs no code of today, so that it does the same in every later version. */
export type Step = { readonly name: string; readonly up: string };

export const STEPS: readonly Step[] = [
  ground,
  signing,
  entry,
  lists,
  planning,
  sources,
  orders,
  signoff,
  budgets,
  completion,
  record,
  settings,
  stock,
  due,
  names,
  sums,
  days,
  pieces,
  near,
  numbers,
];

/** A file that this version cannot bring up to date; the message says what to do. */
export class WrongAge extends Error {}

const TABLE = 'schemaStep';

/** The steps that a file has, by name; none in a new one. */
const stepsOf = async (db: Knex): Promise<Set<string>> =>
  (await db.schema.hasTable('schema_step'))
    ? new Set((await rowsOf<{ name: string }>(db(TABLE).select('name'))).map((s) => s.name))
    : new Set();

/** @throws WrongAge for a file that a trial version made, or a newer one than this */
export async function checkAge(db: Knex, file: string, steps: readonly Step[] = STEPS): Promise<void> {
  const done = await stepsOf(db);
  if (done.size > 0 && !done.has(ground.name))
    throw new WrongAge(
      `${file} was made by a trial version of Kettle Tab and can’t be upgraded. Move it away and start again; npm run demo -- --fresh makes a new sample company.`,
    );
  const known = new Set(steps.map((s) => s.name));
  if ([...done].some((name) => !known.has(name)))
    throw new WrongAge(`${file} was made by a newer version of Kettle Tab. Open it with that version.`);
}

/** The steps that a file does not have yet, in their order. */
export async function pendingSteps(db: Knex, steps: readonly Step[] = STEPS): Promise<Step[]> {
  const done = await stepsOf(db);
  return steps.filter((s) => !done.has(s.name));
}

/**
 * Brings the schema up to date, all of it or nothing: every pending step first, then what is derived, once. Foreign keys
 * are off meanwhile, so that a step can rebuild a table that others refer to, and all of them hold when it ends. Knex's own
 * migrator runs code between steps, and cannot be given a transaction that something follows in.
 *
 * @param derive works out, with the schema of today, what the file did not keep before
 * @throws Error when a row would refer to one that is not there
 */
export async function migrate(
  db: Knex,
  pending: readonly Step[],
  derive: (trx: Knex, isNew: (step: string) => boolean) => Promise<void>,
): Promise<void> {
  // Neither setting does anything inside a transaction. The second lets a table take the name of one that views speak of.
  await db.raw('PRAGMA foreign_keys = OFF');
  await db.raw('PRAGMA legacy_alter_table = ON');
  try {
    await db.transaction(async (trx) => {
      await execute(trx, BOOK);
      const [{ last }] = (await trx(TABLE).max({ last: 'batch' })) as [{ last: number | null }];
      for (const { name, up } of pending) {
        await execute(trx, up);
        await trx(TABLE).insert({ name, batch: (last ?? 0) + 1, migrationTime: Date.now() });
      }
      await derive(trx, (step) => pending.some((p) => p.name === step));
      await checkReferences(trx);
    });
  } finally {
    await db.raw('PRAGMA legacy_alter_table = OFF');
    await db.raw('PRAGMA foreign_keys = ON');
  }
}

/** Which steps a file has. The columns are Knex's, which kept this table at first. */
const BOOK =
  'CREATE TABLE IF NOT EXISTS schema_step (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, name VARCHAR(255), batch INTEGER, migration_time DATETIME)';

/** Several statements at once, which a prepared one cannot be. */
async function execute(trx: Knex.Transaction, sql: string): Promise<void> {
  const connection = (await trx.client.acquireConnection()) as { exec: (sql: string) => void };
  connection.exec(sql);
}

async function checkReferences(trx: Knex): Promise<void> {
  const broken = await rowsOf<{ table: string; rowid: number; parent: string }>(trx.raw('PRAGMA foreign_key_check'));
  if (broken.length === 0) return;
  const some = broken.slice(0, 5).map((b) => `${b.table} ${b.rowid} to ${b.parent}`);
  throw new Error(`Rows refer to what is not there: ${some.join(', ')}.`);
}
