import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { companyFile } from './setting';

/** The secret that seals cookies: made on first start and kept beside the data, readable by its owner only. */
export function sealingSecret(): string {
  const path = join(dirname(companyFile()), 'session.secret');
  if (!existsSync(path)) {
    mkdirSync(dirname(path), { recursive: true });
    writeFileSync(path, randomBytes(48).toString('base64url'), { mode: 0o600, flag: 'wx' });
  }
  return readFileSync(path, 'utf8');
}
