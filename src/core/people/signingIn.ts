/** How signing in is slowed for who guesses, and how long a sign-in lasts. */

/** What the cookie of a sign-in is called. */
export const SIGN_IN_COOKIE = 'kettle';

/** Failures that are free before one has to wait: of one account from one place, of one account, from one place. */
export const FREE_TRIES = { together: 5, account: 20, place: 40 } as const;

/** Failures are counted over this long, in minutes. */
export const COUNTED_MINUTES = 60;

const FIRST_WAIT = 15;
const LONGEST_WAIT = 900;

export type Failures = {
  readonly count: number;
  /** When the last one was; null when there was none. */
  readonly last: string | null;
};

/**
 * Seconds that one still has to wait after failures: none for the free ones, then 15, doubled with each further one up
 * to a quarter of an hour.
 *
 * @param now - a moment as ISO 8601 text
 */
export function secondsToWait({ count, last }: Failures, free: number, now: string): number {
  if (count < free || last === null) return 0;
  const wait = Math.min(FIRST_WAIT * 2 ** (count - free), LONGEST_WAIT);
  return Math.max(Math.ceil((Date.parse(last) - Date.parse(now)) / 1000) + wait, 0);
}

const HOUR = 3_600_000;
/** A sign-in ends when nothing was asked with it for a day, and after two weeks in any case. */
export const IDLE_HOURS = 24;
export const MOST_HOURS = 14 * 24;

/** Whether a sign-in still holds at a moment. All are ISO 8601 text. */
export const holds = (of: { readonly begunAt: string; readonly seenAt: string }, now: string): boolean =>
  Date.parse(now) - Date.parse(of.seenAt) <= IDLE_HOURS * HOUR &&
  Date.parse(now) - Date.parse(of.begunAt) <= MOST_HOURS * HOUR;

/** The hours for which a link to choose a new password holds. */
export const RESET_HOURS = 24;

/** How long it is kept who signed in and tried to, and who was given a link; longer than any of that holds. */
export const KEPT_DAYS = 30;
