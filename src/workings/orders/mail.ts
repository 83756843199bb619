import type { Day } from '@/core/calendar/workdays';
import { fillIn, type MailKind, type MailText } from '@/core/orders/mail';
import { loadCompany } from '@/store/company';
import type { Db } from '@/store/db';
import { mailWordsFor } from '@/store/mail';
import type { StoredOrder } from '@/store/orders';
import type { Person } from '@/store/people';
import { outgoing, revisedWords } from './paper';

/** A mail about an order as it would go now, and to whom beside its supplier. */
export type OrderMail = MailText & { readonly copyTo: string };

/** @param lines - what it asks after or is about, a line for each */
export async function wordMail(
  db: Db,
  order: StoredOrder,
  kind: MailKind,
  { actor, today }: { readonly actor: Person; readonly today: Day },
  lines: readonly string[] = [],
): Promise<OrderMail> {
  const going = await outgoing(db, order.id, today);
  const supplier = await db('supplier').where({ id: order.supplierId }).first('name', 'contact');
  const words = fillIn(await mailWordsFor(db, order.supplierId, kind), {
    number: order.number,
    revision: String(going?.revision ?? order.revision),
    company: (await loadCompany(db)).name,
    supplier: supplier?.name ?? '',
    contact: supplier?.contact ?? '',
    buyer: actor.name,
    changes: revisedWords(going?.changes ?? []).join('\n'),
    lines: lines.join('\n'),
  });
  const person = await db('person').where({ id: actor.id }).first('email', 'copies');
  return { ...words, copyTo: person?.copies === 1 ? person.email : '' };
}
