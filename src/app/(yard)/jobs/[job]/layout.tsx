import { notFound } from 'next/navigation';
import type { ReactNode } from 'react';
import { formatDay, howFar } from '@/core/calendar/workdays';
import { may } from '@/core/people/rights';
import { formatWhole, signOf } from '@/core/money/money';
import { forecastOf } from '@/core/tab/sums';
import { findJob, loadTab } from '@/queries/job';
import { JOB_KINDS, JOB_STATES } from '@/queries/jobs';
import { loadCalendar, loadCompany } from '@/store/company';
import { Sheet } from '@/ui/kit/Sheet';
import { here } from '../../../server/session';
import { clock, yard } from '../../../server/yard';
import { JobGlass, JobTabs, RailSwitch } from './JobFrame';

export async function generateMetadata({ params }: { params: Promise<{ job: string }> }) {
  return { title: `Job ${(await params).job}` };
}

/** What all pages of a job share: its level at the left, its name, and its pages. */
export default async function JobLayout({
  children,
  params,
}: {
  children: ReactNode;
  params: Promise<{ job: string }>;
}) {
  const [person, db, today] = [await here(), await yard(), clock.today()];
  const job = await findJob(db, person, decodeURIComponent((await params).job));
  if (job === undefined) notFound();
  const { currency } = await loadCompany(db);
  const level = may(person, 'see money') ? (await loadTab(db, person, job.id)).whole : undefined;
  const facts = [job.customer, `lead ${job.lead}`, job.site].filter(Boolean).join(' · ');
  return (
    <Sheet
      joined={job.onRail}
      left={
        level &&
        (forecastOf(level) === 0 && level.budget === 0 ? (
          <p className="text-[12.5px] text-ink-2">The budget for buying opens when the quote is won.</p>
        ) : (
          <>
            <div className="text-[12.5px] text-ink-2">Budget for buying</div>
            <div className="mb-4 font-title text-[21px] font-bold">
              {signOf(currency)}&#8239;{formatWhole(level.budget, currency)}
            </div>
            <JobGlass level={level} number={job.number} />
          </>
        ))
      }
    >
      <div className="flex flex-wrap items-start justify-between gap-x-6 gap-y-1">
        <div>
          <h1 className="inline text-[25px] leading-tight">{job.name}</h1>
          <span className="tag ml-3 align-[4px]">{JOB_KINDS[job.kind]}</span>
          <span className={`tag ml-2 align-[4px] ${job.state === 'live' ? 'tag-good' : ''}`}>
            {JOB_STATES[job.state]}
          </span>
          <p className="mt-0.5 text-ink-2">{facts}</p>
        </div>
        <div className="text-ink-2 sm:text-right">
          {job.dueOn !== null && (
            <p>
              {job.dueWords} <b className="text-ink">{formatDay(job.dueOn, today)}</b>
              {job.state === 'live' && ` · ${howFar(job.dueOn, today, await loadCalendar(db))}`}
            </p>
          )}
          <RailSwitch jobId={job.id} onRail={job.onRail} />
        </div>
      </div>
      <JobTabs number={job.number} needs={job.counts.needs} orders={job.counts.orders} quote={job.quote} />
      {children}
    </Sheet>
  );
}
