import { join } from 'node:path';
import { Piscina } from 'piscina';
import type * as files from './files';
import type * as papers from './papers';
import { program } from './programs';
import type * as writer from './writer';

type Tasks = Record<string, (...input: never[]) => Promise<unknown>>;
type Run<T extends Tasks> = <K extends keyof T & string>(task: K, ...input: Parameters<T[K]>) => ReturnType<T[K]>;

/** How long a paper, a check or a list may take, the wait for its turn included. */
const LONGEST = 120_000;
const MOST_WAITING = 40;
/** What a thread may hold, in MB: one that would hold more ends alone, and all others go on. */
const MOST_HELD = 768;

/** A thread that was stopped because its work took too long or too much memory, or has too much to do already. */
export class Overloaded extends Error {}

type Name = 'writer' | 'papers' | 'files';

const codeOf = (name: Name): string =>
  process.env.NODE_ENV === 'production' ? program(name) : join(process.cwd(), 'src', 'server', `${name}.ts`);

const thread = (name: Name, options: ConstructorParameters<typeof Piscina>[0]) =>
  new Piscina({
    filename: join(process.cwd(), 'src', 'server', 'thread.mjs'),
    workerData: { code: codeOf(name) },
    env: { ...process.env } as Record<string, string>,
    minThreads: 1,
    maxThreads: 1,
    ...options,
  });

const beside = (name: Name) =>
  thread(name, { maxQueue: MOST_WAITING, resourceLimits: { maxOldGenerationSizeMb: MOST_HELD } });

type Held = typeof globalThis & { kettleThreads?: Record<Name, Piscina> };

// Next.js loads this file more than once in a process; the threads are there once.
const threads = () =>
  ((globalThis as Held).kettleThreads ??= {
    writer: thread('writer', { concurrentTasksPerWorker: 1000, atomics: 'disabled' }),
    papers: beside('papers'),
    files: beside('files'),
  });

type Came = {
  readonly value?: unknown;
  readonly fault?: Pick<Error, 'name' | 'message' | 'stack'> & { code?: string };
};

/** What a thread answers; what it threw is thrown here, with its code and its cause as they were there. */
async function answerOf(thread: Piscina, task: string, input: unknown, options = {}): Promise<unknown> {
  const { value, fault } = (await thread.run({ task, input }, options)) as Came;
  if (fault !== undefined) throw Object.assign(new Error(), fault);
  return value;
}

/** Asks the thread that writes. */
export const inWriter: Run<typeof writer> = (task, ...[input]) => answerOf(threads().writer, task, input) as never;

/** Asks a thread for what takes long: each in its turn, and stopped when it takes longer than `most` milliseconds. */
const asking =
  <T extends Tasks>(name: Name) =>
  <K extends keyof T & string>(task: K, input: Parameters<T[K]>[0], most = LONGEST): ReturnType<T[K]> =>
    answerOf(threads()[name], task, input, { signal: AbortSignal.timeout(most) }).catch(
      (error: Error & { code?: string }) => {
        if (error.name === 'AbortError')
          throw new Overloaded(`This took longer than ${most / 1000} s, so it was stopped.`);
        if (error.code === 'ERR_WORKER_OUT_OF_MEMORY')
          throw new Overloaded(
            'This needs more memory than it may take, so it was stopped. Split it into smaller parts.',
          );
        if (error.message.includes('queue')) throw new Overloaded('Too much is waiting to be done. Try again shortly.');
        throw error;
      },
    ) as never;

/** Asks the thread that sets papers. */
export const inPapers = asking<typeof papers>('papers');

/** Asks the thread that reads and writes files: whatever a file from outside does to it, papers and mails go on. */
export const inFiles = asking<typeof files>('files');

/** Lets what runs come to its end, and stops the threads. */
export async function endThreads(): Promise<void> {
  const { kettleThreads: held } = globalThis as Held;
  if (held === undefined) return;
  await Promise.all([held.papers.destroy(), held.files.destroy(), inWriter('end')]);
  await held.writer.close();
  delete (globalThis as Held).kettleThreads;
}
