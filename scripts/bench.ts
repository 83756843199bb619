import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { sealData } from 'iron-session';
import type { Outcome, Setting } from '@/actions/action';
import { enterInvoice, matchInvoice } from '@/actions/invoices';
import { receive } from '@/actions/receiving';
import { sendOrder } from '@/actions/sending';
import { asDay, type Day } from '@/core/calendar/workdays';
import { deliver } from '@/formats/mail/deliver';
import { startMailServer } from '@/standins/mailServer';
import { open, type Db } from '@/store/connection';
import { findUnproven } from '@/store/ledger';
import { findOrder } from '@/store/orders';
import { findByEmail } from '@/store/people';
import { makeLargeCompany, SIZE } from './largeCompany';

const folder = join('data', 'bench');
const file = join(folder, 'large.sqlite');
const TODAY = asDay('2026-05-12') as Day;
const PORT = '4187';
const base = `http://127.0.0.1:${PORT}`;
const ROUNDS = 60;

const percentile = (all: readonly number[], share: number) => [...all].sort((a, b) => a - b)[Math.min(all.length - 1, Math.floor(all.length * share))] ?? 0;
const row = (name: string, times: readonly number[]) => console.log(`${name.padEnd(44)} p50 ${percentile(times, 0.5).toFixed(1).padStart(8)} ms   p95 ${percentile(times, 0.95).toFixed(1).padStart(8)} ms   n ${times.length}`);

async function timed(rounds: number, work: (k: number) => Promise<void>): Promise<number[]> {
  const times: number[] = [];
  for (let k = 0; k < rounds; k += 1) {
    const from = performance.now();
    await work(k);
    times.push(performance.now() - from);
  }
  return times;
}

async function prepare(): Promise<void> {
  if (process.argv.includes('--fresh')) rmSync(folder, { recursive: true, force: true });
  if (existsSync(file)) return;
  mkdirSync(folder, { recursive: true });
  console.log('Making the large company…');
  const { db } = await open(file);
  await makeLargeCompany(db, TODAY, (words) => console.log(`  ${words}`));
  await db.destroy();
}

async function pages(): Promise<void> {
  const server = spawn(process.execPath, [join('node_modules', 'next', 'dist', 'bin', 'next'), 'start', '-p', PORT, '-H', '127.0.0.1'], { stdio: 'ignore', env: { ...process.env, KETTLE_FILE: file, KETTLE_TODAY: TODAY, NEXT_TELEMETRY_DISABLED: '1' } });
  try {
    while (!(await fetch(`${base}/sign-in`).catch(() => undefined))?.ok) await pause(200);
    const seal = await sealData({ personId: 2 }, { password: readFileSync(join(folder, 'session.secret'), 'utf8'), ttl: 3600 });
    const get = async (path: string) => {
      const answer = await fetch(base + path, { headers: { cookie: `kettle=${seal}` }, redirect: 'error' });
      const text = await answer.text();
      if (!answer.ok || text.includes('could not be shown')) throw new Error(`${path} answered ${answer.status}`);
    };
    const views: [string, (k: number) => string][] = [
      ['Desk', () => '/'], ['Jobs', () => '/jobs'], ['Jobs, all, by words', (k) => `/jobs?state=all&words=vessel ${k}`], ['Job: tab', (k) => `/jobs/${1002 + k * 3}`], ['Job: tab as of a day', (k) => `/jobs/${1002 + k * 3}?on=2026-02-01`], ['Job: postings of a figure', (k) => `/jobs/${1002 + k * 3}?figure=all.onOrder`],
      ['Job: buy list', (k) => `/jobs/${1002 + k * 3}/buy-list`], ['Job: orders', (k) => `/jobs/${1002 + k * 3}/orders`], ['Gather', () => '/gather'], ['Gather, one job', (k) => `/gather?job=${1002 + k * 3}`], ['Orders', () => '/orders'], ['Orders, all, by words', (k) => `/orders?show=all&words=000${k % 10}`], ['Order, sent', (k) => `/orders/K26-${String(6 + k * 5).padStart(5, '0')}`], ['Order, draft with effects', (k) => `/orders/K26-${String(SIZE.orders - 150 + k).padStart(5, '0')}`],
      ['Dock', () => '/dock'], ['Invoices', () => '/invoices'], ['Suppliers', () => '/suppliers'], ['Items', () => '/items'],
    ];
    console.log(`\nPages, served by the built application on this machine (${ROUNDS} requests each, after a warm-up)`);
    for (const [name, path] of views) {
      for (let k = 0; k < 5; k += 1) await get(path(k));
      row(name, await timed(ROUNDS, (k) => get(path(k))));
    }
  } finally {
    server.kill();
  }
}

const must = <T>(outcome: Outcome<T>): T => {
  if (outcome.status !== 'done') throw new Error(JSON.stringify(outcome));
  return outcome.value;
};

async function actions(db: Db): Promise<void> {
  const mail = await startMailServer(join(folder, 'mail'), 0);
  const actor = await findByEmail(db, 'buyer@large.example');
  if (actor === undefined) throw new Error('The buyer is not there.');
  const now = () => new Date().toISOString();
  const setting: Setting = { db, actor, clock: { today: () => TODAY, now }, post: (message) => deliver(mail.url, message) };
  const run = Date.now();
  const ids = ((await db('purchaseOrder').where({ state: 'drafting' }).orderBy('id').limit(30).select('id')) as { id: number }[]).map((o) => o.id);
  console.log(`\nActions, in this process on the same file (${ids.length} orders of three or four lines)`);
  const orderOf = async (k: number) => {
    const order = await findOrder(db, ids[k] ?? 0);
    if (order === undefined) throw new Error('The order is not there.');
    return order;
  };
  row('send: PDF, message, SMTP, postings', await timed(ids.length, async (k) => {
    const { id, version } = await orderOf(k);
    must(await sendOrder(setting, { once: `bench-${run}-s${k}`, orderId: id, version }));
  }));
  row('receive', await timed(ids.length, async (k) => {
    const order = await orderOf(k);
    must(await receive(setting, { once: `bench-${run}-r${k}`, orderId: order.id, note: '', arrivals: order.lines.map((l) => ({ lineId: l.id, arrives: l.quantity, keepOver: false })) }));
  }));
  const invoices: number[] = [];
  row('enter an invoice', await timed(ids.length, async (k) => {
    const order = await orderOf(k);
    const entered = must(await enterInvoice(setting, { once: `bench-${run}-e${k}`, orderId: order.id, number: `N${run}-${k}`, day: TODAY, typedTotal: order.gross, lines: order.lines.map((l) => ({ lineId: l.id, quantity: l.quantity, price: l.price ?? 0, taxCodeId: l.taxCodeId })) }));
    invoices.push(entered.id);
  }));
  row('match', await timed(ids.length, async (k) => void must(await matchInvoice(setting, { once: `bench-${run}-m${k}`, invoiceId: invoices[k] ?? 0, version: 1, reason: 'bench' }))));
  await mail.close();
}

await prepare();
const { db } = await open(file);
const count = async (table: string) => ((await db(table).count({ n: '*' })) as { n: number }[])[0]?.n ?? 0;
console.log(`${await count('job')} jobs, ${await count('need')} needs, ${await count('purchaseOrder')} orders with ${await count('orderLine')} lines, ${await count('posting')} postings`);
await pages();
await actions(db);
const from = performance.now();
const unproven = await findUnproven(db);
console.log(`\nEvery line of the ledger proven again in ${((performance.now() - from) / 1000).toFixed(1)} s: ${unproven.needIds.length + unproven.splitIds.length} wrong`);
await db.destroy();
