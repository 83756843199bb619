import { hash, verify } from '@node-rs/argon2';
import pLimit from 'p-limit';
import { refusal } from '@/core/result';
import { Refused } from '../action';

/** Argon2id with 19 MiB and two passes: the first choice of the OWASP Password Storage Cheat Sheet (from memory). */
const ARGON = { memoryCost: 19_456, timeCost: 2, parallelism: 1 };

const TOO_BUSY = refusal('password.busy', 'Sign-in is busy. Try again in a few seconds.');

/** Hashing takes a processor for a while; one at a time, so that many tries stop nothing else. */
const hashing = pLimit(1);
const MOST_WAITING = 60;
/** So many of one place may wait, so that there is room for those of others. */
const MOST_OF_PLACE = 12;
const waiting = new Map<string, number>();

async function inTurn<T>(work: () => Promise<T>, place?: string): Promise<T> {
  const ofPlace = place === undefined ? 0 : (waiting.get(place) ?? 0);
  if (hashing.pendingCount >= MOST_WAITING || ofPlace >= MOST_OF_PLACE) throw new Refused([TOO_BUSY]);
  if (place === undefined) return hashing(work);
  waiting.set(place, ofPlace + 1);
  try {
    return await hashing(work);
  } finally {
    const left = (waiting.get(place) ?? 1) - 1;
    if (left > 0) waiting.set(place, left);
    else waiting.delete(place);
  }
}

export const hashPassword = (password: string): Promise<string> => inTurn(() => hash(password, ARGON));

let decoy: Promise<string> | undefined;

/**
 * Whether a password is that of a hash; without one it takes as long and is wrong. No password is that of a broken one.
 * @param place - where who tries is, when they are not signed in
 */
export async function isPassword(passwordHash: string | undefined, password: string, place?: string): Promise<boolean> {
  decoy ??= hash('nobody signs in with this', ARGON);
  const against = passwordHash ?? (await decoy);
  return (await inTurn(() => verify(against, password).catch(() => false), place)) && passwordHash !== undefined;
}
