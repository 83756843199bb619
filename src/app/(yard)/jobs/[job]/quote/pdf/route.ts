import { loadQuotePaper } from '@/queries/quotes/paper';
import { clock } from '@/server/setting';
import { inPapers } from '@/server/threads';
import { fileAnswer } from '../../../../../server/file';
import { idIn, route } from '../../../../../server/answer';
import { readers } from '@/server/readers';

/** A quote's paper as it would go to the customer now. */
export const GET = route('see money', async ({ request, person }) => {
  const id = idIn(new URL(request.url).searchParams.get('quote') ?? undefined);
  const paper = await loadQuotePaper(await readers(), person, id, clock.today());
  return fileAnswer(
    paper && {
      name: `${paper.number.replaceAll('/', '-')}.pdf`,
      type: 'application/pdf',
      bytes: await inPapers('setQuote', paper),
    },
  );
});
