import { z } from 'zod';
import { findScanned } from '@/queries/dock/scanning';
import { readers } from '@/server/readers';
import { readAsked, route } from '../../../../server/answer';

const asked = z.object({ words: z.array(z.string().max(400)).min(1).max(20) });

/** The part that a scanned code is of, and the lines that await it. */
export const POST = route('receive', async ({ request, person }) => {
  const { words } = await readAsked(request, asked);
  return Response.json(await findScanned(await readers(), person, words));
});
