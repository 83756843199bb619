import { loadPlanView } from '@/queries/plan';
import { jobPlace } from '../jobPlace';
import { Plan } from './Plan';

export default jobPlace(async ({ db, person, today, job, query }) => {
  const after = Number(query.after ?? 0);
  const from = Number.isSafeInteger(after) && after > 0 ? after : 0;
  const plan = await loadPlanView(db, person, job, today, from);
  const { id, number, kind, state, startsOn } = job;
  return <Plan plan={plan} from={from} job={{ id, number, kind, live: state === 'live', startsOn }} />;
});
