import { isLive } from '@/core/jobs/states';
import { loadBuyList } from '@/queries/buying/buyList';
import { jobPage } from '../jobPage';
import { BuyList } from './BuyList';

export default jobPage(async ({ db, person, today, job, query }) => {
  const asked = (text: string | undefined) => (Number.isSafeInteger(Number(text)) ? Number(text) : undefined);
  const need = asked(query.need);
  const list = await loadBuyList(db, person, job.id, today, { after: asked(query.after), at: need });
  return (
    <BuyList
      key={query.need}
      list={list}
      job={{ id: job.id, number: job.number, live: isLive(job) }}
      quote={job.quote}
      shown={need}
    />
  );
});
