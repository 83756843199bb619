import { loadHistory } from '@/queries/job';
import { History } from '@/ui/History';
import { GoOn } from '@/ui/kit/Sheet';
import { jobPlace } from '../jobPlace';
import { JobShelf } from '../JobShelf';

export default jobPlace(async ({ db, person, query, job }) => {
  const before = query.before === undefined ? undefined : Number(query.before);
  const { rows, more } = await loadHistory(db, person, 'job', job.id, before);
  return (
    <>
      <History rows={rows} />
      {more && (
        <GoOn to={`/jobs/${job.number}/history`} query={{ before: rows.at(-1)?.id }}>
          What happened before
        </GoOn>
      )}
      <JobShelf person={person} job={job} fact="nothing here is ever rewritten" />
    </>
  );
});
