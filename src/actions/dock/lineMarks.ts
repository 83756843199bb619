import { isGoodsLine } from '@/core/orders/kinds';
import { z } from 'zod';
import { defineAction, found, refuse } from '../action';
import { touchLine } from './papers';

/** Marks one line of an order: whether what comes of it waits to be inspected, and whether a certificate has to come with it. */
export const markLine = defineAction({
  name: 'markLine',
  right: 'receive',
  input: z.object({ lineId: z.number().int(), inspected: z.boolean(), certificate: z.boolean() }),
  run: async (work, { lineId, ...marks }) => {
    const { trx, audit } = work;
    const line = found(await trx('orderLine').where({ id: lineId }).first(), 'This line');
    if (!isGoodsLine(line)) refuse('line.kind', `${line.description} isn’t received here, so it needs neither.`);
    const after = { inspected: Number(marks.inspected), certificate: Number(marks.certificate) };
    await trx('orderLine').where({ id: lineId }).update(after);
    await touchLine(work, 'Line marked', line.orderId, lineId);
    await audit({
      words: `Set inspection and certificate marks on ${line.description}`,
      subjects: [['order', line.orderId]],
      before: { inspected: line.inspected, certificate: line.certificate },
      after,
    });
  },
});
