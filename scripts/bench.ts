import { spawn } from 'node:child_process';
import { copyFileSync, existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { once } from 'node:events';
import { setTimeout as pause } from 'node:timers/promises';
import { sealData } from 'iron-session';
import { asDay, type Day } from '@/core/calendar/workdays';
import { startMailServer } from '@/standins/mailServer';
import { explode } from '@/core/boms/explode';
import { quantity } from '@/core/quantity/quantity';
import { program } from '@/server/programs';
import { findBom } from '@/store/boms';
import type { Db } from '@/store/db';
import { open } from '@/store/open';
import { findUnproven } from '@/store/ledger';
import { findOrder } from '@/store/orders';
import { insertSession } from '@/store/sessions';
import { refreshNeeds } from '@/store/tab/needs';
import { orderInput } from '../tests/support/typed';
import { budgets } from './benchBudgets';
import { stores } from './benchStores';
import { longOrder, percentile, probes, type Served, type SqlTimes } from './benchProbes';
import { makeLargeCompany } from './largeCompany';
import { DRAFTS, PLANNED, SIZE, TIMES } from './sizes';

const folder = join('data', 'bench');
const kept = join(folder, `large-${TIMES}.sqlite`);
// What is measured changes the file, so that each part has a copy of its own.
const file = join(folder, 'measured.sqlite');
const TODAY = asDay('2026-05-12') as Day;
const PORT = '4187';
const base = `http://127.0.0.1:${PORT}`;
/** A short run measures nothing: it says whether all of it still runs. */
const ROUNDS = process.argv.includes('--short') ? 2 : 60;

// The server closes what is idle while the bench works on the file itself, so that each request has a connection of its own.
const ALONE = { connection: 'close' };

const row = (name: string, times: readonly number[], more = '') =>
  console.log(
    `${name.padEnd(44)} p50 ${percentile(times, 0.5).toFixed(1).padStart(8)} ms   p95 ${percentile(times, 0.95).toFixed(1).padStart(8)} ms   n ${times.length}${more}`,
  );

async function timed(rounds: number, work: (k: number) => Promise<void>): Promise<number[]> {
  const times: number[] = [];
  for (let k = 0; k < Math.min(rounds, ROUNDS); k += 1) {
    const from = performance.now();
    await work(k);
    times.push(performance.now() - from);
  }
  return times;
}

async function prepare(): Promise<void> {
  if (process.argv.includes('--fresh')) rmSync(folder, { recursive: true, force: true });
  if (existsSync(kept)) return;
  mkdirSync(folder, { recursive: true });
  console.log('Making the large company…');
  const { db } = await open(kept);
  await makeLargeCompany(db, TODAY, (words) => console.log(`  ${words}`));
  await db.destroy();
}

type Manifest = { node: Record<string, { exportedName: string }> };

/** Starts the built application on the large file, with the mail stand-in, and signs the buyer in. */
async function served(db: Db, work: (app: Served) => Promise<void>): Promise<void> {
  const mail = await startMailServer(join(folder, 'mail'), 0);
  const env = {
    ...process.env,
    KETTLE_FILE: file,
    KETTLE_TODAY: TODAY,
    KETTLE_SMTP: mail.url,
    KETTLE_LOG: 'error',
    NEXT_TELEMETRY_DISABLED: '1',
    NODE_ENV: 'production' as const,
    PORT,
  };
  const server = spawn(process.execPath, ['--import', './scripts/sqlTimes.mjs', program('main')], {
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    env,
  });
  const sql = async (): Promise<SqlTimes> => {
    const answer = once(server, 'message');
    server.send('sql');
    return ((await answer) as [SqlTimes])[0];
  };
  try {
    while (!(await fetch(`${base}/sign-in`).catch(() => undefined))?.ok) await pause(200);
    const token = await insertSession(db, 2, { browser: 'bench', place: 'here' }, new Date().toISOString());
    const secret = readFileSync(join(folder, 'session.secret'), 'utf8');
    const cookie = `kettle=${await sealData({ token }, { password: secret, ttl: 3600 })}`;
    const { node } = JSON.parse(
      readFileSync(join('.next', 'server', 'server-reference-manifest.json'), 'utf8'),
    ) as Manifest;
    const ids = new Map(Object.entries(node).map(([id, { exportedName }]) => [exportedName, id]));
    await work({
      sql,
      signIn: async (email, password) => {
        const headers = {
          ...ALONE,
          origin: base,
          'next-action': ids.get('signInHere') ?? '',
          'content-type': 'text/plain',
        };
        const body = JSON.stringify([email, password]);
        await (await fetch(`${base}/sign-in`, { method: 'POST', headers, body })).text();
      },
      get: async (path, body) => {
        const method = body === undefined ? 'GET' : 'POST';
        const asking = () => fetch(base + path, { method, body, headers: { ...ALONE, cookie }, redirect: 'error' });
        // A connection that idled may be closed just as it is taken up again.
        const answer = await asking().catch(asking);
        const text = await answer.text();
        if (!answer.ok || text.includes('could not be shown')) throw new Error(`${path} answered ${answer.status}`);
        return text;
      },
      act: async (name, path, input) => {
        const own = ids.get(name);
        const headers = {
          ...ALONE,
          cookie,
          origin: base,
          'next-action': own ?? ids.get('perform') ?? '',
          'content-type': 'text/plain;charset=UTF-8',
        };
        const body = JSON.stringify([own === undefined ? { action: name, input } : input]);
        const text = await (await fetch(base + path, { method: 'POST', headers, body })).text();
        if (!text.includes('"status":"done"')) throw new Error(`${name} answered ${text.slice(0, 400)}`);
        return text;
      },
    });
  } finally {
    server.kill();
    await mail.close();
  }
}

/** Picks of so many lines of several jobs, others for each k, as Gather asks about them. */
async function picksOf(db: Db, many: number): Promise<(k: number) => string> {
  const open = db('need as n').join('job as j', 'j.id', 'n.jobId').where('j.state', 'live').where('n.open', '>', 0);
  const needs = (await open
    .whereNotNull('n.supplierId')
    .limit(10 * many)
    .select('n.id', 'n.open')) as {
    id: number;
    open: number;
  }[];
  return (k) => {
    const picks = needs.slice((k % 10) * many, (k % 10) * many + many).map((n) => ({ needId: n.id, buy: n.open }));
    return JSON.stringify({ picks, joins: {} });
  };
}

async function pages(db: Db, { get, sql }: Served): Promise<void> {
  const job = (k: number) => 1002 + ((k * 3) % (SIZE.jobs - 1));
  const order = (n: number) => `K26-${String(n).padStart(5, '0')}`;
  const views: [string, (k: number) => string][] = [
    ['Desk', () => '/'],
    ['Jobs', () => '/jobs'],
    ['Jobs, all, by words', (k) => `/jobs?state=all&words=vessel ${k}`],
    ['Job: tab', (k) => `/jobs/${job(k)}`],
    ['Job: tab as of a day', (k) => `/jobs/${job(k)}?on=2026-02-01`],
    ['Job: postings of a figure', (k) => `/jobs/${job(k)}?figure=all.onOrder`],
    ['Job: buy list', (k) => `/jobs/${job(k)}/buy-list`],
    ['Job: orders', (k) => `/jobs/${job(k)}/orders`],
    ['Gather', () => '/gather'],
    ['Gather, one job', (k) => `/gather?job=${job(k)}`],
    ['Gather, by part', () => '/gather?group=item'],
    ['Gather, by day to order', () => '/gather?group=order'],
    ['Gather, too late', () => '/gather?show=late'],
    ['Gather, something in the way', () => '/gather?show=trouble'],
    ['Gather, the next 250 lines', (k) => `/gather/lines?size=250&after=[${1 + k},"2026-06-01",1]`],
    ['Orders', () => '/orders'],
    ['Orders, all, the largest first', () => '/orders?show=all&sort=-net'],
    ['Orders, all, by words', (k) => `/orders?show=all&words=000${k % 10}`],
    ['Order, sent', (k) => `/orders/${order(6 + k * 5)}`],
    ['Order, draft with effects', (k) => `/orders/${order(SIZE.orders - DRAFTS + 1 + k)}`],
    ['Dock', () => '/dock'],
    ['Invoices', () => '/invoices'],
    ['Suppliers', () => '/suppliers'],
    ['Items', () => '/items'],
    ['Items, by name', () => '/items?sort=name'],
    ['Supplier', () => '/suppliers/7'],
    ['Part', (k) => `/items/${1 + k}`],
    ['Pick a part, by a letter', (k) => `/pick?kind=item&words=${'bpcvs'[k % 5]}`],
    ['Pick a part, by two words', (k) => `/pick?kind=item&words=mm plate ${k}`],
    ['Pick a job', (k) => `/pick?kind=job&words=${1 + k}`],
    ['Find, by a letter', (k) => `/find?words=${'pwvce'[k % 5]}`],
    ['Find, by a number', (k) => `/find?words=${100 + k}`],
  ];
  console.log(`\nPages (${ROUNDS} requests each, after a warm-up)`);
  for (const [name, path] of views) {
    for (let k = 0; k < Math.min(5, ROUNDS); k += 1) await get(path(k));
    await sql();
    let size = 0;
    const times = await timed(ROUNDS, async (k) => void (size += (await get(path(k))).length));
    const { ms, statements } = await sql();
    const each = (sum: number, digits: number) => (sum / times.length).toFixed(digits);
    row(
      name,
      times,
      `   SQL ${each(ms, 1).padStart(6)} ms, ${each(statements, 0)} statements   ${each(size / 1024, 0)} KiB`,
    );
  }
  for (const many of [40, 300]) {
    const picks = await picksOf(db, many);
    await get('/gather/preview', picks(0));
    row(
      `Gather: what ${many} picks would do`,
      await timed(ROUNDS, async (k) => void (await get('/gather/preview', picks(k)))),
    );
  }
}

/** A draft of many lines as it is typed, for each k with another quantity. */
async function typedOrder(db: Db): Promise<{ number: string; body: (k: number) => string }> {
  const head = await db('purchaseOrder as o')
    .join('orderLine as l', 'l.orderId', 'o.id')
    .where({ 'o.state': 'drafting' })
    .groupBy('o.id')
    .orderByRaw('count(*) desc')
    .first('o.id');
  const order = await findOrder(db, (head as { id: number }).id);
  if (order === undefined) throw new Error('There is no draft.');
  const typed = orderInput(order);
  const lines = (k: number) =>
    typed.lines.map((l) => (l.kind === 'charge' ? l : { ...l, price: ((l.price ?? 10_000) + k * 100) as never }));
  return { number: order.number, body: (k) => JSON.stringify({ lines: lines(k) }) };
}

/** An order of many lines: opened, typed on, and as its paper. */
async function longOne(db: Db, app: Served): Promise<void> {
  const { number, lines } = await longOrder(db, app, 300);
  const order = await findOrder(db, (await db('purchaseOrder').where({ number }).first('id'))?.id ?? 0);
  const typed = order === undefined ? [] : orderInput(order).lines;
  console.log(`\nAn order of ${lines} lines`);
  for (let k = 0; k < 3; k += 1) await app.get(`/orders/${number}`);
  row('its page', await timed(20, async () => void (await app.get(`/orders/${number}`))));
  row(
    'what typing on it does',
    await timed(20, async () => void (await app.get(`/orders/${number}/preview`, JSON.stringify({ lines: typed })))),
  );
  await app.get(`/orders/${number}/pdf`);
  row('its PDF', await timed(10, async () => void (await app.get(`/orders/${number}/pdf`))));
}

/** What sheets ask while one types and pastes. */
async function sheets(db: Db, { get }: Served): Promise<void> {
  const { number, body } = await typedOrder(db);
  const words = (k: number) =>
    JSON.stringify({ kind: 'item', words: Array.from({ length: 500 }, (_, n) => `P-${k * 500 + n}`) });
  console.log(`\nSheets (${ROUNDS} requests each)`);
  row(
    'Order: what typing does',
    await timed(ROUNDS, async (k) => void (await get(`/orders/${number}/preview`, body(k)))),
  );
  row('Pasting: 500 words named', await timed(20, async (k) => void (await get('/pick', words(k)))));
}

/** What planning asks: a deep BOM worked out, a long buy list, and every job planned anew. */
async function planning(db: Db, { get, act }: Served): Promise<void> {
  const { top, job, rows, levels, lines } = PLANNED;
  console.log(`\nPlanning (a BOM of ${levels} levels and ${rows} rows; a job of ${lines} lines)`);
  const found = await findBom(db, top, TODAY);
  if (found === undefined) throw new Error('There is no BOM.');
  const batch = quantity(10_000);
  row('BOM: taken apart, in the core', await timed(ROUNDS, async () => void explode(found.bom, batch, found.boms)));
  const text = found.bom.lines.map(({ offset, id: _, ...l }) => ({
    ...l,
    ...{ offsetDays: offset.days, offsetFrom: offset.from },
  }));
  const body = JSON.stringify({ fromDay: '2026-01-05', batch, lines: text });
  row(
    'BOM: worked out with costs, as typed',
    await timed(20, async () => void (await get(`/items/${top}/bom/preview`, body))),
  );
  row('BOM: its page', await timed(20, async () => void (await get(`/items/${top}/bom`))));
  row('Job of 2,000 lines: buy list', await timed(20, async () => void (await get(`/jobs/${job}/buy-list`))));
  row('Job of 2,000 lines: plan', await timed(20, async () => void (await get(`/jobs/${job}/plan`))));
  row('Stores', await timed(20, async () => void (await get('/stores'))));
  const [{ n: needs = 0 } = {}] = (await db('need').count({ n: '*' })) as { n?: number }[];
  const all = async () =>
    timed(1, async () => void (await act('planAll', '/jobs', { once: `bench-${performance.now()}` })));
  row(`All jobs planned, of ${needs} needs: at first`, await all());
  row(`All jobs planned, of ${needs} needs: again`, await all());
  await db.raw('update need set needed_on = date(needed_on, ?) where id % 50 = 0 and needed_on is not null', [
    '-20 days',
  ]);
  await refreshNeeds(db);
  row(`All jobs planned, a fiftieth needed earlier`, await all());
}

/** Each action with the page it answers with, brought up to date. */
async function actions(db: Db, { act }: Served): Promise<void> {
  const run = Date.now();
  // A closed job takes no posting, so an order for one is not sent.
  const closed = db('split as s')
    .join('orderLine as l', 'l.id', 's.lineId')
    .join('job as j', 'j.id', 's.jobId')
    .whereNot('j.state', 'live')
    .select('l.orderId');
  const drafts = db('purchaseOrder').where({ state: 'drafting' }).whereNotIn('id', closed).orderBy('id');
  const ids = ((await drafts.limit(Math.min(30, ROUNDS)).select('id')) as { id: number }[]).map((o) => o.id);
  const orderOf = async (k: number) => {
    const order = await findOrder(db, ids[k] ?? 0);
    if (order === undefined) throw new Error('The order is not there.');
    return order;
  };
  const step = async (
    words: string,
    name: string,
    inputOf: (k: number) => Promise<{ path: string; input: object }>,
  ) => {
    const inputs: { path: string; input: object }[] = [];
    for (const k of ids.keys()) inputs.push(await inputOf(k));
    row(
      words,
      await timed(ids.length, async (k) => {
        await act(name, inputs[k]?.path ?? '', { once: `bench-${run}-${name}-${k}`, ...inputs[k]?.input });
      }),
    );
  };
  console.log(`\nActions (${ids.length} orders of three or four lines, each answer with its page)`);
  await step('send: PDF, message, SMTP, postings', 'sendOrder', async (k) => {
    const { id, number, version } = await orderOf(k);
    return { path: `/orders/${number}`, input: { orderId: id, version } };
  });
  await step('receive', 'receive', async (k) => {
    const { id, number, version, lines } = await orderOf(k);
    return {
      path: `/dock/${number}`,
      input: {
        orderId: id,
        version,
        note: '',
        arrivals: lines.map((l) => ({ lineId: l.id, arrives: l.quantity, keepOver: false })),
      },
    };
  });
  await step('enter an invoice', 'enterInvoice', async (k) => {
    const { id, number, gross, lines } = await orderOf(k);
    return {
      path: `/invoices/new?order=${number}`,
      input: {
        orderId: id,
        number: `N${run}-${k}`,
        day: TODAY,
        typedTotal: gross,
        lines: lines.map((l) => ({ lineId: l.id, quantity: l.quantity, price: l.price ?? 0, taxCodeId: l.taxCodeId })),
      },
    };
  });
  await step('match', 'matchInvoice', async (k) => {
    const invoice = (await db('invoice')
      .where({ number: `N${run}-${k}` })
      .first('id')) as { id: number };
    return { path: `/invoices/${invoice.id}`, input: { invoiceId: invoice.id, version: 1, reason: 'bench' } };
  });
}

/** What is measured, in this order; some of it when it is named: npm run bench -- pages budgets */
const PARTS: Readonly<Record<string, (db: Db, app: Served) => Promise<void>>> = {
  pages,
  sheets,
  long: longOne,
  planning,
  actions,
  probes,
  budgets: (db, app) => budgets(db, app, row, timed),
  stores: (db, app) => stores(db, app, row, timed, TODAY),
};
const asked = process.argv.slice(2).filter((a) => a in PARTS);

/** One part on a copy of the file, whose ledger is proven afterwards. */
async function measure(part: (db: Db, app: Served) => Promise<void>): Promise<void> {
  for (const end of ['', '-wal', '-shm']) rmSync(file + end, { force: true });
  copyFileSync(kept, file);
  const { db } = await open(file);
  await served(db, (app) => part(db, app));
  const from = performance.now();
  const unproven = await findUnproven(db);
  const seconds = ((performance.now() - from) / 1000).toFixed(1);
  console.log(`Every line of the ledger proven again in ${seconds} s: ${unproven.length} wrong`);
  if (unproven.length > 0) process.exitCode = 1;
  await db.destroy();
}

await prepare();
const { db: large } = await open(kept);
const count = async (table: string) => ((await large(table).count({ n: '*' })) as { n: number }[])[0]?.n ?? 0;
console.log(
  `${await count('job')} jobs, ${await count('need')} needs, ${await count('purchaseOrder')} orders with ${await count('orderLine')} lines, ${await count('posting')} postings\nServed by the built application on this machine`,
);
await large.destroy();
for (const [name, part] of Object.entries(PARTS)) if (asked.length === 0 || asked.includes(name)) await measure(part);
