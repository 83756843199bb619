import { join } from 'node:path';
import { Piscina } from 'piscina';
import type * as helper from './helper';
import { program } from './programs';
import type * as writer from './writer';

type Tasks = Record<string, (...input: never[]) => Promise<unknown>>;
type Run<T extends Tasks> = <K extends keyof T & string>(task: K, ...input: Parameters<T[K]>) => ReturnType<T[K]>;

/** How long a paper or a check may take, the wait for its turn included. */
const LONGEST = 120_000;
const MOST_WAITING = 40;

/** A thread that was stopped because its work took too long, or has too much to do already. */
export class Overloaded extends Error {}

const codeOf = (name: 'writer' | 'helper'): string =>
  process.env.NODE_ENV === 'production' ? program(name) : join(process.cwd(), 'src', 'server', `${name}.ts`);

const thread = (name: 'writer' | 'helper', options: ConstructorParameters<typeof Piscina>[0]) =>
  new Piscina({
    filename: join(process.cwd(), 'src', 'server', 'thread.mjs'),
    workerData: { code: codeOf(name) },
    env: { ...process.env } as Record<string, string>,
    minThreads: 1,
    maxThreads: 1,
    ...options,
  });

type Held = typeof globalThis & { kettleThreads?: { writer: Piscina; helper: Piscina } };

// Next.js loads this file more than once in a process; the threads are there once.
const threads = () =>
  ((globalThis as Held).kettleThreads ??= {
    writer: thread('writer', { concurrentTasksPerWorker: 1000, atomics: 'disabled' }),
    helper: thread('helper', { maxQueue: MOST_WAITING }),
  });

/** Asks the thread that writes. */
export const inWriter: Run<typeof writer> = (task, ...[input]) => threads().writer.run({ task, input }) as never;

/** Asks the thread for what takes long: each in its turn, and stopped when it takes longer than `most` milliseconds. */
export const inHelper = <K extends keyof typeof helper & string>(
  task: K,
  input: Parameters<(typeof helper)[K]>[0],
  most = LONGEST,
): ReturnType<(typeof helper)[K]> =>
  threads()
    .helper.run({ task, input }, { signal: AbortSignal.timeout(most) })
    .catch((error: Error) => {
      if (error.name === 'AbortError')
        throw new Overloaded(`This took longer than ${most / 1000} s, so it was stopped.`);
      if (error.message.includes('queue')) throw new Overloaded('Too much is waiting to be done. Try again shortly.');
      throw error;
    }) as never;

/** Lets what runs come to its end, and stops the threads. */
export async function endThreads(): Promise<void> {
  const { kettleThreads: held } = globalThis as Held;
  if (held === undefined) return;
  await Promise.all([held.helper.destroy(), inWriter('end')]);
  await held.writer.close();
  delete (globalThis as Held).kettleThreads;
}
