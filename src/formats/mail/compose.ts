import MailComposer from 'nodemailer/lib/mail-composer';

export type Letter = {
  readonly from: { readonly name: string; readonly address: string };
  readonly to: string;
  readonly subject: string;
  readonly body: string;
  readonly attachment: { readonly name: string; readonly type: string; readonly bytes: Buffer };
};

/** Writes a letter as an Internet message (RFC 5322) with its attachment (MIME, RFC 2045). */
export function compose(letter: Letter): Promise<Buffer> {
  const { attachment: a } = letter;
  const mail = new MailComposer({
    from: letter.from,
    to: letter.to,
    subject: letter.subject,
    text: letter.body,
    attachments: [{ filename: a.name, contentType: a.type, content: a.bytes }],
  });
  return mail.compile().build();
}
