import { z } from 'zod';
import type { Day } from '@/core/calendar/workdays';
import { may, RIGHTS, type Right } from '@/core/people/rights';
import { refusal, type Refusal, type Result } from '@/core/result';
import type { Company } from '@/store/company';
import { loadCompany } from '@/store/company';
import type { Db } from '@/store/connection';
import type { DocumentKind, Happening } from '@/store/ledger';
import type { Person } from '@/store/people';

/** The clock is given, so that tests and pictures have a day of their own. */
export type Clock = { readonly today: () => Day; readonly now: () => string };

/** Hands a finished message to the mail server; answers what the server said. */
export type Post = (message: {
  readonly raw: Buffer;
  readonly from: string;
  readonly to: string;
}) => Promise<{ readonly taken: boolean; readonly answer: string }>;

/** What an action works in: the file, the clock, the way out, and the person. */
export type Setting = { readonly db: Db; readonly clock: Clock; readonly post: Post; readonly actor: Person };

export type Outcome<T> =
  | { readonly status: 'done'; readonly value: T }
  | { readonly status: 'refused'; readonly refusals: readonly Refusal[] }
  /** Somebody else changed the thing first; `theirs` is how it stands now. */
  | { readonly status: 'clash'; readonly message: string; readonly theirs: unknown };

/** Leaves an action's transaction with nothing written. */
export class Refused extends Error {
  constructor(readonly refusals: readonly Refusal[]) {
    super(refusals.map((r) => r.message).join(' '));
  }
}

export class Clash extends Error {
  constructor(
    message: string,
    readonly theirs: unknown,
  ) {
    super(message);
  }
}

/** The value of a result; a refused one ends the action. */
export function grant<T>(result: Result<T>): T {
  if (!result.ok) throw new Refused(result.refusals);
  return result.value;
}

export const refuse = (code: string, message: string, field?: string): never => {
  throw new Refused([refusal(code, message, field)]);
};

export function found<T>(thing: T | undefined, what: string): T {
  return thing ?? refuse('missing', `${what} is not there any more.`);
}

/** Ends the action when somebody else changed the thing since this person last saw it. */
export function sameVersion<T extends { readonly version: number }>(thing: T, seen: number, what: string): T {
  if (thing.version !== seen) throw new Clash(`${what} was changed by somebody else since you opened it.`, thing);
  return thing;
}

export type Subject = readonly [kind: DocumentKind | 'job' | 'supplier' | 'item' | 'person' | 'company', id: number];

export type AuditRecord = {
  /** What happened, as the history tells it. */
  readonly words: string;
  readonly subjects: readonly Subject[];
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
  readonly happening: (event: string, document: DocumentKind, documentId: number) => Happening;
};

type Definition<S extends z.ZodType, T> = {
  readonly name: string;
  readonly right: Right;
  readonly input: S;
  readonly run: (work: Work, input: z.output<S>) => Promise<T>;
};

/** Whether no two of a form's rows speak of the same thing; rows that speak of none are left out. */
export const distinct =
  <K extends string>(key: K) =>
  (rows: readonly { readonly [k in K]?: number | undefined }[]): boolean => {
    const ids = rows.flatMap((r) => r[key] ?? []);
    return new Set(ids).size === ids.length;
  };

/** A key made by the form when it opens: sent twice, it acts once. */
export const once = z.string().min(8).max(64);

export type Action<S extends z.ZodType, T> = {
  readonly name: string;
  (setting: Setting, input: z.input<S>): Promise<Outcome<T>>;
};

/**
 * Makes an action: the right is checked, the input read, and `run` works inside one transaction. When the input has a
 * key `once` that was seen before, the first outcome is given again and nothing is done.
 */
export function defineAction<S extends z.ZodType, T>(definition: Definition<S, T>): Action<S, T> {
  const act = async (setting: Setting, raw: z.input<S>): Promise<Outcome<T>> => {
    const { db, clock, actor } = setting;
    if (!may(actor, definition.right)) {
      return {
        status: 'refused',
        refusals: [refusal('right', `You may not ${RIGHTS[definition.right]}. Ask somebody who may.`)],
      };
    }
    const read = definition.input.safeParse(raw);
    if (!read.success)
      return {
        status: 'refused',
        refusals: read.error.issues.map((i) => refusal('input', i.message, i.path.join('.'))),
      };
    const input = read.data as z.output<S>;
    const key = (input as { once?: string }).once;
    try {
      return await db.transaction(async (trx) => {
        const entry = { personId: actor.id, action: definition.name, key };
        if (key !== undefined) {
          const before = (await trx('doneOnce').where(entry).first('outcome')) as { outcome: string } | undefined;
          if (before !== undefined) return { status: 'done' as const, value: JSON.parse(before.outcome) as T };
        }
        const value = await definition.run(await beginWork(trx, clock, actor, definition.name), input);
        if (key !== undefined)
          await trx('doneOnce').insert({ ...entry, outcome: JSON.stringify(value ?? null), at: clock.now() });
        return { status: 'done' as const, value };
      });
    } catch (error) {
      if (error instanceof Refused) return { status: 'refused', refusals: error.refusals };
      if (error instanceof Clash) return { status: 'clash', message: error.message, theirs: error.theirs };
      throw error;
    }
  };
  return Object.defineProperty(act, 'name', { value: definition.name }) as Action<S, T>;
}

async function beginWork(trx: Db, clock: Clock, actor: Person, action: string): Promise<Work> {
  const today = clock.today();
  const now = clock.now();
  const audit = async ({ words, subjects, before, after }: AuditRecord) => {
    const row = {
      at: now,
      day: today,
      personId: actor.id,
      action,
      words,
      before: asJson(before),
      after: asJson(after),
    };
    const [made] = (await trx('audit').insert(row).returning('id')) as { id: number }[];
    for (const [kind, subjectId] of new Map(subjects.map((s) => [s.join('/'), s])).values()) {
      await trx('auditSubject').insert({ auditId: made?.id, kind, subjectId });
    }
  };
  const happening = (event: string, document: DocumentKind, documentId: number) => ({
    event,
    document,
    documentId,
    personId: actor.id,
    day: today,
    at: now,
  });
  return { trx, actor, today, now, company: await loadCompany(trx), audit, happening };
}

const asJson = (value: unknown) => (value === undefined ? null : JSON.stringify(value));
