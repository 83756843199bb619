import type { Role } from '@/core/people/rights';
import { groupBy } from '@/core/group';
import type { Db } from '@/store/connection';
import type { Person } from '@/store/people';
import { permit } from './permit';

export type PersonRow = {
  readonly id: number;
  readonly name: string;
  readonly email: string;
  readonly roles: readonly Role[];
};

export async function listPeople(db: Db, person: Person): Promise<PersonRow[]> {
  permit(person, 'manage people');
  const people = (await db('person').where({ active: 1 }).orderBy('name').select('id', 'name', 'email')) as Omit<
    PersonRow,
    'roles'
  >[];
  const roles = groupBy((await db('personRole')) as { personId: number; role: Role }[], (r) => r.personId);
  return people.map((p) => ({ ...p, roles: (roles.get(p.id) ?? []).map((r) => r.role) }));
}
