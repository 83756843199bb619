import { z } from 'zod';
import { choicesSchema, mappingSchema } from '@/actions/quotes';
import { inHelper } from '@/server/threads';
import { Answer, readAsked, route } from '../../../../../server/answer';

const asked = z.object({ fileId: z.number().int(), mapping: mappingSchema, choices: choicesSchema });

export const POST = route('import quotes', async ({ request, person }) => {
  const { fileId, ...given } = await readAsked(request, asked);
  const check = await inHelper('checkQuoteFile', { person, fileId, given });
  if (check === undefined) throw new Answer(404, 'This file is not there any more.');
  return Response.json(check);
});
