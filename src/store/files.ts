import { rowsOf } from './rows';
import { nameOfFile } from '@/core/files/kinds';
import { LIMITS } from '@/core/limits';
import { refusal, type Refusal } from '@/core/result';
import type { Db } from './db';
import type { DocumentRow } from './tables';

export type KeptFile = Pick<DocumentRow, 'id' | 'about' | 'aboutId' | 'name' | 'revision' | 'size' | 'goneOn' | 'at'>;

const COLUMNS = ['d.id', 'd.about', 'd.aboutId', 'd.name', 'd.revision', 'd.size', 'd.goneOn', 'd.at'] as const;

/** The files that go with an order, in their order, whether they are there or not. */
export const goesWith = (db: Db, orderId: number): Promise<KeptFile[]> =>
  rowsOf<KeptFile>(
    db('orderFile as f')
      .join('document as d', 'd.id', 'f.documentId')
      .where('f.orderId', orderId)
      .orderBy('f.place')
      .select(...COLUMNS),
  );

/** Of files, those that are there in a newer revision: the newest, by the older one's id. */
export async function newerOf(db: Db, files: readonly KeptFile[]): Promise<Map<number, KeptFile>> {
  const newer = await rowsOf<KeptFile & { older: number }>(
    db('document as f')
      .join('document as d', (j) => j.on('d.about', 'f.about').on('d.aboutId', 'f.aboutId').on('d.id', '>', 'f.id'))
      .whereIn(
        'f.id',
        files.map((f) => f.id),
      )
      .where({ 'd.role': 'file' })
      .whereNull('d.goneOn')
      .whereRaw('d.name = f.name collate nocase')
      .whereRaw('d.revision <> f.revision')
      .orderBy('d.id')
      .select({ older: 'f.id' }, ...COLUMNS),
  );
  return new Map(newer.map(({ older, ...file }) => [older, file]));
}

/** Files about things, the newest first: those of an order itself, of its jobs and of its items. */
export const filesAbout = (
  db: Db,
  about: readonly { readonly about: string; readonly ids: readonly number[] }[],
): Promise<KeptFile[]> =>
  rowsOf<KeptFile>(
    db('document as d')
      .where({ 'd.role': 'file' })
      .whereNull('d.goneOn')
      .where((w) => {
        for (const a of about) void w.orWhere((own) => own.where('d.about', a.about).whereIn('d.aboutId', a.ids));
      })
      .orderBy('d.id', 'desc')
      .select(...COLUMNS),
  );

/** What keeps an order's files from going with it: one that is missing, or too much for a mail. */
export async function filesFaults(db: Db, orderId: number): Promise<Refusal[]> {
  const files = await goesWith(db, orderId);
  const faults = files
    .filter((f) => f.goneOn !== null)
    .map((f) =>
      refusal(
        'file.missing',
        `${nameOfFile(f)} goes with this order and no longer exists. Take it off, or put it back.`,
      ),
    );
  const size = files.reduce((sum, f) => sum + f.size, 0);
  if (size > LIMITS.mail)
    faults.push(
      refusal(
        'file.many',
        `Attachments total ${Math.ceil(size / 1024 / 1024)} MB; the email limit is ${LIMITS.mail / 1024 / 1024} MB. Remove some, or mark the order as sent by hand and send them another way.`,
      ),
    );
  return faults;
}
