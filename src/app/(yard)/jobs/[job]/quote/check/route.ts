import { bringInInput } from '@/actions/quotes/importing';
import { inFiles } from '@/server/threads';
import { Answer, readAsked, route } from '../../../../../server/answer';

const asked = bringInInput.omit({ once: true });

export const POST = route('import quotes', async ({ request, person }) => {
  const { fileId, ...given } = await readAsked(request, asked);
  const check = await inFiles('checkQuoteFile', { person, fileId, given });
  if (check === undefined)
    throw new Answer(404, 'That file has already been imported or replaced. Choose it again if you still need it.');
  return Response.json(check);
});
