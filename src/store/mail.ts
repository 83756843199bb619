import { MAIL_WORDS, type MailKind, type MailText } from '@/core/orders/mail';
import type { Db } from './db';

/** Whom an order to a supplier goes to: its own address, and everybody there who gets orders. */
export async function recipientsOf(db: Db, supplierId: number): Promise<string[]> {
  const supplier = await db('supplier').where({ id: supplierId }).first('email');
  const people = await db('supplierContact').where({ supplierId, getsOrders: 1 }).orderBy('place').select('email');
  const all = [supplier?.email ?? '', ...people.map((p) => p.email)].filter((e) => e !== '');
  return [...new Map(all.map((e) => [e.toLowerCase(), e])).values()];
}

/** The words of a mail to a supplier: its own, the company's, or those that come with Kettle Tab. */
export async function mailWordsFor(db: Db, supplierId: number, kind: MailKind): Promise<MailText> {
  const [own] = await db('mailWords')
    .where({ kind })
    .where((w) => w.where({ supplierId }).orWhereNull('supplierId'))
    .orderByRaw('supplier_id is null')
    .limit(1)
    .select('subject', 'body');
  return own ?? MAIL_WORDS[kind];
}
