import { JOB_KIND_NAMES, JOB_STATE_NAMES, isLive } from '@/core/jobs/states';
import { notFound } from 'next/navigation';
import type { ReactNode } from 'react';
import { asDay, formatDay, howFar, type Calendar, type Day } from '@/core/calendar/workdays';
import { formatWhole, signOf } from '@/core/money/money';
import { materialInWords, type Material } from '@/core/needs/material';
import { may } from '@/core/people/rights';
import { assetWords } from '@/core/records/asset';
import { forecastOf, type Level } from '@/core/tab/sums';
import { loadJobAsset, type JobAsset } from '@/queries/jobs/assets';
import { findJob, loadTab, type JobHead, type Tab } from '@/queries/jobs/job';
import { loadMaterial } from '@/queries/buying/material';
import { loadCalendar, loadCompany } from '@/store/company';
import { headroomInWords, LyingGlass } from '@/ui/jobs/SightGlass';
import { WorkedOn } from '@/ui/jobs/AssetContext';
import { Opened } from '@/ui/frame/Opened';
import { Sheet } from '@/ui/kit/Sheet';
import Link from '@/ui/kit/Link';
import { counted } from '@/core/words';
import { yardPage, type PageRequest } from '../../../server/yardPage';
import { AssetLine } from './AssetLine';
import { JobGlass, JobTabs, RailSwitch } from './JobFrame';
import { JobState } from './JobState';

type AskedJob = PageRequest & {
  readonly job: JobHead;
  readonly on: Day | undefined;
  /** Of that day; undefined for who may not see money. */
  readonly tab: Tab | undefined;
};

/** A page of a job: its level at the left, its name, and its pages above; all of an earlier day when one is asked for. */
export const jobPage = (render: (asked: AskedJob) => Promise<ReactNode>) =>
  yardPage(async (asked) => {
    const { db, person, params, query, today } = asked;
    const on = asDay(query.on ?? '');
    const job = await findJob(db, person, params.job ?? '', on);
    if (job === undefined) notFound();
    const tab = may(person, 'see money') ? await loadTab(db, person, job.id, on) : undefined;
    const { currency } = await loadCompany(db);
    const material = (await loadMaterial(db, person, [job.id])).get(job.id);
    const asset = await loadJobAsset(db, person, job.id);
    return (
      <Sheet
        joined={job.onRail}
        left={tab && <LevelColumn level={tab.whole} currency={currency} number={job.number} />}
      >
        <Opened kind="job" id={job.id} />
        <JobTop
          job={job}
          level={tab?.whole}
          currency={currency}
          material={on === undefined ? material : undefined}
          asset={asset}
          day={on ?? today}
          today={today}
          calendar={await loadCalendar(db)}
        />
        <JobTabs number={job.number} needs={job.counts.needs} orders={job.counts.orders} quote={job.quote} />
        <WorkedOn words={asset.own === null ? '' : assetWords(asset.own)}>
          {await render({ ...asked, job, on, tab })}
        </WorkedOn>
      </Sheet>
    );
  });

function LevelColumn({ level, currency, number }: { level: Level; currency: string; number: string }) {
  if (forecastOf(level) === 0 && level.budget === 0)
    return <p className="text-[12.5px] text-ink-2">The buying budget opens when the quote is won.</p>;
  return (
    <>
      <div className="text-[12.5px] text-ink-2">Buying budget</div>
      <div className="mb-4 font-title text-[21px] font-bold">
        {signOf(currency)}&#8239;{formatWhole(level.budget, currency)}
      </div>
      <JobGlass level={level} number={number} />
    </>
  );
}

type TopProps = {
  readonly job: JobHead;
  /** Of its budget, for a screen without the column at the left; undefined for who may not see money. */
  readonly level: Level | undefined;
  readonly currency: string;
  /** How its goods stand; undefined on an earlier day, and where it needs none. */
  readonly material: Material | undefined;
  readonly asset: JobAsset;
  /** The day that the page shows. */
  readonly day: Day;
  readonly today: Day;
  readonly calendar: Calendar;
};

function JobTop({ job, level, currency, material, asset, day, today, calendar }: TopProps) {
  const facts = [job.customer, `job lead ${job.lead}`, job.site].filter(Boolean).join(' · ');
  return (
    <div className="flex flex-wrap items-start justify-between gap-x-6 gap-y-1">
      <div className="min-w-0 max-phone:w-full">
        <h1 className="inline text-[25px] leading-tight max-phone:text-[21px]">{job.name}</h1>
        <span className="tag ml-3 align-[4px]">{JOB_KIND_NAMES[job.kind]}</span>
        <span className={`tag ml-2 align-[4px] ${isLive(job) ? 'tag-good' : ''}`}>{JOB_STATE_NAMES[job.state]}</span>
        {job.onHold !== null && <span className="tag tag-care ml-2 align-[4px]">On hold: {job.onHold}</span>}
        {isLive(job) && job.counts.review > 0 && (
          <Link href={`/jobs/${job.number}/plan`} className="tag tag-care ml-2 align-[4px] hover:underline">
            {counted(job.counts.review, 'point')} pre-start checks open
          </Link>
        )}
        <span className="ml-3 text-ink-2 phone:hidden">
          <RailSwitch jobId={job.id} onRail={job.onRail} />
        </span>
        <p className="mt-0.5 text-ink-2 max-phone:truncate">{facts}</p>
        {level !== undefined && forecastOf(level) + level.budget !== 0 && (
          <div className="my-1 flex items-center gap-3 lg:hidden">
            <LyingGlass level={level} currency={currency} name={`Job ${job.number}`} />
            <span className="num shrink-0 text-[13px]">{headroomInWords(level, currency)}</span>
          </div>
        )}
        {material !== undefined && isLive(job) && (
          <div>
            <Link href={`/jobs/${job.number}/buy-list`} className="hover:underline max-phone:inline-block">
              <span className="text-ink-2">Material</span>{' '}
              <b className={material.missing === 0 ? 'text-enamel' : 'text-amber'}>
                {materialInWords(material, (d) => formatDay(d, today))}
              </b>
            </Link>
          </div>
        )}
        <AssetLine key={asset.version} jobId={job.id} asset={asset} asks={job.kind === 'repair'} />
      </div>
      <div className="text-ink-2 max-phone:flex max-phone:w-full max-phone:flex-wrap max-phone:items-center max-phone:gap-x-4 max-phone:gap-y-6 sm:text-right">
        {job.dueOn !== null && (
          <p>
            {job.dueWords} <b className="text-ink">{formatDay(job.dueOn, today)}</b>
            {isLive(job) && ` · ${howFar(job.dueOn, day, calendar)}`}
          </p>
        )}
        <span className="max-phone:hidden">
          <RailSwitch jobId={job.id} onRail={job.onRail} />
        </span>
        <JobState
          job={{ id: job.id, number: job.number, state: job.state, version: job.version, onHold: job.onHold }}
        />
      </div>
    </div>
  );
}
