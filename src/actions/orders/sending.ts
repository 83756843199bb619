import { z } from 'zod';
import type { MailKind } from '@/core/orders/mail';
import { progressOf, progressState, isUnsent } from '@/core/orders/states';
import { domainOf, messageId } from '@/formats/mail/compose';
import type { Came, Delivery, Outgoing } from '@/formats/mail/deliver';
import type { OrderPaper } from '@/formats/pdf/purchaseOrder';
import { loadCompany } from '@/store/company';
import type { Db } from '@/store/db';
import { filesFaults } from '@/store/files';
import { recipientsOf } from '@/store/mail';
import { dataFiles } from '@/workings/orders/dataFiles';
import { findOrder, setState, tabLinesOf, type StoredOrder } from '@/store/orders';
import { loadPaper } from '@/workings/orders/paper';
import { findPerson } from '@/store/people';
import { findRevision } from '@/workings/orders/revise';
import type { Message, OrderHead } from '@/store/tables';
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
} from '../action';
import { beginChasing } from './chasing';
import { addresses, beginMail, bytes, keepOrderPaper, latestMessage, underWay, writeMessage } from './mailing';
import { moved, orderOf, orderSubjects, unlessAsked } from './orders';
import { checkReviewed } from './reviews';
import { bringIntoForce, keepSent, toSend } from './revising';
import { checkSigned } from '../signoff/signOff';

/** Hands a finished message to the mail server; answers what the server said. */
export type Post = (message: Outgoing) => Promise<Delivery>;

/** What sending needs beside the file: a place where actions are performed, where papers are set, and the way out. */
export type Sender = Setting & {
  readonly perform: Perform;
  readonly setPaper: (paper: OrderPaper) => Promise<Uint8Array>;
  readonly post: Post;
};

const sendInput = z.object({ once, orderId: z.number().int(), version: z.number().int() });

export type Sent = {
  readonly came: Came;
  readonly number: string;
  readonly recipient: string;
  readonly answer: string;
  /** Those of its addresses that were refused. */
  readonly notTo: readonly string[];
};

async function checkSending(work: Work, orderId: number, version: number, byHand: boolean) {
  const { trx } = work;
  const order = await orderOf(work, orderId, version);
  const revised = !isUnsent(order.state, order.sentFrom) && (await findRevision(trx, orderId)) !== undefined;
  const sending = moved(order, revised ? 'beginRevised' : 'beginSending');
  const supplier = found(
    await trx('supplier').where({ id: order.supplierId }).first('name', 'contact'),
    'The supplier',
  );
  const recipients = await recipientsOf(trx, order.supplierId);
  const faults = [
    ...(await toSend(work, order, byHand ? '' : (recipients[0] ?? null))),
    ...(byHand ? [] : await filesFaults(trx, orderId)),
  ];
  if (faults.length > 0) throw new Refused(faults);
  await checkReviewed(
    trx,
    order.lines.flatMap((l) => l.splits.flatMap((s) => s.jobId ?? [])),
  );
  await unlessAsked(trx, order);
  await checkSigned(work, order);
  return { order, sending, supplier, recipients, revised };
}

/**
 * Begins to send: from here on nothing of the order can be changed until its mail has come somewhere or nowhere, so
 * that what is sent is what stands on its paper.
 */
export const beginSending = defineAction({
  name: 'beginSending',
  internal: true,
  right: 'send orders',
  input: sendInput.extend({
    /** The person has been told that it may have arrived already, and sends it again. */
    again: z.boolean().default(false),
  }),
  run: async (work, { orderId, version, again }) => {
    const { trx, audit } = work;
    const { order, sending, revised, ...to } = await checkSending(work, orderId, version, false);
    if ((await latestMessage(trx, orderId))?.state === 'unknown' && !again)
      refuse(
        'send.unknown',
        `${order.number} may already be with ${to.supplier.name}. Ask them: if they have it, mark it as sent; if not, press Send again.`,
      );
    const message = await beginMail(work, order, revised ? 'revision' : 'order', to.recipients);
    await setState(trx, order, { state: sending, sentFrom: order.state });
    await audit({
      words: `Sending order ${order.number} to ${to.recipients.join(', ')}`,
      subjects: orderSubjects(order),
    });
    return message;
  },
});

const NOT_TAKEN: Readonly<Record<Exclude<Came, 'taken'>, string>> = {
  failed: 'Failed to send',
  unknown: 'May have sent',
};

/** Records what became of a message: only one that was taken makes the order, or its revision, sent. */
export const recordAnswer = defineAction({
  name: 'recordAnswer',
  internal: true,
  right: 'send orders',
  input: z.object({
    messageId: z.number().int(),
    came: z.enum(['taken', 'failed', 'unknown']),
    answer: z.string(),
    notTo: z.array(z.string()).default([]),
  }),
  run: async (work, { messageId: id, came, answer, notTo }): Promise<Sent> => {
    const { trx, audit } = work;
    const { message, order } = await underWay(work, id);
    const { recipient, kind } = message;
    await trx('message').where({ id }).update({ state: came, answer });
    if (kind !== 'chase') {
      if (came === 'taken') await markAsSent(work, order);
      else await setState(trx, order, backFrom(order));
    }
    const what = `${nameOfMail(order, kind)} to ${recipient}`;
    const refused = notTo.length === 0 ? '' : `; not delivered to ${notTo.join(', ')}`;
    const words = came === 'taken' ? `Sent ${what}${refused}` : `${NOT_TAKEN[came]} ${what}: ${answer}`;
    await audit({ words, subjects: orderSubjects(order), after: { answer } });
    return { came, number: order.number, recipient, answer, notTo };
  },
});

const nameOfMail = (order: StoredOrder, kind: MailKind): string =>
  ({
    order: order.number,
    revision: `revision ${order.revision + 1} of ${order.number}`,
    chase: `chaser for order ${order.number}`,
  })[kind];

/** Back to where the order was before it was to be sent. */
const backFrom = (order: Pick<OrderHead, 'sentFrom'>) => ({ state: order.sentFrom ?? 'drafting', sentFrom: null });

/** The order is with its supplier as it went: at first, or as its revision has it. */
async function markAsSent(work: Work, order: StoredOrder): Promise<void> {
  const { trx, today, touch } = work;
  if (order.sentOn !== null) return bringIntoForce(work, order);
  await setState(trx, order, {
    state: progressState('sent', order.lines.map(progressOf)),
    sentOn: today,
    sentFrom: null,
  });
  await keepSent(work, { ...order, sentOn: today }, 'As it was first sent');
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
  return onItsWay(sender, begun.value);
}

/** One message goes once, however often it is asked for while it is on its way. */
function onItsWay(sender: Sender, id: number): Promise<Outcome<Sent>> {
  const running = onTheirWay.get(id) ?? carry(sender, id);
  onTheirWay.set(id, running);
  return running.finally(() => onTheirWay.delete(id));
}

async function carry(sender: Sender, id: number): Promise<Outcome<Sent>> {
  const { db, perform } = sender;
  const message = found(await db('message').where({ id }).first(), 'This message');
  const { state, answer, recipient } = message;
  if (state !== 'sending') {
    const order = found(await findOrder(db, message.aboutId), 'This order');
    return { status: 'done', value: { came: state, number: order.number, recipient, answer, notTo: [] } };
  }
  const said = await handOver(sender, id, message);
  return perform(recordAnswer, { messageId: id, ...said, notTo: [...(said.notTo ?? [])] });
}

/** The papers that an order goes out with: its PDF, and the data files its supplier takes. */
async function setPapers({ db, clock, setPaper }: Sender, orderId: number) {
  const today = clock.today();
  const paper = found(await loadPaper(db, orderId, today, true), 'This order');
  const pdf = Buffer.from(await setPaper(paper));
  const papers = [{ name: `${paper.number}.pdf`, type: 'application/pdf', bytes: pdf }];
  return { paper, papers: [...papers, ...(await dataFiles(db, orderId, today))] };
}

/** Whatever goes wrong before the mail server has the message, the message did not go. */
async function handOver(
  sender: Sender,
  id: number,
  { kind, aboutId }: Pick<Message, 'kind' | 'aboutId'>,
): Promise<Delivery> {
  const { db, perform, post } = sender;
  const company = await loadCompany(db);
  try {
    const set = kind === 'chase' ? undefined : await setPapers(sender, aboutId);
    const letterId = set === undefined ? `asking.${id}@${domainOf(company.email)}` : messageId(set.paper);
    const written = await perform(writeMessage, { messageId: id, papers: set?.papers ?? [], letterId });
    if (written.status !== 'done')
      return { came: 'failed', answer: 'The email couldn’t be saved. Nothing was sent: try again.' };
  } catch (error) {
    return {
      came: 'failed',
      answer: `The order’s PDF couldn’t be made (${(error as Error).message}). Nothing was sent: tell your administrator.`,
    };
  }
  const { raw, recipient, copyTo } = found(
    await db('message').where({ id }).first('raw', 'recipient', 'copyTo'),
    'This message',
  );
  return post({
    raw: found(raw, 'This message'),
    from: company.email,
    to: addresses(recipient),
    copyTo: addresses(copyTo),
  });
}

/** Asks a supplier when what it owes of an order comes. */
export async function chaseOrder(sender: Sender, input: z.input<typeof beginChasing.input>): Promise<Outcome<Sent>> {
  const begun = await sender.perform(beginChasing, input);
  return begun.status === 'done' ? onItsWay(sender, begun.value) : begun;
}

export const recordByHand = defineAction({
  name: 'markSentByHand',
  right: 'send orders',
  input: sendInput.extend({ pdf: bytes }),
  run: async (work, { orderId, version, pdf }) => {
    const { order, supplier } = await checkSending(work, orderId, version, true);
    await keepOrderPaper(work, order, {
      name: `${order.number}.pdf`,
      type: 'application/pdf',
      bytes: Buffer.from(pdf),
    });
    await markAsSent(work, order);
    await work.audit({
      words: `Marked order ${order.number} as sent by hand to ${supplier.name}`,
      subjects: orderSubjects(order),
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
  // Our own people may be told twice; they are not to be told never.
  await db('notice').where({ state: 'sending' }).update({ state: 'waiting' });
  const interrupted = await db('message').where({ state: 'sending' }).select('id', 'personId', 'raw');
  for (const { id, personId, raw } of interrupted) {
    const person = found(await findPerson(db, personId), 'The person who sent it');
    const actor = { ...person, roles: ['buyer' as const] };
    const came = raw === null ? 'failed' : 'unknown';
    const answer =
      raw === null
        ? 'Kettle Tab stopped before this was sent. Send it again.'
        : 'Kettle Tab stopped while sending, so the email may have arrived. Check with the supplier.';
    await recordAnswer({ db, clock, actor }, { messageId: id, came, answer });
  }
  return interrupted.length;
}
