import 'server-only';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { randomBytes } from 'node:crypto';
import { dirname, join } from 'node:path';
import pino from 'pino';
import { settleInterrupted } from '@/actions/sending';
import type { Clock, Post } from '@/actions/action';
import { asDay, type Day } from '@/core/calendar/workdays';
import { deliver } from '@/formats/mail/deliver';
import { connectReaders, open, type Db } from '@/store/connection';

export const log = pino({ level: process.env.KETTLE_LOG ?? 'info' });

const file = () => process.env.KETTLE_FILE ?? join(process.cwd(), 'data', 'kettle.sqlite');

export const isDemo = (): boolean => process.env.KETTLE_DEMO === '1';

function localDay(): Day {
  const now = new Date();
  return `${now.getFullYear()}-${String(now.getMonth() + 1).padStart(2, '0')}-${String(now.getDate()).padStart(2, '0')}` as Day;
}

/** Today as it is, or as KETTLE_TODAY sets it; the time of day always runs. */
export const clock: Clock = {
  today: () => asDay(process.env.KETTLE_TODAY ?? '') ?? localDay(),
  now: () => {
    const fixed = asDay(process.env.KETTLE_TODAY ?? '');
    const now = new Date().toISOString();
    return fixed === undefined ? now : fixed + now.slice(10);
  },
};

export const post: Post = (message) => deliver(process.env.KETTLE_SMTP, message);

type Held = typeof globalThis & { kettleDb?: Promise<Db>; kettleReaders?: Promise<Db> };

async function openFile(): Promise<Db> {
  const { db, backup } = await open(file());
  if (backup !== undefined) log.info({ backup }, 'The file was brought to a newer schema; a copy was kept.');
  const interrupted = await settleInterrupted(db);
  if (interrupted > 0) log.warn({ interrupted }, 'Messages were under way when the program stopped.');
  return db;
}

/** The one connection of this process that writes. */
export const yard = (): Promise<Db> => ((globalThis as Held).kettleDb ??= openFile());

/** Connections for pages and files, which only look; they never wait for a change that is under way. */
export const readers = (): Promise<Db> =>
  ((globalThis as Held).kettleReaders ??= yard().then(() => connectReaders(file())));

/** The secret that seals sessions: made on first start and kept beside the data, readable by its owner only. */
export function sessionSecret(): string {
  const path = join(dirname(file()), 'session.secret');
  if (!existsSync(path)) {
    mkdirSync(dirname(path), { recursive: true });
    writeFileSync(path, randomBytes(48).toString('base64url'), { mode: 0o600, flag: 'wx' });
  }
  return readFileSync(path, 'utf8');
}
