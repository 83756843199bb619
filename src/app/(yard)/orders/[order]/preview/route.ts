import { z } from 'zod';
import { orderLines } from '@/actions/orders/orders';
import { previewOrder } from '@/queries/orders/preview';
import { clock } from '@/server/setting';
import { readers } from '@/server/readers';
import { snapshot } from '@/store/db';
import { Answer, readAsked, route } from '../../../../server/answer';

const asked = z.object({ lines: orderLines });

/** What saving a draft with these lines would do. */
export const POST = route('draft orders', async ({ request, person, params }) => {
  const { lines } = await readAsked(request, asked);
  const preview = await snapshot(await readers(), (db) =>
    previewOrder(db, person, params.order ?? '', lines, clock.today()),
  );
  if (preview === undefined)
    throw new Answer(404, 'Not found: it may have been removed. Go back and refresh the list.');
  return Response.json(preview);
});
