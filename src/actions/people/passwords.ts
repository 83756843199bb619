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
async function inTurn<T>(work: () => Promise<T>): Promise<T> {
  if (hashing.pendingCount >= MOST_WAITING) throw new Refused([TOO_BUSY]);
  return hashing(work);
}

export const hashPassword = (password: string): Promise<string> => inTurn(() => hash(password, ARGON));

let decoy: Promise<string> | undefined;

/** Whether a password is that of a hash; without one it takes as long and is wrong. No password is that of a broken one. */
export async function isPassword(passwordHash: string | undefined, password: string): Promise<boolean> {
  decoy ??= hash('nobody signs in with this', ARGON);
  const against = passwordHash ?? (await decoy);
  return (await inTurn(() => verify(against, password).catch(() => false))) && passwordHash !== undefined;
}
