import { loadBuyList } from '@/queries/needs';
import { jobPlace } from '../jobPlace';
import { BuyList } from './BuyList';

export default jobPlace(async ({ db, person, today, job, query }) => {
  const after = Number(query.after);
  const list = await loadBuyList(db, person, job.id, today, Number.isSafeInteger(after) ? after : undefined);
  return <BuyList list={list} job={{ id: job.id, number: job.number, live: job.state === 'live' }} quote={job.quote} />;
});
