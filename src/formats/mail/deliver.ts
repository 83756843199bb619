import { Readable } from 'node:stream';
import nodemailer from 'nodemailer';

/** What became of a message: it was taken, it was not, or the server has all of it and never said. */
export type Came = 'taken' | 'failed' | 'unknown';

export type Delivery = {
  readonly came: Came;
  readonly answer: string;
  /** Addresses that the server refused, though it took the message for others. */
  readonly notTo?: readonly string[];
};

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

export type Outgoing = {
  readonly raw: Buffer;
  readonly from: string;
  readonly to: readonly string[];
  /** Whoever gets it as well: whether it went is not judged by them. */
  readonly copyTo?: readonly string[];
};

type Info = {
  readonly response: string;
  readonly rejectedErrors?: readonly { recipient?: string; response?: string }[];
};

/** Each address has its own answer: it went when one of those it is for was taken, and whoever was refused is told. */
function outcomeOf({ response, rejectedErrors = [] }: Info, to: readonly string[]): Delivery {
  const refused = new Map(rejectedErrors.map((e) => [e.recipient?.toLowerCase() ?? '', e.response ?? '']));
  const answers = to.flatMap((address) => refused.get(address.toLowerCase()) ?? []);
  if (answers.length === to.length)
    return {
      came: 'failed',
      answer: `${answers.join(' ')}. Only your own copy was delivered: check the supplier’s address.`,
    };
  return { came: 'taken', answer: [response, ...refused.values()].join(' '), notTo: [...refused.keys()] };
}

/**
 * Hands a finished message to a mail server by SMTP (RFC 5321), which answers for each address apart.
 *
 * @param server - an address such as smtp://127.0.0.1:2525; undefined when none is set
 * @returns what the server answered; a refusal is an answer, not an exception
 */
export async function deliver(
  server: string | undefined,
  { raw: bytes, from, to, copyTo = [] }: Outgoing,
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
  const raw = Readable.from([bytes]);
  try {
    return outcomeOf(await transport.sendMail({ envelope: { from, to: [...to, ...copyTo] }, raw }), to);
  } catch (error) {
    const silent = raw.readableEnded && (error as { responseCode?: number }).responseCode === undefined;
    return silent
      ? { came: 'unknown', answer: 'The mail server took the message but didn’t confirm it, so it may have been sent.' }
      : { came: 'failed', answer: plainly(error) };
  } finally {
    transport.close();
  }
}
