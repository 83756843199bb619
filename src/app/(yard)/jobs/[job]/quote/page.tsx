import { notFound } from 'next/navigation';
import { loadQuote } from '@/queries/jobs/job';
import { loadRevised } from '@/queries/quotes/revision';
import { permit } from '@/queries/permit';
import { isDemo } from '@/server/setting';
import { inFiles } from '@/server/threads';
import { jobPage } from '../jobPage';
import { ImportFile } from './ImportFile';
import { QuoteLines } from './QuoteLines';

export default jobPage(async ({ db, person, query, job }) => {
  const quote = await loadQuote(db, person, job.id, Number(query.after) || 0, Number(query.quote) || undefined);
  if (quote === undefined) notFound();
  if (query.file !== undefined) permit(person, 'import quotes');
  const fileId = Number(query.file);
  const check = Number.isSafeInteger(fileId) ? await inFiles('checkQuoteFile', { person, fileId }) : undefined;
  if (check !== undefined) return <ImportFile first={check} job={job.number} quote={quote.number} />;
  const revised = await loadRevised(db, person, quote.id);
  return (
    <QuoteLines quote={quote} job={job.number} revised={revised} gone={query.file !== undefined} sample={isDemo()} />
  );
});
