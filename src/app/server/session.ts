import 'server-only';
import { getIronSession } from 'iron-session';
import { cookies, headers } from 'next/headers';
import { redirect } from 'next/navigation';
import { cache } from 'react';
import type { SignedIn } from '@/actions/people/signingIn';
import { MOST_HOURS, SIGN_IN_COOKIE } from '@/core/people/signingIn';
import { readers } from '@/server/readers';
import { sealingSecret } from '@/server/secret';
import { clock } from '@/server/setting';
import { inWriter } from '@/server/threads';
import { findCompany } from '@/store/company';
import type { Person } from '@/store/people';
import { findSession, type From, type Here } from '@/store/sessions';

const sealed = async <T extends object>(cookieName: string, hours: number) =>
  getIronSession<T>(await cookies(), {
    cookieName,
    password: sealingSecret(),
    ttl: hours * 3600,
    cookieOptions: { httpOnly: true, sameSite: 'lax', secure: process.env.KETTLE_HTTPS === '1', path: '/' },
  });

const YEAR = 365 * 24;

/** What a browser keeps: the token of its sign-in; and, longer, who has signed in from it. */
const signInCookie = () => sealed<{ token?: string }>(SIGN_IN_COOKIE, MOST_HOURS);
const knownCookie = () => sealed<{ people?: number[] }>('kettle-known', YEAR);

export const knownHere = async (): Promise<readonly number[]> => (await knownCookie()).people ?? [];

/** Where a request comes from. */
export async function from(): Promise<From> {
  const all = await headers();
  return { browser: all.get('user-agent') ?? '', place: all.get('x-forwarded-for')?.split(',')[0]?.trim() ?? '' };
}

export async function enter({ personId, token }: SignedIn): Promise<void> {
  const [signedIn, known] = [await signInCookie(), await knownCookie()];
  signedIn.token = token;
  known.people = [...new Set([...(known.people ?? []), personId])].slice(-20);
  await Promise.all([signedIn.save(), known.save()]);
}

/** Ends the sign-in of this browser, in the file too, so that a copy of its cookie is worth nothing. */
export async function leave(): Promise<void> {
  const cookie = await signInCookie();
  if (cookie.token !== undefined) await inWriter('signOut', cookie.token);
  cookie.destroy();
}

const SEEN_EVERY = 10 * 60_000;

/** The sign-in that a request is made with; looked up once for each, so that whatever is taken away is gone at once. */
export const signedIn = cache(async (): Promise<Here | undefined> => {
  const { token } = await signInCookie();
  if (token === undefined) return undefined;
  const now = clock.now();
  const here = await findSession(await readers(), token, now);
  if (here !== undefined && Date.parse(now) - Date.parse(here.seenAt) > SEEN_EVERY)
    await inWriter('stillHere', here.sessionId);
  return here;
});

export const whoIsHere = async (): Promise<Person | undefined> => (await signedIn())?.person;

/** The signed-in person; anybody else is led to sign in, or to set an empty file up. */
export async function here(): Promise<Person> {
  const person = await whoIsHere();
  if (person !== undefined) return person;
  redirect((await findCompany(await readers())) === undefined ? '/welcome' : '/sign-in');
}
