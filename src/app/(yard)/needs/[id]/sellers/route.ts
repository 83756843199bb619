import { loadSellers } from '@/queries/items/sellers';
import { readers } from '@/server/readers';
import { clock } from '@/server/setting';
import { snapshot } from '@/store/db';
import { idIn, route } from '../../../../server/answer';

/** Who sells the part of a line to buy, side by side. */
export const GET = route('see money', async ({ person, params }) => {
  const id = idIn(params.id);
  return Response.json(await snapshot(await readers(), (db) => loadSellers(db, person, id, clock.today())));
});
