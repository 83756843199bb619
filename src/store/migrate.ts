import type { Knex } from 'knex';
import * as first from './migrations/001-first';

type Step = { readonly name: string; readonly up: string };

const STEPS: readonly Step[] = [first];

type Executable = { exec: (sql: string) => void };

/** The migrations come with the code, so that a built application needs no folder of scripts. */
const source: Knex.MigrationSource<Step> = {
  getMigrations: async () => [...STEPS],
  getMigrationName: (step) => step.name,
  getMigration: async (step) => ({
    up: async (trx: Knex) => {
      const connection = (await (trx as unknown as Knex.Transaction).client.acquireConnection()) as Executable;
      connection.exec(step.up);
    },
    down: async () => {
      throw new Error('A migration is undone by going back to the backup copy made before it.');
    },
  }),
};

const config: Knex.MigratorConfig = { migrationSource: source, tableName: 'schema_step' };

export async function pendingMigrations(db: Knex): Promise<string[]> {
  const [, pending] = (await db.migrate.list(config)) as [unknown, Step[]];
  return pending.map((step) => step.name);
}

/** Brings the schema up to date, each step inside a transaction. */
export async function migrate(db: Knex): Promise<void> {
  await db.migrate.latest(config);
}
