import { z } from 'zod';
import { rechargeFault } from '@/core/orders/rules';
import { text } from '@/core/records/fields';
import { findOrder, loadMoney, tabLinesOf } from '@/store/orders';
import { putByFor, rechargedLines, rechargeSplits } from '@/store/recharging';
import { findRevision } from '@/workings/orders/revise';
import { whereIn } from '@/store/rows';
import { movedOn } from '@/store/stock/gaps';
import { defineAction, found, once, refuse } from '../action';
import { allow, orderOf, orderRef, orderSubjects } from './orders';
import { checkOrderable } from './reviews';
import { checkCharged } from '../signoff/signOff';

/**
 * Charges lines of an order to another job or cost code, or to a job that is still quoted, also after it was sent, received or invoiced. What they covered
 * on a buy list of another job they cover no more; their postings move with them.
 */
export const chargeElsewhere = defineAction({
  name: 'chargeElsewhere',
  right: 'send orders',
  input: z.object({
    once,
    ...orderRef,
    splits: z
      .array(z.object({ id: z.number().int(), jobId: z.number().int(), costCodeId: z.number().int() }))
      .min(1, 'Choose the lines whose charge moves.')
      .max(1000),
    reason: text(200, 'Give a reason for moving the charge.'),
  }),
  run: async (work, { orderId, version, splits, reason }) => {
    const { trx, audit, touch } = work;
    const order = await orderOf(work, orderId, version);
    if ((await findRevision(trx, orderId)) !== undefined)
      refuse(
        'revise.begun',
        `Order ${order.number} is being revised. Change the charge in the revision, or discard it first.`,
      );
    for (const { id } of splits) {
      const line = found(
        order.lines.find((l) => l.splits.some((s) => s.id === id)),
        'A split of this order',
      );
      allow(rechargeFault(order, line, id));
    }
    const jobIds = splits.map((s) => s.jobId);
    // It may be what a quote is reckoned on, whose job is not won yet.
    const quoted = new Set(
      (await whereIn(trx, 'job', 'id', jobIds)).filter((j) => j.state === 'quoted').map((j) => j.id),
    );
    await checkOrderable(
      trx,
      jobIds.filter((id) => !quoted.has(id)),
    );
    const putBy = await putByFor(
      trx,
      splits.map((s) => s.id),
    );
    if (putBy.length > 0)
      refuse('split.reserved', `Some of it is reserved for ${putBy.join(', ')}. Unreserve that first.`);
    const gone = await movedOn(
      trx,
      splits.map((s) => s.id),
    );
    if (gone.length > 0)
      refuse(
        'split.issued',
        `${gone.join(', ')} has been issued or moved on since it was received. Return it to stores, or transfer it there.`,
      );
    const lines = await rechargedLines(trx, order, splits, await loadMoney(trx));
    await checkCharged(work, order, lines);
    await rechargeSplits(trx, lines);
    const after = found(await findOrder(trx, orderId), 'This order');
    touch('Charge moved', 'order', orderId, [...tabLinesOf(order), ...tabLinesOf(after)]);
    const jobs = await whereIn(trx, 'job', 'id', jobIds);
    await audit({
      words: `Moved charge for ${splits.length === 1 ? 'a line' : `${splits.length} lines`} of order ${order.number} to ${jobs.map((j) => j.number).join(', ')}: ${reason}`,
      subjects: [...orderSubjects(order), ...orderSubjects(after)],
      before: order,
      after,
    });
  },
});
