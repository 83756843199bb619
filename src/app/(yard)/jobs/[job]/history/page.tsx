import { loadHistory } from '@/queries/company/history';
import { History } from '@/ui/company/History';
import { TakeOut } from '@/ui/kit/TakeOut';
import Link from '@/ui/kit/Link';
import { GoOn } from '@/ui/kit/Sheet';
import { jobPage } from '../jobPage';
import { JobShelf } from '../JobShelf';

export default jobPage(async ({ db, person, query, job }) => {
  const before = query.before === undefined ? undefined : Number(query.before);
  const { rows, more } = await loadHistory(db, person, { about: 'job', id: job.id }, before);
  return (
    <>
      <p className="mt-3 flex flex-wrap justify-end gap-x-4">
        <Link href={`/history?about=job&id=${job.id}`} className="step text-[13px]">
          Search history
        </Link>
        <TakeOut list="history" of={{ about: 'job', id: String(job.id) }} />
      </p>
      <History rows={rows} />
      {more && (
        <GoOn to={`/jobs/${job.number}/history`} query={{ before: rows.at(-1)?.id }}>
          Older entries
        </GoOn>
      )}
      <JobShelf person={person} job={job} fact="Entries are never changed" />
    </>
  );
});
