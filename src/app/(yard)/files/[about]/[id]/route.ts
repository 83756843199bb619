import { FILE_ABOUT, keepFile } from '@/actions/company/files';
import { LIMITS } from '@/core/limits';
import { Answer, idIn, readBody, route } from '../../../../server/answer';
import { performAs } from '../../../../server/serverActions';

/** Keeps a file that is handed over as the body of the request. */
export const POST = route('keep files', async ({ request, person, params }) => {
  const about = FILE_ABOUT.find((a) => a === params.about);
  if (about === undefined) throw new Answer(404, 'Not found: it may have been removed. Go back and refresh the list.');
  const { searchParams } = new URL(request.url);
  const outcome = await performAs(person)(keepFile, {
    once: searchParams.get('once') ?? '',
    about,
    aboutId: idIn(params.id),
    name: searchParams.get('name') ?? '',
    revision: searchParams.get('revision') ?? '',
    bytes: new Uint8Array(await readBody(request, LIMITS.attached)),
  });
  if (outcome.status === 'done') return Response.json(outcome.value);
  throw new Answer(422, outcome.status === 'refused' ? (outcome.refusals[0]?.message ?? '') : outcome.message);
});
