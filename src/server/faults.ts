import { randomBytes } from 'node:crypto';
import { Overloaded } from './threads';
import { log } from './setting';

type Coded = { readonly code?: unknown; readonly message?: unknown };

const NOTHING_CHANGED = 'Nothing was changed.';

/** What went wrong with the file or the disk, by SQLite’s result codes (sqlite.org/rescode.html) and those of the system. */
const CAUSES: readonly (readonly [code: RegExp, words: string])[] = [
  [/^(SQLITE_FULL|ENOSPC)/, `The disk is full. ${NOTHING_CHANGED} Free some space, then try again.`],
  [
    /^SQLITE_(BUSY|LOCKED)/,
    `Another program is using the company’s file. ${NOTHING_CHANGED} Close that program, then try again.`,
  ],
  [
    /^SQLITE_(READONLY|IOERR|CANTOPEN|PERM)|^(EACCES|EROFS|EIO)/,
    `The company’s file can’t be read or written. ${NOTHING_CHANGED} Ask your administrator to check the disk and its permissions.`,
  ],
  [
    /^SQLITE_(CORRUPT|NOTADB)/,
    `The company’s file is damaged. ${NOTHING_CHANGED} Ask your administrator to stop Kettle Tab and put back the last backup.`,
  ],
];

const SEALS = `The company’s file was changed outside Kettle Tab, so nothing more can be recorded in it. ${NOTHING_CHANGED} Ask your administrator to run npm run verify, and to put back the last backup.`;

const ANY = `Something went wrong in Kettle Tab. ${NOTHING_CHANGED} Try again; if it happens again, tell your administrator.`;

function causeOf(error: unknown): string {
  const { code, message } = (error ?? {}) as Coded;
  if (error instanceof Overloaded) return error.message;
  if (String(code).startsWith('SQLITE_CONSTRAINT') && String(message).includes('seal.')) return SEALS;
  return CAUSES.find(([known]) => known.test(String(code)))?.[1] ?? ANY;
}

/** What was asked for when something failed: which act, by whom, with which key of its form. */
export type Asked = { readonly act: string; readonly person?: number | undefined; readonly once?: unknown };

/**
 * Writes down what failed, and says it in words; both carry the same short number, by which the line in the log is found.
 * What people entered is not written down.
 */
export function tellFault(error: unknown, asked: Asked): string {
  const number = randomBytes(3).toString('hex').toUpperCase();
  log.error({ fault: number, ...asked, err: error }, 'An act failed.');
  return `${causeOf(error)} Fault ${number}.`;
}
