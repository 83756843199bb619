import { loadFloorPaper } from '@/queries/jobs/materialSheet';
import { readers } from '@/server/readers';
import { clock } from '@/server/setting';
import { inPapers } from '@/server/threads';
import { route } from '../../../../../server/answer';
import { fileAnswer } from '../../../../../server/file';

/** What is ordered for a job, as a slip for the shop floor. */
export const GET = route('see jobs', async ({ person, params }) => {
  const paper = await loadFloorPaper(await readers(), person, params.job ?? '', clock.today());
  return fileAnswer(
    paper && {
      name: `${paper.number}-ordered.pdf`,
      type: 'application/pdf',
      bytes: await inPapers('setFloorSlip', paper),
    },
  );
});
