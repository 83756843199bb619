'use server';

import { redirect } from 'next/navigation';
import type { Refusal } from '@/core/result';
import { PEOPLE } from '@/demo/catalogue';
import { findByEmail } from '@/store/people';
import { session } from '../server/session';
import { isDemo } from '@/server/setting';
import { inWriter } from '@/server/threads';
import { readers } from '@/server/readers';

export type Answer = { readonly refusals: readonly Refusal[] };

async function enter(personId: number): Promise<void> {
  const open = await session();
  open.personId = personId;
  await open.save();
}

/** Signs a person in; on the page itself it leads on, inside a form it only answers. */
export async function signInHere(email: string, password: string): Promise<Answer> {
  const result = await inWriter('signIn', { email, password });
  if (!result.ok) return { refusals: result.refusals };
  await enter(result.value.id);
  return { refusals: [] };
}

/** In the sample company anybody may step in as one of its people. */
export async function stepInAs(key: string): Promise<void> {
  if (!isDemo() || !PEOPLE.some((p) => p.key === key)) return;
  const person = await findByEmail(await readers(), `${key}@wrackline.example`);
  if (person !== undefined) await enter(person.id);
  redirect('/');
}

export async function signOut(): Promise<void> {
  (await session()).destroy();
  redirect('/sign-in');
}

export async function setUp(raw: unknown): Promise<Answer> {
  const founded = await inWriter('foundCompany', raw);
  if (!founded.ok) return { refusals: founded.refusals };
  await enter(founded.value);
  return { refusals: [] };
}
