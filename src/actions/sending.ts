import { z } from 'zod';
import { sendingFaults } from '@/core/orders/order';
import { compose } from '@/formats/mail/compose';
import { purchaseOrderPdf } from '@/formats/pdf/purchaseOrder';
import { postOrder } from '@/store/ledger';
import { findOrder, setState } from '@/store/orders';
import { loadPaper } from '@/store/paper';
import { insertOne } from '@/store/rows';
import { defineAction, found, once, Refused, refuse, type Outcome, type Setting, type Work } from './action';
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
  moved(order, 'send');
  if (await work.trx('message').where({ orderId, state: 'sending' }).first('id'))
    refuse('order.sending', `Order ${order.number} is being sent just now.`);
  const supplier = (await work.trx('supplier').where({ id: order.supplierId }).first('name', 'email')) as {
    name: string;
    email: string | null;
  };
  const faults = sendingFaults(order.lines, byHand ? '' : supplier.email);
  if (faults.length > 0) throw new Refused(faults);
  return { order, supplier };
}

type Papers = { pdf: Buffer; name: string };

/** Writes the message down before it goes, so that what happened to it is known whatever comes. */
const prepareSending = defineAction({
  name: 'prepareSending',
  right: 'send orders',
  input: sendInput.extend({ papers: z.custom<Papers>() }),
  run: async (work, { orderId, version, papers }) => {
    const { trx, actor, now, company } = work;
    const { order, supplier } = await checkSending(work, orderId, version, false);
    const documentId = await insertOne(trx, 'document', {
      orderId,
      name: papers.name,
      type: 'application/pdf',
      bytes: papers.pdf,
      at: now,
    });
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
    return insertOne(trx, 'message', {
      orderId,
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
    const message = found(
      (await trx('message').where({ id: messageId }).first()) as { orderId: number; recipient: string } | undefined,
      'This message',
    );
    const order = found(await findOrder(trx, message.orderId), 'This order');
    await trx('message')
      .where({ id: messageId })
      .update({ state: taken ? 'taken' : 'failed', answer });
    if (taken) await markAsSent(work, message.orderId);
    const words = taken
      ? `Sent ${order.number} to ${message.recipient}`
      : `Could not send ${order.number} to ${message.recipient}: ${answer}`;
    await audit({ words, subjects: subjectsOf(order), after: { answer } });
    return { taken, number: order.number, recipient: message.recipient, answer };
  },
});

async function markAsSent({ trx, today, happening }: Work, orderId: number): Promise<void> {
  const order = found(await findOrder(trx, orderId), 'This order');
  await setState(trx, order, { state: moved(order, 'send'), sentOn: today });
  await postOrder(trx, happening('Order sent', 'order', orderId), orderId);
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
  const message = (await setting.db('message').where({ id: messageId }).first()) as {
    state: string;
    raw: Buffer;
    recipient: string;
    answer: string;
    orderId: number;
  };
  if (message.state !== 'sending') {
    const order = await findOrder(setting.db, message.orderId);
    return {
      status: 'done',
      value: {
        taken: message.state === 'taken',
        number: order?.number ?? '',
        recipient: message.recipient,
        answer: message.answer,
      },
    };
  }
  const company = (await setting.db('company').first('email')) as { email: string };
  const { taken, answer } = await setting.post({ raw: message.raw, from: company.email, to: message.recipient });
  return recordAnswer(setting, { messageId, taken, answer });
}

/** Marks an order as sent that was handed over, phoned or posted; its PDF is kept all the same. */
const recordByHand = defineAction({
  name: 'markSentByHand',
  right: 'send orders',
  input: sendInput.extend({ papers: z.custom<Papers>() }),
  run: async (work, { orderId, version, papers }) => {
    const { order, supplier } = await checkSending(work, orderId, version, true);
    await insertOne(work.trx, 'document', {
      orderId,
      name: papers.name,
      type: 'application/pdf',
      bytes: papers.pdf,
      at: work.now,
    });
    await markAsSent(work, orderId);
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
  return db('message').where({ state: 'sending' }).update({ state: 'failed', answer });
}
