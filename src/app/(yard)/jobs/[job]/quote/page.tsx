import { notFound } from 'next/navigation';
import { findJob, loadQuote } from '@/queries/job';
import { loadChoices } from '@/queries/needs';
import { checkQuoteFile } from '@/queries/quoteImport';
import { place } from '../../../../server/place';
import { isDemo } from '../../../../server/yard';
import { ImportFile } from './ImportFile';
import { QuoteLines } from './QuoteLines';

export default place(async ({ db, person, today, params, query }) => {
  const job = await findJob(db, person, params.job ?? '');
  const quote = job && (await loadQuote(db, person, job.id));
  if (job === undefined || quote === undefined) notFound();
  const check = query.file === undefined ? undefined : await checkQuoteFile(db, person, today, Number(query.file));
  if (check !== undefined)
    return <ImportFile first={check} job={job.number} quote={quote.number} choices={await loadChoices(db, person)} />;
  return <QuoteLines quote={quote} job={job.number} gone={query.file !== undefined} sample={isDemo()} />;
});
