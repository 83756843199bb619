import { isCharge } from '@/core/orders/kinds';
import { z } from 'zod';
import { isAsConfirmed } from '@/core/orders/confirming';
import { sendingFaults } from '@/core/orders/order';
import { reviseFault } from '@/core/orders/revising';
import { progressOf, progressState } from '@/core/orders/states';
import { text } from '@/core/records/fields';
import { findOrder, loadMoney, saveLines, tabLinesOf, type StoredOrder } from '@/store/orders';
import {
  changesBetween,
  contentAsConfirmed,
  contentOf,
  findRevision,
  placesOf,
  revise,
} from '@/workings/orders/revise';
import { tellOrder } from '@/workings/orders/orderInWords';
import { refusal, type Refusal } from '@/core/result';
import { defineAction, found, grant, once, refuse, type Work } from '../action';
import {
  allow,
  checkTargets,
  orderLines,
  orderOf,
  orderRef,
  orderTerms,
  orderSubjects,
  unlessAsked,
  wroteOn,
} from './orders';

const reason = text(200, 'Give a reason for the revision.');

/** A change of what is being written of a revision is a change of its order, for whoever else writes on it. */
const nextVersion = async ({ trx }: Work, order: StoredOrder): Promise<number> => {
  const version = order.version + 1;
  await trx('purchaseOrder').where({ id: order.id }).update({ version });
  return version;
};

/** Begins a revision of an order that was sent. Nothing moves, and the supplier knows nothing, until it is sent. */
export const beginRevision = defineAction({
  name: 'beginRevision',
  right: 'draft orders',
  input: z.object({
    once,
    ...orderRef,
    reason,
    /** Begins with what the supplier confirmed, in the place of what was ordered. */
    asConfirmed: z.boolean().default(false),
  }),
  run: async (work, { orderId, version, reason: why, asConfirmed }) => {
    const { trx, actor, now, today, audit } = work;
    const order = await orderOf(work, orderId, version);
    allow(reviseFault(order));
    if ((await findRevision(trx, orderId)) !== undefined)
      refuse('revise.begun', `Order ${order.number} is already being revised.`);
    await keepSent(work, order, 'As it was first sent');
    const content = JSON.stringify(asConfirmed ? contentAsConfirmed(order) : contentOf(order));
    await trx('orderChange').insert({ orderId, reason: why, content, personId: actor.id, at: now });
    await wroteOn(work, orderId);
    await nextVersion(work, order);
    await audit({
      words: `Started revision ${order.revision + 1} of order ${order.number}: ${why}`,
      subjects: orderSubjects(order),
      after: { reason: why, day: today },
    });
  },
});

/** Changes a revision that is being written: the terms and all the lines as they are to be. */
export const changeRevision = defineAction({
  name: 'changeRevision',
  right: 'draft orders',
  input: z.object({ once, ...orderRef, ...orderTerms, lines: orderLines }),
  run: async (work, { once: _, orderId, version, ...content }) => {
    const { trx, today, audit } = work;
    const order = await orderOf(work, orderId, version, { whole: true });
    const { revision, before } = await underWay(work, order);
    await checkTargets(trx, order, content.lines);
    const after = grant(await revise(trx, order, content, today));
    await trx('orderChange')
      .where({ orderId })
      .update({ content: JSON.stringify(content) });
    await wroteOn(work, orderId);
    const next = await nextVersion(work, order);
    await audit({
      words: `Changed revision ${order.revision + 1} of order ${order.number}`,
      subjects: orderSubjects(order),
      before: before.ok ? before.value : revision.content,
      after,
    });
    return { version: next, number: order.number };
  },
});

const underWay = async ({ trx, today }: Work, order: StoredOrder) => {
  const revision = found(await findRevision(trx, order.id), 'This revision');
  allow(reviseFault(order));
  await unlessAsked(trx, order);
  return { revision, before: await revise(trx, order, revision.content, today) };
};

/** Drops a revision that is being written: what was last sent stands. */
export const dropRevision = defineAction({
  name: 'dropRevision',
  right: 'draft orders',
  input: z.object({ ...orderRef }),
  run: async (work, { orderId, version }) => {
    const order = await orderOf(work, orderId, version);
    const { revision } = await underWay(work, order);
    await work.trx('orderChange').where({ orderId }).delete();
    await nextVersion(work, order);
    await work.audit({
      words: `Discarded revision ${order.revision + 1} of order ${order.number}`,
      subjects: orderSubjects(order),
      before: revision.content,
    });
  },
});

/** What stands against sending an order as it would go out now: as it stands, or as its revision has it. */
export async function toSend({ trx, today }: Work, order: StoredOrder, email: string | null): Promise<Refusal[]> {
  const revision = await findRevision(trx, order.id);
  if (revision === undefined) return sendingFaults(order.lines, order.currency, email);
  const revised = await revise(trx, order, revision.content, today);
  if (!revised.ok) return [...revised.refusals];
  const faults = sendingFaults(revised.value.lines, order.currency, email);
  if (faults.length > 0 || (await changesBetween(trx, order, revised.value, today)).length > 0) return faults;
  return [
    refusal(
      'revise.same',
      `Revision ${order.revision + 1} of order ${order.number} has no changes yet. Change a line or a term first.`,
    ),
  ];
}

/** Keeps what was sent, in words; what is kept already stays. Its lines keep their numbers from now on. */
export async function keepSent(work: Work, order: StoredOrder, why: string): Promise<void> {
  const { trx, actor, today, now } = work;
  const { id: orderId, revision: number } = order;
  const places = await placesOf(trx, order);
  const paper = await trx('document')
    .where({ about: 'order', aboutId: orderId, role: 'paper' })
    .orderBy('id', 'desc')
    .first('id');
  const row = {
    ...{ orderId, number, reason: why, sent: JSON.stringify(tellOrder(order, places, today)) },
    ...{ documentId: paper?.id ?? null, personId: actor.id, day: order.sentOn ?? today, at: now },
  };
  await trx('orderRevision').insert(row).onConflict(['orderId', 'number']).ignore();
  const lastLine = Math.max(order.lastLine, ...order.lines.map((l) => l.number));
  await trx('purchaseOrder').where({ id: orderId }).update({ lastLine });
}

/** Brings a revision that was sent into force: the difference moves, and what the supplier said of changed lines is asked anew. */
export async function bringIntoForce(work: Work, order: StoredOrder): Promise<void> {
  const { trx, today, touch } = work;
  const { reason: why, content } = found(await findRevision(trx, order.id), 'This revision');
  const revised = grant(await revise(trx, order, content, today));
  const changes = await changesBetween(trx, order, revised, today);
  const { lines: _, ...terms } = content;
  const revision = order.revision + 1;
  await trx('purchaseOrder')
    .where({ id: order.id })
    .update({ ...terms, revision, sentFrom: null, version: order.version + 1 });
  await saveLines(trx, order, revised.lines, await loadMoney(trx));
  await trx('orderChange').where({ orderId: order.id }).delete();
  const said = new Map(order.lines.map((l) => [l.id, l]));
  const changed = changes.flatMap((c) => {
    const line = c.how === 'changed' ? revised.lines.find((l) => l.number === c.number) : undefined;
    const before = said.get(line?.id ?? 0);
    // What it confirmed already is not asked again.
    return line?.id === undefined || (before !== undefined && isAsConfirmed(line, before)) ? [] : [line.id];
  });
  await trx('orderLine').whereIn('id', changed).update({ promisedOn: null, confirmed: null, confirmedPrice: null });
  const after = found(await findOrder(trx, order.id), 'This order');
  const confirmed = after.lines.every((l) => isCharge(l) || l.confirmed !== null);
  const state = progressState(confirmed ? 'confirmed' : 'sent', after.lines.map(progressOf));
  await trx('purchaseOrder').where({ id: order.id }).update({ state });
  await keepSent(work, { ...after, sentOn: today }, why);
  touch('Revision sent', 'order', order.id, [...tabLinesOf(order), ...tabLinesOf(after)]);
}
