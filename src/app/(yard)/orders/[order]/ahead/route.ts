import { endingSchema, previewEnding } from '@/queries/orders/ending';
import { readers } from '@/server/readers';
import { snapshot } from '@/store/db';
import { Answer, readAsked, route } from '../../../../server/answer';

/** What ending the order or a line of it would free. */
export const POST = route('see money', async ({ request, person, params }) => {
  const asked = await readAsked(request, endingSchema);
  const effects = await snapshot(await readers(), (db) => previewEnding(db, person, params.order ?? '', asked));
  if (effects === undefined)
    throw new Answer(404, 'Not found: it may have been removed. Go back and refresh the list.');
  return Response.json(effects);
});
