import { loadFilesFor } from '@/queries/company/files';
import { readers } from '@/server/readers';
import { Answer, route } from '../../../../server/answer';

/** The files that can go with an order. */
export const GET = route('see money', async ({ person, params }) => {
  const files = await loadFilesFor(await readers(), person, params.order ?? '');
  if (files === undefined) throw new Answer(404, 'Not found: it may have been removed. Go back and refresh the list.');
  return Response.json(files);
});
