import { z } from 'zod';
import { isGtin } from '@/core/find/gtin';
import { arrivalFields, deliveryFields } from '@/core/records/delivery';
import { distinct, text } from '@/core/records/fields';
import { defineAction, found, once, refuse } from '../action';
import { orderOf, orderRef } from '../orders/orders';
import { takeDelivery } from './receiving';

/** Takes in what was scanned: a delivery of each order, all of them or none. */
export const receiveTally = defineAction({
  name: 'receiveTally',
  right: 'receive',
  input: z.object({
    once,
    note: deliveryFields.note,
    deliveries: z
      .array(z.object({ ...orderRef, arrivals: z.array(arrivalFields).min(1).max(1000).refine(distinct('lineId')) }))
      .min(1, 'Scan at least one item first.')
      .max(100, 'You can receive up to 100 orders at a time.')
      .refine(distinct('orderId'), 'The same order appears twice. Scan again.'),
  }),
  run: async (work, { note, deliveries }) => {
    const taken = [];
    for (const { orderId, version, arrivals } of deliveries) {
      const order = await orderOf(work, orderId, version);
      const head = { note, day: null, carrier: '', packages: null, placeId: null };
      taken.push({ ...(await takeDelivery(work, order, { ...head, arrivals })), order: order.number });
      // What came with one is there before the next: a serial number is not taken in with two.
      await work.settle();
    }
    return taken.map(({ number, order }) => ({ number, order }));
  },
});

/** Ties a code that was read to a part: its GTIN, or what a supplier calls it. */
export const linkCode = defineAction({
  name: 'linkCode',
  right: 'receive',
  input: z.object({
    once,
    code: text(60, 'Scan or type a code.'),
    itemId: z.number().int(),
    /** Whose number it is, where it is no GTIN. */
    supplierId: z.number().int().nullable(),
  }),
  run: async ({ trx, audit }, { code, itemId, supplierId }) => {
    const item = found(await trx('item').where({ id: itemId }).first(), 'This item');
    const gtin = isGtin(code);
    if (gtin) {
      const other = await trx('item').where({ gtin: code }).whereNot({ id: itemId }).first('number');
      if (other !== undefined) refuse('code.taken', `${code} is already the GTIN of ${other.number}.`);
      if (item.gtin !== null && item.gtin !== code)
        refuse('code.other', `${item.number} has the GTIN ${item.gtin}. Change it on the item.`);
      await trx('item')
        .where({ id: itemId })
        .update({ gtin: code, version: item.version + 1 });
    } else {
      const part = await trx('supplierPart')
        .where({ itemId, ...(supplierId === null ? {} : { supplierId }) })
        .orderBy('id')
        .first();
      if (part === undefined)
        return refuse('code.supplier', `${item.number} has no supplier yet. Add one, then link the code.`);
      if (part.theirNumber !== '' && part.theirNumber !== code)
        refuse(
          'code.other',
          `${item.number} already has supplier’s item no. ${part.theirNumber}. Change it on the item.`,
        );
      await trx('supplierPart')
        .where({ id: part.id })
        .update({ theirNumber: code, version: part.version + 1 });
    }
    await audit({
      words: `Linked code ${code} to ${item.number}`,
      subjects: [['item', itemId]],
      before: { code: gtin ? item.gtin : '' },
      after: { code },
    });
    return { id: itemId };
  },
});
