import { loadPickPaper } from '@/queries/stores/picking';
import { readers } from '@/server/readers';
import { clock } from '@/server/setting';
import { inPapers } from '@/server/threads';
import { route } from '../../../../../server/answer';
import { fileAnswer } from '../../../../../server/file';

/** What is to be picked for a job, to take along. */
export const GET = route('see stores', async ({ person, params }) => {
  const paper = await loadPickPaper(await readers(), person, params.job ?? '', clock.today());
  return fileAnswer(
    paper && {
      name: `picking-list-${params.job}.pdf`,
      type: 'application/pdf',
      bytes: await inPapers('setPickingList', paper),
    },
  );
});
