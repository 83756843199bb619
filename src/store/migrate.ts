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

type Step = { readonly name: string; readonly up: string; readonly after?: (trx: Knex) => Promise<void> };

const STEPS: readonly Step[] = [
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
];

type Executable = { exec: (sql: string) => void };

/** The migrations come with the code, so that a built application needs no folder of scripts. */
const source: Knex.MigrationSource<Step> = {
  getMigrations: async () => [...STEPS],
  getMigrationName: (step) => step.name,
  getMigration: async (step) => ({
    up: async (trx: Knex) => {
      const connection = (await (trx as unknown as Knex.Transaction).client.acquireConnection()) as Executable;
      connection.exec(step.up);
      await step.after?.(trx);
    },
    down: async () => {
      throw new Error('A migration is undone by going back to the backup copy made before it.');
    },
  }),
};

const config: Knex.MigratorConfig = { migrationSource: source, tableName: 'schema_step' };

/** A file that this version cannot bring up to date; the message says what to do. */
export class WrongAge extends Error {}

/** @throws WrongAge for a file that a trial version made, or a newer one than this */
export async function checkAge(db: Knex, file: string): Promise<void> {
  if (!(await db.schema.hasTable('schema_step'))) return;
  const done = ((await db('schema_step').select('name')) as { name: string }[]).map((d) => d.name);
  if (!done.includes(ground.name))
    throw new WrongAge(
      `${file} was made by a trial version of Kettle Tab and cannot be brought up to date: it must be made anew. Move it away and start again; the sample company is made anew by npm run demo -- --fresh.`,
    );
  if (done.some((name) => !STEPS.some((s) => s.name === name)))
    throw new WrongAge(`${file} was made by a newer version of Kettle Tab than this. Start that version to open it.`);
}

export async function pendingMigrations(db: Knex): Promise<string[]> {
  const [, pending] = (await db.migrate.list(config)) as [unknown, Step[]];
  return pending.map((step) => step.name);
}

/** Brings the schema up to date, each step inside a transaction. */
export async function migrate(db: Knex): Promise<void> {
  await db.migrate.latest(config);
}
