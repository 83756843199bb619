import { loadCountPaper } from '@/queries/stores/counts';
import { readers } from '@/server/readers';
import { clock } from '@/server/setting';
import { inPapers } from '@/server/threads';
import { idIn, route } from '../../../../../server/answer';
import { fileAnswer } from '../../../../../server/file';

/** A counting sheet, to take along. */
export const GET = route('see stores', async ({ person, params }) => {
  const paper = await loadCountPaper(await readers(), person, idIn(params.id), clock.today());
  return fileAnswer(
    paper && {
      name: `${paper.number}.pdf`,
      type: 'application/pdf',
      bytes: await inPapers('setCountSheet', paper),
    },
  );
});
