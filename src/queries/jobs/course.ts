import { listed, rowsOf } from '@/store/rows';
import type { Day } from '@/core/calendar/workdays';
import type { Minor } from '@/core/money/money';
import { COMMITTED } from '@/core/tab/stages';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';
import { permit } from '../permit';

export type CoursePoint = {
  readonly day: Day;
  readonly budget: Minor;
  readonly forecast: Minor;
  readonly committed: Minor;
  readonly actual: Minor;
};

/** What moved a job's money most on a day. */
export type CourseEvent = {
  readonly day: Day;
  readonly what: 'budget' | 'committed';
  readonly amount: Minor;
  readonly words: string;
};

export type CourseView = { readonly points: readonly CoursePoint[]; readonly events: readonly CourseEvent[] };

const MOST_EVENTS = 8;

/**
 * How budget, forecast, committed and actual cost of a job went up to a day, a point for each day on which something
 * moved, with what moved budget and committed cost most.
 */
export async function loadCourse(db: Db, person: Person, jobId: number, on?: Day): Promise<CourseView> {
  permit(person, 'see money');
  const until = on ?? '9999';
  const points = await rowsOf<CoursePoint>(
    db.raw(
      // Summed in the order of the index first, which needs no sorting; a job may have hundreds of thousands of postings.
      `with posted as (select cost_code_id, stage, day, sum(amount) as amount from posting where job_id = ? and day <= ? group by cost_code_id, stage, day),
     moved as (
       select day, 0 as budget, sum(amount) as forecast, sum(case when stage in (${listed(COMMITTED)}) then amount else 0 end) as committed,
         sum(case when stage = 'actual' then amount else 0 end) as actual from posted group by day
       union all select day, sum(amount), 0, 0, 0 from budget_entry where job_id = ? and day <= ? group by day),
     days as (select day, sum(budget) as budget, sum(forecast) as forecast, sum(committed) as committed, sum(actual) as actual from moved group by day)
     select day, sum(budget) over up as budget, sum(forecast) over up as forecast, sum(committed) over up as committed, sum(actual) over up as actual
     from days window up as (order by day) order by day`,
      [jobId, until, jobId, until],
    ),
  );
  const steps = points.map((p, k) => ({
    day: p.day,
    budget: p.budget - (points[k - 1]?.budget ?? 0),
    committed: p.committed - (points[k - 1]?.committed ?? 0),
  }));
  const moved = (what: CourseEvent['what']) =>
    steps.filter((s) => s[what] !== 0).map((s) => ({ ...s, what, by: s[what] }));
  const most = [...moved('budget'), ...moved('committed')]
    .sort((a, b) => Math.abs(b.by) - Math.abs(a.by))
    .slice(0, MOST_EVENTS)
    .sort((a, b) => a.day.localeCompare(b.day));
  const events: CourseEvent[] = [];
  for (const { day, what, by } of most)
    events.push({
      day,
      what,
      amount: by as Minor,
      words: await (what === 'budget' ? budgetWords(db, jobId, day) : postedWords(db, jobId, day)),
    });
  return { points, events };
}

async function budgetWords(db: Db, jobId: number, day: Day): Promise<string> {
  const rows = await db('budgetEntry').where({ jobId, day }).orderBy('id').distinct('reason');
  return rows.map((r) => r.reason).join('; ');
}

/** Where the documents of postings have their numbers. */
const NUMBERS = `case document
  when 'order' then (select number from purchase_order where id = document_id)
  when 'receipt' then (select o.number from receipt r join purchase_order o on o.id = r.order_id where r.id = document_id)
  when 'invoice' then (select number from invoice where id = document_id)
  when 'quote' then (select number from quote where id = document_id) else '' end`;

/** What moved committed cost most on a day. The index begins with job, cost code and stage, so each is named. */
async function postedWords(db: Db, jobId: number, day: Day): Promise<string> {
  const [most] = await rowsOf<{ event: string; number: string | null; total: Minor }>(
    db.raw(
      `select event, ${NUMBERS} as number, total from (
       select event, document, document_id, sum(amount) as total from posting
       where job_id = ? and cost_code_id in (select cost_code_id from code_sum where job_id = ?) and stage in (${listed(COMMITTED)}) and day = ?
       group by event, document, document_id order by abs(sum(amount)) desc limit 1)`,
      [jobId, jobId, day],
    ),
  );
  return most === undefined ? '' : [most.event, most.number].filter(Boolean).join(' ');
}
