import { keepQuoteFile } from '@/actions/quotes/importing';
import { LIMITS } from '@/core/limits';
import { inFiles } from '@/server/threads';
import { performAs } from '../../../../../server/serverActions';
import { Answer, idIn, readBody, route } from '../../../../../server/answer';

/** Takes a quote file in, as the body of the request, to be mapped and checked; it is kept as it came and never run. */
export const POST = route('import quotes', async ({ request, person }) => {
  const { searchParams } = new URL(request.url);
  const bytes = new Uint8Array(await readBody(request, LIMITS.file));
  const opened = await inFiles('openQuoteFile', bytes);
  if (!opened.ok) throw new Answer(422, opened.refusals[0]?.message ?? '');
  const outcome = await performAs(person)(keepQuoteFile, {
    quoteId: idIn(searchParams.get('quote') ?? undefined),
    name: searchParams.get('name')?.slice(0, 200) ?? '',
    bytes,
  });
  if (outcome.status === 'done') return Response.json({ ...outcome.value, ...opened.value });
  throw new Answer(422, outcome.status === 'refused' ? (outcome.refusals[0]?.message ?? '') : outcome.message);
});
