import type { Day } from '@/core/calendar/workdays';
import { owedOf } from '@/core/orders/chasing';
import type { Db } from '@/store/db';
import { recipientsOf } from '@/store/mail';
import { findOrder } from '@/store/orders';
import type { Person } from '@/store/people';
import { wordMail, type OrderMail } from '@/workings/orders/mail';
import { permit } from '../permit';

/** The mail that asks a supplier after an order, to be read before it goes; or why there is nothing to ask. */
export type ChaseMail =
  (OrderMail & { readonly recipients: readonly string[]; readonly refused?: never }) | { readonly refused: string };

/** @returns undefined for an order that is not there */
export async function loadChase(db: Db, actor: Person, number: string, today: Day): Promise<ChaseMail | undefined> {
  permit(actor, 'send orders');
  const found = await db('purchaseOrder').where({ number }).first('id');
  const order = found && (await findOrder(db, found.id));
  if (order === undefined) return undefined;
  const owed = owedOf(order, today);
  if (!owed.ok) return { refused: owed.refusals.map((r) => r.message).join(' ') };
  const recipients = await recipientsOf(db, order.supplierId);
  return { ...(await wordMail(db, order, 'chase', { actor, today }, owed.value)), recipients };
}
