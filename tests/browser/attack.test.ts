import { readdirSync, statSync } from 'node:fs';
import { connect, type Socket } from 'node:net';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { formatDecimal } from '@/core/money/decimal';
import { findUnproven } from '@/store/ledger';
import { ADDRESSES, BENT, POSTED } from '../support/addresses';
import { App } from '../support/app';
import { Caller } from '../support/caller';
import { times, tried } from '../support/proof';

let app: App;
let jobId: number;
beforeAll(async () => {
  app = await App.own();
  jobId = await app.look(async (db) => (await db('job').where({ number: '412' }).first('id'))?.id ?? 0);
});
afterAll(() => app.stop());

const need = (once: string) => ({
  once,
  jobId,
  itemId: null,
  description: `Need ${once}`,
  quantity: 20_000,
  unit: 'C62',
  costCodeId: 1,
  price: 12_345,
  supplierId: null,
  neededOn: '',
});

/** What amounts there are, as they are written on a page; those that are also a number of something else are left out. */
async function amountsInFile(): Promise<Set<string>> {
  const rows = await app.look(async (db) => [
    ...(await db('purchaseOrder').select('net as a', 'gross as b')),
    ...(await db('tabSum').select('amount as a', 'amount as b')),
  ]);
  const amounts = (rows as unknown as { a: number; b: number }[]).flatMap((r) => [r.a, r.b]).map(Math.abs);
  return new Set(amounts.filter((a) => a > 20_000 && a % 100 !== 0).map((a) => formatDecimal(a, 2)));
}

describe('every address, as everybody', () => {
  const people = ['mina', 'asha', 'tomas', 'joss', 'ida', 'bram', 'wren', undefined] as const;
  it.each(people)('answers %s without a fault, and tells no money to who may not see it', async (who) => {
    const caller = who === undefined ? Caller.signedOut(app.base) : await Caller.as(app.base, who);
    const amounts = [...(await amountsInFile())];
    const told = new Map<string, number>();
    let seen = 0;
    for (const path of ADDRESSES) {
      const { status, text } = await caller.ask(path);
      told.set(path, status);
      seen += amounts.filter((a) => text.includes(a)).length;
    }
    for (const path of BENT) told.set(path, (await caller.ask(path)).status);
    for (const path of POSTED)
      for (const body of tried(['', 'null', '{}', '[[[', `{"a":${'['.repeat(2000)}`, 'x'.repeat(3 * 1024 * 1024)]))
        told.set(`${path} ${body.slice(0, 9)}`, (await caller.ask(path, { method: 'POST', body })).status);
    const faults = [...told].filter(([, status]) => status >= 500);
    expect({ who, faults }).toEqual({ who, faults: [] });
    expect(told.get('/jobs/%E0%A4%A')).toBe(400);
    expect(amounts.length).toBeGreaterThan(30);
    if (who === 'mina') expect(seen).toBeGreaterThan(30);
    if (who === undefined || who === 'joss' || who === 'bram') expect({ who, seen }).toEqual({ who, seen: 0 });
  });

  it('lets nobody in who is signed out', async () => {
    const nobody = Caller.signedOut(app.base);
    const open = ['/calendar/none', '/sample-quote', '/sign-in', '/welcome', '/reset/none', '/favicon.ico', '/nowhere'];
    for (const path of ADDRESSES.filter((a) => !open.includes(a))) {
      const { status, headers } = await nobody.ask(path);
      const kept = status === 401 || headers.get('location') === '/sign-in';
      expect({ path, kept: kept || status }).toEqual({ path, kept: true });
    }
  });
});

/** What anybody may do with anything: to come and go, to open a job on one’s own rail, to take off a view of one’s own, to plan anew. */
const HARMLESS = [
  ...[
    'signOut',
    'stepInAs',
    'signInHere',
    'setUp',
    'openOnRail',
    'closeOnRail',
    'moveOnRail',
    'dropView',
    'dropDeputy',
  ],
  'planAll',
];

describe('every act, as everybody', () => {
  const INPUTS = [
    undefined,
    null,
    0,
    'x',
    [],
    {},
    { orderId: -1e300 },
    { once: 'x'.repeat(20), id: 1, orderId: 1, version: 1, jobId: 1 },
  ];
  it.each(['mina', 'joss', 'bram', 'wren', undefined] as const)(
    'sent anything by %s: no fault, nothing done',
    async (who) => {
      const caller = who === undefined ? Caller.signedOut(app.base) : await Caller.as(app.base, who);
      const answers = new Map<string, number>();
      for (const name of caller.calls.filter((c) => !HARMLESS.includes(c)))
        for (const input of tried(INPUTS)) {
          const answer = await caller.act(name, input);
          answers.set(answer, (answers.get(answer) ?? 0) + 1);
          expect([name, input, answer]).not.toEqual([name, input, 'failed']);
        }
      const allowed = who === undefined ? ['signedOut', '200'] : ['refused', 'clash', '200'];
      expect([...answers.keys()].filter((a) => !allowed.includes(a))).toEqual([]);
    },
  );
});

describe('ten at once', () => {
  it('with one key act once, with ten keys ten times, each once', async () => {
    const mina = await Caller.as(app.base, 'mina');
    const one = await Promise.all(Array.from({ length: 10 }, () => mina.act('addNeed', need('same-key-ten-times'))));
    expect(one).toEqual(Array(10).fill('done'));
    const ten = await Promise.all(Array.from({ length: 10 }, (_, k) => mina.act('addNeed', need(`ten-keys-${k}`))));
    expect(ten).toEqual(Array(10).fill('done'));
    expect(
      await app.look((db) => db('need').where({ description: 'Need same-key-ten-times' }).count({ n: '*' })),
    ).toEqual([{ n: 1 }]);
    expect(await app.look((db) => db('need').whereLike('description', 'Need ten-keys-%').count({ n: '*' }))).toEqual([
      { n: 10 },
    ]);
  });

  it('changes of one order from one version: one is done, the others clash', async () => {
    const mina = await Caller.as(app.base, 'mina');
    const order = await app.look((db) => db('purchaseOrder').where({ state: 'drafting' }).first('id', 'version'));
    const hold = () => mina.act('holdOrder', { orderId: order?.id, version: order?.version, hold: true });
    const outcomes = await Promise.all(Array.from({ length: 10 }, hold));
    expect(outcomes.sort()).toEqual([...Array(9).fill('clash'), 'done']);
  });
});

describe('sheets', () => {
  const LINES = 40;
  const typed = (words: string) => ({
    itemId: null,
    description: words,
    quantity: 10_000,
    unit: 'C62',
    costCodeId: 1,
    supplierId: null,
    neededOn: '',
  });
  const sheet = (name: string) => Array.from({ length: LINES }, (_, k) => typed(`${name}, line ${k}`));
  const listOf = async (mina: Caller, name: string) =>
    mina.act('changeBuyList', {
      once: `buy-list-${name}`,
      jobId,
      lines: sheet(name).map((l) => ({ ...l, price: 12_300 })),
    });
  const openQuote = () =>
    app.look((db) => db('quote').where({ state: 'writing' }).orderBy('id').first('id', 'version') as Promise<Quoted>);
  const places = (quoteId: number) =>
    app.look((db) => db('quoteLine').where({ quoteId }).orderBy('place').select('place', 'description'));
  type Quoted = { id: number; version: number };
  const quoteOf = async (mina: Caller, { id, version }: Quoted, name: string) =>
    mina.act('changeQuote', {
      once: `quote-${name}-${version}`,
      quoteId: id,
      version,
      after: 0,
      upTo: (await places(id)).at(-1)?.place ?? 0,
      lines: sheet(name).map((l) => ({ ...l, kind: 'bought', cost: 12_300, price: null })),
    });

  it('of one quote from one version, ten at once: one stands whole, the others clash', async () => {
    const mina = await Caller.as(app.base, 'mina');
    const quote = await openQuote();
    const outcomes = await Promise.all(Array.from({ length: 10 }, (_, k) => quoteOf(mina, quote, `ten ${k}`)));
    expect(outcomes.sort()).toEqual([...Array(9).fill('clash'), 'done']);
    const lines = await places(quote.id);
    expect(lines.map((l) => l.place)).toEqual(Array.from({ length: LINES }, (_, k) => k + 1));
    expect(new Set(lines.map((l) => l.description.split(',')[0])).size).toBe(1);
  });

  it('of buy lists and a quote, killed in the middle: each stands whole or not at all, and is asked for again', async () => {
    const names: string[] = [];
    for (let round = 0; round < times(1, 3); round += 1) {
      const mina = await Caller.as(app.base, 'mina');
      const quote = await openQuote();
      const mine = Array.from({ length: 12 }, (_, k) => `killed ${round}-${k}`);
      names.push(...mine);
      const acting = [...mine.map((name) => listOf(mina, name)), quoteOf(mina, quote, `round ${round}`)];
      await Promise.race(acting);
      await app.end('SIGKILL');
      await Promise.allSettled(acting);
      await app.serve();
      const lines = await places(quote.id);
      expect(lines.map((l) => l.place)).toEqual(Array.from({ length: LINES }, (_, k) => k + 1));
      expect(new Set(lines.map((l) => l.description.split(',')[0])).size).toBe(1);
    }
    const counted = async () =>
      (
        await app.look((db) =>
          Promise.all(names.map((n) => db('need').whereLike('description', `${n}, line %`).count({ n: '*' }))),
        )
      ).map(([row]) => Number(row?.n));
    expect((await counted()).filter((n) => n !== 0 && n !== LINES)).toEqual([]);
    const mina = await Caller.as(app.base, 'mina');
    for (const name of names) expect(await listOf(mina, name)).toBe('done');
    expect(await counted()).toEqual(names.map(() => LINES));
    expect(await app.look(findUnproven)).toEqual([]);
  });
});

describe('strangers', () => {
  const HALF = { 'next-action': 'x', cookie: 'kettle=made-up' };
  /** One who begins to send `length` bytes and goes no further. */
  const stranger = (length: number, headers: Readonly<Record<string, string>> = {}) =>
    new Promise<Socket>((there) => {
      const { hostname, port } = new URL(app.base);
      const socket = connect(Number(port), hostname, () => {
        const more = Object.entries(headers).map(([name, value]) => `${name}: ${value}\r\n`);
        const head = `POST /sign-in HTTP/1.1\r\nHost: ${hostname}:${port}\r\nContent-Length: ${length}\r\n`;
        socket.write(`${head}${more.join('')}\r\n[`);
        there(socket);
      });
      socket.on('error', () => {});
    });
  const inTime = async (work: Promise<unknown>) =>
    Promise.race([work.then(() => 'in time'), pause(30_000, 'too late')]);

  it('who hold half of what they send, with a cookie of their own too, keep nobody from signing in', async () => {
    const held = await Promise.all(Array.from({ length: 120 }, (_, k) => stranger(5000, k % 2 ? HALF : {})));
    expect(await inTime(Caller.as(app.base, 'mina'))).toBe('in time');
    held.forEach((socket) => socket.destroy());
    expect(await inTime(Caller.as(app.base, 'asha'))).toBe('in time');
  });

  it('may send no more than signing in takes, whatever cookie they make up', async () => {
    const body = JSON.stringify(['x'.repeat(200_000)]);
    const mina = await Caller.as(app.base, 'mina');
    for (const cookie of ['', 'kettle=made-up', 'kettle=Fe26.2*1*made*up', 'kettle-known=x; kettle='])
      expect((await mina.ask('/sign-in', { method: 'POST', body, headers: { cookie } })).status).toBe(413);
    expect((await mina.ask('/sign-in', { method: 'POST', body })).status).toBeLessThan(413);
  });
});

describe('told to stop', () => {
  it('ends what runs, closes the file and is gone in ten seconds; what it wrote is for its user alone', async () => {
    const mina = await Caller.as(app.base, 'mina');
    const last = Array.from({ length: 8 }, (_, k) => mina.act('addNeed', need(`stopping-${k}`)));
    await last[0];
    const from = Date.now();
    await app.end('SIGTERM');
    expect(Date.now() - from).toBeLessThan(10_000);
    const outcomes = await Promise.allSettled(last);
    const done = outcomes.filter((o) => o.status === 'fulfilled' && o.value === 'done').length;
    expect(readdirSync(app.folder).filter((name) => name.endsWith('-wal'))).toEqual([]);
    for (const name of readdirSync(app.folder)) {
      const { mode } = statSync(join(app.folder, name));
      expect(`${name} ${(mode & 0o077).toString(8)}`).toBe(`${name} 0`);
    }
    const rows = await app.look((db) => db('need').whereLike('description', 'Need stopping-%').select('id'));
    expect(rows.length).toBeGreaterThanOrEqual(done);
    await app.serve();
  });
});

describe('killed in the middle', () => {
  it('has kept all it said was done, twice nothing and by halves nothing', async () => {
    const said = new Set<string>();
    const asked: string[] = [];
    for (let round = 0; round < times(2, 5); round += 1) {
      const before = said.size;
      const mina = await Caller.as(app.base, 'mina');
      const acting = Array.from({ length: 30 }, async (_, k) => {
        const once = `killed-${round}-${k}`;
        asked.push(once);
        // Sent twice at once with one key, as a retry would.
        await Promise.allSettled(
          [1, 2].map(async () => {
            if ((await mina.act('addNeed', need(once))) === 'done') said.add(once);
            if (said.size >= before + 1 + round * 3) await app.end('SIGKILL');
          }),
        );
      });
      await Promise.all(acting);
      await app.serve();
    }
    expect(said.size).toBeGreaterThan(times(3, 10));
    // What was asked for and not answered is asked again with its key.
    const mina = await Caller.as(app.base, 'mina');
    for (const once of asked) expect(await mina.act('addNeed', need(once))).toBe('done');
    const rows = await app.look((db) => db('need').whereLike('description', 'Need killed-%').select('description'));
    expect(rows.map((r) => r.description).sort()).toEqual(asked.map((once) => `Need ${once}`).sort());
    expect(await app.look(findUnproven)).toEqual([]);
  });
});
