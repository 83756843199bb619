import type { Day } from '@/core/calendar/workdays';
import type { Minor } from '@/core/money/money';
import { NOTHING, plus, STAGES, type Stage } from '@/core/tab/stages';
import { EMPTY_LEVEL, type Level } from '@/core/tab/sums';
import type { Db } from '@/store/db';
import { among, rowsOf, whereIn } from './rows';
import type { Disagreement } from './tab/kind';

export type CodeLevel = Level & { readonly jobId: number; readonly costCodeId: number };

type Sum = { jobId: number; costCodeId: number; stage: Stage | null; amount: Minor };

function assemble(budgets: readonly Sum[], sums: readonly Sum[]): CodeLevel[] {
  const levels = new Map<string, CodeLevel>();
  const at = (s: Sum) =>
    levels.get(`${s.jobId}/${s.costCodeId}`) ?? { ...EMPTY_LEVEL, jobId: s.jobId, costCodeId: s.costCodeId };
  for (const b of budgets) levels.set(`${b.jobId}/${b.costCodeId}`, { ...at(b), budget: b.amount });
  for (const s of sums) {
    const level = at(s);
    if (s.stage !== null)
      levels.set(`${s.jobId}/${s.costCodeId}`, {
        ...level,
        amounts: plus(level.amounts, { ...NOTHING, [s.stage]: s.amount }),
      });
  }
  return [...levels.values()];
}

const budgetSums = (db: Db, jobIds: readonly number[]) =>
  db('budgetEntry')
    .whereIn('jobId', among(db, jobIds))
    .groupBy('jobId', 'costCodeId')
    .select('jobId', 'costCodeId')
    .sum({ amount: 'amount' });

/** Levels by job and cost code as they stand now, from sums kept beside the ledger. */
export async function loadLevels(db: Db, jobIds: readonly number[]): Promise<CodeLevel[]> {
  const sums = db('tabSum').whereIn('jobId', among(db, jobIds)).select('jobId', 'costCodeId', 'stage', 'amount');
  return assemble(await rowsOf<Sum>(budgetSums(db, jobIds)), (await sums) as Sum[]);
}

/** The same for one job at the end of a day, summed from its postings by index. */
export async function loadLevelsOn(db: Db, jobId: number, day: Day): Promise<CodeLevel[]> {
  const budgets = await rowsOf<Sum>(budgetSums(db, [jobId]).where('day', '<=', day));
  const postings = db('posting').where({ jobId }).where('day', '<=', day).groupBy('costCodeId', 'stage');
  const sums = (await postings.select('jobId', 'costCodeId', 'stage').sum({ amount: 'amount' })) as Sum[];
  return assemble(budgets, sums);
}

/** Whole-job levels by job id, from the sums kept with each job. */
export async function loadJobLevels(db: Db, jobIds: readonly number[]): Promise<Map<number, Level>> {
  const rows = await whereIn(db, 'jobSum', 'jobId', jobIds);
  return new Map(
    rows.map(({ jobId, budget, planned, drafted, onOrder, received, actual }) => [
      jobId,
      { budget, amounts: { planned, drafted, onOrder, received, actual } },
    ]),
  );
}

/** Jobs whose kept sums are not what their budget entries, postings and lines add up to; empty when all are right. */
export async function sumsDisagreement(db: Db): Promise<Disagreement[]> {
  const stages = STAGES.map((s) => `coalesce(sum(amount) filter (where stage = '${s}'), 0)`);
  const lines = ['open > 0', 'missing > 0', "kind = 'goods' and quantity > 0"];
  const rows = await rowsOf<{ id: number }>(
    db.raw(`select id from (
      select j.id, (select coalesce(sum(b.amount), 0) from budget_entry b where b.job_id = j.id),
        ${stages.map((sum) => `(select ${sum} from posting p where p.job_id = j.id)`).join(', ')},
        ${lines.map((is) => `(select count(*) from need n where n.job_id = j.id and ${is})`).join(', ')} from job j
      except select job_id, budget, planned, drafted, on_order, received, actual, to_buy, missing, goods from job_sum)`),
  );
  return rows.map(({ id }) => ({ line: id, what: 'sums kept of a job' }));
}
