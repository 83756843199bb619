import { z } from 'zod';
import { loadFillUp } from '@/queries/buying/fillUp';
import { readers } from '@/server/readers';
import { clock } from '@/server/setting';
import { snapshot } from '@/store/db';
import { readAsked, route } from '../../../server/answer';

const asked = z.object({ supplierId: z.number().int(), picked: z.array(z.number().int()).max(2000) });

/** What else could ride along on an order to a supplier. */
export const POST = route('draft orders', async ({ request, person }) => {
  const { supplierId, picked } = await readAsked(request, asked);
  const found = await snapshot(await readers(), (db) => loadFillUp(db, person, supplierId, picked, clock.today()));
  return Response.json(found);
});
