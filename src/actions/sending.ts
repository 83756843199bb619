import { z } from 'zod';
import { sendingFaults } from '@/core/orders/order';
import type { OrderState } from '@/core/orders/states';
import { compose, messageId } from '@/formats/mail/compose';
import type { Came } from '@/formats/mail/deliver';
import type { OrderPaper } from '@/formats/pdf/purchaseOrder';
import { loadCompany } from '@/store/company';
import type { Db } from '@/store/connection';
import { findOrder, setState, tabLinesOf, type StoredOrder } from '@/store/orders';
import { loadPaper } from '@/store/paper';
import { findPerson } from '@/store/people';
import { insertOne } from '@/store/rows';
import type { OrderHead } from '@/store/tables';
import {
  defineAction,
  found,
  inputRefusals,
  notPermitted,
  once,
  Refused,
  refuse,
  type Clock,
  type Outcome,
  type Perform,
  type Setting,
  type Work,
} from './action';
import { moved, orderOf, subjectsOf } from './orders';
import { checkReviewed } from './reviews';

/** Hands a finished message to the mail server; answers what the server said. */
export type Post = (message: {
  readonly raw: Buffer;
  readonly from: string;
  readonly to: string;
}) => Promise<{ readonly came: Came; readonly answer: string }>;

/** What sending needs beside the file: a place where actions are performed, where papers are set, and the way out. */
export type Sender = Setting & {
  readonly perform: Perform;
  readonly setPaper: (paper: OrderPaper) => Promise<Uint8Array>;
  readonly post: Post;
};

const bytes = z.custom<Uint8Array>((b) => b instanceof Uint8Array);
const sendInput = z.object({ once, orderId: z.number().int(), version: z.number().int() });

export type Sent = {
  readonly came: Came;
  readonly number: string;
  readonly recipient: string;
  readonly answer: string;
};

async function checkSending(work: Work, orderId: number, version: number, byHand: boolean) {
  const order = await orderOf(work, orderId, version);
  const sending = moved(order, 'beginSending');
  const supplier = found(
    await work.trx('supplier').where({ id: order.supplierId }).first('name', 'email'),
    'The supplier',
  );
  const faults = sendingFaults(order.lines, order.currency, byHand ? '' : supplier.email);
  if (faults.length > 0) throw new Refused(faults);
  await checkReviewed(
    work.trx,
    order.lines.flatMap((l) => l.splits.flatMap((s) => s.jobId ?? [])),
  );
  return { order, sending, supplier };
}

const about = (orderId: number) => ({ about: 'order', aboutId: orderId }) as const;

const latestMessage = (db: Db, orderId: number) => db('message').where(about(orderId)).orderBy('id', 'desc').first();

/**
 * Begins to send: from here on nothing of the order can be changed until its mail has come somewhere or nowhere, so
 * that what is sent is what stands on its paper.
 */
export const beginSending = defineAction({
  name: 'beginSending',
  right: 'send orders',
  input: sendInput.extend({
    /** The person has been told that it may have arrived already, and sends it again. */
    again: z.boolean().default(false),
  }),
  run: async (work, { orderId, version, again }) => {
    const { trx, actor, now, company, audit } = work;
    const { order, sending, supplier } = await checkSending(work, orderId, version, false);
    if ((await latestMessage(trx, orderId))?.state === 'unknown' && !again)
      refuse(
        'send.unknown',
        `${order.number} may have arrived already. Ask ${supplier.name}, then mark it as sent, or send it again on purpose.`,
      );
    await setState(trx, order, { state: sending, sentFrom: order.state });
    const recipient = supplier.email ?? '';
    const body = [
      `Good day,`,
      ``,
      `please find our purchase order ${order.number} attached.`,
      `Kindly confirm prices and delivery dates, and quote the order number on delivery notes and invoices.`,
      ``,
      actor.name,
      company.name,
      '',
    ].join('\n');
    await audit({ words: `Began to send ${order.number} to ${recipient}`, subjects: subjectsOf(order) });
    return insertOne(trx, 'message', {
      ...about(orderId),
      recipient,
      subject: `Purchase order ${order.number} from ${company.name}`,
      body,
      state: 'sending',
      personId: actor.id,
      at: now,
    });
  },
});

const keepPaper = (work: Work, order: StoredOrder, pdf: Uint8Array) =>
  insertOne(work.trx, 'document', {
    ...about(order.id),
    name: `${order.number}.pdf`,
    type: 'application/pdf',
    bytes: Buffer.from(pdf),
    at: work.now,
  });

const underWay = async ({ trx }: Work, id: number) => {
  const message = found(await trx('message').where({ id, state: 'sending' }).first(), 'This message');
  return { message, order: found(await findOrder(trx, message.aboutId), 'This order') };
};

/** Writes the message down, with its paper, before it goes, so that what happened to it is known whatever comes. */
export const writeMessage = defineAction({
  name: 'writeMessage',
  right: 'send orders',
  input: z.object({ messageId: z.number().int(), pdf: bytes, letterId: z.string() }),
  run: async (work, { messageId: id, pdf, letterId }) => {
    const { trx, company, audit } = work;
    const { message, order } = await underWay(work, id);
    const documentId = await keepPaper(work, order, pdf);
    const { recipient: to, subject, body } = message;
    const from = { name: company.name, address: company.email };
    const attachment = { name: `${order.number}.pdf`, type: 'application/pdf', bytes: Buffer.from(pdf) };
    const raw = await compose({ id: letterId, from, to, subject, body, attachment });
    await trx('message').where({ id }).update({ documentId, raw });
    await audit({ words: `Set the paper of ${order.number}`, subjects: subjectsOf(order) });
  },
});

const NOT_TAKEN: Readonly<Record<Exclude<Came, 'taken'>, string>> = {
  failed: 'Could not send',
  unknown: 'It is not known whether it arrived: sent',
};

/** Records what became of a message: only one that was taken makes the order sent. */
export const recordAnswer = defineAction({
  name: 'recordAnswer',
  right: 'send orders',
  input: z.object({ messageId: z.number().int(), came: z.enum(['taken', 'failed', 'unknown']), answer: z.string() }),
  run: async (work, { messageId: id, came, answer }): Promise<Sent> => {
    const { trx, audit } = work;
    const { message, order } = await underWay(work, id);
    const { recipient } = message;
    await trx('message').where({ id }).update({ state: came, answer });
    if (came === 'taken') await markAsSent(work, order, moved(order, 'send'));
    else await setState(trx, order, backFrom(order));
    const what = `${order.number} to ${recipient}`;
    const words = came === 'taken' ? `Sent ${what}` : `${NOT_TAKEN[came]} ${what}: ${answer}`;
    await audit({ words, subjects: subjectsOf(order), after: { answer } });
    return { came, number: order.number, recipient, answer };
  },
});

/** Back to where the order was before it was to be sent. */
const backFrom = (order: Pick<OrderHead, 'sentFrom'>) => ({ state: order.sentFrom ?? 'drafting', sentFrom: null });

async function markAsSent({ trx, today, touch }: Work, order: StoredOrder, state: OrderState): Promise<void> {
  await setState(trx, order, { state, sentOn: today, sentFrom: null });
  touch('Order sent', 'order', order.id, tabLinesOf(order));
}

const onTheirWay = new Map<number, Promise<Outcome<Sent>>>();

/**
 * Sends an order to its supplier: begins, sets the PDF, writes the message down, hands it to the mail server, and
 * records what became of it. Pressing twice sends once.
 */
export async function sendOrder(sender: Sender, input: z.input<typeof beginSending.input>): Promise<Outcome<Sent>> {
  const begun = await sender.perform(beginSending, input);
  if (begun.status !== 'done') return begun;
  const id = begun.value;
  const running = onTheirWay.get(id) ?? carry(sender, id);
  onTheirWay.set(id, running);
  return running.finally(() => onTheirWay.delete(id));
}

async function carry(sender: Sender, id: number): Promise<Outcome<Sent>> {
  const { db, perform, clock } = sender;
  const message = found(await db('message').where({ id }).first(), 'This message');
  const { state, answer, recipient } = message;
  if (state !== 'sending') {
    const order = found(await findOrder(db, message.aboutId), 'This order');
    return { status: 'done', value: { came: state, number: order.number, recipient, answer } };
  }
  const said = await handOver(sender, id, await loadPaper(db, message.aboutId, clock.today(), true));
  return perform(recordAnswer, { messageId: id, ...said });
}

/** Whatever goes wrong before the mail server has the message, the message did not go. */
async function handOver(
  { db, perform, setPaper, post }: Sender,
  id: number,
  paper: OrderPaper | undefined,
): Promise<{ came: Came; answer: string }> {
  try {
    const pdf = await setPaper(found(paper, 'This order'));
    const letterId = messageId(found(paper, 'This order'));
    const written = await perform(writeMessage, { messageId: id, pdf, letterId });
    if (written.status !== 'done') return { came: 'failed', answer: 'Its message could not be written down.' };
  } catch (error) {
    return { came: 'failed', answer: `Its paper could not be set: ${(error as Error).message}` };
  }
  const { raw, recipient } = found(await db('message').where({ id }).first('raw', 'recipient'), 'This message');
  return post({ raw: found(raw, 'This message'), from: (await loadCompany(db)).email, to: recipient });
}

export const recordByHand = defineAction({
  name: 'markSentByHand',
  right: 'send orders',
  input: sendInput.extend({ pdf: bytes }),
  run: async (work, { orderId, version, pdf }) => {
    const { order, sending, supplier } = await checkSending(work, orderId, version, true);
    await keepPaper(work, order, pdf);
    await markAsSent(work, order, moved({ ...order, state: sending }, 'send'));
    await work.audit({
      words: `Marked ${order.number} as sent by hand to ${supplier.name}`,
      subjects: subjectsOf(order),
    });
    return { number: order.number };
  },
});

/** Marks an order as sent that was handed over, phoned or posted; its PDF is kept all the same. */
export async function markSentByHand(
  { actor, db, clock, setPaper, perform }: Sender,
  input: z.input<typeof sendInput>,
): Promise<Outcome<{ number: string }>> {
  const barred = notPermitted(actor, 'send orders');
  if (barred !== undefined) return barred;
  const read = sendInput.safeParse(input);
  if (!read.success) return { status: 'refused', refusals: inputRefusals(read.error) };
  const paper = await loadPaper(db, read.data.orderId, clock.today(), true);
  const pdf = paper === undefined ? new Uint8Array() : await setPaper(paper);
  return perform(recordByHand, { ...read.data, pdf });
}

/**
 * At start: a message that was under way when the program stopped. One whose paper was not set yet did not go; of any
 * other it is not known. It is recorded as by the person who sent it, whatever they may do by now.
 */
export async function settleInterrupted(db: Db, clock: Clock): Promise<number> {
  const interrupted = await db('message').where({ state: 'sending' }).select('id', 'personId', 'raw');
  for (const { id, personId, raw } of interrupted) {
    const person = found(await findPerson(db, personId), 'The person who sent it');
    const actor = { ...person, roles: ['buyer' as const] };
    const came = raw === null ? 'failed' : 'unknown';
    const answer =
      raw === null
        ? 'Kettle Tab was stopped before this went.'
        : 'Kettle Tab was stopped while this was being sent, so it may have arrived.';
    await recordAnswer({ db, clock, actor }, { messageId: id, came, answer });
  }
  return interrupted.length;
}
