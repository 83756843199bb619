import { loadOrderData } from '@/queries/files';
import { readers } from '@/server/readers';
import { clock } from '@/server/setting';
import { Answer, route } from '../../../../../server/answer';
import { fileAnswer } from '../../../../../server/file';

/** The order as a file of data: ubl or csv. */
export const GET = route('see money', async ({ person, params }) => {
  const { order = '', kind } = params;
  if (kind !== 'ubl' && kind !== 'csv') throw new Answer(404, 'There is no such kind of file.');
  return fileAnswer(await loadOrderData(await readers(), person, order, kind, clock.today()));
});
