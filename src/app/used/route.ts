import { noteUse } from '@/actions/people/ownViews';
import { Answer, readAsked, route } from '../server/answer';
import { performAs } from '../server/serverActions';

/** Notes what the person picked or opened. */
export const POST = route('see jobs', async ({ request, person }) => {
  const outcome = await performAs(person)(noteUse, await readAsked(request, noteUse.input));
  if (outcome.status !== 'done') throw new Answer(422, 'This cannot be noted.');
  return new Response(null, { status: 204 });
});
