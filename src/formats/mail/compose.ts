import { createHash } from 'node:crypto';
import MailComposer from 'nodemailer/lib/mail-composer';
import type { OrderPaper } from '../pdf/purchaseOrder';

export type Letter = {
  /** Without its angle brackets. */
  readonly id: string;
  readonly from: { readonly name: string; readonly address: string };
  readonly to: readonly string[];
  readonly copyTo: readonly string[];
  readonly subject: string;
  readonly body: string;
  readonly attachments: readonly Attachment[];
};

export type Attachment = { readonly name: string; readonly type: string; readonly bytes: Buffer };

/**
 * The Message-ID (RFC 5322, 3.6.4) of an order's letter: the same for the same order with the same content, however
 * often it is sent, so that a mail program knows a second copy for what it is.
 */
export function messageId({ date: _, ...paper }: OrderPaper): string {
  const content = createHash('sha256').update(JSON.stringify(paper)).digest('hex').slice(0, 20);
  return `${encodeURIComponent(paper.number)}.${content}@${domainOf(paper.company.email)}`;
}

/** The right side of a Message-ID, from the company's address. */
export const domainOf = (email: string): string => email.split('@')[1] ?? 'kettle.invalid';

/** Writes a letter as an Internet message (RFC 5322) with its attachments (MIME, RFC 2045). */
export function compose(letter: Letter): Promise<Buffer> {
  const mail = new MailComposer({
    messageId: `<${letter.id}>`,
    from: letter.from,
    to: [...letter.to],
    ...(letter.copyTo.length === 0 ? {} : { cc: [...letter.copyTo] }),
    subject: letter.subject,
    text: letter.body,
    attachments: letter.attachments.map((a) => ({ filename: a.name, contentType: a.type, content: a.bytes })),
  });
  return mail.compile().build();
}
