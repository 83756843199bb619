import { z } from 'zod';
import { may } from '@/core/people/rights';
import { receiveFault, takeBackFault } from '@/core/orders/rules';
import { progressOf } from '@/core/orders/states';
import { formatQuantity, NONE, quantity, type Quantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import { giveBack, receive as allot, type Allotment } from '@/core/receiving/receive';
import { refreshHeld } from '@/store/invoices';
import { neededDays } from '@/store/needs';
import { findOrder, refreshProgress, type StoredLine } from '@/store/orders';
import { insertMany, insertOne, nextCount } from '@/store/rows';
import { restingOn } from '@/store/stock';
import { arrivalFields, noteField } from '@/core/records/delivery';
import { distinct } from '@/core/records/fields';
import { defineAction, found, once, Refused, refuse, type Work } from './action';
import { allow, orderOf, orderRef, subjectsOf } from './orders';

/** Takes in a delivery against an order: parts of lines, as often as they come. */
export const receive = defineAction({
  name: 'receive',
  right: 'receive',
  input: z.object({
    once,
    ...orderRef,
    note: noteField,
    arrivals: z
      .array(arrivalFields)
      .max(1000)
      .refine(distinct('lineId'), 'A line arrives twice in one delivery. Add the two up.'),
  }),
  run: async (work, { orderId, version, note, arrivals }) => {
    const { trx, audit, touch } = work;
    const order = await orderOf(work, orderId, version);
    allow(receiveFault(order));
    if (arrivals.length === 0) refuse('receive.none', 'Say how much arrived of at least one line.');
    const needs = order.lines.flatMap((l) => l.splits.flatMap((s) => s.needId ?? []));
    const neededOn = await neededDays(trx, needs);
    const results = arrivals.map(({ lineId, arrives, keepOver }) => {
      const line = found(
        order.lines.find((l) => l.id === lineId),
        'A line of this order',
      );
      const splits = [...line.splits]
        .sort((a, b) => neededOn(a.needId).localeCompare(neededOn(b.needId)) || a.place - b.place)
        .map((s) => ({ splitId: s.id, ordered: s.quantity, received: s.received }));
      const { description, kind, unit, factor, quantity: ordered, received } = line;
      const ended = line.closedShort !== null || line.billsEnded !== null;
      const of = { description, kind, unit, factor, ordered, received, splits, closedShort: ended };
      return { line, arrives, result: allot({ ...of, arrives, keepOver }) };
    });
    const faults = results.flatMap(({ line, result }) =>
      result.ok ? [] : result.refusals.map((r) => ({ ...r, field: `arrivals.${line.id}` })),
    );
    if (faults.length > 0) throw new Refused(faults);
    const number = `R-${String(await nextCount(trx, 'receipt')).padStart(5, '0')}`;
    const allotted = results.flatMap(({ result }) => (result.ok ? result.value : []));
    const lines = results.map(({ line, arrives }) => ({ lineId: line.id, accepted: arrives }));
    const id = await takeIn(work, { orderId, number, note }, lines, allotted);
    const state = await refreshProgress(trx, orderId);
    await refreshHeld(trx, orderId);
    touch(
      'Received',
      'receipt',
      id,
      allotted.map((a) => a.splitId),
    );
    const what = results.map(({ line, arrives }) => said(line, arrives));
    await audit({
      words: `Took in ${what.slice(0, 3).join(', ')}${what.length > 3 ? ` and ${what.length - 3} more` : ''} on ${order.number} (${number})`,
      subjects: [['receipt', id], ...subjectsOf(order)],
      after: { note, arrivals },
    });
    return { number, state };
  },
});

const said = (line: StoredLine, q: Quantity): string =>
  [formatQuantity(q), unitOf(line.unit).short, line.description].filter(Boolean).join(' ');

/** Writes a receipt, and what it brings, on its lines and splits. */
async function takeIn(
  { trx, actor, today, now }: Work,
  head: { orderId: number; number: string; note: string; reversesId?: number },
  lines: readonly { readonly lineId: number; readonly accepted: Quantity }[],
  allotted: readonly Allotment[],
): Promise<number> {
  const receiptId = await insertOne(trx, 'receipt', { ...head, personId: actor.id, day: today, at: now });
  await insertMany(
    trx,
    'receiptLine',
    lines.map((l) => ({ receiptId, ...l })),
  );
  await insertMany(
    trx,
    'receiptSplit',
    allotted.map((a) => ({ receiptId, ...a })),
  );
  for (const { lineId, accepted } of lines)
    await trx('orderLine').where({ id: lineId }).increment('received', accepted);
  for (const { splitId, quantity: q } of allotted) await trx('split').where({ id: splitId }).increment('received', q);
  return receiptId;
}

/** Takes a receipt back that was made by mistake: what it brought is due again. */
export const takeBack = defineAction({
  name: 'takeBack',
  right: 'receive',
  input: z.object({ once, receiptId: z.number().int() }),
  run: async (work, { receiptId }) => {
    const { trx, actor, audit, touch } = work;
    const receipt = found(await trx('receipt').where({ id: receiptId }).first(), 'This receipt');
    const order = found(await findOrder(trx, receipt.orderId), 'This order');
    const [came, parts] = [
      await trx('receiptLine').where({ receiptId }),
      await trx('receiptSplit').where({ receiptId }),
    ];
    const back =
      receipt.reversesId !== null || (await trx('receipt').where({ reversesId: receiptId }).first('id')) !== undefined;
    const own = order.lines.filter((l) => came.some((c) => c.lineId === l.id));
    allow(
      takeBackFault(
        { number: receipt.number, back },
        own.map((l) => ({ ...progressOf(l), description: l.description })),
        may(actor, 'match invoices'),
      ),
    );
    const given = own.flatMap(({ id: lineId, factor, received, splits }) => {
      const back = came.find((c) => c.lineId === lineId)?.accepted ?? NONE;
      const had = splits.map((s) => ({
        splitId: s.id,
        received: s.received,
        came: parts.find((p) => p.splitId === s.id)?.quantity ?? NONE,
      }));
      return giveBack({ factor, received, came: back, splits: had });
    });
    const resting = await restingOn(trx, given);
    if (resting.length > 0)
      refuse(
        'receipt.stock',
        `${resting.join(', ')} came into stores with ${receipt.number}, and was issued, counted or reserved since. Put the stock right by a count instead.`,
      );
    const id = await takeIn(
      work,
      {
        orderId: receipt.orderId,
        number: `${receipt.number}-back`,
        note: `Takes back ${receipt.number}`,
        reversesId: receiptId,
      },
      came.map((c) => ({ lineId: c.lineId, accepted: quantity(-c.accepted) })),
      given.map((g) => ({ splitId: g.splitId, quantity: quantity(-g.quantity) })),
    );
    await refreshProgress(trx, receipt.orderId);
    await refreshHeld(trx, receipt.orderId);
    touch(
      'Receipt taken back',
      'receipt',
      id,
      given.map((g) => g.splitId),
    );
    await audit({
      words: `Took receipt ${receipt.number} on ${order.number} back`,
      subjects: [['receipt', receiptId], ...subjectsOf(order)],
    });
  },
});
