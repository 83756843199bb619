import { rowOf } from '@/store/rows';
import { LIVE, type JobKind, type JobState } from '@/core/jobs/states';
import type { Day } from '@/core/calendar/workdays';
import { may } from '@/core/people/rights';
import { COMMITTED, STAGES, type Stage } from '@/core/tab/stages';
import type { Level } from '@/core/tab/sums';
import { loadCompany } from '@/store/company';
import { offeredJobNumber } from '@/store/numbers';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';
import { loadJobLevels } from '@/store/levels';
import { footIn, pageOf, type SortAndAfter, type Foot, type Page } from '../page';
import { permit } from '../permit';
import { countOf } from '../sql';
import { loadChoice } from '../frame/choices';

export type JobRow = {
  readonly id: number;
  readonly number: string;
  readonly name: string;
  readonly kind: JobKind;
  readonly state: JobState;
  readonly customer: string;
  readonly lead: string;
  readonly dueOn: Day | null;
  readonly toBuy: number;
  /** Lines of goods, and how many of them keep work from starting. */
  readonly goods: number;
  readonly missing: number;
  readonly level: Level | null;
};

export const JOBS_PAGE = 60;
export type JobFilter = SortAndAfter & {
  readonly state?: JobState | 'all' | undefined;
  readonly words?: string | undefined;
  /** Only those that this person leads. */
  readonly leadId?: number | undefined;
};

/** What a job's sums `m` come to over stages. */
const amountIn = (stages: readonly Stage[]) => stages.map((s) => `m.${COLUMNS[s]}`).join(' + ');
const COLUMNS = {
  planned: 'planned',
  drafted: 'drafted',
  onOrder: 'on_order',
  received: 'received',
  actual: 'actual',
} as const satisfies Record<Stage, string>;

/** What only those may see and sort by who may see money. */
const MONEY_SORTS = {
  budget: 'm.budget',
  committed: amountIn(COMMITTED),
  forecast: amountIn(STAGES),
  headroom: `m.budget - (${amountIn(STAGES)})`,
};

const JOB_SORTS = {
  id: 'j.id',
  first: 'number',
  by: {
    number: 'j.number',
    name: 'j.name',
    customer: 'c.name',
    lead: 'p.name',
    state: 'j.state',
    due: "coalesce(j.due_on, '9999')",
    toBuy: 'm.to_buy',
    missing: 'm.missing',
  },
} as const;

function foundJobs(db: Db, { state, words, leadId }: JobFilter) {
  const query = db('job as j')
    .join('jobSum as m', 'm.jobId', 'j.id')
    .leftJoin('customer as c', 'c.id', 'j.customerId')
    .leftJoin('person as p', 'p.id', 'j.leadId');
  if (state !== 'all') void query.where('j.state', state ?? LIVE);
  if (leadId !== undefined) void query.where('j.leadId', leadId);
  if (words)
    void query.where((w) =>
      w.whereLike('j.name', `%${words}%`).orWhereLike('j.number', `${words}%`).orWhereLike('c.name', `%${words}%`),
    );
  return query;
}

/** Jobs with their levels, by number unless they are sorted otherwise; a page at a time. */
export async function listJobs(db: Db, person: Person, filter: JobFilter): Promise<Page<JobRow>> {
  permit(person, 'see jobs');
  const query = foundJobs(db, filter).select(
    'j.id',
    'j.number',
    'j.name',
    'j.kind',
    'j.state',
    'j.dueOn',
    'm.toBuy',
    'm.missing',
    'm.goods',
    { customer: 'c.name', lead: 'p.name' },
  );
  const sorts = may(person, 'see money') ? { ...JOB_SORTS, by: { ...JOB_SORTS.by, ...MONEY_SORTS } } : JOB_SORTS;
  const { rows, ...page } = await pageOf<Omit<JobRow, 'level'>>(query, sorts, filter, JOBS_PAGE);
  const levels = may(person, 'see money')
    ? await loadJobLevels(
        db,
        rows.map((j) => j.id),
      )
    : undefined;
  return { rows: rows.map((j) => ({ ...j, level: levels?.get(j.id) ?? null })), ...page };
}

/** What the budgets of all jobs that a filter finds come to together. */
export async function sumJobs(db: Db, person: Person, filter: JobFilter): Promise<Foot> {
  permit(person, 'see jobs');
  const { currency } = await loadCompany(db);
  return footIn(currency, foundJobs(db, filter), may(person, 'see money') ? MONEY_SORTS : {});
}

/** How many live jobs buy their shortfall. */
export async function countPlanned(db: Db, person: Person): Promise<number> {
  permit(person, 'see jobs');
  return countOf(db('job').where({ state: LIVE, planning: 'shortfall' }));
}

/** What the form for a new job offers. */
export async function loadJobForm(db: Db, person: Person, today: Day) {
  permit(person, 'open jobs');
  const first = await rowOf<{ id: number }>(
    db('person as p')
      .join('personRole as r', 'r.personId', 'p.id')
      .where({ active: 1 })
      .whereIn('r.role', ['lead', 'manager'])
      .orderBy('p.name')
      .first('p.id'),
  );
  return {
    lead: await loadChoice(db, person, 'person', first?.id, today),
    nextNumber: await offeredJobNumber(db, await loadCompany(db), today),
  };
}
