import { z } from 'zod';
import { sendingFaults } from '@/core/orders/order';
import type { OrderState } from '@/core/orders/states';
import { compose } from '@/formats/mail/compose';
import { purchaseOrderPdf } from '@/formats/pdf/purchaseOrder';
import { loadCompany } from '@/store/company';
import { findOrder, setState, tabLinesOf, type StoredOrder } from '@/store/orders';
import { loadPaper } from '@/store/paper';
import { insertOne } from '@/store/rows';
import type { OrderHead } from '@/store/tables';
import { defineAction, found, once, Refused, type Outcome, type Setting, type Work } from './action';
import { moved, orderOf, subjectsOf } from './orders';

const sendInput = z.object({ once, orderId: z.number().int(), version: z.number().int() });

export type Sent = {
  readonly taken: boolean;
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
  return { order, sending, supplier };
}

const keepPaper = (work: Work, orderId: number, { name, pdf }: Papers) =>
  insertOne(work.trx, 'document', {
    about: 'order',
    aboutId: orderId,
    name,
    type: 'application/pdf',
    bytes: pdf,
    at: work.now,
  });

type Papers = { pdf: Buffer; name: string };

/**
 * Writes the message down before it goes, so that what happened to it is known whatever comes. While it is under way
 * nothing of the order can be changed, so that what was sent is what stands on its paper.
 */
const prepareSending = defineAction({
  name: 'prepareSending',
  right: 'send orders',
  input: sendInput.extend({ papers: z.custom<Papers>() }),
  run: async (work, { orderId, version, papers }) => {
    const { trx, actor, now, company, audit } = work;
    const { order, sending, supplier } = await checkSending(work, orderId, version, false);
    await setState(trx, order, { state: sending, sentFrom: order.state });
    const documentId = await keepPaper(work, orderId, papers);
    const recipient = supplier.email ?? '';
    const subject = `Purchase order ${order.number} from ${company.name}`;
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
    const raw = await compose({
      from: { name: company.name, address: company.email },
      to: recipient,
      subject,
      body,
      attachment: { name: papers.name, type: 'application/pdf', bytes: papers.pdf },
    });
    await audit({ words: `Began to send ${order.number} to ${recipient}`, subjects: subjectsOf(order) });
    return insertOne(trx, 'message', {
      about: 'order',
      aboutId: orderId,
      documentId,
      recipient,
      subject,
      body,
      state: 'sending',
      raw,
      personId: actor.id,
      at: now,
    });
  },
});

/** Records the mail server's answer: only a message that was taken makes the order sent. */
const recordAnswer = defineAction({
  name: 'recordAnswer',
  right: 'send orders',
  input: z.object({ messageId: z.number().int(), taken: z.boolean(), answer: z.string() }),
  run: async (work, { messageId, taken, answer }): Promise<Sent> => {
    const { trx, audit } = work;
    const message = found(await trx('message').where({ id: messageId }).first('aboutId', 'recipient'), 'This message');
    const order = found(await findOrder(trx, message.aboutId), 'This order');
    await trx('message')
      .where({ id: messageId })
      .update({ state: taken ? 'taken' : 'failed', answer });
    if (taken) await markAsSent(work, order, moved(order, 'send'));
    else await setState(trx, order, backFrom(order));
    const words = taken
      ? `Sent ${order.number} to ${message.recipient}`
      : `Could not send ${order.number} to ${message.recipient}: ${answer}`;
    await audit({ words, subjects: subjectsOf(order), after: { answer } });
    return { taken, number: order.number, recipient: message.recipient, answer };
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
 * Sends an order to its supplier: sets the PDF, writes the message down, hands it to the mail server, and records the
 * answer. Pressing twice sends once.
 */
export async function sendOrder(setting: Setting, input: z.input<typeof sendInput>): Promise<Outcome<Sent>> {
  const papers = await setPapers(setting, input.orderId);
  const prepared = await prepareSending(setting, { ...input, papers });
  if (prepared.status !== 'done') return prepared;
  const messageId = prepared.value;
  const running = onTheirWay.get(messageId) ?? handOver(setting, messageId);
  onTheirWay.set(messageId, running);
  return running.finally(() => onTheirWay.delete(messageId));
}

async function setPapers({ db, clock }: Setting, orderId: number): Promise<Papers> {
  const paper = await loadPaper(db, orderId, clock.today(), true);
  return paper === undefined
    ? { pdf: Buffer.alloc(0), name: '' }
    : { pdf: await purchaseOrderPdf(paper), name: `${paper.number}.pdf` };
}

async function handOver(setting: Setting, messageId: number): Promise<Outcome<Sent>> {
  const { db, post } = setting;
  const message = await db('message').where({ id: messageId }).first();
  if (message === undefined) throw new Error(`Message ${messageId} is gone.`);
  const { recipient, raw, answer, state } = message;
  if (state !== 'sending') {
    const order = await findOrder(db, message.aboutId);
    return { status: 'done', value: { taken: state === 'taken', number: order?.number ?? '', recipient, answer } };
  }
  const company = await loadCompany(db);
  return recordAnswer(setting, { messageId, ...(await post({ raw, from: company.email, to: recipient })) });
}

/** Marks an order as sent that was handed over, phoned or posted; its PDF is kept all the same. */
const recordByHand = defineAction({
  name: 'markSentByHand',
  right: 'send orders',
  input: sendInput.extend({ papers: z.custom<Papers>() }),
  run: async (work, { orderId, version, papers }) => {
    const { order, sending, supplier } = await checkSending(work, orderId, version, true);
    await keepPaper(work, orderId, papers);
    await markAsSent(work, order, moved({ ...order, state: sending }, 'send'));
    await work.audit({
      words: `Marked ${order.number} as sent by hand to ${supplier.name}`,
      subjects: subjectsOf(order),
    });
    return { number: order.number };
  },
});

export const markSentByHand = async (setting: Setting, input: z.input<typeof sendInput>) =>
  recordByHand(setting, { ...input, papers: await setPapers(setting, input.orderId) });

/** At start: a message that was under way when the program stopped may or may not have arrived. */
export async function settleInterrupted(db: Setting['db']): Promise<number> {
  const answer =
    'Kettle Tab was stopped while this was being sent, so it may have arrived. Ask the supplier before sending it again.';
  return db.transaction(async (trx) => {
    const interrupted = await trx('purchaseOrder').where({ state: 'sending' });
    for (const order of interrupted) await setState(trx, order, backFrom(order));
    return trx('message').where({ state: 'sending' }).update({ state: 'failed', answer }) as Promise<number>;
  });
}
