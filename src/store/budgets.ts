import { isOpenJob } from '@/core/jobs/states';
import type { Day } from '@/core/calendar/workdays';
import { leastFrom, partsOf, type ChangeLine, type Moved, type BudgetsBefore } from '@/core/budgets/change';
import { groupBy } from '@/core/group';
import { minor, type Minor } from '@/core/money/money';
import { loadCompany } from './company';
import type { Db } from './db';
import { insertMany, rowsOf } from './rows';
import type { BudgetChange, Job } from './tables';

/** What is held back of jobs' money, up to a day or in all. */
export async function loadContingency(db: Db, jobId: number, on?: Day): Promise<Minor> {
  const query = db('heldEntry').where({ jobId });
  if (on !== undefined) void query.where('day', '<=', on);
  const [row] = await rowsOf<{ amount: Minor | null }>(query.sum({ amount: 'amount' }));
  return row?.amount ?? minor(0);
}

/** How a job's money stands before a change of it that counts from a day on. */
export async function loadBudgetsBefore(
  db: Db,
  job: Pick<Job, 'id' | 'number' | 'state'>,
  from: Day,
): Promise<BudgetsBefore> {
  const moved = await rowsOf<Moved & { readonly costCodeId: number }>(
    db('budgetEntry')
      .where({ jobId: job.id })
      .groupBy('costCodeId', 'day')
      .select('costCodeId', 'day')
      .sum({ amount: 'amount' }),
  );
  const contingency = await rowsOf<Moved>(
    db('heldEntry').where({ jobId: job.id }).groupBy('day').select('day').sum({ amount: 'amount' }),
  );
  const [first] = await rowsOf<{ day: Day | null }>(db('budgetEntry').where({ jobId: job.id }).min({ day: 'day' }));
  return {
    job: job.number,
    closed: !isOpenJob(job),
    openedOn: first?.day ?? null,
    budgets: new Map([...groupBy(moved, (m) => m.costCodeId)].map(([id, own]) => [id, leastFrom(own, from)])),
    contingency: leastFrom(contingency, from),
    currency: (await loadCompany(db)).currency,
  };
}

export const linesOf = async (db: Db, changeId: number): Promise<ChangeLine[]> =>
  db('budgetChangeLine').where({ changeId }).orderBy('place').select('costCodeId', 'amount');

export const writeLines = (trx: Db, changeId: number, lines: readonly ChangeLine[]): Promise<void> =>
  insertMany(
    trx,
    'budgetChangeLine',
    lines.map((l, k) => ({ changeId, place: k + 1, costCodeId: l.costCodeId, amount: l.amount })),
  );

type Counting = Pick<BudgetChange, 'id' | 'jobId' | 'number' | 'day' | 'reason'>;

/** Lets a change count from its day on: by cost code, and for what is held back. */
export async function count(
  trx: Db,
  { id: changeId, jobId, number, day, reason }: Counting,
  lines: readonly ChangeLine[],
  { personId, at }: { readonly personId: number; readonly at: string },
): Promise<void> {
  const [entries] = await rowsOf<{ n: number }>(trx('budgetEntry').where({ jobId }).count({ n: '*' }));
  const kind = entries?.n === 0 ? 'opening' : 'change';
  await insertMany(
    trx,
    'budgetEntry',
    lines
      .filter((l) => l.costCodeId !== null)
      .map(({ costCodeId, amount }) => ({
        ...{ jobId, costCodeId, kind, amount, reason: `Budget change ${number}: ${reason}`, changeId },
        ...{ personId, day, at },
      })),
  );
  const { contingency } = partsOf(lines);
  if (contingency !== 0) await trx('heldEntry').insert({ jobId, amount: contingency, changeId, personId, day, at });
}
