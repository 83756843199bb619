import type { Db } from '@/store/db';
import { upTo } from './sizes';

/** What statements took since they were asked about last. */
export type SqlTimes = { readonly ms: number; readonly statements: number };

export type Served = {
  readonly sql: () => Promise<SqlTimes>;
  /** Answers are read to the end; with a body it is posted. */
  readonly get: (path: string, body?: string) => Promise<string>;
  readonly act: (name: string, path: string, input: object) => Promise<string>;
  /** Tries to sign in; whatever comes of it. */
  readonly signIn: (email: string, password: string) => Promise<void>;
};

export const percentile = (all: readonly number[], share: number) =>
  [...all].sort((a, b) => a - b)[Math.min(all.length - 1, Math.floor(all.length * share))] ?? 0;

const ROWS = upTo(20_000);
const SIGN_INS = upTo(100);

/** Does something over and over as long as it is to go on. @returns how long each took, in ms */
async function overAndOver(goesOn: () => boolean, what: () => Promise<unknown>): Promise<number[]> {
  const took: number[] = [];
  while (goesOn()) {
    const from = performance.now();
    await what();
    took.push(performance.now() - from);
  }
  return took;
}

const waited = (what: string, all: readonly number[]): string =>
  `${what} p95 ${percentile(all, 0.95).toFixed(0).padStart(5)} ms, worst ${Math.max(...all)
    .toFixed(0)
    .padStart(5)}`;

/** Asks for a page, and changes something small, over and over while something heavy is done; prints how long either waited. */
async function meanwhile(app: Served, words: string, work: () => Promise<unknown>): Promise<void> {
  let busy = true;
  const goesOn = () => busy;
  const pages = overAndOver(goesOn, () => app.get('/jobs/1005/buy-list'));
  const changes = overAndOver(goesOn, () => app.act('chooseTheme', '/people', { theme: 'day' }));
  const from = performance.now();
  await work();
  const took = (performance.now() - from) / 1000;
  busy = false;
  console.log(
    `${words.padEnd(44)} took ${took.toFixed(1).padStart(6)} s   ${waited('page', await pages)}   ${waited('change', await changes)}`,
  );
}

/** One order of many lines, of the needs of one supplier. */
export async function longOrder(db: Db, { act }: Served, many: number): Promise<{ number: string; lines: number }> {
  const open = db('need as n').join('job as j', 'j.id', 'n.jobId').where('j.state', 'live').whereRaw('n.open > 0');
  const needs = (await open.limit(many).select('n.id', 'n.open')) as { id: number; open: number }[];
  await db('need')
    .whereIn(
      'id',
      needs.map((n) => n.id),
    )
    .update({ supplierId: 1 });
  if (needs.length < many) throw new Error('The large company has too few open lines.');
  const picks = needs.map((n) => ({ needId: n.id, buy: n.open }));
  const text = await act('draftOrders', '/gather', { once: `bench-long-${many}-${Date.now()}`, picks });
  return { number: /K26-\d+/.exec(text)?.[0] ?? '', lines: picks.length };
}

/** What one person's heavy work costs everybody else. */
export async function probes(db: Db, app: Served): Promise<void> {
  console.log('\nA page asked for all the while');
  await meanwhile(app, 'nothing else', () => new Promise((done) => setTimeout(done, 3000)));
  const { number, lines } = await longOrder(db, app, 500);
  await meanwhile(app, `a PDF of ${lines} lines`, () => app.get(`/orders/${number}/pdf`));
  await meanwhile(app, 'Gather as CSV', () => app.get('/lists/gather?as=csv'));
  const called = `B${Date.now() % 100_000}`;
  const job = {
    number: called,
    name: 'A long job',
    shortName: '',
    kind: 'make',
    customer: 'Bench',
    leadId: 1,
    site: '',
  };
  await app.act('openJob', '/jobs', { once: `bench-job-${Date.now()}`, ...job, startsOn: '', dueOn: '' });
  const quote = (await db('quote as q')
    .join('job as j', 'j.id', 'q.jobId')
    .where({ 'j.number': called })
    .first('q.id', 'j.number')) as { id: number; number: string };
  const csv = Array.from({ length: ROWS }, (_, k) => `Part ${k},1,pc,1.25,02`).join('\n');
  const file = await app.get(
    `/jobs/${quote.number}/quote/file?quote=${quote.id}&name=bench.csv`,
    `Description,Qty,Unit,Cost,Cost code\n${csv}`,
  );
  const { id } = JSON.parse(file) as { id: number };
  const mapping = { description: 0, quantity: 1, unit: 2, cost: 3, costCode: 4 };
  const choices = { mark: '.', costCode: {}, supplier: {}, leftOut: [] };
  await meanwhile(app, `checking a file of ${ROWS} rows`, () =>
    app.get(`/jobs/${quote.number}/quote/check`, JSON.stringify({ fileId: id, mapping, choices })),
  );
  await meanwhile(app, `bringing in ${ROWS} rows`, () =>
    app.act('importQuoteFile', '/suppliers', { once: `bench-${Date.now()}`, fileId: id, mapping, choices }),
  );
  const { version } = (await db('quote').where({ id: quote.id }).first('version')) as { version: number };
  await meanwhile(app, `winning a quote of ${ROWS} lines`, () =>
    app.act('winQuote', '/suppliers', { once: `bench-w-${Date.now()}`, quoteId: quote.id, version, wonBy: 'x' }),
  );
  await meanwhile(app, `${SIGN_INS} sign-ins at once`, () =>
    Promise.all(Array.from({ length: SIGN_INS }, (_, k) => app.signIn(`p${k}@nobody.example`, 'wrong'))),
  );
}
