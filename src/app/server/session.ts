import 'server-only';
import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { getIronSession } from 'iron-session';
import { cookies } from 'next/headers';
import { redirect } from 'next/navigation';
import { cache } from 'react';
import { findCompany } from '@/store/company';
import { findPerson, type Person } from '@/store/people';
import { readers } from '@/server/readers';
import { companyFile } from '@/server/setting';

/** The secret that seals sessions: made on first start and kept beside the data, readable by its owner only. */
function sessionSecret(): string {
  const path = join(dirname(companyFile()), 'session.secret');
  if (!existsSync(path)) {
    mkdirSync(dirname(path), { recursive: true });
    writeFileSync(path, randomBytes(48).toString('base64url'), { mode: 0o600, flag: 'wx' });
  }
  return readFileSync(path, 'utf8');
}

type Session = { personId?: number };

const DAYS_14 = 14 * 24 * 3600;

export const session = async () =>
  getIronSession<Session>(await cookies(), {
    cookieName: 'kettle',
    password: sessionSecret(),
    ttl: DAYS_14,
    cookieOptions: { httpOnly: true, sameSite: 'lax', secure: process.env.KETTLE_HTTPS === '1', path: '/' },
  });

/** Who is signed in, or undefined; looked up once for each request, so that rights taken away hold at once. */
export const whoIsHere = cache(async (): Promise<Person | undefined> => {
  const { personId } = await session();
  return personId === undefined ? undefined : findPerson(await readers(), personId);
});

/** The signed-in person; anybody else is led to sign in, or to set an empty file up. */
export async function here(): Promise<Person> {
  const person = await whoIsHere();
  if (person !== undefined) return person;
  redirect((await findCompany(await readers())) === undefined ? '/welcome' : '/sign-in');
}
