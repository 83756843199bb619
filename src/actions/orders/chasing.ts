import { z } from 'zod';
import { owedOf } from '@/core/orders/chasing';
import { recipientsOf } from '@/store/mail';
import { findOrder } from '@/store/orders';
import { defineAction, found, grant, once, refuse } from '../action';
import { beginMail } from './mailing';
import { orderSubjects } from './orders';

/** Begins to ask a supplier when what it owes comes. The order stays as it is. */
export const beginChasing = defineAction({
  name: 'beginChasing',
  internal: true,
  right: 'send orders',
  input: z.object({ once, orderId: z.number().int() }),
  run: async (work, { orderId }) => {
    const { trx, today, audit } = work;
    const order = found(await findOrder(trx, orderId), 'This order');
    const supplier = found(await trx('supplier').where({ id: order.supplierId }).first('name'), 'The supplier');
    const recipients = await recipientsOf(trx, order.supplierId);
    if (recipients.length === 0)
      refuse('supplier.email', `${supplier.name} has no email address. Add one under Suppliers, or phone them.`);
    const owed = grant(owedOf(order, today));
    const message = await beginMail(work, order, 'chase', recipients, owed);
    await audit({ words: `Chasing ${supplier.name} for order ${order.number}`, subjects: orderSubjects(order) });
    return message;
  },
});
