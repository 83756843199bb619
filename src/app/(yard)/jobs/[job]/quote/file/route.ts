import { keepQuoteFile } from '@/actions/quotes';
import { LIMITS } from '@/core/limits';
import { performAs } from '../../../../../server/offer';
import { idIn, readBody, route } from '../../../../../server/answer';

/** Takes a quote file in, as the body of the request, to be mapped and checked; it is kept as it came and never run. */
export const POST = route('import quotes', async ({ request, person }) => {
  const { searchParams } = new URL(request.url);
  const outcome = await performAs(person)(keepQuoteFile, {
    quoteId: idIn(searchParams.get('quote') ?? undefined),
    name: searchParams.get('name')?.slice(0, 200) ?? '',
    bytes: new Uint8Array(await readBody(request, LIMITS.file)),
  });
  if (outcome.status === 'done') return Response.json(outcome.value);
  const message = outcome.status === 'refused' ? outcome.refusals[0]?.message : outcome.message;
  return Response.json({ message }, { status: 422 });
});
