import { loadAtHand } from '@/queries/buying/atHand';
import { readers } from '@/server/readers';
import { snapshot } from '@/store/db';
import { Answer, idIn, route } from '../../../../server/answer';

/** What of a part there is, whom it is promised to, and what is coming. */
export const GET = route('see stores', async ({ person, params }) => {
  const id = idIn(params.id);
  const found = await snapshot(await readers(), (db) => loadAtHand(db, person, id));
  if (found === undefined) throw new Answer(404, 'Not found: it may have been removed. Go back and refresh the list.');
  return Response.json(found);
});
