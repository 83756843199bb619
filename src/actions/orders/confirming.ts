import { isCharge } from '@/core/orders/kinds';
import { z } from 'zod';
import { formatDay } from '@/core/calendar/workdays';
import { unitPriceSchema } from '@/core/money/schema';
import { confirmFault } from '@/core/orders/confirming';
import { quantitySchema } from '@/core/quantity/schema';
import { anyText, distinct, optionalDay } from '@/core/records/fields';
import { counted } from '@/core/words';
import { findOrder } from '@/store/orders';
import { insertMany, insertOne } from '@/store/rows';
import { defineAction, found, once, refuse } from '../action';
import { allow, orderOf, orderRef, orderSubjects } from './orders';

/** Writes down what a supplier said of an order: day, quantity and price of each line. What was ordered stays as it is. */
export const confirmOrder = defineAction({
  name: 'confirmOrder',
  right: 'send orders',
  input: z.object({
    once,
    ...orderRef,
    theirNumber: anyText(60),
    note: anyText(500),
    lines: z
      .array(
        z.object({
          lineId: z.number().int(),
          quantity: quantitySchema,
          /** For the line's price quantity. */
          price: unitPriceSchema.nullable(),
          promisedOn: optionalDay,
        }),
      )
      .min(1, 'Enter the confirmation of at least one line.')
      .max(1000)
      .refine(distinct('lineId'), 'The same line appears twice. Refresh the page and try again.'),
  }),
  run: async (work, { orderId, version, theirNumber, note, lines }) => {
    const { trx, actor, today, now, audit } = work;
    const order = await orderOf(work, orderId, version);
    allow(confirmFault(order));
    if (lines.some((l) => l.promisedOn !== null && order.sentOn !== null && l.promisedOn < order.sentOn))
      refuse(
        'confirm.day',
        `A promised date is before the order was sent (${formatDay(order.sentOn ?? today, today)}). Correct the date.`,
      );
    const head = { orderId, revision: order.revision, theirNumber, note, personId: actor.id, day: today, at: now };
    const confirmationId = await insertOne(trx, 'confirmation', head);
    await insertMany(
      trx,
      'confirmationLine',
      lines.map((l) => ({ ...l, confirmationId })),
    );
    for (const { lineId, quantity: confirmed, price: confirmedPrice, promisedOn } of lines) {
      found(
        order.lines.find((l) => l.id === lineId && !isCharge(l)),
        'A line of this order',
      );
      await trx('orderLine').where({ id: lineId }).update({ confirmed, confirmedPrice, promisedOn });
    }
    const after = found(await findOrder(trx, orderId), 'This order');
    const all = after.lines.every((l) => isCharge(l) || l.confirmed !== null);
    const state = order.state === 'sent' && all ? ('confirmed' as const) : order.state;
    await trx('purchaseOrder')
      .where({ id: orderId })
      .update({ state, theirNumber: theirNumber || order.theirNumber, version: order.version + 1 });
    await audit({
      words: `Recorded confirmation of order ${order.number}, ${counted(lines.length, 'line')}`,
      subjects: orderSubjects(order),
      after: { theirNumber, note, lines },
    });
    return { state };
  },
});
