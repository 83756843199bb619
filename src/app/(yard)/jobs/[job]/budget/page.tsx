import { isOpenJob } from '@/core/jobs/states';
import { loadBudget } from '@/queries/jobs/budgets';
import { loadCompletion } from '@/queries/jobs/completion';
import { jobPage } from '../jobPage';
import { Budget } from './Budget';

export default jobPage(async ({ db, person, job, on }) => (
  <Budget
    view={await loadBudget(db, person, job.id, on)}
    job={{ id: job.id, number: job.number, open: isOpenJob(job) }}
    on={on}
    endings={await loadCompletion(db, person, job.id, on)}
  />
));
