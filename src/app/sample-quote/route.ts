import { sampleQuote } from '@/demo/sampleQuote';
import { loadCalendar } from '@/store/company';
import { clock, isDemo } from '@/server/setting';
import { readers } from '@/server/readers';

/** The sample quote file, with dates around today; only in the sample company. */
export async function GET(): Promise<Response> {
  if (!isDemo()) return new Response('There is no sample quote file in this company.', { status: 404 });
  const text = sampleQuote(clock.today(), await loadCalendar(await readers()));
  return new Response(text, {
    headers: {
      'content-type': 'text/csv; charset=utf-8',
      'content-disposition': 'attachment; filename="sample-quote.csv"',
    },
  });
}
