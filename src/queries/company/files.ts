import type { Day } from '@/core/calendar/workdays';
import type { Db } from '@/store/db';
import { filesAbout, goesWith, type KeptFile } from '@/store/files';
import { dataFile } from '@/workings/orders/dataFiles';
import { findOrderNumbered } from '@/store/orders';
import { outgoing } from '@/workings/orders/paper';
import type { Person } from '@/store/people';
import { whereIn } from '@/store/rows';
import { permit } from '../permit';

/** A thing that files are about, as it is called. */
export type FileSubject = { readonly about: 'job' | 'item' | 'order'; readonly id: number; readonly name: string };
export type FilesOf = FileSubject & { readonly files: readonly KeptFile[] };

/** The files that can go with an order: its own, and those of its jobs and parts. */
export async function loadFilesFor(db: Db, person: Person, number: string): Promise<readonly FilesOf[] | undefined> {
  permit(person, 'see money');
  const order = await findOrderNumbered(db, number);
  if (order === undefined) return undefined;
  const jobIds = order.lines.flatMap((l) => l.splits.flatMap((s) => s.jobId ?? []));
  const jobs = await whereIn(db, 'job', 'id', jobIds);
  const items = await whereIn(
    db,
    'item',
    'id',
    order.lines.flatMap((l) => l.itemId ?? []),
  );
  const subjects: FileSubject[] = [
    { about: 'order', id: order.id, name: order.number },
    ...jobs.map((j) => ({ about: 'job' as const, id: j.id, name: `${j.number} ${j.name}` })),
    ...items.map((i) => ({ about: 'item' as const, id: i.id, name: `${i.number} ${i.name}` })),
  ];
  const ids = (about: string) => subjects.filter((s) => s.about === about).map((s) => s.id);
  const files = await filesAbout(
    db,
    ['order', 'job', 'item'].map((about) => ({ about, ids: ids(about) })),
  );
  return subjects.map((s) => ({ ...s, files: files.filter((f) => f.about === s.about && f.aboutId === s.id) }));
}

/** The files about one thing. */
export async function loadFiles(db: Db, person: Person, about: FileSubject['about'], id: number): Promise<KeptFile[]> {
  permit(person, 'see money');
  return filesAbout(db, [{ about, ids: [id] }]);
}

/** An order as a file of data, as it goes out next. */
export async function loadOrderData(db: Db, person: Person, number: string, kind: 'ubl' | 'csv', today: Day) {
  permit(person, 'see money');
  const head = await db('purchaseOrder').where({ number }).first('id');
  const going = head === undefined ? undefined : await outgoing(db, head.id, today);
  return going && dataFile(db, going, kind);
}

/** All that goes with an order beside its own papers, byte by byte. */
export async function loadFileBytes(db: Db, person: Person, number: string) {
  permit(person, 'see money');
  const head = await db('purchaseOrder').where({ number }).first('id');
  if (head === undefined) return undefined;
  const files = await goesWith(db, head.id);
  const ids = files.filter((f) => f.goneOn === null).map((f) => f.id);
  return whereIn(db, 'document', 'id', ids);
}
