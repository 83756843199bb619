import { z } from 'zod';
import type { Db } from '@/store/db';
import { insertPerson } from '@/store/people';
import { insertMany } from '@/store/rows';
import { endSessions, insertReset, dropFeed, insertFeed } from '@/store/sessions';
import { defineAction, found, once, refuse, sameVersion, type Work } from '../action';
import { newPersonFields, personFields } from '@/core/records/person';
import { hashPassword } from './passwords';

export const addPerson = defineAction({
  name: 'addPerson',
  right: 'manage people',
  input: z.object({
    once,
    ...newPersonFields.shape,
  }),
  prepare: (_, { password }) => hashPassword(password),
  run: async ({ trx, audit }, { name, email, roles: given }, passwordHash) => {
    if (await trx('person').where({ email }).first('id'))
      refuse('person.email', `${email} is already used by another person.`, 'email');
    const id = await insertPerson(trx, { name, email, roles: given, passwordHash });
    await audit({ words: `Added ${name}`, subjects: [['person', id]], after: { name, email, roles: given } });
    return { id };
  },
});

const personRef = { personId: z.number().int(), version: z.number().int() };

const personOf = async ({ trx }: Work, personId: number, version: number) => {
  const person = found(await trx('person').where({ id: personId }).first(), 'This person');
  return sameVersion(person, version, person.name);
};

/** Somebody always has to be there who can manage people. */
async function keepAnAdministrator(trx: Db): Promise<void> {
  const left = await trx('personRole as r')
    .join('person as p', 'p.id', 'r.personId')
    .where({ 'p.active': 1, 'r.role': 'administrator' })
    .first('p.id');
  if (left === undefined)
    refuse('person.last', 'This is the only administrator. Make someone else an administrator first.', 'roles');
}

/** Changes a person's name and roles; what they may do changes at their next click. */
export const changePerson = defineAction({
  name: 'changePerson',
  right: 'manage people',
  input: z.object({ ...personRef, ...personFields.shape }),
  run: async (work, { personId, version, name, roles: given }) => {
    const { trx, audit } = work;
    const before = await personOf(work, personId, version);
    const had = (await trx('personRole').where({ personId }).orderBy('role')).map((r) => r.role);
    await trx('personRole').where({ personId }).delete();
    await insertMany(
      trx,
      'personRole',
      given.map((role) => ({ personId, role })),
    );
    await trx('person')
      .where({ id: personId })
      .update({ name, version: version + 1 });
    await keepAnAdministrator(trx);
    await audit({
      words: `Changed ${name}`,
      subjects: [['person', personId]],
      before: { name: before.name, roles: had },
      after: { name, roles: [...given].sort() },
    });
  },
});

/** Lets a person in no more, or in again. What they did stays theirs; one who is let in no more is out at once. */
export const setActive = defineAction({
  name: 'setActive',
  right: 'manage people',
  input: z.object({ ...personRef, active: z.boolean() }),
  run: async (work, { personId, version, active }) => {
    const { trx, now, audit } = work;
    const { name, active: was } = await personOf(work, personId, version);
    if ((was === 1) === active) refuse('person.active', `${name} already has ${active ? 'access' : 'no access'}.`);
    await trx('person')
      .where({ id: personId })
      .update({ active: active ? 1 : 0, version: version + 1 });
    await keepAnAdministrator(trx);
    if (!active) await endSessions(trx, personId, {}, now);
    await audit({
      words: active ? `Restored ${name}’s access` : `Removed ${name}’s access`,
      subjects: [['person', personId]],
    });
  },
});

/** Makes a link by which a person chooses a new password. It is shown once, to be handed over; the file does not know it. */
export const startReset = defineAction({
  name: 'startReset',
  right: 'manage people',
  input: z.object(personRef),
  run: async (work, { personId, version }) => {
    const { name, active } = await personOf(work, personId, version);
    if (active !== 1) refuse('person.active', `${name} has no access. Restore their access first.`);
    const token = await insertReset(work.trx, personId, work.actor.id, work.now);
    await work.audit({ words: `Created password link for ${name}`, subjects: [['person', personId]] });
    return { token };
  },
});

/** Remembers whether a person works in the day or the evening theme. */
export const chooseTheme = defineAction({
  name: 'chooseTheme',
  right: 'see jobs',
  personal: true,
  input: z.object({ theme: z.enum(['day', 'evening']) }),
  run: async ({ trx, actor }, { theme }) => void (await trx('person').where({ id: actor.id }).update({ theme })),
});

/** Remembers whether a person gets a copy of the mails that they send, and is mailed when material is complete. */
export const chooseMail = defineAction({
  name: 'chooseMail',
  right: 'see jobs',
  personal: true,
  input: z.object({ of: z.enum(['copies', 'mailReady']), on: z.boolean() }),
  run: async ({ trx, actor }, { of, on }) =>
    void (await trx('person')
      .where({ id: actor.id })
      .update({ [of]: on ? 1 : 0 })),
});

/**
 * Makes the address that a person's own calendar reads deliveries from, or ends it. It is shown once; the file does not
 * know it. One that was made before no longer holds.
 */
export const chooseFeed = defineAction({
  name: 'chooseFeed',
  right: 'see orders',
  input: z.object({ on: z.boolean() }),
  run: async ({ trx, actor, audit }, { on }) => {
    const token = on ? await insertFeed(trx, actor.id) : null;
    if (!on) await dropFeed(trx, actor.id);
    await audit({
      words: `${on ? 'Created' : 'Turned off'} the calendar address of ${actor.name}`,
      subjects: [['person', actor.id]],
    });
    return { token };
  },
});
