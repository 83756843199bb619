'use server';

import { redirect } from 'next/navigation';
import { foundCompany, foundingInput, signIn } from '@/actions/people';
import { Refused } from '@/actions/action';
import type { Refusal } from '@/core/result';
import { PEOPLE } from '@/demo/catalogue';
import { findByEmail } from '@/store/people';
import { session } from '../server/session';
import { clock, isDemo, yard } from '../server/yard';

export type Answer = { readonly refusals: readonly Refusal[] };

async function enter(personId: number): Promise<void> {
  const open = await session();
  open.personId = personId;
  await open.save();
}

/** Signs a person in; on the page itself it leads on, inside a form it only answers. */
export async function signInHere(email: string, password: string): Promise<Answer> {
  const result = await signIn(await yard(), clock, { email, password });
  if (!result.ok) return { refusals: result.refusals };
  await enter(result.value.id);
  return { refusals: [] };
}

/** In the sample company anybody may step in as one of its people. */
export async function stepInAs(key: string): Promise<void> {
  if (!isDemo() || !PEOPLE.some((p) => p.key === key)) return;
  const person = await findByEmail(await yard(), `${key}@wrackline.example`);
  if (person !== undefined) await enter(person.id);
  redirect('/');
}

export async function signOut(): Promise<void> {
  (await session()).destroy();
  redirect('/sign-in');
}

export async function setUp(raw: unknown): Promise<Answer> {
  const read = foundingInput.safeParse(raw);
  if (!read.success)
    return { refusals: read.error.issues.map((i) => ({ code: 'input', message: i.message, field: i.path.join('.') })) };
  try {
    await enter(await foundCompany(await yard(), read.data));
    return { refusals: [] };
  } catch (error) {
    if (error instanceof Refused) return { refusals: error.refusals };
    throw error;
  }
}
