import type { Role } from '@/core/people/rights';
import { groupBy } from '@/core/group';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';
import { listSessions } from '@/store/sessions';
import { permit } from '../permit';

export type PersonRow = {
  readonly id: number;
  readonly name: string;
  readonly email: string;
  readonly active: number;
  readonly version: number;
  readonly roles: readonly Role[];
};

const COLUMNS = ['id', 'name', 'email', 'active', 'version'] as const;

/** Everybody: first who signs in, then who is let in no more. */
export async function listPeople(db: Db, person: Person): Promise<PersonRow[]> {
  permit(person, 'manage people');
  const people = await db('person')
    .orderBy('active', 'desc')
    .orderBy('name')
    .select(...COLUMNS);
  const roles = groupBy(await db('personRole'), (r) => r.personId);
  return people.map((p) => ({ ...p, roles: (roles.get(p.id) ?? []).map((r) => r.role) }));
}

export type SignInRow = {
  readonly id: number;
  readonly begunAt: string;
  readonly seenAt: string;
  readonly browser: string;
  readonly place: string;
};

export type PersonView = PersonRow & { readonly signIns: number };

export async function loadPerson(db: Db, person: Person, id: number, now: string): Promise<PersonView | undefined> {
  permit(person, 'manage people');
  const [found] = await db('person')
    .where({ id })
    .select(...COLUMNS);
  if (found === undefined) return undefined;
  const roles = (await db('personRole').where({ personId: id })).map((r) => r.role);
  return { ...found, roles, signIns: (await listSessions(db, id, now)).length };
}

/** One's own sign-ins that still hold, the latest first. */
export async function listMySignIns(db: Db, person: Person, now: string): Promise<SignInRow[]> {
  permit(person, 'see jobs');
  return (await listSessions(db, person.id, now)).map(({ id, begunAt, seenAt, browser, place }) => ({
    id,
    begunAt,
    seenAt,
    browser,
    place,
  }));
}

/** Whether a person gets a copy of what they send, and whether their calendar reads what is expected. */
export async function loadOwnSettings(
  db: Db,
  person: Person,
): Promise<{ copies: boolean; mailReady: boolean; feed: boolean }> {
  const row = await db('person').where({ id: person.id }).first('copies', 'mailReady', 'feedHash');
  return { copies: row?.copies === 1, mailReady: row?.mailReady === 1, feed: row?.feedHash != null };
}
