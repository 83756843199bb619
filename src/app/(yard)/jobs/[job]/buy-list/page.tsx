import { loadBuyList } from '@/queries/buying/buyList';
import { jobPlace } from '../jobPlace';
import { BuyList } from './BuyList';

export default jobPlace(async ({ db, person, today, job, query }) => {
  const asked = (text: string | undefined) => (Number.isSafeInteger(Number(text)) ? Number(text) : undefined);
  const need = asked(query.need);
  const list = await loadBuyList(db, person, job.id, today, { after: asked(query.after), at: need });
  return (
    <BuyList
      key={query.need}
      list={list}
      job={{ id: job.id, number: job.number, live: job.state === 'live' }}
      quote={job.quote}
      shown={need}
    />
  );
});
