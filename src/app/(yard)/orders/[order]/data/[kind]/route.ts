import { loadOrderData } from '@/queries/company/files';
import { readers } from '@/server/readers';
import { clock } from '@/server/setting';
import { Answer, route } from '../../../../../server/answer';
import { fileAnswer } from '../../../../../server/file';

/** The order as a file of data: ubl or csv. */
export const GET = route('see money', async ({ person, params }) => {
  const { order = '', kind } = params;
  if (kind !== 'ubl' && kind !== 'csv') throw new Answer(404, 'Not found: it may have been removed. Go back and refresh the list.');
  return fileAnswer(await loadOrderData(await readers(), person, order, kind, clock.today()));
});
