import { z } from 'zod';
import { loadAhead } from '@/queries/buying/planAhead';
import { readers } from '@/server/readers';
import { clock } from '@/server/setting';
import { snapshot } from '@/store/db';
import { readAsked, route } from '../../../../../server/answer';

const asked = z.object({ jobId: z.number().int() });

export const POST = route('see jobs', async ({ request, person }) => {
  const { jobId } = await readAsked(request, asked);
  return Response.json(await snapshot(await readers(), (db) => loadAhead(db, person, jobId, clock.today())));
});
