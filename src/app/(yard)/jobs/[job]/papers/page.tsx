import { loadFiles } from '@/queries/files';
import { FilesAbout } from '../../../FilesAbout';
import { jobPlace } from '../jobPlace';
import { JobShelf } from '../JobShelf';

export default jobPlace(async ({ db, person, job }) => (
  <>
    <section aria-label="For the shop floor" className="mt-4">
      <h2 className="mb-1 text-[16px]">For the shop floor</h2>
      <p className="text-ink-2">
        What is ordered, from whom, when it comes and where it goes, and what is not ordered yet: to hang beside the
        work. No price stands on it.
      </p>
      <a href={`/jobs/${job.number}/papers/slip`} target="_blank" rel="noreferrer" className="step">
        Open the slip as PDF
      </a>
    </section>
    <FilesAbout
      subject={{ about: 'job', id: job.id, name: `${job.number} ${job.name}` }}
      files={await loadFiles(db, person, 'job', job.id)}
    />
    <JobShelf person={person} job={job} fact="what is kept here can go with orders" />
  </>
));
