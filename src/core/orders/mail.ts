/** What a mail about an order is for. */
export type MailKind = 'order' | 'revision' | 'chase';

export type MailText = { readonly subject: string; readonly body: string };

/** The words of a mail until the company or a supplier's page says others; what stands in braces is filled in. */
export const MAIL_WORDS: Readonly<Record<MailKind, MailText>> = {
  order: {
    subject: 'Purchase order {number} from {company}',
    body: 'Good day {contact},\n\nplease find our purchase order {number} attached.\nKindly confirm prices and delivery dates, and quote the order number on delivery notes and invoices.\n\n{buyer}\n{company}\n',
  },
  revision: {
    subject: 'Purchase order {number}, revision {revision}, from {company}',
    body: 'Good day {contact},\n\nwe have revised our purchase order {number}. Revision {revision} is attached and takes the place of what we sent before.\n\n{changes}\n\nKindly confirm it.\n\n{buyer}\n{company}\n',
  },
  chase: {
    subject: 'Purchase order {number}: when can we expect it?',
    body: 'Good day {contact},\n\nof our purchase order {number} we still wait for:\n\n{lines}\n\nKindly tell us when each of these comes.\n\n{buyer}\n{company}\n',
  },
};

/** What can stand in braces. */
export const MAIL_FIELDS = [
  'number',
  'revision',
  'company',
  'supplier',
  'contact',
  'buyer',
  'changes',
  'lines',
] as const;
export type MailFields = Readonly<Record<(typeof MAIL_FIELDS)[number], string>>;

/**
 * Fills in what stands in braces; what is not known stays as it is. A subject is one line, whatever is filled in.
 * @example fillIn('Order {number}', { number: 'K26-0001' }) // 'Order K26-0001'
 */
export function fillIn({ subject, body }: MailText, fields: MailFields): MailText {
  const filled = (text: string) =>
    text.replace(/\{(\w+)\}/g, (as, name: string) => (name in fields ? fields[name as keyof MailFields] : as));
  const tidy = (text: string) => text.replaceAll(' ,', ',').replace(/\n{3,}/g, '\n\n');
  return { subject: filled(subject).replace(/\s+/g, ' ').trim(), body: tidy(filled(body)) };
}
