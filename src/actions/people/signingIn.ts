import { z } from 'zod';
import { FREE_TRIES, secondsToWait } from '@/core/people/signingIn';
import { done, refusal, refused, type Result } from '@/core/result';
import { counted } from '@/core/words';
import type { Db } from '@/store/db';
import { findByEmail } from '@/store/people';
import {
  countFailures,
  endSessions,
  findReset,
  findSession,
  insertAttempt,
  insertSession,
  markGood,
  touchSession,
  type From,
} from '@/store/sessions';
import { defineAction, found, orRefused, Refused, refuse, type Clock, type Outcome } from '../action';
import { passwordField, passwordFields } from '@/core/records/person';
import { hashPassword, isPassword } from './passwords';

export type SignIn = From & {
  readonly email: string;
  readonly password: string;
  /** The people who have signed in from this browser before. */
  readonly known: readonly number[];
};

export type SignedIn = { readonly personId: number; readonly token: string };

/** Tries from a browser that an account knows are counted apart, so that no stranger can lock its person out. */
const KNOWN_BROWSER = 'a browser known for it';

/**
 * Signs a person in. Failures are counted of the account and the place together, of either alone, and make the next
 * try wait, longer each time; a try is written down as a failure before it is checked, so that many at once are many.
 * The answer never tells whether the address exists.
 */
export async function signIn(db: Db, clock: Clock, input: SignIn): Promise<Result<SignedIn>> {
  const email = input.email.trim().slice(0, 200);
  const now = clock.now();
  const person = await findByEmail(db, email);
  const isKnown = person !== undefined && input.known.includes(person.id);
  const place = isKnown ? KNOWN_BROWSER : input.place;
  const attempt = await db.transaction(async (trx): Promise<Result<number>> => {
    const together = secondsToWait(await countFailures(trx, { email, place }, now), FREE_TRIES.together, now);
    const alone = isKnown
      ? []
      : [
          secondsToWait(await countFailures(trx, { email }, now), FREE_TRIES.account, now),
          secondsToWait(await countFailures(trx, { place }, now), FREE_TRIES.place, now),
        ];
    const wait = Math.max(together, ...alone);
    if (wait > 0) return refused(refusal('signIn.wait', `Too many attempts. Wait ${inWords(wait)}, then try again.`));
    return done(await insertAttempt(trx, email, place, now));
  });
  if (!attempt.ok) return attempt;
  const right = await orRefused(() =>
    isPassword(person?.passwordHash, input.password, isKnown ? undefined : input.place),
  );
  if (!right.ok) return right;
  if (!right.value || person === undefined)
    return refused(
      refusal('signIn.wrong', 'Wrong email or password. Try again, or ask your administrator for a new password.'),
    );
  await markGood(db, attempt.value);
  return done({ personId: person.id, token: await insertSession(db, person.id, input, now) });
}

const inWords = (seconds: number): string =>
  seconds < 60 ? counted(seconds, 'second') : counted(Math.ceil(seconds / 60), 'minute');

/** Signs somebody in whose word is enough: the founder of a company, and who steps into the sample company. */
export const begin = async (db: Db, clock: Clock, personId: number, from: From): Promise<SignedIn> => ({
  personId,
  token: await insertSession(db, personId, from, clock.now()),
});

export const stillHere = (db: Db, clock: Clock, sessionId: number): Promise<void> =>
  touchSession(db, sessionId, clock.now());

/** Ends the sign-in of this browser. */
export async function signOut(db: Db, clock: Clock, token: string): Promise<void> {
  const here = await findSession(db, token, clock.now());
  if (here !== undefined) await endSessions(db, here.person.id, { only: here.sessionId }, clock.now());
}

const resetInput = z.object({ token: z.string().max(100), password: passwordField });
const RESET_GONE = refusal(
  'reset.gone',
  'This link has been used or has expired. Ask your administrator for a new one.',
);

/** Sets a new password by a link that an administrator gave; every sign-in of the person ends. */
export const choosePassword = defineAction({
  name: 'choosePassword',
  internal: true,
  right: 'see jobs',
  input: resetInput,
  prepare: (_, { password }) => hashPassword(password),
  run: async ({ trx, actor, now, audit }, { token }, passwordHash) => {
    const reset = await findReset(trx, token, now);
    if (reset?.person.id !== actor.id) throw new Refused([RESET_GONE]);
    await trx('passwordReset').where({ id: reset.id }).update({ usedAt: now });
    await trx('person').where({ id: actor.id }).update({ passwordHash });
    await endSessions(trx, actor.id, {}, now);
    await audit({ words: 'Changed password from a link', subjects: [['person', actor.id]] });
  },
});

/** The same for somebody who is not signed in: the link says who they are. */
export async function resetPassword(db: Db, clock: Clock, raw: unknown): Promise<Outcome<void>> {
  const link = resetInput.pick({ token: true }).safeParse(raw);
  const reset = link.success ? await findReset(db, link.data.token, clock.now()) : undefined;
  if (reset === undefined) return { status: 'refused', refusals: [RESET_GONE] };
  return choosePassword({ db, clock, actor: reset.person }, raw as z.input<typeof resetInput>);
}

/** Ends sign-ins of one's own: one of them, or all but the one that is kept. */
export const endMySessions = defineAction({
  name: 'endMySessions',
  right: 'see jobs',
  input: z.union([z.object({ only: z.number().int() }), z.object({ but: z.number().int() })]),
  run: async ({ trx, actor, now, audit }, which) => {
    const ended = await endSessions(trx, actor.id, which, now);
    if (ended === 0) refuse('session.gone', 'That device is already signed out.');
    await audit({ words: `Signed out ${counted(ended, 'other device')}`, subjects: [['person', actor.id]] });
    return { ended };
  },
});

const CHANGING = 'changing the password';

/** Changes one's own password; the other sign-ins end. Guessing the present one makes the next try wait, as signing in does. */
export const changePassword = defineAction({
  name: 'changePassword',
  right: 'see jobs',
  input: z.object({ ...passwordFields.shape, keep: z.number().int() }),
  prepare: async ({ db, clock, actor }, { old, password }) => {
    const now = clock.now();
    const me = found(await findByEmail(db, actor.email), 'Your account');
    const failures = await countFailures(db, { email: me.email, place: CHANGING }, now);
    const wait = secondsToWait(failures, FREE_TRIES.together, now);
    if (wait > 0) refuse('password.wait', `Too many attempts. Wait ${inWords(wait)}, then try again.`);
    const attempt = await insertAttempt(db, me.email, CHANGING, now);
    if (!(await isPassword(me.passwordHash, old))) refuse('password.wrong', 'That isn’t your current password.', 'old');
    await markGood(db, attempt);
    return hashPassword(password);
  },
  run: async ({ trx, actor, now, audit }, { keep: but }, passwordHash) => {
    await trx('person').where({ id: actor.id }).update({ passwordHash });
    const ended = await endSessions(trx, actor.id, { but }, now);
    await audit({ words: 'Changed password', subjects: [['person', actor.id]] });
    return { ended };
  },
});
