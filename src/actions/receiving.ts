import { z } from 'zod';
import { OPEN_AT_SUPPLIER } from '@/core/orders/states';
import { addQ, formatQuantity, ONE, quantity, quantitySchema } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import { receive as allot, type Allotment } from '@/core/receiving/receive';
import { groupBy } from '@/core/group';
import { refreshHeld } from '@/store/invoices';
import { postOrder } from '@/store/ledger';
import { findOrder, refreshProgress, type StoredLine } from '@/store/orders';
import { insertOne, nextCount } from '@/store/rows';
import { defineAction, distinct, found, once, Refused, refuse } from './action';
import { orderOf, orderRef, subjectsOf } from './orders';

const arrivalInput = z.object({ lineId: z.number().int(), arrives: quantitySchema, keepOver: z.boolean() });

/** Takes in a delivery against an order: parts of lines, as often as they come. */
export const receive = defineAction({
  name: 'receive',
  right: 'receive',
  input: z.object({
    once,
    ...orderRef,
    note: z.string().trim().max(80),
    arrivals: z
      .array(arrivalInput)
      .max(1000)
      .refine(distinct('lineId'), 'A line arrives twice in one delivery. Add the two up.'),
  }),
  run: async (work, { orderId, version, note, arrivals }) => {
    const { trx, actor, today, now, audit, happening } = work;
    const order = await orderOf(work, orderId, version);
    if (!OPEN_AT_SUPPLIER.includes(order.state))
      refuse('order.state', `Order ${order.number} is not with its supplier, so nothing can be taken in against it.`);
    if (arrivals.length === 0) refuse('receive.none', 'Say how much arrived of at least one line.');
    const needed = await neededDays(trx, order.lines);
    const results = arrivals.map(({ lineId, arrives, keepOver }) => {
      const line = found(
        order.lines.find((l) => l.id === lineId),
        'A line of this order',
      );
      if (unitOf(line.unit).whole === true && arrives % ONE !== 0)
        return {
          lineId,
          result: {
            ok: false as const,
            refusals: [
              { code: 'receive.whole', message: `${line.description}: a ${unitOf(line.unit).name} cannot be divided.` },
            ],
          },
        };
      const splits = [...line.splits]
        .sort(
          (a, b) =>
            (needed.get(a.needId ?? 0) ?? '9999').localeCompare(needed.get(b.needId ?? 0) ?? '9999') || a.id - b.id,
        )
        .map((s) => ({ splitId: s.id, ordered: s.quantity, received: s.received }));
      return {
        lineId,
        result: allot({
          description: line.description,
          kind: line.kind,
          closedShort: line.closedShort !== null,
          splits,
          arrives,
          keepOver,
        }),
      };
    });
    const faults = results.flatMap(({ lineId, result }) =>
      result.ok ? [] : result.refusals.map((r) => ({ ...r, field: `arrivals.${lineId}` })),
    );
    if (faults.length > 0) throw new Refused(faults);
    const allotted = results.flatMap(({ result }) => (result.ok ? result.value : []));
    const number = `R-${String(await nextCount(trx, 'receipt')).padStart(5, '0')}`;
    const id = await insertOne(trx, 'receipt', { orderId, number, note, personId: actor.id, day: today, at: now });
    await takeIn(trx, id, allotted);
    const state = await refreshProgress(trx, orderId);
    await refreshHeld(trx, orderId);
    await postOrder(trx, happening('Received', 'receipt', id), orderId);
    const what = arrivals.map((a) =>
      `${formatQuantity(a.arrives)} ${unitOf(order.lines.find((l) => l.id === a.lineId)?.unit ?? 'C62').short} ${order.lines.find((l) => l.id === a.lineId)?.description ?? ''}`.replace(
        /\s+/g,
        ' ',
      ),
    );
    await audit({
      words: `Took in ${what.slice(0, 3).join(', ')}${what.length > 3 ? ` and ${what.length - 3} more` : ''} on ${order.number} (${number})`,
      subjects: [['receipt', id], ...subjectsOf(order)],
      after: { note, arrivals },
    });
    return { number, state };
  },
});

async function takeIn(
  trx: Parameters<typeof insertOne>[0],
  receiptId: number,
  allotted: readonly Allotment[],
): Promise<void> {
  for (const [splitId, own] of groupBy(allotted, (a) => a.splitId)) {
    const sum = addQ(...own.map((a) => a.quantity));
    await trx('receiptSplit').insert({ receiptId, splitId, quantity: sum });
    await trx('split').where({ id: splitId }).increment('received', sum);
  }
}

async function neededDays(
  trx: Parameters<typeof insertOne>[0],
  lines: readonly StoredLine[],
): Promise<Map<number, string>> {
  const ids = lines.flatMap((l) => l.splits.flatMap((s) => s.needId ?? []));
  const needs = (await trx('need').whereIn('id', ids).select('id', 'neededOn')) as {
    id: number;
    neededOn: string | null;
  }[];
  return new Map(needs.map((n) => [n.id, n.neededOn ?? '9999']));
}

/** Takes a receipt back that was made by mistake: what it brought is due again. */
export const takeBack = defineAction({
  name: 'takeBack',
  right: 'receive',
  input: z.object({ once, receiptId: z.number().int() }),
  run: async (work, { receiptId }) => {
    const { trx, actor, today, now, audit, happening } = work;
    const receipt = found(
      (await trx('receipt').where({ id: receiptId }).first()) as { orderId: number; number: string } | undefined,
      'This receipt',
    );
    const order = found(await findOrder(trx, receipt.orderId), 'This order');
    const parts = (await trx('receiptSplit').where({ receiptId })) as { splitId: number; quantity: number }[];
    const number = `${receipt.number}-back`;
    if (parts.some((p) => p.quantity < 0) || (await trx('receipt').where({ number }).first('id')))
      refuse('receipt.back', `Receipt ${receipt.number} was taken back already.`);
    if (order.lines.some((l) => l.closedShort !== null))
      refuse('receipt.closed', `A line of ${order.number} was closed short since, so the receipt stays.`);
    const id = await insertOne(trx, 'receipt', {
      orderId: receipt.orderId,
      number,
      note: `Takes back ${receipt.number}`,
      personId: actor.id,
      day: today,
      at: now,
    });
    await takeIn(
      trx,
      id,
      parts.map((p) => ({ splitId: p.splitId, quantity: quantity(-p.quantity) })),
    );
    await refreshProgress(trx, receipt.orderId);
    await refreshHeld(trx, receipt.orderId);
    await postOrder(trx, happening('Receipt taken back', 'receipt', id), receipt.orderId);
    await audit({
      words: `Took receipt ${receipt.number} on ${order.number} back`,
      subjects: [['receipt', receiptId], ...subjectsOf(order)],
    });
  },
});
