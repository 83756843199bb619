import type { Role } from '@/core/people/rights';
import type { Db } from './db';
import { insertOne } from './rows';
import type { PersonRow } from './tables';

export type Person = {
  readonly id: number;
  readonly name: string;
  readonly email: string;
  readonly roles: readonly Role[];
  readonly theme: 'day' | 'evening';
};

async function withRoles(db: Db, row: PersonRow | undefined): Promise<(Person & { passwordHash: string }) | undefined> {
  if (row === undefined || row.active !== 1) return undefined;
  const roles = await db('personRole').where({ personId: row.id });
  const { id, name, email, theme, passwordHash } = row;
  return { id, name, email, theme, passwordHash, roles: roles.map((r) => r.role) };
}

/** An active person, without the password hash. */
export async function findPerson(db: Db, id: number): Promise<Person | undefined> {
  const found = await withRoles(db, await db('person').where({ id }).first());
  if (found === undefined) return undefined;
  const { id: personId, name, email, theme, roles } = found;
  return { id: personId, name, email, theme, roles };
}

export const findByEmail = async (db: Db, email: string) => withRoles(db, await db('person').where({ email }).first());

export async function insertPerson(
  db: Db,
  person: { name: string; email: string; passwordHash: string; roles: readonly Role[] },
): Promise<number> {
  const { roles, ...row } = person;
  const id = await insertOne(db, 'person', row);
  for (const role of roles) await db('personRole').insert({ personId: id, role });
  return id;
}
