import { keepQuoteFile } from '@/actions/quotes';
import { MOST_BYTES } from '@/formats/csv/read';
import { whoIsHere } from '../../../../../server/session';
import { performAs } from '../../../../../server/offer';

/** Takes a quote file in, to be mapped and checked; it is kept as it came and never run. */
export async function POST(request: Request): Promise<Response> {
  const actor = await whoIsHere();
  if (actor === undefined)
    return Response.json(
      { message: 'You were signed out. Sign in again, then choose the file once more.' },
      { status: 401 },
    );
  if (request.headers.get('sec-fetch-site') === 'cross-site')
    return Response.json({ message: 'This came from another site.' }, { status: 403 });
  const size = Number(request.headers.get('content-length') ?? 0);
  if (size > MOST_BYTES + 20_000)
    return Response.json(
      { message: 'The file is larger than 8 MB. Split it and bring the parts in one after the other.' },
      { status: 413 },
    );
  const form = await request.formData().catch(() => undefined);
  const file = form?.get('file');
  if (!(file instanceof File)) return Response.json({ message: 'There was no file.' }, { status: 400 });
  const bytes = new Uint8Array(await file.arrayBuffer());
  const outcome = await performAs(actor)(keepQuoteFile, {
    quoteId: Number(form?.get('quoteId')),
    name: file.name.slice(0, 200),
    bytes,
  });
  if (outcome.status === 'done') return Response.json(outcome.value);
  return Response.json(
    { message: outcome.status === 'refused' ? outcome.refusals[0]?.message : outcome.message },
    { status: 422 },
  );
}
