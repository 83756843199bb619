import { notFound } from 'next/navigation';
import { loadQuote } from '@/queries/job';
import { loadChoices } from '@/queries/needs';
import { checkQuoteFile } from '@/queries/quoteImport';
import { isDemo } from '@/server/setting';
import { jobPlace } from '../jobPlace';
import { ImportFile } from './ImportFile';
import { QuoteLines } from './QuoteLines';

export default jobPlace(async ({ db, person, today, query, job }) => {
  const quote = await loadQuote(db, person, job.id);
  if (quote === undefined) notFound();
  const check = query.file === undefined ? undefined : await checkQuoteFile(db, person, today, Number(query.file));
  if (check !== undefined)
    return <ImportFile first={check} job={job.number} quote={quote.number} choices={await loadChoices(db, person)} />;
  return <QuoteLines quote={quote} job={job.number} gone={query.file !== undefined} sample={isDemo()} />;
});
