import { createHash, randomBytes } from 'node:crypto';
import { COUNTED_MINUTES, holds, KEPT_DAYS, RESET_HOURS, type Failures } from '@/core/people/signingIn';
import type { Db } from './db';
import { findPerson, type Person } from './people';
import { insertOne, rowsOf } from './rows';
import type { SessionRow } from './tables';

/** Where a sign-in comes from, in words for the person it belongs to. */
export type From = { readonly browser: string; readonly place: string };

/** What a browser keeps; the file knows only its digest. */
const newToken = (): string => randomBytes(32).toString('base64url');
const digest = (token: string): string => createHash('sha256').update(token).digest('hex');

/** Forgets sign-ins, tries and links that are older than anybody looks back. */
async function forgetOld(db: Db, now: string): Promise<void> {
  const before = new Date(Date.parse(now) - KEPT_DAYS * 86_400_000).toISOString();
  await db('session').where('seenAt', '<', before).delete();
  await db('signInAttempt').where('at', '<', before).delete();
  await db('passwordReset').where('at', '<', before).delete();
}

/** Begins a sign-in. @returns the token that the browser is to keep */
export async function insertSession(db: Db, personId: number, { browser, place }: From, now: string): Promise<string> {
  const token = newToken();
  await forgetOld(db, now);
  const row = { tokenHash: digest(token), personId, begunAt: now, seenAt: now, browser: browser.slice(0, 200), place };
  await insertOne(db, 'session', row);
  return token;
}

export type Here = { readonly sessionId: number; readonly seenAt: string; readonly person: Person };

/** Whose sign-in this is, if it still holds and the person is active. */
export async function findSession(db: Db, token: string, now: string): Promise<Here | undefined> {
  const row = await db('session')
    .where({ tokenHash: digest(token) })
    .whereNull('endedAt')
    .first();
  if (row === undefined || !holds(row, now)) return undefined;
  const person = await findPerson(db, row.personId);
  return person && { sessionId: row.id, seenAt: row.seenAt, person };
}

export const touchSession = async (db: Db, id: number, now: string): Promise<void> =>
  void (await db('session').where({ id }).update({ seenAt: now }));

/** A person's sign-ins that still hold, the latest first. */
export const listSessions = async (db: Db, personId: number, now: string): Promise<SessionRow[]> =>
  (await db('session').where({ personId }).whereNull('endedAt').orderBy('seenAt', 'desc')).filter((s) => holds(s, now));

/** Ends a person's sign-ins: one, all, or all but one. @returns how many */
export const endSessions = (
  db: Db,
  personId: number,
  which: { readonly only?: number; readonly but?: number },
  now: string,
): Promise<number> => {
  const query = db('session').where({ personId }).whereNull('endedAt');
  if (which.only !== undefined) void query.where({ id: which.only });
  if (which.but !== undefined) void query.whereNot({ id: which.but });
  return query.update({ endedAt: now });
};

type Tried = { readonly email?: string; readonly place?: string };

/** Failures within the hour that is counted; of an account, only those since it was last signed in to. */
export async function countFailures(db: Db, tried: Tried, now: string): Promise<Failures> {
  const since = new Date(Date.parse(now) - COUNTED_MINUTES * 60_000).toISOString();
  const of = () => db('signInAttempt').where(tried).where('at', '>', since);
  const [good] =
    tried.email === undefined ? [] : await of().where({ good: 1 }).max<{ id: number | null }[]>({ id: 'id' });
  const [row] = await rowsOf<Failures>(
    of()
      .where({ good: 0 })
      .where('id', '>', good?.id ?? 0)
      .count({ count: '*' })
      .max({ last: 'at' }),
  );
  return row ?? { count: 0, last: null };
}

/** Writes a try down as a failure, before it is known what it is. @returns its id */
export const insertAttempt = (db: Db, email: string, place: string, at: string): Promise<number> =>
  insertOne(db, 'signInAttempt', { email, place, at, good: 0 });

export const markGood = async (db: Db, id: number): Promise<void> =>
  void (await db('signInAttempt').where({ id }).update({ good: 1 }));

/** Makes a link to choose a new password; earlier ones of the same person no longer hold. @returns its token */
export async function insertReset(db: Db, personId: number, startedBy: number, now: string): Promise<string> {
  const token = newToken();
  await db('passwordReset').where({ personId }).whereNull('usedAt').update({ usedAt: now });
  await insertOne(db, 'passwordReset', { tokenHash: digest(token), personId, startedBy, at: now });
  return token;
}

/** Whose reset this is, if it still holds. */
export async function findReset(
  db: Db,
  token: string,
  now: string,
): Promise<{ id: number; person: Person } | undefined> {
  const row = await db('passwordReset')
    .where({ tokenHash: digest(token) })
    .whereNull('usedAt')
    .first();
  if (row === undefined || Date.parse(now) - Date.parse(row.at) > RESET_HOURS * 3_600_000) return undefined;
  const person = await findPerson(db, row.personId);
  return person && { id: row.id, person };
}

/** Makes the address of a person's calendar of deliveries; an earlier one no longer holds. @returns its token */
export async function insertFeed(db: Db, personId: number): Promise<string> {
  const token = newToken();
  await db('person')
    .where({ id: personId })
    .update({ feedHash: digest(token) });
  return token;
}

export const dropFeed = async (db: Db, personId: number): Promise<void> =>
  void (await db('person').where({ id: personId }).update({ feedHash: null }));

/** Whose calendar a token is of, while they are let in. */
export async function findFeed(db: Db, token: string): Promise<Person | undefined> {
  const row = await db('person')
    .where({ feedHash: digest(token), active: 1 })
    .first('id');
  return row && findPerson(db, row.id);
}
