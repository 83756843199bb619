import { z } from 'zod';
import { fileFault, fileName, nameOfFile, typeOf } from '@/core/files/kinds';
import { EDITABLE } from '@/core/orders/states';
import { anyText } from '@/core/records/fields';
import { counted } from '@/core/words';
import type { Db } from '@/store/db';
import { insertMany, insertOne, whereIn, rowsOf } from '@/store/rows';
import { findRevision } from '@/workings/orders/revise';
import { defineAction, found, once, refuse, type Subject } from '../action';
import { allow, orderOf, orderRef, orderSubjects, unlessAsked } from '../orders/orders';

/** What a file can be about. */
export const FILE_ABOUT = ['job', 'item', 'order'] as const;
const ABOUT = { job: 'job', item: 'item', order: 'purchaseOrder' } as const;

/** Keeps a file about a job, a part or an order; it is never run. One about an order goes with it. */
export const keepFile = defineAction({
  name: 'keepFile',
  internal: true,
  right: 'keep files',
  input: z.object({
    once,
    about: z.enum(FILE_ABOUT),
    aboutId: z.number().int(),
    name: z.string().transform(fileName),
    /** Of the drawing or document, as it says itself. */
    revision: anyText(20),
    bytes: z.instanceof(Uint8Array),
  }),
  run: async ({ trx, actor, now, audit }, { about, aboutId, name, revision, bytes }) => {
    if (name === '') refuse('file.name', 'The file has no name. Rename it and upload it again.', 'file');
    allow(fileFault(name, bytes));
    const thing = found(
      await trx(ABOUT[about]).where({ id: aboutId }).first('id', 'number'),
      'The record of this file',
    );
    if (about === 'order') await unlessAsked(trx, thing);
    const id = await insertOne(trx, 'document', {
      ...{ about, aboutId, name, type: typeOf(name), revision, role: 'file' },
      ...{ bytes: Buffer.from(bytes), size: bytes.length, personId: actor.id, at: now },
    });
    if (about === 'order') await goAlong(trx, aboutId, [id]);
    await audit({ words: `Added file ${nameOfFile({ name, revision })}`, subjects: [subjectOf(about, aboutId)] });
    return { id, name };
  },
});

const subjectOf = (about: (typeof FILE_ABOUT)[number], id: number): Subject => [about, id];

async function goAlong(trx: Db, orderId: number, ids: readonly number[]): Promise<void> {
  const [last] = await rowsOf<{ place: number | null }>(trx('orderFile').where({ orderId }).max({ place: 'place' }));
  const rows = ids.map((documentId, k) => ({ orderId, documentId, place: (last?.place ?? 0) + k + 1 }));
  await insertMany(trx, 'orderFile', rows);
}

/** Takes a file out, or puts it back. Where it went out with an order it stays readable. */
export const removeFile = defineAction({
  name: 'removeFile',
  right: 'keep files',
  input: z.object({ documentId: z.number().int(), out: z.boolean() }),
  run: async ({ trx, today, audit }, { documentId, out }) => {
    const file = found(
      await trx('document').where({ id: documentId, role: 'file' }).first('about', 'aboutId', 'name', 'revision'),
      'This file',
    );
    await trx('document')
      .where({ id: documentId })
      .update({ goneOn: out ? today : null });
    await audit({
      words: `${out ? 'Removed file' : 'Restored file'} ${nameOfFile(file)}`,
      subjects: [subjectOf(file.about as (typeof FILE_ABOUT)[number], file.aboutId)],
    });
  },
});

/** Says which files go with an order, or with the revision of it that is being written. */
export const sendWith = defineAction({
  name: 'sendWith',
  right: 'draft orders',
  input: z.object({
    ...orderRef,
    documentIds: z.array(z.number().int()).max(100, 'No more than 100 files per order.'),
  }),
  run: async (work, { orderId, version, documentIds }) => {
    const { trx, audit } = work;
    const order = await orderOf(work, orderId, version);
    await unlessAsked(trx, order);
    if (!EDITABLE.includes(order.state) && (await findRevision(trx, orderId)) === undefined)
      refuse('order.state', `Order ${order.number} was sent with its files. Revise it to send others.`);
    const ids = [...new Set(documentIds)];
    const files = (await whereIn(trx, 'document', 'id', ids)).filter((d) => d.role === 'file');
    if (files.length < ids.length)
      refuse('file.missing', 'A file no longer exists. Refresh the list and choose again.');
    await trx('orderFile').where({ orderId }).delete();
    await goAlong(trx, orderId, ids);
    await trx('purchaseOrder')
      .where({ id: orderId })
      .update({ version: order.version + 1 });
    await audit({
      words: `Attached ${counted(ids.length, 'file')} to order ${order.number}`,
      subjects: orderSubjects(order),
      after: { files: files.map(nameOfFile) },
    });
    return { version: order.version + 1 };
  },
});
