import { gatherFilterOf, pageOfOpenNeeds } from '@/queries/buying/openNeeds';
import { readers } from '@/server/readers';
import { clock } from '@/server/setting';
import { snapshot } from '@/store/db';
import { route } from '../../../server/answer';

const MOST = 2000;

/** The lines to buy that come after a place in the list, as many as are asked for. */
export const GET = route('draft orders', async ({ request, person }) => {
  const query = Object.fromEntries(new URL(request.url).searchParams);
  const size = Math.min(Math.max(Math.floor(Number(query.size)) || 1, 1), MOST);
  const page = await snapshot(await readers(), (db) =>
    pageOfOpenNeeds(db, person, clock.today(), gatherFilterOf(query), query.after, size),
  );
  return Response.json(page);
});
