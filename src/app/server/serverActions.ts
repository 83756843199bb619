import 'server-only';
import { revalidatePath } from 'next/cache';
import { headers } from 'next/headers';
import { after } from 'next/server';
import { createSafeActionClient } from 'next-safe-action';
import { z } from 'zod';
import type { Action, Outcome, Perform } from '@/actions/action';
import { ACTIONS } from '@/actions/all';
import { refusal } from '@/core/result';
import type { Reading } from '@/actions/quotes/importing';
import { sendNotices } from '@/actions/people/notices';
import type { Sender } from '@/actions/orders/sending';
import { tellFault } from '@/server/faults';
import { clock, log, post } from '@/server/setting';
import { withProgress } from '@/server/progress';
import { inFiles, inPapers, inWriter } from '@/server/threads';
import type { Person } from '@/store/people';
import { whoIsHere } from './session';
import { readers } from '@/server/readers';

class SignedOut extends Error {}

export type ServerFault = { readonly kind: 'signedOut' | 'failed'; readonly message: string };

const client = createSafeActionClient({
  defineMetadataSchema: () => z.object({ act: z.string() }),
  handleServerError: (error, { clientInput, ctx, metadata }): ServerFault => {
    if (error instanceof SignedOut) return { kind: 'signedOut', message: 'You were signed out.' };
    const { action = metadata?.act ?? '', input = clientInput } = (clientInput ?? {}) as {
      action?: string;
      input?: unknown;
    };
    const person = (ctx as { actor?: Person }).actor?.id;
    const { once } = (input ?? {}) as { once?: unknown };
    return { kind: 'failed', message: tellFault(error, { act: String(action), person, once }) };
  },
});

const signedIn = client.use(async ({ next }) => {
  const actor = await whoIsHere();
  if (actor === undefined) throw new SignedOut();
  return next({ ctx: { actor } });
});

/** Performs an action for a person, where the file is written. */
export const performAs =
  (actor: Person): Perform =>
  <S extends z.ZodType, T>(action: Action<S, T>, input: z.input<S>) =>
    inWriter('act', { action: action.name, actor, input }) as Promise<Outcome<T>>;

/** Where the application is reached: as it was set, or as the browser asked for it. */
async function siteOf(): Promise<string> {
  if (process.env.KETTLE_URL !== undefined) return process.env.KETTLE_URL.replace(/\/$/, '');
  const asked = await headers();
  return `${asked.get('x-forwarded-proto') ?? 'http'}://${asked.get('host') ?? 'localhost'}`;
}

/** Mails what an act left to be told, once it is in the file and answered. */
async function tellPeople(actor: Person, site: string): Promise<void> {
  try {
    await sendNotices({ db: await readers(), post, perform: performAs(actor) }, site);
  } catch (error) {
    log.error(error);
  }
}

const offer = <I, T>(name: string, act: (actor: Person, input: I) => Promise<Outcome<T>>) =>
  signedIn
    .metadata({ act: name })
    .inputSchema(z.custom<I>())
    .action(async ({ parsedInput, ctx }) => {
      const outcome = await act(ctx.actor, parsedInput as I);
      if (outcome.status === 'done') {
        revalidatePath('/', 'layout');
        const site = await siteOf();
        after(() => tellPeople(ctx.actor, site));
      }
      return outcome;
    });

const named = z.object({ action: z.string(), input: z.unknown() });

/**
 * Performs an action that the browser asks for by its name, for the signed-in person and with the page they see brought up
 * to date. Steps of something larger are not there for it.
 */
export const serverAction = offer<z.input<typeof named>, unknown>('perform', async (actor, asked) => {
  const { data } = named.safeParse(asked);
  const action = ACTIONS.get(data?.action ?? '');
  if (action === undefined || action.internal)
    return { status: 'refused', refusals: [refusal('missing', 'This page is out of date. Refresh it and try again.')] };
  return performAs(actor)(action, data?.input as never);
});

/** The same for what goes out of the house, which is several actions with something slow between them. */
export const serverSending = <I, T>(name: string, send: (sender: Sender, input: I) => Promise<Outcome<T>>) =>
  offer<I, T>(name, async (actor, input) => {
    const setPaper: Sender['setPaper'] = (paper) => inPapers('setPaper', paper);
    return send({ db: await readers(), clock, actor, post, setPaper, perform: performAs(actor) }, input);
  });

/** The same for what is read from a file; how far it has come can be asked under its key. */
export const serverReading = <I extends { once: string } | undefined, T>(
  name: string,
  take: (reading: Reading, input: I) => Promise<Outcome<T>>,
) =>
  offer<I, T>(name, (actor, input) =>
    withProgress(`${actor.id}/${input?.once}`, (far) => {
      const read: Reading['read'] = (asked) => inFiles('readQuoteFile', { person: actor, input: asked, far });
      return take({ actor, read, perform: performAs(actor) }, input);
    }),
  );
