import { loadReturnPaper } from '@/queries/dock/papers';
import { readers } from '@/server/readers';
import { clock } from '@/server/setting';
import { inPapers } from '@/server/threads';
import { idIn, route } from '../../../../../server/answer';
import { fileAnswer } from '../../../../../server/file';

/** The note that goes along with goods sent back. */
export const GET = route('see dock', async ({ person, params }) => {
  const paper = await loadReturnPaper(await readers(), person, idIn(params.id), clock.today());
  return fileAnswer(
    paper && {
      name: `${paper.number}.pdf`,
      type: 'application/pdf',
      bytes: await inPapers('setReturnNote', paper),
    },
  );
});
