import { WAITING } from '@/core/invoices/states';
import { AWAITED, BILLABLE, JOINABLE } from '@/core/orders/states';
import { may } from '@/core/people/rights';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';

/** What a person most likely does next, and where. */
export type NextAct = { readonly words: string; readonly href: string };

/** After an invoice is matched: the next that waits, the longest first. */
export async function nextInvoice(db: Db, person: Person, invoiceId: number): Promise<NextAct | undefined> {
  if (!may(person, 'match invoices')) return undefined;
  const next = await db('invoice')
    .whereIn('state', WAITING)
    .whereNot({ id: invoiceId })
    .orderBy('id')
    .first('id', 'number');
  return next && { words: `Next invoice ${next.number}`, href: `/invoices/${next.id}` };
}

/** After an order has gone: the next that is still drafted, the oldest first. */
export async function nextDraft(db: Db, person: Person, orderId: number): Promise<NextAct | undefined> {
  if (!may(person, 'send orders')) return undefined;
  const next = await db('purchaseOrder')
    .whereIn('state', JOINABLE)
    .whereNot({ id: orderId })
    .orderBy('id')
    .first('number');
  return next && { words: `Next draft ${next.number}`, href: `/orders/${next.number}` };
}

/** When all of an order is in: its invoice, for who enters those, else the delivery that is awaited next. */
export async function nextAtDock(
  db: Db,
  person: Person,
  order: { readonly id: number; readonly number: string; readonly state: string },
): Promise<NextAct | undefined> {
  const invoiced = await db('invoice').where({ orderId: order.id }).whereNot({ state: 'takenOut' }).first('id');
  if (may(person, 'enter invoices') && invoiced === undefined && BILLABLE.some((s) => s === order.state))
    return { words: 'Enter its invoice', href: `/invoices/new?order=${order.number}` };
  const next = await db('purchaseOrder')
    .whereIn('state', AWAITED)
    .whereNot({ id: order.id })
    .orderByRaw("coalesce(wanted_on, '9999'), id")
    .first('number');
  return next && { words: `Next delivery ${next.number}`, href: `/dock/${next.number}` };
}
