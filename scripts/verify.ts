import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { connectReaders, snapshot, type Db } from '@/store/db';
import { findUnproven } from '@/store/ledger';
import { checkAge, pendingSteps } from '@/store/migrate';
import { checkRecord, type Fault } from '@/store/seals';

/**
 * Proves a company's file: every row of the record is as it was sealed, and every tab adds up. It may run beside the
 * application. Usage: npm run verify [-- file] [-- --head HASH], where HASH is one that an earlier run told.
 */
const { values, positionals } = parseArgs({ options: { head: { type: 'string' } }, allowPositionals: true });
const file = positionals[0] ?? process.env.KETTLE_FILE ?? join('data', 'kettle.sqlite');

const FAULTS: Readonly<Record<Fault['what'], string>> = {
  changed: 'is not as it was written, or its seal is not',
  missing: 'is missing',
  unsealed: 'was not written by the application',
};

const NAMES: Readonly<Record<Fault['source'], string>> = {
  posting: 'Posting',
  budgetEntry: 'Budget entry',
  heldEntry: 'Held-back entry',
  audit: 'Audit record',
  seal: 'Seal',
};

/** What stands in a row now, so that somebody can find it. */
async function contents(db: Db, { source, rowId }: Fault): Promise<string> {
  const row = (await db(source as string)
    .where({ id: rowId })
    .first()) as Record<string, unknown> | undefined;
  if (row === undefined) return '';
  const { id: _, hash: __, ...told } = row;
  return ` Now: ${JSON.stringify(told)}`;
}

async function verify(db: Db): Promise<boolean> {
  const record = await checkRecord(db, values.head);
  for (const fault of record.faults)
    console.log(`${NAMES[fault.source]} ${fault.rowId} ${FAULTS[fault.what]}.${await contents(db, fault)}`);
  const lost = values.head !== undefined && record.known === undefined;
  if (lost)
    console.log('The hash you noted is not in the record any more: rows were taken off its end, or all was made anew.');
  const unproven = await findUnproven(db);
  for (const { line, what } of unproven) console.log(`Tab line ${line}: ${what} do not agree with its documents.`);
  const good = record.faults.length === 0 && !lost && unproven.length === 0;
  console.log(
    `${record.rows.toLocaleString('en-GB')} rows of the record looked at, ${record.faults.length} wrong; ${unproven.length} lines of tabs wrong.`,
  );
  if (good)
    console.log(
      `All is as it was written. Note this hash in another place, and give it with --head next time:\n${record.head}`,
    );
  return good;
}

if (!existsSync(file)) {
  console.error(`${file} is not there.`);
  process.exit(1);
}
const db = connectReaders(file);
try {
  if (!(await db.schema.hasTable('schema_step'))) throw new Error(`${file} is no file of Kettle Tab.`);
  await checkAge(db, file);
  if ((await pendingSteps(db)).length > 0)
    throw new Error(`${file} was made by an older version. Start the application once, then verify.`);
  process.exitCode = (await snapshot(db, verify)) ? 0 : 1;
} catch (error) {
  console.error(error instanceof Error ? error.message : error);
  process.exitCode = 1;
} finally {
  await db.destroy();
}
