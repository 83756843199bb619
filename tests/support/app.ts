import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import {
  copyFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { program } from '@/server/programs';
import { connect, type Db } from '@/store/db';
import { open } from '@/store/open';
import { runFolder } from './run';

export const TODAY = '2026-05-12';
const STARTS_IN = 240_000;

const freePort = () =>
  new Promise<number>((resolve) => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const address = server.address();
      server.close(() => resolve(typeof address === 'object' && address !== null ? address.port : 0));
    });
  });

/** The sample company as it is on the tests' day: made once a run, by who comes first; others wait for it. */
async function sample(): Promise<string> {
  const folder = join(runFolder(), 'sample');
  const [file, ready] = [join(folder, 'yard.sqlite'), join(folder, 'ready')];
  if (mkdirSync(folder, { recursive: true }) !== undefined) {
    const env = { ...process.env, KETTLE_FILE: file, KETTLE_TODAY: TODAY, KETTLE_MAIL_FOLDER: join(folder, 'mail') };
    const made = spawnSync(process.execPath, [program('serve'), 'seed'], { env, encoding: 'utf8' });
    writeFileSync(ready, made.status === 0 ? '' : made.stderr || 'it was stopped');
  }
  while (!existsSync(ready)) await pause(100);
  const fault = readFileSync(ready, 'utf8');
  if (fault !== '') throw new Error(`The sample company could not be made: ${fault}`);
  return file;
}

type Served = { readonly pid: number; readonly base: string; readonly folder: string };

/** Where the server of this worker is written down for its next file of tests, and for the end of the run. */
const servedAt = (): string => join(runFolder(), `server-${process.env.JEST_WORKER_ID ?? '1'}.json`);

/** The built application, served with the mail stand-in. */
export class App {
  private child: ChildProcess | undefined;

  private constructor(
    private readonly kind: 'demo' | 'company',
    readonly base: string,
    readonly folder: string,
    private readonly isShared: boolean,
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

  /** The server of this worker, which goes on from one file of tests to the next; its sample company is as it was made. */
  static async start(): Promise<App> {
    const at = servedAt();
    const before = existsSync(at) ? (JSON.parse(readFileSync(at, 'utf8')) as Served) : undefined;
    if (before !== undefined) {
      const app = new App('demo', before.base, before.folder, true);
      await app.restore();
      return app;
    }
    const app = await App.serving('demo', true);
    writeFileSync(
      at,
      JSON.stringify({ pid: app.child?.pid ?? 0, base: app.base, folder: app.folder } satisfies Served),
    );
    app.child?.unref();
    return app;
  }

  /** A server of one's own, for tests that end it, or that begin without a file. */
  static own = (kind: 'demo' | 'company' = 'demo'): Promise<App> => App.serving(kind, false);

  private static async serving(kind: 'demo' | 'company', isShared: boolean): Promise<App> {
    const folder = mkdtempSync(join(tmpdir(), 'kettle-app-'));
    if (kind === 'demo') copyFileSync(await sample(), join(folder, 'yard.sqlite'));
    const app = new App(kind, `http://127.0.0.1:${await freePort()}`, folder, isShared);
    await app.serve();
    return app;
  }

  /** Puts the sample company back as it was made, page by page under the connections that have the file open. */
  private async restore(): Promise<void> {
    const made = connect(await sample());
    const pages = (await made.client.acquireConnection()) as { backup: (to: string) => Promise<unknown> };
    await pages.backup(this.file);
    await made.client.releaseConnection(pages);
    await made.destroy();
    const mail = join(this.folder, 'mail');
    mkdirSync(mail, { recursive: true });
    for (const name of readdirSync(mail)) rmSync(join(mail, name));
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
      await pause(50);
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

  /** Kills it so long after something began, or once that is over; after 0 ms at once, before it can have heard of it. */
  async killAfter(ms: number, going: Promise<unknown>): Promise<void> {
    if (ms > 0) await Promise.race([pause(ms), going]);
    await this.end('SIGKILL');
  }

  /** What is over with this file of tests: one's own server ends, the worker's goes on. */
  async stop(): Promise<void> {
    if (this.isShared) return;
    await this.end('SIGKILL');
    rmSync(this.folder, { recursive: true, force: true });
  }
}
