import { loadBudget } from '@/queries/jobs/budgets';
import { loadEndings } from '@/queries/jobs/completion';
import { jobPlace } from '../jobPlace';
import { Budget } from './Budget';

export default jobPlace(async ({ db, person, job, on }) => (
  <Budget
    view={await loadBudget(db, person, job.id, on)}
    job={{ id: job.id, number: job.number, open: job.state === 'live' || job.state === 'quoted' }}
    on={on}
    endings={await loadEndings(db, person, job.id, on)}
  />
));
