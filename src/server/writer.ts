/** The thread that writes: it holds the one connection that does, and every action runs here, one after the other. */
import { ACTIONS } from '@/actions/all';
import type { Outcome } from '@/actions/action';
import * as founding from '@/actions/company/founding';
import { settleInterrupted } from '@/actions/orders/sending';
import * as signing from '@/actions/people/signingIn';
import type { Db } from '@/store/db';
import { open } from '@/store/open';
import type { Person } from '@/store/people';
import type { From } from '@/store/sessions';
import { clock, companyFile, log } from './setting';

async function openFile(): Promise<Db> {
  const { db, backup } = await open(companyFile());
  if (backup !== undefined) log.info({ backup }, 'The file was brought to a newer schema; a copy was kept.');
  const interrupted = await settleInterrupted(db, clock);
  if (interrupted > 0) log.warn({ interrupted }, 'Messages were under way when the program stopped.');
  return db;
}

let opened: Promise<Db> | undefined;
const file = (): Promise<Db> => (opened ??= openFile());

/** Ends what was begun: the file is closed, so that all of it stands in one place. */
export const end = async (): Promise<void> => void (await (await opened)?.destroy());

/** Opens the company's file, and brings it up to date first. */
export const begin = async (): Promise<void> => void (await file());

export async function act({
  action,
  actor,
  input,
}: {
  action: string;
  actor: Person;
  input: unknown;
}): Promise<Outcome<unknown>> {
  const known = ACTIONS.get(action);
  if (known === undefined) throw new Error(`There is no action ${action}.`);
  return known({ db: await file(), clock, actor }, input as never);
}

export const signIn = async (input: signing.SignIn) => signing.signIn(await file(), clock, input);

export const beginSession = async ({ personId, from }: { personId: number; from: From }) =>
  signing.begin(await file(), clock, personId, from);

export const stillHere = async (sessionId: number) => signing.stillHere(await file(), clock, sessionId);

export const signOut = async (token: string) => signing.signOut(await file(), clock, token);

export const resetPassword = async (input: unknown) => signing.resetPassword(await file(), clock, input);

export const foundCompany = async (input: unknown) => founding.foundCompany(await file(), clock, input);
