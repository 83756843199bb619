import { connectReaders, type Db } from '@/store/db';
import { companyFile } from './setting';
import { inWriter } from './threads';

type Held = typeof globalThis & { kettleReaders?: Promise<Db> };

/** Connections for pages and files, which only look; they never wait for a change that is under way. */
export const readers = (): Promise<Db> =>
  ((globalThis as Held).kettleReaders ??= inWriter('begin').then(() => connectReaders(companyFile())));

export async function endReaders(): Promise<void> {
  const { kettleReaders: held } = globalThis as Held;
  if (held !== undefined) await (await held).destroy();
}
