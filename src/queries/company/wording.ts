import type { Day } from '@/core/calendar/workdays';
import { MAIL_WORDS, type MailKind, type MailText } from '@/core/orders/mail';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';
import type { TextBlock } from '@/store/tables';
import { permit } from '../permit';
import { loadChoice, type Choice } from '../frame/choices';

export type WordingView = {
  /** Whose mails they are; null for the company's own. */
  readonly supplier: Choice | null;
  /** What is said here, where anything is, and what holds without it. */
  readonly mails: Readonly<Record<MailKind, { readonly own: MailText | null; readonly else: MailText }>>;
  readonly blocks: readonly (Pick<TextBlock, 'id' | 'words' | 'jobKind'> & { readonly supplier: Choice | null })[];
};

/** The words of mails about orders, the company's or one supplier's, and the words that stand on orders. */
export async function loadWording(db: Db, person: Person, supplierId: number | null, today: Day): Promise<WordingView> {
  permit(person, 'keep suppliers');
  const said = await db('mailWords')
    .where((w) => w.whereNull('supplierId').orWhere({ supplierId: supplierId ?? 0 }))
    .select('supplierId', 'kind', 'subject', 'body');
  const of = (kind: MailKind) => {
    const own = said.find((s) => s.kind === kind && s.supplierId === supplierId);
    const ours = supplierId === null ? undefined : said.find((s) => s.kind === kind && s.supplierId === null);
    const text = (m: MailText) => ({ subject: m.subject, body: m.body });
    return { own: own === undefined ? null : text(own), else: text(ours ?? MAIL_WORDS[kind]) };
  };
  const blocks = await db('textBlock').orderBy('place');
  const view = [];
  for (const { id, words, jobKind, supplierId: to } of blocks)
    view.push({ id, words, jobKind, supplier: await loadChoice(db, person, 'supplier', to, today) });
  return {
    supplier: await loadChoice(db, person, 'supplier', supplierId, today),
    mails: { order: of('order'), revision: of('revision'), chase: of('chase') },
    blocks: view,
  };
}
