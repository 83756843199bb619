import { notFound } from 'next/navigation';
import { findJob, loadHistory } from '@/queries/job';
import { History } from '@/ui/History';
import { GoOn } from '@/ui/kit/Sheet';
import { place } from '../../../../server/place';
import { JobShelf } from '../JobShelf';

export default place(async ({ db, person, params, query }) => {
  const job = await findJob(db, person, params.job ?? '');
  if (job === undefined) notFound();
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
      <JobShelf db={db} person={person} job={job} fact="nothing here is ever rewritten" />
    </>
  );
});
