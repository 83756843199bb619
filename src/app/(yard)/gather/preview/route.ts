import { loadGatherPreview, askSchema } from '@/queries/buying/gather';
import { clock } from '@/server/setting';
import { snapshot } from '@/store/db';
import { readAsked, route } from '../../../server/answer';
import { readers } from '@/server/readers';

export const POST = route('draft orders', async ({ request, person }) => {
  const asked = await readAsked(request, askSchema);
  return Response.json(await snapshot(await readers(), (db) => loadGatherPreview(db, person, clock.today(), asked)));
});
