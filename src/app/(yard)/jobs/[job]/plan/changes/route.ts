import { z } from 'zod';
import { quantitySchema } from '@/core/quantity/schema';
import { loadPlanChanges } from '@/queries/buying/planAhead';
import { readers } from '@/server/readers';
import { clock } from '@/server/setting';
import { snapshot } from '@/store/db';
import { readAsked, route } from '../../../../../server/answer';

const asked = z.object({
  jobId: z.number().int(),
  /** Another quantity of what one BOM makes. */
  of: z.object({ rootId: z.number().int(), quantity: quantitySchema.refine((q) => q > 0) }).optional(),
});

export const POST = route('see jobs', async ({ request, person }) => {
  const { jobId, of } = await readAsked(request, asked);
  const changes = await snapshot(await readers(), (db) => loadPlanChanges(db, person, jobId, clock.today(), of));
  return Response.json(changes);
});
