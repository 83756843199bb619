import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { copyFileSync, existsSync, mkdtempSync, readFileSync, renameSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';

import { program } from '@/server/programs';
import type { Db } from '@/store/db';
import { open } from '@/store/open';

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
  const kept = join(tmpdir(), `kettle-seed-${build}.sqlite`);
  if (existsSync(kept)) return kept;
  const folder = mkdtempSync(join(tmpdir(), 'kettle-seed-'));
  const file = join(folder, 'yard.sqlite');
  const made = spawnSync(process.execPath, [program('serve'), 'seed'], {
    env: { ...process.env, KETTLE_FILE: file, KETTLE_TODAY: TODAY, KETTLE_MAIL_FOLDER: join(folder, 'mail') },
    encoding: 'utf8',
  });
  if (made.status !== 0) throw new Error(`The sample company could not be made: ${made.stderr}`);
  // Whole or not there, also when this is stopped half way.
  renameSync(file, kept);
  rmSync(folder, { recursive: true });
  return kept;
}

/** The built application, served with a fresh file of its own and the mail stand-in. */
export class App {
  private child: ChildProcess | undefined;

  private constructor(
    private readonly kind: 'demo' | 'company',
    readonly base: string,
    readonly folder: string,
  ) {}

  /** Takes the ladder away, for walks that are not about signatures. */
  async withoutLadder(): Promise<void> {
    await this.look((db) => db('ladderStep').update({ gone: 1 }));
  }

  /** Reads the file as it lies, while nobody else has it open or beside those who do. */
  async look<T>(read: (db: Db) => Promise<T>): Promise<T> {
    const { db } = await open(this.file);
    try {
      return await read(db);
    } finally {
      await db.destroy();
    }
  }

  static async start(kind: 'demo' | 'company' = 'demo'): Promise<App> {
    const folder = mkdtempSync(join(tmpdir(), 'kettle-app-'));
    if (kind === 'demo') copyFileSync(seeded(), join(folder, 'yard.sqlite'));
    const app = new App(kind, `http://127.0.0.1:${await freePort()}`, folder);
    await app.serve();
    return app;
  }

  get file(): string {
    return join(this.folder, 'yard.sqlite');
  }

  /** Starts to serve, also again after it was stopped or killed. */
  async serve(): Promise<void> {
    const env = {
      ...process.env,
      PORT: new URL(this.base).port,
      KETTLE_FILE: this.file,
      KETTLE_TODAY: TODAY,
      KETTLE_MAIL_FOLDER: join(this.folder, 'mail'),
      KETTLE_LOG: 'silent',
    };
    const options = { env, stdio: 'ignore', detached: true } as const;
    this.child = spawn(process.execPath, [program('serve'), this.kind], options);
    const until = Date.now() + STARTS_IN;
    while (Date.now() < until) {
      const answer = await fetch(`${this.base}/sign-in`).catch(() => undefined);
      if (answer?.ok) return;
      await pause(200);
    }
    throw new Error('The application did not start.');
  }

  /** Ends every process of the application at once; resolves when they are gone. */
  async end(signal: 'SIGTERM' | 'SIGKILL' = 'SIGTERM'): Promise<void> {
    const { child } = this;
    if (child?.pid === undefined || child.exitCode !== null || child.signalCode !== null) return;
    const gone = new Promise((resolve) => child.once('exit', resolve));
    process.kill(-child.pid, signal);
    await gone;
  }

  async stop(): Promise<void> {
    await this.end();
    await pause(300);
    rmSync(this.folder, { recursive: true, force: true });
  }
}
