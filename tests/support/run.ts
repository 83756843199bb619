import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** A folder of this run alone, for what is made once and used by all its files of tests. Scripts make one of their own. */
export const runFolder = (): string => (process.env.KETTLE_RUN ??= ofScript());

function ofScript(): string {
  const folder = mkdtempSync(join(tmpdir(), 'kettle-run-'));
  process.once('exit', () => rmSync(folder, { recursive: true, force: true }));
  return folder;
}
