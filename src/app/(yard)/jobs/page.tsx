import Link from '@/ui/Link';
import { JOB_STATES, listJobs } from '@/queries/jobs';
import { FilterChoice, FilterWords } from '@/ui/kit/Filters';
import { Fact, Shelf } from '@/ui/kit/Shelf';
import { Empty, GoOn, PlaceTitle, Sheet } from '@/ui/kit/Sheet';
import { may } from '@/core/people/rights';
import { asked } from '@/core/asked';
import { TakeOut } from '@/ui/kit/TakeOut';
import { place } from '../../server/place';
import { JobsTable } from './JobsTable';

export const metadata = { title: 'Jobs' };

export default place(async ({ db, person, query }) => {
  const state = query.state === 'all' ? 'all' : asked(JOB_STATES, query.state);
  const { rows, more } = await listJobs(db, person, { state, words: query.words, after: query.after });
  const last = rows.at(-1)?.number ?? '';
  return (
    <Sheet>
      <PlaceTitle title="Jobs" count={`${rows.length}${more ? ' of more' : ''}`}>
        <FilterChoice
          name="state"
          label="State"
          fallback="live"
          options={[...Object.entries(JOB_STATES), ['all', 'All jobs'] as const]}
        />
        <FilterWords label="Job or customer" />
        <TakeOut list="jobs" />
      </PlaceTitle>
      {rows.length === 0 ? (
        <Empty title="No job is shown">
          Choose another state above, or open a new job and bring its quote in from a file.
        </Empty>
      ) : (
        <JobsTable rows={rows} />
      )}
      {more && (
        <GoOn to="/jobs" query={{ ...query, after: last }}>
          More jobs after {last}
        </GoOn>
      )}
      <Shelf
        facts={
          <Fact>
            Committed is part of the forecast; headroom is budget less forecast. Enter opens the job that is marked.
          </Fact>
        }
      >
        {may(person, 'open jobs') && (
          <Link href="/jobs/new" className="btn btn-main h-[38px]">
            Open a new job
          </Link>
        )}
      </Shelf>
    </Sheet>
  );
});
