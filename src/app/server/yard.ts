import 'server-only';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { randomBytes } from 'node:crypto';
import { dirname, join } from 'node:path';
import { companyFile } from '@/server/setting';
import { inWriter } from '@/server/threads';
import { connectReaders, type Db } from '@/store/connection';

type Held = typeof globalThis & { kettleReaders?: Promise<Db> };

/** Connections for pages and files, which only look; they never wait for a change that is under way. */
export const readers = (): Promise<Db> =>
  ((globalThis as Held).kettleReaders ??= inWriter('begin', undefined).then(() => connectReaders(companyFile())));

/** The secret that seals sessions: made on first start and kept beside the data, readable by its owner only. */
export function sessionSecret(): string {
  const path = join(dirname(companyFile()), 'session.secret');
  if (!existsSync(path)) {
    mkdirSync(dirname(path), { recursive: true });
    writeFileSync(path, randomBytes(48).toString('base64url'), { mode: 0o600, flag: 'wx' });
  }
  return readFileSync(path, 'utf8');
}
