'use server';

import { redirect } from 'next/navigation';
import type { Refusal } from '@/core/result';
import { PEOPLE } from '@/demo/catalogue';
import { readers } from '@/server/readers';
import { isDemo } from '@/server/setting';
import { inWriter } from '@/server/threads';
import { findByEmail } from '@/store/people';
import { enter, from, knownHere, leave } from '../server/session';

export type Answer = { readonly refusals: readonly Refusal[] };

const words = (given: unknown): string => (typeof given === 'string' ? given.slice(0, 200) : '');

/** Signs a person in; on the page itself it leads on, inside a form it only answers. */
export async function signInHere(email: string, password: string): Promise<Answer> {
  const typed = { email: words(email), password: words(password) };
  const result = await inWriter('signIn', { ...typed, known: await knownHere(), ...(await from()) });
  if (!result.ok) return { refusals: result.refusals };
  await enter(result.value);
  return { refusals: [] };
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
  const founded = await inWriter('foundCompany', raw);
  if (!founded.ok) return { refusals: founded.refusals };
  await begin(founded.value);
  return { refusals: [] };
}

/** Chooses a new password by a link; who did so signs in with it. */
export async function resetPassword(token: string, password: string): Promise<Answer> {
  const reset = await inWriter('resetPassword', { token, password });
  return { refusals: reset.status === 'refused' ? reset.refusals : [] };
}
