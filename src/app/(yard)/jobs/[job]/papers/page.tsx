import { loadFiles } from '@/queries/company/files';
import { FilesAbout } from '../../../_shared/company/FilesAbout';
import { jobPage } from '../jobPage';
import { JobShelf } from '../JobShelf';

export default jobPage(async ({ db, person, job }) => (
  <>
    <section aria-label="For the shop floor" className="mt-4">
      <h2 className="mb-1 text-[16px]">For the shop floor</h2>
      <p className="text-ink-2">
        What’s on order, from whom, when and where it’s due, and what’s still to order. No prices: for the workshop
        wall.
      </p>
      <a href={`/jobs/${job.number}/papers/slip`} target="_blank" rel="noreferrer" className="step">
        Open shop-floor sheet (PDF)
      </a>
    </section>
    <FilesAbout
      subject={{ about: 'job', id: job.id, name: `${job.number} ${job.name}` }}
      files={await loadFiles(db, person, 'job', job.id)}
    />
    <JobShelf person={person} job={job} fact="Files saved here can be attached to orders" />
  </>
));
