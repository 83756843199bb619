/** What a mail about an order is for. */
export type MailKind = 'order' | 'revision' | 'chase';

export type MailText = { readonly subject: string; readonly body: string };

/** The words of an email until the company or a supplier's page says others; what stands in braces is filled in. */
export const MAIL_WORDS: Readonly<Record<MailKind, MailText>> = {
  order: {
    subject: 'Purchase order {number} from {company}',
    body: 'Hello {contact},\n\nPlease find attached our purchase order {number}.\nPlease confirm prices and delivery dates, and quote the order number on all delivery notes and invoices.\n\nKind regards,\n\n{buyer}\n{company}\n',
  },
  revision: {
    subject: 'Purchase order {number}, revision {revision}, from {company}',
    body: 'Hello {contact},\n\nPlease find attached revision {revision} of our purchase order {number}. It replaces the order sent earlier.\n\n{changes}\n\nPlease confirm.\n\nKind regards,\n\n{buyer}\n{company}\n',
  },
  chase: {
    subject: 'Purchase order {number}: delivery date?',
    body: 'Hello {contact},\n\nThe following are still outstanding on our purchase order {number}:\n\n{lines}\n\nPlease let us know when we can expect each one.\n\nKind regards,\n\n{buyer}\n{company}\n',
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
