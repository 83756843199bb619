import { formatDay, plusDays, type Day } from '@/core/calendar/workdays';
import { LIVE } from '@/core/jobs/states';
import { formatMoney, minor, type Minor } from '@/core/money/money';
import { materialInWords } from '@/core/needs/material';
import { loadCompany } from '@/store/company';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';
import { rowsOf } from '@/store/rows';
import { loadMaterial } from '../buying/material';
import { SHOWN, type Group, type Waiting } from '../frame/waiting';
import { countOf } from '../sql';

/** Budget changes that are written and not agreed, the oldest first. */
export async function toAgree(db: Db): Promise<Group> {
  const { currency } = await loadCompany(db);
  const pending = () =>
    db('budgetChange as c').join('job as j', 'j.id', 'c.jobId').where({ 'c.state': 'pending', 'j.state': LIVE });
  const found = await rowsOf<{ number: number; reason: string; job: string; total: Minor }>(
    pending()
      .orderBy('c.id')
      .limit(SHOWN)
      .select(
        'c.number',
        'c.reason',
        { job: 'j.number' },
        db.raw('(select sum(amount) from budget_change_line where change_id = c.id) as total'),
      ),
  );
  const rows = found.map(({ number, reason, job, total }): Waiting => {
    const by = total === 0 ? 'no change in total' : `${total > 0 ? '+' : ''}${formatMoney(total, currency)}`;
    return {
      word: 'Agree',
      weight: 'care',
      text: `Budget change ${number} for ${job}, ${by}: ${reason}`,
      step: 'Review and agree',
      href: `/jobs/${job}/budget`,
    };
  });
  return { title: 'To agree', href: '/jobs', count: await countOf(pending()), rows };
}

export async function overBudget(db: Db): Promise<Group> {
  const { currency } = await loadCompany(db);
  // In the order of the index of what is over most; SQLite keeps a cross join as it is written.
  const overs = () =>
    db('codeSum as x')
      .crossJoin('job as j', 'j.id', 'x.jobId')
      .where('j.state', LIVE)
      .whereRaw('x.forecast > x.budget');
  const over = await rowsOf<{ job: string; code: string; name: string; headroom: Minor }>(
    overs()
      .join('costCode as c', 'c.id', 'x.costCodeId')
      .orderByRaw('x.budget - x.forecast')
      .limit(SHOWN)
      .select('c.code', 'c.name', { job: 'j.number' }, db.raw('x.budget - x.forecast as headroom')),
  );
  const rows = over.map((o): Waiting => {
    const by = formatMoney(minor(-o.headroom), currency);
    return {
      word: 'Over',
      weight: 'over',
      text: `${o.job} ${o.code} ${o.name}: forecast ${by} over budget`,
      step: 'Open tab',
      href: `/jobs/${o.job}?figure=${o.code}`,
    };
  });
  return { title: 'Over budget', href: '/jobs', count: await countOf(overs()), rows };
}

/** How long a job is told of whose material is complete: before and after its start, and to its lead since the last piece came. */
const TOLD = 14;

/** Jobs about to start whose material is there, and those that were to start and wait for it; one's own whose last piece came. */
export async function toStart(db: Db, person: Person, today: Day): Promise<Group> {
  const since = plusDays(today, -TOLD);
  const told = () =>
    db('job as j')
      .where('j.state', LIVE)
      .whereExists(db('jobSum as m').whereRaw('m.job_id = j.id and m.goods > 0'))
      .where((q) =>
        q
          .where((ready) =>
            ready
              .whereNotNull('j.readyOn')
              .where((or) =>
                or
                  .whereBetween('j.startsOn', [since, plusDays(today, TOLD)])
                  .orWhere((own) => own.where('j.leadId', person.id).where('j.readyOn', '>=', since)),
              ),
          )
          .orWhere((waits) => waits.whereNull('j.readyOn').where('j.startsOn', '<=', today)),
      );
  const found = (await told()
    .orderByRaw("j.lead_id = ? desc, coalesce(j.starts_on, '~'), j.id", [person.id])
    .limit(SHOWN)
    .select('j.id', 'j.number', 'j.name', 'j.startsOn')) as {
    id: number;
    number: string;
    name: string;
    startsOn: Day | null;
  }[];
  const material = await loadMaterial(
    db,
    person,
    found.map((j) => j.id),
  );
  const rows = found.flatMap(({ id, number, name, startsOn }): Waiting[] => {
    const own = material.get(id);
    if (own === undefined) return [];
    const ready = own.missing === 0;
    const starts =
      startsOn === null ? '' : `, ${startsOn < today ? 'start was due' : 'starts'} ${formatDay(startsOn, today)}`;
    return [
      {
        word: ready ? 'Ready' : 'Waiting',
        weight: ready ? 'good' : 'care',
        text: `${number} ${name}${starts}: material ${materialInWords(own, (d) => formatDay(d, today))}`,
        step: 'Open buy list',
        href: `/jobs/${number}/buy-list`,
      },
    ];
  });
  return { title: 'To start', href: '/jobs', count: await countOf(told()), rows };
}
