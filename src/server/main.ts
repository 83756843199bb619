/** Serves the built application: one HTTP server in front of Next.js, which ends in order when it is told to. */
import { randomBytes } from 'node:crypto';
import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import { getIronSession } from 'iron-session';
import next from 'next';
import { MOST_HOURS, SIGN_IN_COOKIE } from '@/core/people/signingIn';
import { sealingSecret } from './secret';
import { log } from './setting';
import { endReaders } from './readers';
import { endThreads } from './threads';

const HOST = process.env.KETTLE_HOST ?? '127.0.0.1';
const PORT = Number(process.env.PORT ?? 4180);
/** How long what is under way may take to end, in milliseconds. */
const LAST_ORDERS = 8000;
/** How long the log may take to end. */
const LAST_WORDS = 500;

// Where nothing can be written to the console, on a full disk, the program goes on without it.
for (const stream of [process.stdout, process.stderr]) stream.on('error', () => undefined);

// What is written from here on, the company's file, its copies and its mail, is for this user alone.
process.umask(0o077);

const policy = (nonce: string): string =>
  [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self' data:",
    "connect-src 'self'",
    "frame-ancestors 'none'",
    "object-src 'none'",
    "base-uri 'self'",
    "form-action 'self'",
  ].join('; ');

function isReadable(address: string): boolean {
  try {
    return !decodeURIComponent(address).includes('\0');
  } catch {
    return false;
  }
}

/** Says who really asks, and which scripts may run in the answer. @returns whether the request can be read at all */
function receive(request: IncomingMessage, response: ServerResponse): boolean {
  if (!isReadable(request.url ?? '')) {
    response.writeHead(400, { 'content-type': 'text/plain; charset=utf-8' }).end('This address can’t be read.');
    return false;
  }
  // Only a proxy that is known to be there may say for whom it asks.
  if (process.env.KETTLE_PROXY !== '1') request.headers['x-forwarded-for'] = request.socket.remoteAddress;
  const allowed = policy(randomBytes(16).toString('base64'));
  // Next.js takes the nonce for its own scripts from here.
  request.headers['content-security-policy'] = allowed;
  response.setHeader('content-security-policy', allowed);
  return true;
}

/** The most that may be sent in by who has not signed in here, in bytes: what signing in takes, and no more. */
const MOST_OF_STRANGERS = 64 * 1024;

/** Whether a request carries a cookie that was sealed here: nobody can make one up. */
async function hasSignedIn(request: IncomingMessage, response: ServerResponse): Promise<boolean> {
  const options = { cookieName: SIGN_IN_COOKIE, password: sealingSecret(), ttl: MOST_HOURS * 3600 };
  return (await getIronSession<{ token?: string }>(request, response, options)).token !== undefined;
}

/** Why a request is not to be read any further. */
async function tooMuch(
  request: IncomingMessage,
  response: ServerResponse,
): Promise<[status: number, words: string] | undefined> {
  const { 'content-length': length, 'transfer-encoding': coding } = request.headers;
  if (coding === undefined && Number(length ?? 0) <= MOST_OF_STRANGERS) return undefined;
  if (await hasSignedIn(request, response)) return undefined;
  return coding === undefined ? [413, 'Sign in before you send this much.'] : [411, 'Say how long this is.'];
}

async function answer(request: IncomingMessage, response: ServerResponse): Promise<void> {
  const refused = await tooMuch(request, response);
  if (refused === undefined) return handle(request, response);
  const [status, words] = refused;
  // What is sent is let through unread, so that the answer is heard.
  request.resume().once('end', () => {
    response.writeHead(status, { 'content-type': 'text/plain; charset=utf-8', connection: 'close' }).end(words);
  });
}

const app = next({ dev: false, hostname: HOST, port: PORT });
await app.prepare();
const handle = app.getRequestHandler();
const server = createServer((request, response) => {
  if (receive(request, response)) void answer(request, response);
});

let ending = false;
async function end(): Promise<void> {
  if (ending) return;
  ending = true;
  const closed = new Promise<void>((done) => server.close(() => done()));
  server.closeIdleConnections();
  const late = setTimeout(() => server.closeAllConnections(), LAST_ORDERS);
  await closed;
  clearTimeout(late);
  await endReaders();
  await endThreads();
  log.info('Stopped.');
  // A log that can't be written keeps nothing from ending.
  setTimeout(() => process.exit(0), LAST_WORDS);
  log.flush(() => process.exit(0));
}
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => void end());

server.listen(PORT, HOST, () => log.info({ host: HOST, port: PORT }, 'Serving.'));
