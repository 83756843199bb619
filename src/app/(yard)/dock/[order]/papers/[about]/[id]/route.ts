import { keepPaper, PAPER_ABOUT } from '@/actions/dock/papers';
import { LIMITS } from '@/core/limits';
import { Answer, idIn, readBody, route } from '../../../../../../server/answer';
import { performAs } from '../../../../../../server/serverActions';

/** Keeps a paper of a delivery that is handed over as the body of the request. */
export const POST = route('receive', async ({ request, person, params }) => {
  const about = PAPER_ABOUT.find((a) => a === params.about);
  if (about === undefined) throw new Answer(404, 'Not found: it may have been removed. Go back and refresh the list.');
  const { searchParams } = new URL(request.url);
  const outcome = await performAs(person)(keepPaper, {
    once: searchParams.get('once') ?? '',
    about,
    aboutId: idIn(params.id),
    name: searchParams.get('name') ?? '',
    bytes: new Uint8Array(await readBody(request, LIMITS.paper)),
  });
  if (outcome.status === 'done') return Response.json(outcome.value);
  throw new Answer(422, outcome.status === 'refused' ? (outcome.refusals[0]?.message ?? '') : outcome.message);
});
