import { loadBecame } from '@/queries/buying/atHand';
import { readers } from '@/server/readers';
import { snapshot } from '@/store/db';
import { idIn, route } from '../../../../server/answer';

/** The orders that a line of a buy list stands on. */
export const GET = route('see orders', async ({ person, params }) => {
  const id = idIn(params.id);
  return Response.json(await snapshot(await readers(), (db) => loadBecame(db, person, id)));
});
