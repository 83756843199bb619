import { z } from 'zod';
import { fileName, paperFault, paperKind, typeOf } from '@/core/files/kinds';
import { insertOne } from '@/store/rows';
import { defineAction, found, once, type Work } from '../action';
import { allow } from '../orders/orders';

/** What a paper of a delivery is about: the receipt, or the certificate that a line wants. */
export const PAPER_ABOUT = ['receipt', 'certificate'] as const;

/** Keeps a photo, a delivery note or a certificate; what it is, its content says. It is never run. */
export const keepPaper = defineAction({
  name: 'keepPaper',
  internal: true,
  right: 'receive',
  input: z.object({
    once,
    about: z.enum(PAPER_ABOUT),
    /** The receipt; the line of the order whose certificate it is. */
    aboutId: z.number().int(),
    name: z.string().transform(fileName),
    bytes: z.instanceof(Uint8Array),
  }),
  run: async (work, { about, aboutId, name: given, bytes }) => {
    const { trx, actor, now, audit } = work;
    allow(paperFault(given || 'The file', bytes));
    const kind = paperKind(bytes) ?? '';
    // A photo from a phone is called anything; its end says what it is.
    const name = new RegExp(`\\.${kind}$`, 'i').test(given) ? given : `${given || about}.${kind}`;
    const orderId = await orderOf(trx, about, aboutId);
    const id = await insertOne(trx, 'document', {
      ...{ about, aboutId, name, type: typeOf(name), revision: '', role: 'file' },
      ...{ bytes: Buffer.from(bytes), size: bytes.length, personId: actor.id, at: now },
    });
    if (about === 'certificate') await touchLine(work, 'Certificate', orderId, aboutId);
    await audit({
      words: about === 'receipt' ? `Added document ${name} to a receipt` : `Added certificate ${name}`,
      subjects: [['order', orderId], ...(about === 'receipt' ? [['receipt', aboutId] as const] : [])],
    });
    return { id, name };
  },
});

/** The order that a paper belongs to. */
async function orderOf(trx: Work['trx'], about: string, id: number): Promise<number> {
  const row =
    about === 'receipt'
      ? await trx('receipt').where({ id }).first('orderId')
      : await trx('orderLine').where({ id }).first('orderId');
  return found(row, 'The record of this document').orderId;
}

/** Says that something happened to a line: work waits for its certificate as it does for the goods. */
export async function touchLine({ trx, touch }: Work, event: string, orderId: number, lineId: number): Promise<void> {
  const splits = await trx('split').where({ lineId }).select('id');
  touch(
    event,
    'order',
    orderId,
    splits.map((s) => s.id),
  );
}

/** Takes a paper of a delivery out again. */
export const removePaper = defineAction({
  name: 'removePaper',
  right: 'receive',
  input: z.object({ documentId: z.number().int() }),
  run: async (work, { documentId }) => {
    const { trx, today, audit } = work;
    const paper = found(
      await trx('document')
        .where({ id: documentId, role: 'file' })
        .whereIn('about', [...PAPER_ABOUT])
        .first('name', 'about', 'aboutId'),
      'This document',
    );
    await trx('document').where({ id: documentId }).update({ goneOn: today });
    const orderId = await orderOf(trx, paper.about, paper.aboutId);
    if (paper.about === 'certificate') await touchLine(work, 'Certificate', orderId, paper.aboutId);
    await audit({ words: `Removed file ${paper.name}`, subjects: [['order', orderId]] });
  },
});
