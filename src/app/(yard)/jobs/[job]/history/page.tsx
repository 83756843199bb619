import { notFound } from 'next/navigation';
import { findJob, loadHistory } from '@/queries/job';
import { History } from '@/ui/History';
import { place } from '../../../../server/place';

export default place(async ({ db, person, params }) => {
  const job = await findJob(db, person, params.job ?? '');
  if (job === undefined) notFound();
  return <History rows={await loadHistory(db, person, 'job', job.id)} />;
});
