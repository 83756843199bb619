import { z } from 'zod';
import type { MailKind } from '@/core/orders/mail';
import { compose, type Attachment } from '@/formats/mail/compose';
import type { Db } from '@/store/db';
import { goesWith } from '@/store/files';
import { findOrder, type StoredOrder } from '@/store/orders';
import { wordMail } from '@/workings/orders/mail';
import { insertMany, insertOne, whereIn } from '@/store/rows';
import { defineAction, found, type Work } from '../action';
import { orderSubjects } from './orders';

export const bytes = z.custom<Uint8Array>((b) => b instanceof Uint8Array);

export const about = (orderId: number) => ({ about: 'order', aboutId: orderId }) as const;

/** What went out of an order last, or was to go; what asks after it is none of that. */
export const latestMessage = (db: Db, orderId: number) =>
  db('message').where(about(orderId)).whereNot({ kind: 'chase' }).orderBy('id', 'desc').first();

/** Writes down a mail about an order that is to go; answers its id. */
export async function beginMail(
  { trx, actor, now, today }: Work,
  order: StoredOrder,
  kind: MailKind,
  recipients: readonly string[],
  lines: readonly string[] = [],
): Promise<number> {
  return insertOne(trx, 'message', {
    ...about(order.id),
    ...(await wordMail(trx, order, kind, { actor, today }, lines)),
    kind,
    recipient: recipients.join(', '),
    state: 'sending',
    personId: actor.id,
    at: now,
  });
}

export const keepOrderPaper = (work: Work, order: StoredOrder, file: Attachment) =>
  insertOne(work.trx, 'document', {
    ...about(order.id),
    name: file.name,
    type: file.type,
    bytes: file.bytes,
    size: file.bytes.length,
    personId: work.actor.id,
    at: work.now,
  });

export const underWay = async ({ trx }: Work, id: number) => {
  const message = found(await trx('message').where({ id, state: 'sending' }).first(), 'This message');
  return { message, order: found(await findOrder(trx, message.aboutId), 'This order') };
};

export const addresses = (list: string): string[] => list.split(', ').filter((a) => a !== '');

/** Writes the message down, with its papers, before it goes, so that what happened to it is known whatever comes. */
export const writeMessage = defineAction({
  name: 'writeMessage',
  internal: true,
  right: 'send orders',
  input: z.object({
    messageId: z.number().int(),
    letterId: z.string(),
    /** Papers that were set for it, the order's own first; none when it only asks. */
    papers: z.array(z.object({ name: z.string(), type: z.string(), bytes })),
  }),
  run: async (work, { messageId: id, papers, letterId }) => {
    const { trx, company, audit } = work;
    const { message, order } = await underWay(work, id);
    const files = message.kind === 'chase' ? [] : await goesWith(trx, order.id);
    const rows = new Map(
      (
        await whereIn(
          trx,
          'document',
          'id',
          files.map((f) => f.id),
        )
      ).map((d) => [d.id, d]),
    );
    const kept = files.flatMap((f) => rows.get(f.id) ?? []);
    const set = papers.map((p) => ({ ...p, bytes: Buffer.from(p.bytes) }));
    const ids = [];
    for (const paper of set) ids.push(await keepOrderPaper(work, order, paper));
    const raw = await compose({
      id: letterId,
      from: { name: company.name, address: company.email },
      to: addresses(message.recipient),
      copyTo: addresses(message.copyTo),
      subject: message.subject,
      body: message.body,
      attachments: [...set, ...kept.map(({ name, type, bytes: own }) => ({ name, type, bytes: Buffer.from(own) }))],
    });
    await trx('message')
      .where({ id })
      .update({ documentId: ids[0] ?? null, raw });
    await insertMany(
      trx,
      'messageFile',
      [...ids, ...kept.map((k) => k.id)].map((documentId) => ({ messageId: id, documentId })),
    );
    await audit({
      words:
        papers.length === 0 ? `Wrote chaser for order ${order.number}` : `Created the PDF of order ${order.number}`,
      subjects: orderSubjects(order),
    });
  },
});
