import { find } from '@/queries/frame/find';
import { route } from '../server/answer';
import { readers } from '@/server/readers';

const MOST = 80;

export const GET = route('see jobs', async ({ request, person }) => {
  const words = new URL(request.url).searchParams.get('words')?.slice(0, MOST) ?? '';
  return Response.json(await find(await readers(), person, words));
});
