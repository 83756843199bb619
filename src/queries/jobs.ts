import type { Day } from '@/core/calendar/workdays';
import { may } from '@/core/people/rights';
import type { Level } from '@/core/tab/sums';
import type { Db } from '@/store/connection';
import type { Person } from '@/store/people';
import type { JobState } from '@/store/tables';
import { loadJobLevels } from './levels';
import { permit } from './permit';
import { loadThing } from './things';

export const JOB_STATES: Readonly<Record<JobState, string>> = {
  quoted: 'Quoted',
  live: 'Live',
  complete: 'Complete',
  lost: 'Lost',
};
export const JOB_KINDS = { contract: 'Contract', repair: 'Repair', make: 'Make' } as const;

export type JobRow = {
  readonly id: number;
  readonly number: string;
  readonly name: string;
  readonly kind: keyof typeof JOB_KINDS;
  readonly state: JobState;
  readonly customer: string;
  readonly lead: string;
  readonly dueOn: Day | null;
  readonly toBuy: number;
  readonly level: Level | null;
};

export const JOBS_PAGE = 60;
export type JobFilter = { readonly state?: JobState | 'all'; readonly words?: string; readonly after?: string };

/** Jobs by number with their levels; a page at a time, going on after the last number shown. */
export async function listJobs(db: Db, person: Person, filter: JobFilter): Promise<{ rows: JobRow[]; more: boolean }> {
  permit(person, 'see jobs');
  const query = db('job as j').join('customer as c', 'c.id', 'j.customerId').join('person as p', 'p.id', 'j.leadId');
  if (filter.state !== 'all') void query.where('j.state', filter.state ?? 'live');
  if (filter.words)
    void query.where((w) =>
      w
        .whereLike('j.name', `%${filter.words}%`)
        .orWhereLike('j.number', `${filter.words}%`)
        .orWhereLike('c.name', `%${filter.words}%`),
    );
  if (filter.after) void query.where('j.number', '>', filter.after);
  const open = db('need').whereRaw('need.job_id = j.id').whereRaw('open > 0').count('*').as('toBuy');
  const rows = (await query
    .orderBy('j.number')
    .limit(JOBS_PAGE + 1)
    .select(
      'j.id',
      'j.number',
      'j.name',
      'j.kind',
      'j.state',
      'j.dueOn',
      { customer: 'c.name', lead: 'p.name' },
      open,
    )) as Omit<JobRow, 'level'>[];
  const page = rows.slice(0, JOBS_PAGE);
  const levels = may(person, 'see money')
    ? await loadJobLevels(
        db,
        page.map((j) => j.id),
      )
    : undefined;
  return { rows: page.map((j) => ({ ...j, level: levels?.get(j.id) ?? null })), more: rows.length > JOBS_PAGE };
}

/** What the form for a new job offers. */
export async function loadJobForm(db: Db, person: Person) {
  permit(person, 'open jobs');
  const first = (await db('person as p')
    .join('personRole as r', 'r.personId', 'p.id')
    .where({ active: 1 })
    .whereIn('r.role', ['lead', 'manager'])
    .orderBy('p.name')
    .first('p.id')) as { id: number } | undefined;
  const [last] = (await db('job').max({ number: db.raw('CAST(number AS INTEGER)') })) as { number: number | null }[];
  return { lead: await loadThing(db, person, 'person', first?.id), nextNumber: String((last?.number ?? 0) + 1) };
}
