import { listThings, THING_KINDS, type ThingKind } from '@/queries/things';
import { readers } from '@/server/readers';
import { Answer, route } from '../server/answer';

const MOST = 80;

/** Things of the company for what is typed. */
export const GET = route('see jobs', async ({ request, person }) => {
  const { searchParams } = new URL(request.url);
  const kind = searchParams.get('kind') as ThingKind;
  if (!THING_KINDS.includes(kind)) throw new Answer(400, 'There is no such kind of thing.');
  return Response.json(
    await listThings(await readers(), person, kind, searchParams.get('words')?.slice(0, MOST) ?? ''),
  );
});
