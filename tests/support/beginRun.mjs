import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** Before any test: a folder for what the run makes once. */
export default function beginRun() {
  process.env.KETTLE_RUN = mkdtempSync(join(tmpdir(), 'kettle-run-'));
}
