import { rowsOf } from './rows';
import type { Day } from '@/core/calendar/workdays';
import { groupBy } from '@/core/group';
import type { Knex } from 'knex';
import { minor, type Minor } from '@/core/money/money';
import { NOTHING, plus, type Stage } from '@/core/tab/stages';
import { addLevels, EMPTY_LEVEL, type Level } from '@/core/tab/sums';
import type { Db } from '@/store/db';
import { among } from '@/store/rows';

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

/** Whole-job levels by job id. */
export async function loadJobLevels(db: Db, jobIds: readonly number[]): Promise<Map<number, Level>> {
  const levels = await loadLevels(db, jobIds);
  const own = groupBy(levels, (l) => l.jobId);
  return new Map(jobIds.map((id) => [id, addLevels(own.get(id) ?? [])]));
}

/** One level of many jobs together, summed by the database. @param ids - a query of their ids */
export async function loadLevelOf(db: Db, ids: Knex.QueryBuilder): Promise<Level> {
  const budget = await rowsOf<{
    amount: Minor | null;
  }>(db('budgetEntry').whereIn('jobId', ids.clone()).sum({ amount: 'amount' }));
  const sums = await rowsOf<{ stage: Stage; amount: Minor }>(
    db('tabSum').whereIn('jobId', ids.clone()).groupBy('stage').select('stage').sum({ amount: 'amount' }),
  );
  const amounts = sums.reduce((all, s) => plus(all, { ...NOTHING, [s.stage]: s.amount }), NOTHING);
  return { budget: budget[0]?.amount ?? minor(0), amounts };
}
