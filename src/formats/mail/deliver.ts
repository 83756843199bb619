import { Readable } from 'node:stream';
import nodemailer from 'nodemailer';

/** What became of a message: it was taken, it was not, or the server has all of it and never said. */
export type Came = 'taken' | 'failed' | 'unknown';

export type Delivery = { readonly came: Came; readonly answer: string };

const plainly = (error: unknown): string => {
  const { code, response, message } = error as { code?: string; response?: string; message: string };
  if (message.includes('ECONNREFUSED'))
    return 'The mail server isn’t answering. Ask your administrator to check its address.';
  if (code === 'ETIMEDOUT' || code === 'ESOCKET' || code === 'ECONNECTION')
    return `The mail server could not be reached (${message}).`;
  return response ?? message;
};

function transportTo(address: URL) {
  const secure = address.protocol === 'smtps:';
  return nodemailer.createTransport({
    host: address.hostname,
    port: Number(address.port || (secure ? 465 : 587)),
    secure,
    ignoreTLS: address.hostname === '127.0.0.1' || address.hostname === 'localhost',
    auth:
      address.username === ''
        ? undefined
        : { user: decodeURIComponent(address.username), pass: decodeURIComponent(address.password) },
    connectionTimeout: 8000,
    greetingTimeout: 8000,
    socketTimeout: 15_000,
  });
}

/**
 * Hands a finished message to a mail server by SMTP (RFC 5321).
 *
 * @param server - an address such as smtp://127.0.0.1:2525; undefined when none is set
 * @returns what the server answered; a refusal is an answer, not an exception
 */
export async function deliver(
  server: string | undefined,
  message: { raw: Buffer; from: string; to: readonly string[] },
): Promise<Delivery> {
  if (server === undefined || server === '')
    return {
      came: 'failed',
      answer:
        'No mail server is set up, so emails can’t be sent. Ask your administrator to set KETTLE_SMTP, or mark the order as sent by hand.',
    };
  const address = URL.canParse(server) ? new URL(server) : undefined;
  if (address === undefined || !['smtp:', 'smtps:'].includes(address.protocol) || address.hostname === '')
    return {
      came: 'failed',
      answer: 'KETTLE_SMTP isn’t a mail server address. Type it like smtps://mail.example:465.',
    };
  const transport = transportTo(address);
  const raw = Readable.from([message.raw]);
  try {
    const info = await transport.sendMail({ envelope: { from: message.from, to: [...message.to] }, raw });
    // It went out, to some of those it was for: sending it again would send it twice to them.
    const not = info.rejected.map(String);
    return {
      came: 'taken',
      answer:
        not.length === 0
          ? info.response
          : `${info.response}. Not delivered to ${not.join(', ')}: check those addresses on the supplier.`,
    };
  } catch (error) {
    const silent = raw.readableEnded && (error as { responseCode?: number }).responseCode === undefined;
    return silent
      ? { came: 'unknown', answer: 'The mail server took the message but didn’t confirm it, so it may have been sent.' }
      : { came: 'failed', answer: plainly(error) };
  } finally {
    transport.close();
  }
}
