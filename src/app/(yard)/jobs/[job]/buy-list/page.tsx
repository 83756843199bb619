import { notFound } from 'next/navigation';
import { findJob } from '@/queries/job';
import { loadBuyList, loadChoices } from '@/queries/needs';
import { place } from '../../../../server/place';
import { BuyList } from './BuyList';

export default place(async ({ db, person, today, params }) => {
  const job = await findJob(db, person, params.job ?? '');
  if (job === undefined) notFound();
  return (
    <BuyList
      rows={await loadBuyList(db, person, job.id, today)}
      choices={await loadChoices(db, person)}
      job={{ id: job.id, number: job.number, live: job.state === 'live' }}
      quote={job.quote}
    />
  );
});
