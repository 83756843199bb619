import 'server-only';
import { revalidatePath } from 'next/cache';
import { createSafeActionClient } from 'next-safe-action';
import { z } from 'zod';
import type { Action, Outcome, Setting } from '@/actions/action';
import { whoIsHere } from './session';
import { clock, log, post, yard } from './yard';

class SignedOut extends Error {}

export type Trouble = { readonly kind: 'signedOut' | 'failed'; readonly message: string };

const client = createSafeActionClient({
  handleServerError: (error): Trouble => {
    if (error instanceof SignedOut) return { kind: 'signedOut', message: 'You were signed out.' };
    log.error(error);
    return {
      kind: 'failed',
      message:
        'This did not work because of a fault in Kettle Tab. Nothing was changed. Try again, and tell the administrator if it stays.',
    };
  },
});

const signedIn = client.use(async ({ next }) => {
  const actor = await whoIsHere();
  if (actor === undefined) throw new SignedOut();
  const setting: Setting = { db: await yard(), clock, post, actor };
  return next({ ctx: { setting } });
});

/** Offers what people do to the browser: for the signed-in person, and with the page they see brought up to date. */
export const offer = <I, T>(act: (setting: Setting, input: I) => Promise<Outcome<T>>) =>
  signedIn.inputSchema(z.custom<I>()).action(async ({ parsedInput, ctx }) => {
    const outcome = await act(ctx.setting, parsedInput as I);
    if (outcome.status === 'done') revalidatePath('/', 'layout');
    return outcome;
  });

export const offerAction = <S extends z.ZodType, T>(action: Action<S, T>) => offer<z.input<S>, T>(action);
