import { z } from 'zod';
import { groupBy } from '@/core/group';
import {
  cancelFault,
  closeShortFault,
  draftAgainFault,
  endInvoicesFault,
  endedAt,
  openAgainFault,
  type Facts,
} from '@/core/orders/rules';
import { progressOf } from '@/core/orders/states';
import { text } from '@/core/records/fields';
import type { Refusal } from '@/core/result';
import { factsOf, refreshProgress, setState, tabLinesOf, type StoredLine, type StoredOrder } from '@/store/orders';
import { whereIn } from '@/store/rows';
import { defineAction, found, once, refuse, type Work } from '../action';
import { checkLive } from '../jobs/jobs';
import { allow, moved, orderOf, orderRef, orderSubjects } from './orders';
import { checkOrderable } from './reviews';

/** Calls an order off before anything of it was received or invoiced; what it covered is to buy again. */
export const cancelOrder = defineAction({
  name: 'cancelOrder',
  right: 'draft orders',
  input: z.object({ once, ...orderRef, reason: text(200, 'Give a reason for cancelling the order.') }),
  run: async (work, { orderId, version, reason }) => {
    const order = await orderOf(work, orderId, version);
    allow(cancelFault(await factsOf(work.trx, order)));
    await setState(work.trx, order, { state: moved(order, 'cancel') });
    work.touch('Order cancelled', 'order', orderId, tabLinesOf(order));
    await work.audit({
      words: `Cancelled order ${order.number}: ${reason}`,
      subjects: orderSubjects(order),
      before: { state: order.state },
      after: { state: 'cancelled', reason },
    });
  },
});

const lineEnd = z.object({
  once,
  ...orderRef,
  lineId: z.number().int(),
  reason: text(200, 'Give a reason for closing it short.'),
});

/** Ends a line: the rule is asked, the reason written down, and the line posted. */
async function endLine(
  work: Work,
  { orderId, version, lineId, reason }: z.output<typeof lineEnd>,
  end: {
    readonly column: 'closedShort' | 'invoicesEnded';
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
    subjects: orderSubjects(order),
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
        `Closed ${line.description} short on order ${order.number} at ${endedAt({ ...progressOf(line), description: '' })}`,
    }),
});

/** Says that goods which are in will not be invoiced any more, such as what came over and was given away. */
export const endInvoices = defineAction({
  name: 'endInvoices',
  right: 'match invoices',
  input: lineEnd,
  run: (work, input) =>
    endLine(work, input, {
      column: 'invoicesEnded',
      event: 'No more invoices',
      fault: endInvoicesFault,
      words: (line, order) => `No more invoices for ${line.description} on order ${order.number}`,
    }),
});

/** Opens a line again that was ended: what is left of it is expected once more. */
export const reopenLines = defineAction({
  name: 'reopenLines',
  right: 'send orders',
  input: lineEnd.extend({ reason: text(200, 'Give a reason for reopening it.') }),
  run: async (work, { orderId, version, lineId, reason }) => {
    const { trx, audit, touch } = work;
    const order = await orderOf(work, orderId, version);
    const line = found(
      order.lines.find((l) => l.id === lineId),
      'This line',
    );
    allow(openAgainFault(order, { ...progressOf(line), description: line.description }));
    await checkLive(
      trx,
      line.splits.flatMap((s) => s.jobId ?? []),
    );
    await trx('orderLine').where({ id: lineId }).update({ closedShort: null, invoicesEnded: null });
    await refreshProgress(trx, orderId);
    touch('Line reopened', 'order', orderId, tabLinesOf({ lines: [line] }));
    await audit({
      words: `Reopened ${line.description} on order ${order.number}: ${reason}`,
      subjects: orderSubjects(order),
      before: { lineId, closedShort: line.closedShort, invoicesEnded: line.invoicesEnded },
      after: { lineId, closedShort: null, invoicesEnded: null },
    });
  },
});

/** Drafts an order again that was cancelled before its supplier had it. */
export const draftAgain = defineAction({
  name: 'draftAgain',
  right: 'draft orders',
  input: z.object({ ...orderRef }),
  run: async (work, { orderId, version }) => {
    const { trx, audit, touch } = work;
    const order = await orderOf(work, orderId, version);
    allow(draftAgainFault(order));
    const state = moved(order, 'draftAgain');
    const splits = order.lines.flatMap((l) => l.splits);
    await checkOrderable(
      trx,
      splits.flatMap((s) => s.jobId ?? []),
    );
    const needs = new Map(
      (
        await whereIn(
          trx,
          'need',
          'id',
          splits.flatMap((s) => s.needId ?? []),
        )
      ).map((n) => [n.id, n]),
    );
    const gone = [...groupBy(splits, (s) => s.needId)].flatMap(([id, own]) => {
      const need = needs.get(id ?? 0);
      const asked = own.reduce((sum, s) => sum + s.quantity, 0);
      return need !== undefined && need.open < asked ? [need.description] : [];
    });
    if (gone.length > 0)
      refuse(
        'need.open',
        `${gone.slice(0, 3).join(', ')}: bought elsewhere since. Draft what is left to buy in Gather.`,
      );
    await setState(trx, order, { state });
    touch('Order reopened as draft', 'order', orderId, tabLinesOf(order));
    await audit({ words: `Reopened order ${order.number} as draft`, subjects: orderSubjects(order) });
  },
});
