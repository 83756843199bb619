import { z } from 'zod';
import { LIMITS } from '@/core/limits';
import { loadOrderTerms } from '@/queries/orders/terms';
import { readers } from '@/server/readers';
import { clock } from '@/server/setting';
import { Answer, readAsked, route } from '../../../../server/answer';

const asked = z.object({ itemIds: z.array(z.number().int()).max(LIMITS.sheetLines) });

/** What the order's supplier says of parts that are to stand on it. */
export const POST = route('draft orders', async ({ request, person, params }) => {
  const { itemIds } = await readAsked(request, asked);
  const terms = await loadOrderTerms(await readers(), person, params.order ?? '', itemIds, clock.today());
  if (terms === undefined) throw new Answer(404, 'Not found: it may have been removed. Go back and refresh the list.');
  return Response.json(terms);
});
