import { readdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';

/** After all tests: servers of the workers end, and what the run made goes. */
export default function endRun() {
  const folder = process.env.KETTLE_RUN;
  for (const name of readdirSync(folder).filter((n) => /^server-\d+\.json$/.test(n))) {
    const served = JSON.parse(readFileSync(join(folder, name), 'utf8'));
    process.kill(-served.pid, 'SIGKILL');
    rmSync(served.folder, { recursive: true, force: true });
  }
  rmSync(folder, { recursive: true, force: true });
}
