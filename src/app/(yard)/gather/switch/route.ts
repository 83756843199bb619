import { loadSwitched, switchSchema } from '@/queries/buying/switching';
import { readers } from '@/server/readers';
import { clock } from '@/server/setting';
import { snapshot } from '@/store/db';
import { readAsked, route } from '../../../server/answer';

/** What another supplier for a picked line would do to all that is picked. */
export const POST = route('draft orders', async ({ request, person }) => {
  const asked = await readAsked(request, switchSchema);
  return Response.json(await snapshot(await readers(), (db) => loadSwitched(db, person, asked, clock.today())));
});
