import { keepColumns } from '@/actions/people/ownViews';
import { Answer, readAsked, route } from '../server/answer';
import { performAs } from '../server/serverActions';

/** Keeps which columns of a list the person sees. */
export const POST = route('see jobs', async ({ request, person }) => {
  const outcome = await performAs(person)(keepColumns, await readAsked(request, keepColumns.input));
  if (outcome.status !== 'done')
    throw new Answer(422, 'Your column choice wasn’t saved. Refresh the page and try again.');
  return new Response(null, { status: 204 });
});
