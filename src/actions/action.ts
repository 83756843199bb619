import { refreshDueDays } from '@/store/dueDays';
import { z } from 'zod';
import type { Day } from '@/core/calendar/workdays';
import { may, RIGHTS, type Right } from '@/core/people/rights';
import { difference } from '@/core/difference';
import { TooLarge } from '@/core/limits';
import { done, refusal, refused, type Refusal, type Result } from '@/core/result';
import { loadCompany } from '@/store/company';
import type { Db } from '@/store/db';
import { checkDatedBack } from '@/store/datedBack';
import { post, type Touch } from '@/store/ledger';
import { NotPostable } from '@/store/notPostable';
import type { DocumentKind } from '@/store/happening';
import type { Person } from '@/store/people';
import { tellReady } from '@/store/ready';
import { insertMany, insertOne, rowsOf, rowOf } from '@/store/rows';
import { marksNow, sealSince } from '@/store/seals';
import type { Piece } from '@/store/stock/follow';
import type { Company } from '@/store/tables';

/** The clock is given, so that tests and pictures have a day of their own. */
export type Clock = { readonly today: () => Day; readonly now: () => string };

/** What an action works in: the file, the clock, and the person. */
export type Setting = { readonly db: Db; readonly clock: Clock; readonly actor: Person };

export type Outcome<T> =
  | { readonly status: 'done'; readonly value: T }
  | { readonly status: 'refused'; readonly refusals: readonly Refusal[] }
  /** Somebody else changed the thing first; `theirs` is how it stands now, as far as the form needs to know. */
  | { readonly status: 'clash'; readonly message: string; readonly theirs: { readonly version: number } };

/** Leaves an action's transaction with nothing written. */
export class Refused extends Error {
  constructor(readonly refusals: readonly Refusal[]) {
    super(refusals.map((r) => r.message).join(' '));
  }
}

export class Clash extends Error {
  constructor(
    message: string,
    readonly theirs: { readonly version: number },
  ) {
    super(message);
  }
}

/** What is done outside the frame of an action ends in its value, or in what was refused. */
export async function orRefused<T>(work: () => Promise<T>): Promise<Result<T>> {
  try {
    return done(await work());
  } catch (error) {
    if (error instanceof Refused) return refused(...error.refusals);
    throw error;
  }
}

/** The value of a result; a refused one ends the action. */
export function grant<T>(result: Result<T>, field?: string): T {
  if (!result.ok) throw new Refused(result.refusals.map((r) => (field === undefined ? r : { field, ...r })));
  return result.value;
}

export const refuse = (code: string, message: string, field?: string): never => {
  throw new Refused([refusal(code, message, field)]);
};

export function found<T>(thing: T, what: string): NonNullable<T> {
  return thing ?? refuse('missing', `${what} has been removed. Refresh the list and choose again.`);
}

/**
 * Ends the action when somebody else changed the thing since this person last saw it. What is told of how it stands is
 * its version, and no more, unless the form shows both side by side.
 */
export function sameVersion<T extends { readonly version: number }>(
  thing: T,
  seen: number,
  what: string,
  told: { readonly version: number } = { version: thing.version },
): T {
  if (thing.version !== seen) throw new Clash(`Someone else changed ${what} after you opened it.`, told);
  return thing;
}

export type Subject = readonly [kind: DocumentKind | 'person' | 'company', id: number];

export type AuditRecord = {
  /** What happened, as the history tells it. */
  readonly words: string;
  readonly subjects: readonly Subject[];
  /** The record as it was and as it is; only what differs is kept. */
  readonly before?: unknown;
  readonly after?: unknown;
};

/** The inside of an action: one transaction, its moment, and the two things that every change leaves behind. */
export type Work = {
  readonly trx: Db;
  readonly actor: Person;
  readonly today: Day;
  readonly now: string;
  readonly company: Company;
  readonly audit: (record: AuditRecord) => Promise<void>;
  /** Says that something happened to lines of the tab, by which document. They are posted once, when the action ends. */
  readonly touch: (
    event: string,
    document: DocumentKind,
    documentId: number,
    lines: readonly number[],
    /** The day it holds from, where that is not today; and where goods came in or went away. */
    of?: { readonly day?: Day; readonly pieces?: readonly Piece[] },
  ) => void;
  /** Posts what was touched so far, for an act that goes on from where that leads. */
  readonly settle: () => Promise<void>;
};

type Definition<S extends z.ZodType, T, P> = {
  readonly name: string;
  readonly right: Right;
  readonly input: S;
  /** A step of something larger that the server takes; the browser cannot ask for it by its name. */
  readonly internal?: true;
  /** A change of what a person has on their screen, which no history tells. */
  readonly personal?: true;
  /** What takes long and needs no transaction, such as hashing a password; done first, when the right is there. */
  readonly prepare?: (setting: Setting, input: z.output<S>) => Promise<P>;
  readonly run: (work: Work, input: z.output<S>, prepared: P) => Promise<T>;
};

/** A key made by the form when it opens: sent twice, it acts once. */
export const once = z.string().min(8).max(64);

export type Action<S extends z.ZodType, T> = {
  readonly name: string;
  readonly input: S;
  readonly internal: boolean;
  (setting: Setting, input: z.input<S>): Promise<Outcome<T>>;
};

/** Performs an action where the file is written. */
export type Perform = <S extends z.ZodType, T>(action: Action<S, T>, input: z.input<S>) => Promise<Outcome<T>>;

/** What a form's input lacks, each at its field. */
export const inputRefusals = (error: z.ZodError): Refusal[] =>
  error.issues.map((i) => refusal('input', i.message, i.path.join('.')));

/** The refusal of somebody who lacks a right. */
export const notPermitted = (actor: Person, right: Right): { status: 'refused'; refusals: Refusal[] } | undefined =>
  may(actor, right)
    ? undefined
    : {
        status: 'refused',
        refusals: [
          refusal(
            'right',
            `You don’t have permission to ${RIGHTS[right]}. Ask your administrator, who can change roles under People.`,
          ),
        ],
      };

/**
 * Makes an action: the right is checked, the input read, and `run` works inside one transaction, at whose end the lines
 * it touched are posted and what it wrote to the record is sealed. When the input has a key `once` that was seen before, the first outcome is given again and
 * nothing is done. A change that left no audit record is not ended.
 */
export function defineAction<S extends z.ZodType, T, P = undefined>(definition: Definition<S, T, P>): Action<S, T> {
  const act = async (setting: Setting, raw: z.input<S>): Promise<Outcome<T>> => {
    const { db, clock, actor } = setting;
    const barred = notPermitted(actor, definition.right);
    if (barred !== undefined) return barred;
    const read = definition.input.safeParse(raw);
    if (!read.success) return { status: 'refused', refusals: inputRefusals(read.error) };
    const input = read.data as z.output<S>;
    const key = (input as { once?: string }).once;
    try {
      const prepared = (await definition.prepare?.(setting, input)) as P;
      return await db.transaction(async (trx) => {
        const entry = { personId: actor.id, action: definition.name, key };
        if (key !== undefined) {
          const before = await rowOf<{ outcome: string }>(trx('doneOnce').where(entry).first('outcome'));
          if (before !== undefined) return { status: 'done' as const, value: JSON.parse(before.outcome) as T };
        }
        const from = await changesSoFar(trx);
        const { work, end } = await beginWork(trx, clock, actor, definition.name);
        const value = await definition.run(work, input, prepared);
        const audits = await end();
        if (audits === 0 && definition.personal !== true && (await changesSoFar(trx)) > from)
          throw new Error(`${definition.name} changed something and left no audit record.`);
        if (key !== undefined)
          await trx('doneOnce').insert({ ...entry, outcome: JSON.stringify(value ?? null), at: clock.now() });
        return { status: 'done' as const, value };
      });
    } catch (error) {
      if (error instanceof Refused) return { status: 'refused', refusals: error.refusals };
      if (error instanceof Clash) return { status: 'clash', message: error.message, theirs: error.theirs };
      if (error instanceof NotPostable) return { status: 'refused', refusals: [error.refusal] };
      if (error instanceof TooLarge) return { status: 'refused', refusals: [TOO_LARGE] };
      if ((error as { code?: unknown }).code === 'SQLITE_CONSTRAINT_FOREIGNKEY')
        return {
          status: 'refused',
          refusals: [
            refusal('missing', 'Something this refers to has been removed. Refresh the page and start again.'),
          ],
        };
      throw error;
    }
  };
  const named = Object.defineProperty(act, 'name', { value: definition.name });
  const { input, internal = false } = definition;
  return Object.assign(named, { input, internal }) as Action<S, T>;
}

const TOO_LARGE = refusal(
  'amount.large',
  'One of the amounts is too large. Check quantity and price; nothing was changed.',
);

/** How many rows this connection has written, ever. */
async function changesSoFar(trx: Db): Promise<number> {
  const [row] = await rowsOf<{ n: number }>(trx.raw('select total_changes() as n'));
  return row?.n ?? 0;
}

/** Begins the work of an action, and says how it ends: with postings and seals. @returns how many records `end` left */
export async function beginWork(trx: Db, clock: Clock, actor: Person, action: string) {
  const today = clock.today();
  const now = clock.now();
  const touches: Touch[] = [];
  const datedBack: Touch[] = [];
  const marks = await marksNow(trx);
  let audits = 0;
  const work: Work = {
    trx,
    actor,
    today,
    now,
    company: await loadCompany(trx),
    audit: async ({ words, subjects, before, after }) => {
      const changes = before === undefined && after === undefined ? null : JSON.stringify(difference(before, after));
      const row = { at: now, day: today, personId: actor.id, action, words, changes };
      const auditId = await insertOne(trx, 'audit', row);
      const each = [...new Map(subjects.map((s) => [s.join('/'), s])).values()];
      await insertMany(
        trx,
        'auditSubject',
        each.map(([kind, subjectId]) => ({ auditId, kind, subjectId })),
      );
      audits += 1;
    },
    touch: (event, document, documentId, lines, { day = today, pieces = [] } = {}) =>
      void touches.push({
        happening: { event, document, documentId, personId: actor.id, day: today, at: now },
        ...{ lines, pieces, ...(day < today ? { from: day } : {}) },
      }),
    settle: async () => {
      datedBack.push(...touches.filter((t) => t.from !== undefined));
      await post(trx, touches.splice(0));
    },
  };
  const end = async () => {
    await work.settle();
    for (const { from, lines, pieces = [] } of datedBack)
      if (from !== undefined) await checkDatedBack(trx, { from, lines, pieces });
    await refreshDueDays(trx);
    await tellReady(trx, now);
    await sealSince(trx, marks);
    return audits;
  };
  return { work, end };
}
