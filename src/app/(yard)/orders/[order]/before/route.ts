import { loadOrderedBefore } from '@/queries/orders/orderedBefore';
import { readers } from '@/server/readers';
import { Answer, route } from '../../../../server/answer';

const MOST = 80;

/** What was ordered of the order's supplier before. */
export const GET = route('see money', async ({ request, person, params }) => {
  const words = new URL(request.url).searchParams.get('words')?.slice(0, MOST) ?? '';
  const found = await loadOrderedBefore(await readers(), person, params.order ?? '', words);
  if (found === undefined) throw new Answer(404, 'Not found: it may have been removed. Go back and refresh the list.');
  return Response.json(found);
});
