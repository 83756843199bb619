import { findByRules, USUAL_RULES } from '@/core/signoff/rules';
import type { Db } from '@/store/db';
import { findOrder } from '@/store/orders';
import type { Stage } from '@/core/tab/stages';
import { insertMany, rowsOf } from '@/store/rows';
import { checkRecord, NOTHING_WRITTEN, sealSince } from '@/store/seals';
import { orderEffects } from '@/workings/orders/effects';
import { reckon } from '@/workings/signoff/reckon';
import type { Served } from './benchProbes';
import { upTo } from './sizes';

type Row = (name: string, times: readonly number[]) => void;
type Timed = (rounds: number, work: (k: number) => Promise<void>) => Promise<number[]>;

const POSTINGS = upTo(200_000);
const WRITTEN = '2026-01-01T00:00:00.000Z';

/** One job that has so many postings over three years, each of its own day and cost code. */
async function longJob(db: Db): Promise<string> {
  const job = await db('job').where({ number: '1002' }).first();
  if (job === undefined) throw new Error('Job 1002 doesn’t exist.');
  const line = await db('tabLine').first('id');
  const codes = (await db('costCode').orderBy('id')).map((c) => c.id);
  await db.raw(
    `insert into posting (tab_line_id, job_id, cost_code_id, stage, amount, event, document, document_id, person_id, day, at)
     with recursive n(k) as (select 0 union all select k + 1 from n where k < ${POSTINGS} - 1)
     select ?, ?, (select value from json_each(?) where key = k % ?), (array.value), 100 + k % 900, 'Order sent', 'order', 1 + k % 500, 1,
       date('2023-05-12', '+' || (k % 1096) || ' days'), '${WRITTEN}'
     from n join json_each('["planned","drafted","onOrder","received","actual"]') as array on array.key = k % 5`,
    [line?.id ?? 0, job.id, JSON.stringify(codes), codes.length],
  );
  await insertMany(
    db,
    'budgetEntry',
    codes.map((costCodeId) => ({
      jobId: job.id,
      costCodeId,
      kind: 'change',
      amount: 1_000_000,
      reason: 'More work',
      personId: 1,
      day: '2024-01-10',
      at: '2024-01-10',
    })),
  );
  return job.number;
}

/** An order of some three hundred lines, seventeen of each of twenty jobs; one part of two needs is one line. */
async function wideOrder(db: Db, { act }: Served): Promise<string> {
  const needs = (await db.raw(
    `select id, open from (select n.id, n.open, n.job_id, row_number() over (partition by n.job_id order by n.id) as k from need n
       join job j on j.id = n.job_id where j.state = 'live' and n.open > 0)
     where k <= 17 and job_id in (select job_id from need n join job j on j.id = n.job_id where j.state = 'live' and n.open > 0 group by job_id having count(*) >= 17 limit 20)`,
  )) as { id: number; open: number }[];
  await db('need')
    .whereIn(
      'id',
      needs.map((n) => n.id),
    )
    .update({ supplierId: 1 });
  const picks = needs.map((n) => ({ needId: n.id, buy: n.open }));
  const text = await act('draftOrders', '/gather', { once: `bench-wide-${Date.now()}`, picks });
  return /K26-\d+/.exec(text)?.[0] ?? '';
}

/** The tab and the course of a job with 200,000 postings of its own, what rules cost, and how long the record is checked. */
export async function budgets(db: Db, app: Served, row: Row, timed: Timed): Promise<void> {
  console.log('\nBudgets and sign-off');
  const number300 = await wideOrder(db, app);
  const order = await findOrder(db, (await db('purchaseOrder').where({ number: number300 }).first('id'))?.id ?? 0);
  if (order === undefined) throw new Error('There is no draft.');
  const effects = await orderEffects(db, order);
  const { facts } = await reckon(db, order, { lines: order.lines, effects });
  const rules = USUAL_RULES.map((r) => ({ ...r, answer: 'warn' as const }));
  const words = `Rules of an order of ${order.lines.length} lines over ${facts.jobs.length} jobs`;
  row(`${words}, core`, await timed(60, async () => void findByRules(facts, rules, () => 'an account')));
  row(
    `${words}, with what they look at`,
    await timed(30, async () => void (await reckon(db, order, { lines: order.lines, effects }))),
  );
  const number = await longJob(db);
  for (const [name, path] of [
    [`Job of ${POSTINGS} postings: tab and course`, `/jobs/${number}`],
    [`Job of ${POSTINGS} postings: as of a day`, `/jobs/${number}?on=2025-02-01`],
    [`Job of ${POSTINGS} postings: budget`, `/jobs/${number}/budget`],
    ['History', '/history'],
    ['History of orders, by words', '/history?about=order&words=sent'],
    ['To sign', '/sign'],
  ] as const) {
    for (let k = 0; k < 3; k += 1) await app.get(path);
    row(name, await timed(30, async () => void (await app.get(path))));
  }
  const all = await db.transaction(async (trx) => {
    await trx.raw('drop trigger seal_is_never_deleted');
    await trx('seal').delete();
    const from = performance.now();
    await sealSince(trx, NOTHING_WRITTEN);
    return performance.now() - from;
  });
  row('Sealing the whole record', [all]);
  const from = performance.now();
  const { rows } = await checkRecord(db);
  row(`Checking ${rows} rows of the record`, [performance.now() - from]);
  // What no document stands behind goes again, so that the ledger can be proven.
  await db.raw('drop trigger posting_is_never_deleted');
  const gone = await rowsOf<{ jobId: number; stage: Stage; amount: number }>(
    db('posting').where({ at: WRITTEN }).groupBy('jobId', 'stage').select('jobId', 'stage').sum({ amount: 'amount' }),
  );
  await db('posting').where({ at: WRITTEN }).delete();
  for (const { jobId, stage, amount } of gone) await db('jobSum').where({ jobId }).decrement(stage, amount);
}
