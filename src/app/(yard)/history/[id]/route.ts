import { loadRecord } from '@/queries/company/history';
import { readers } from '@/server/readers';
import { snapshot } from '@/store/db';
import { Answer, idIn, route } from '../../../server/answer';

/** One record of the history, with what stood there before and what stands there now. */
export const GET = route('see money', async ({ person, params }) => {
  const id = idIn(params.id);
  const found = await snapshot(await readers(), (db) => loadRecord(db, person, id));
  if (found === undefined) throw new Answer(404, 'Not found: it may have been removed. Go back and refresh the list.');
  return Response.json(found);
});
