/** Serves the built application: one HTTP server in front of Next.js, which ends in order when it is told to. */
import pLimit from 'p-limit';
import { randomBytes } from 'node:crypto';
import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import { setTimeout as pause } from 'node:timers/promises';
import next from 'next';
import { log } from './setting';
import { endReaders } from './readers';
import { endThreads } from './threads';

const HOST = process.env.KETTLE_HOST ?? '127.0.0.1';
const PORT = Number(process.env.PORT ?? 4180);
/** How long what is under way may take to end, in milliseconds. */
const LAST_ORDERS = 8000;

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

/** What is sent in by who is not signed in, which is signing in, has its turn: however many try, others are answered between. */
const strangers = pLimit(2);
const MOST_WAITING = 200;
const LONGEST_TURN = 5000;

async function answer(request: IncomingMessage, response: ServerResponse): Promise<void> {
  const isStranger = request.method !== 'GET' && !/(?:^|; )kettle=/.test(request.headers.cookie ?? '');
  if (!isStranger) return handle(request, response);
  if (strangers.pendingCount >= MOST_WAITING) {
    response
      .writeHead(503, { 'content-type': 'text/plain; charset=utf-8', 'retry-after': '10' })
      .end('Try again shortly.');
    return;
  }
  await strangers(async () => {
    // Who has gone meanwhile needs no answer.
    if (response.destroyed || request.destroyed) return;
    const gone = new Promise<void>((closed) => response.once('close', closed));
    // Nobody keeps a turn by sending slowly.
    await Promise.race([Promise.all([handle(request, response), gone]), pause(LONGEST_TURN)]);
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
  process.exit(0);
}
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => void end());

server.listen(PORT, HOST, () => log.info({ host: HOST, port: PORT }, 'Serving.'));
