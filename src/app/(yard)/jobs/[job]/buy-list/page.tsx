import { loadBuyList, loadChoices } from '@/queries/needs';
import { jobPlace } from '../jobPlace';
import { BuyList } from './BuyList';

export default jobPlace(async ({ db, person, today, job }) => {
  return (
    <BuyList
      rows={await loadBuyList(db, person, job.id, today)}
      choices={await loadChoices(db, person)}
      job={{ id: job.id, number: job.number, live: job.state === 'live' }}
      quote={job.quote}
    />
  );
});
