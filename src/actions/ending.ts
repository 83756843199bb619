import { z } from 'zod';
import { callOffFault, closeShortFault, endBillsFault, endedAt, type Facts } from '@/core/orders/rules';
import { progressOf } from '@/core/orders/states';
import { text } from '@/core/records/fields';
import type { Refusal } from '@/core/result';
import { factsOf, refreshProgress, setState, tabLinesOf, type StoredLine, type StoredOrder } from '@/store/orders';
import { defineAction, found, once, type Work } from './action';
import { allow, moved, orderOf, orderRef, subjectsOf } from './orders';

/** Calls an order off before anything of it was received or billed; what it covered is to buy again. */
export const callOff = defineAction({
  name: 'callOff',
  right: 'draft orders',
  input: z.object({ once, ...orderRef, reason: text(200, 'Say why the order is called off.') }),
  run: async (work, { orderId, version, reason }) => {
    const order = await orderOf(work, orderId, version);
    allow(callOffFault(await factsOf(work.trx, order)));
    await setState(work.trx, order, { state: moved(order, 'callOff') });
    work.touch('Order called off', 'order', orderId, tabLinesOf(order));
    await work.audit({
      words: `Called off ${order.number}: ${reason}`,
      subjects: subjectsOf(order),
      before: { state: order.state },
      after: { state: 'calledOff', reason },
    });
  },
});

const lineEnd = z.object({
  once,
  ...orderRef,
  lineId: z.number().int(),
  reason: text(200, 'Say why nothing more is expected.'),
});

/** Ends a line: the rule is asked, the reason written down, and the line posted. */
async function endLine(
  work: Work,
  { orderId, version, lineId, reason }: z.output<typeof lineEnd>,
  end: {
    readonly column: 'closedShort' | 'billsEnded';
    readonly event: string;
    readonly fault: (facts: Facts, line: Facts['lines'][number]) => Refusal | undefined;
    readonly words: (line: StoredLine, order: StoredOrder) => string;
  },
): Promise<void> {
  const { trx, audit, touch } = work;
  const order = await orderOf(work, orderId, version);
  const line = found(
    order.lines.find((l) => l.id === lineId),
    'This line',
  );
  allow(end.fault(await factsOf(trx, order), { ...progressOf(line), description: line.description }));
  await trx('orderLine')
    .where({ id: lineId })
    .update({ [end.column]: reason });
  await refreshProgress(trx, orderId);
  touch(end.event, 'order', orderId, tabLinesOf({ lines: [line] }));
  await audit({
    words: `${end.words(line, order)}: ${reason}`,
    subjects: subjectsOf(order),
    after: { lineId, [end.column]: reason },
  });
}

/** Ends a line of a sent order with quantity left; what is left is free again and back on the buy list. */
export const closeShort = defineAction({
  name: 'closeShort',
  right: 'send orders',
  input: lineEnd,
  run: (work, input) =>
    endLine(work, input, {
      column: 'closedShort',
      event: 'Line closed short',
      fault: closeShortFault,
      words: (line, order) =>
        `Closed ${line.description} short on ${order.number} at ${endedAt({ ...progressOf(line), description: '' })}`,
    }),
});

/** Says that goods which are in will not be billed any more, such as what came over and was given away. */
export const endBills = defineAction({
  name: 'endBills',
  right: 'match invoices',
  input: lineEnd,
  run: (work, input) =>
    endLine(work, input, {
      column: 'billsEnded',
      event: 'No more bills',
      fault: endBillsFault,
      words: (line, order) => `No more bills for ${line.description} on ${order.number}`,
    }),
});
