import { JOB_STATE_NAMES } from '@/core/jobs/states';
import Link from '@/ui/kit/Link';
import { countPlanned, listJobs, sumJobs } from '@/queries/jobs/jobs';
import { FilterChoice, FilterWords } from '@/ui/kit/Filters';
import { Fact, RowKeys, Shelf } from '@/ui/kit/Shelf';
import { GoOn, NothingFound, PlaceTitle, Sheet } from '@/ui/kit/Sheet';
import { may } from '@/core/people/rights';
import { keyIn } from '@/core/keyIn';
import { TakeOut } from '@/ui/kit/TakeOut';
import { yardPage } from '../../server/yardPage';
import { ListViews } from '../_shared/people/ListViews';
import { JobsTable } from './JobsTable';
import { PlanAll } from './PlanAll';

export const metadata = { title: 'Jobs' };

export default yardPage(async ({ db, person, query }) => {
  const state = query.state === 'all' ? ('all' as const) : keyIn(JOB_STATE_NAMES, query.state);
  const mine = query.lead === 'me';
  const filter = {
    state,
    words: query.words,
    leadId: mine ? person.id : undefined,
    sort: query.sort,
    after: query.after,
  };
  const { rows, next, sorts } = await listJobs(db, person, filter);
  const foot = await sumJobs(db, person, filter);
  const leads = mine || person.roles.includes('lead');
  const planned = await countPlanned(db, person);
  return (
    <Sheet>
      <PlaceTitle title="Jobs">
        <FilterChoice
          name="state"
          label="Status"
          fallback="live"
          options={[...Object.entries(JOB_STATE_NAMES), ['all', 'All jobs'] as const]}
        />
        {leads && (
          <FilterChoice
            name="lead"
            label="Job lead"
            options={[
              ['', 'All leads'],
              ['me', 'My jobs'],
            ]}
          />
        )}
        <FilterWords label="Job or customer" />
        <ListViews list="jobs" />
        <TakeOut list="jobs" />
      </PlaceTitle>
      {rows.length === 0 ? (
        <NothingFound
          to="/jobs"
          filtered={query.words !== undefined || query.state !== undefined || mine}
          title="No jobs here"
        >
          Choose another status, or create a job.
        </NothingFound>
      ) : (
        <JobsTable rows={rows} list={{ name: 'jobs', sorts, foot }} />
      )}
      {next !== undefined && (
        <GoOn to="/jobs" query={{ ...query, after: next }}>
          More jobs
        </GoOn>
      )}
      <Shelf
        facts={
          <>
            {may(person, 'see money') && <Fact>Forecast includes committed · Headroom = budget − forecast</Fact>}
            <RowKeys />
          </>
        }
      >
        {planned > 0 && may(person, 'change buy lists') && <PlanAll jobs={planned} />}
        {may(person, 'open jobs') && (
          <Link href="/jobs/new" className="btn btn-main h-[38px]">
            New job
          </Link>
        )}
      </Shelf>
    </Sheet>
  );
});
