'use server';

import { redirect } from 'next/navigation';
import { refusal, type Refusal } from '@/core/result';
import { PEOPLE } from '@/demo/catalogue';
import { tellFault } from '@/server/faults';
import { readers } from '@/server/readers';
import { isDemo } from '@/server/setting';
import { inWriter } from '@/server/threads';
import { findByEmail } from '@/store/people';
import { enter, from, knownHere, leave } from '../server/session';

export type Answer = { readonly refusals: readonly Refusal[] };

const words = (given: unknown): string => (typeof given === 'string' ? given.slice(0, 200) : '');

/** What fails is said to who is not signed in too. */
async function answering(act: string, work: () => Promise<readonly Refusal[]>): Promise<Answer> {
  try {
    return { refusals: await work() };
  } catch (error) {
    return { refusals: [refusal('failed', tellFault(error, { act }))] };
  }
}

/** Signs a person in; on the page itself it leads on, inside a form it only answers. */
export async function signInHere(email: string, password: string): Promise<Answer> {
  return answering('signIn', async () => {
    const typed = { email: words(email), password: words(password) };
    const result = await inWriter('signIn', { ...typed, known: await knownHere(), ...(await from()) });
    if (!result.ok) return result.refusals;
    await enter(result.value);
    return [];
  });
}

const begin = async (personId: number): Promise<void> =>
  enter(await inWriter('beginSession', { personId, from: await from() }));

/** In the sample company anybody may step in as one of its people. */
export async function stepInAs(key: string): Promise<void> {
  if (!isDemo() || !PEOPLE.some((p) => p.key === key)) return;
  const person = await findByEmail(await readers(), `${key}@wrackline.example`);
  if (person !== undefined) await begin(person.id);
  redirect('/');
}

export async function signOut(): Promise<void> {
  await leave();
  redirect('/sign-in');
}

export async function setUp(raw: unknown): Promise<Answer> {
  return answering('setUp', async () => {
    const founded = await inWriter('foundCompany', raw);
    if (!founded.ok) return founded.refusals;
    await begin(founded.value);
    return [];
  });
}

/** Chooses a new password by a link; who did so signs in with it. */
export async function resetPassword(token: string, password: string): Promise<Answer> {
  return answering('resetPassword', async () => {
    const reset = await inWriter('resetPassword', { token, password });
    return reset.status === 'refused' ? reset.refusals : [];
  });
}
