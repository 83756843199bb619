import { chmodSync, copyFileSync, existsSync, statSync } from 'node:fs';
import { connect, type Db } from './db';
import { derive } from './derive';
import { checkAge, migrate, pendingSteps, STEPS, type Step } from './migrate';

/**
 * Opens the file and brings it to the newest schema. A file with data is copied beside itself first.
 * @returns the connection and the backup's path, if one was made
 * @throws WrongAge for a file that this version cannot bring up to date
 */
export async function open(file: string, steps: readonly Step[] = STEPS): Promise<{ db: Db; backup?: string }> {
  const hasData = existsSync(file) && statSync(file).size > 0;
  const db = connect(file);
  try {
    await db.raw('select 1');
    chmodSync(file, 0o600);
    await checkAge(db, file, steps);
    const pending = await pendingSteps(db, steps);
    const [first] = pending;
    if (first === undefined) return { db };
    const backup = hasData ? await copyBeside(db, file, first.name) : undefined;
    await migrate(db, pending, derive);
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
