import { loadJobForm } from '@/queries/jobs/jobs';
import { Sheet } from '@/ui/kit/Sheet';
import { yardPage } from '../../../server/yardPage';
import { NewJob } from './NewJob';

export const metadata = { title: 'New job' };

export default yardPage(async ({ db, person, today }) => (
  <Sheet>
    <h1 className="mb-1 text-[25px]">New job</h1>
    <NewJob {...await loadJobForm(db, person, today)} />
  </Sheet>
));
