import { isLive } from '@/core/jobs/states';
import { loadPlanView } from '@/queries/buying/plan';
import { loadReview } from '@/queries/orders/reviews';
import { jobPage } from '../jobPage';
import { Plan } from './Plan';
import { Review } from './Review';

export default jobPage(async ({ db, person, today, job, query }) => {
  const after = Number(query.after ?? 0);
  const from = Number.isSafeInteger(after) && after > 0 ? after : 0;
  const plan = await loadPlanView(db, person, job, today, from);
  const review = await loadReview(db, person, job.id);
  const { id, number, kind, state, startsOn } = job;
  return (
    <>
      <Plan plan={plan} from={from} job={{ id, number, kind, live: isLive({ state }), startsOn }} />
      <Review jobId={id} review={review} />
    </>
  );
});
