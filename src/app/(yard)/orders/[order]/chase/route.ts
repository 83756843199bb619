import { loadChase } from '@/queries/orders/chasing';
import { readers } from '@/server/readers';
import { clock } from '@/server/setting';
import { Answer, route } from '../../../../server/answer';

/** The mail that would ask after the order. */
export const GET = route('send orders', async ({ person, params }) => {
  const found = await loadChase(await readers(), person, params.order ?? '', clock.today());
  if (found === undefined) throw new Answer(404, 'Not found: it may have been removed. Go back and refresh the list.');
  return Response.json(found);
});
