import { createServer, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { ask, asJson } from './ask';

const server = createServer((request, answer: ServerResponse) => {
  if (request.url === '/refuses') answer.writeHead(403).end('{"a":1}');
  else if (request.url === '/words') answer.end('no JSON');
  else if (request.url === '/slow') answer.write('{"a":');
  else if (request.url === '/hangs-up') answer.destroy();
  else request.pipe(answer);
});
let base: string;
beforeAll(async () => {
  await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
  base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(() => {
  server.closeAllConnections();
  server.close();
});

const never = new AbortController().signal;

describe('asking the server', () => {
  it('gives what it answers', async () =>
    expect(await ask(`${base}/echo`, asJson('{"picks":[1]}', never))).toEqual({ picks: [1] }));

  it.each(['/refuses', '/words', '/hangs-up'])('gives nothing at %s, and throws nothing', async (path) =>
    expect(await ask(base + path, { signal: never })).toBeUndefined(),
  );

  it('gives nothing when the question is dropped before or in the middle of the answer', async () => {
    expect(await ask(`${base}/slow`, { signal: AbortSignal.abort() })).toBeUndefined();
    expect(await ask(`${base}/slow`, { signal: AbortSignal.timeout(100) })).toBeUndefined();
  });
});
