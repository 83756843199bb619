import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { copyFileSync, existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';

export const TODAY = '2026-05-12';
const STARTS_IN = 240_000;

const freePort = () =>
  new Promise<number>((resolve) => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const address = server.address();
      server.close(() => resolve(typeof address === 'object' && address !== null ? address.port : 0));
    });
  });

/** The sample company as it is on the tests' day: made once for each build, then copied. */
function seeded(): string {
  const build = readFileSync(join('.next', 'BUILD_ID'), 'utf8').trim();
  const file = join(tmpdir(), `kettle-seed-${build}.sqlite`);
  if (existsSync(file)) return file;
  const made = spawnSync(process.execPath, ['--import', 'tsx', 'scripts/serve.ts', 'seed'], {
    env: { ...process.env, KETTLE_FILE: file, KETTLE_TODAY: TODAY, KETTLE_MAIL_FOLDER: `${file}-mail` },
    encoding: 'utf8',
  });
  if (made.status !== 0) throw new Error(`The sample company could not be made: ${made.stderr}`);
  return file;
}

/** The built application, served with a fresh file of its own and the mail stand-in. */
export class App {
  private constructor(
    readonly base: string,
    readonly folder: string,
    private readonly process: ChildProcess,
  ) {}

  static async start(kind: 'demo' | 'company' = 'demo'): Promise<App> {
    const folder = mkdtempSync(join(tmpdir(), 'kettle-app-'));
    const file = join(folder, 'yard.sqlite');
    if (kind === 'demo') copyFileSync(seeded(), file);
    const port = String(await freePort());
    const env = {
      ...process.env,
      PORT: port,
      KETTLE_FILE: file,
      KETTLE_TODAY: TODAY,
      KETTLE_MAIL_FOLDER: join(folder, 'mail'),
      KETTLE_LOG: 'silent',
    };
    const child = spawn(process.execPath, ['--import', 'tsx', 'scripts/serve.ts', kind], {
      env,
      stdio: 'ignore',
      detached: true,
    });
    const app = new App(`http://127.0.0.1:${port}`, folder, child);
    const until = Date.now() + STARTS_IN;
    while (Date.now() < until) {
      const answer = await fetch(`${app.base}/sign-in`).catch(() => undefined);
      if (answer?.ok) return app;
      await pause(200);
    }
    throw new Error('The application did not start.');
  }

  async stop(): Promise<void> {
    if (this.process.pid !== undefined) process.kill(-this.process.pid, 'SIGTERM');
    await pause(300);
    rmSync(this.folder, { recursive: true, force: true });
  }
}
