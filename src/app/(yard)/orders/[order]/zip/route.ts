import { loadFileBytes, loadOrderData } from '@/queries/company/files';
import { loadOrderPaper } from '@/queries/orders/order';
import { readers } from '@/server/readers';
import { clock } from '@/server/setting';
import { inPapers } from '@/server/threads';
import { Answer, route } from '../../../../server/answer';
import { fileAnswer } from '../../../../server/file';

/** The order with all that goes with it, in one archive. */
export const GET = route('see money', async ({ person, params }) => {
  const number = params.order ?? '';
  const [db, today] = [await readers(), clock.today()];
  const paper = await loadOrderPaper(db, person, number, today);
  if (paper === undefined) throw new Answer(404, 'Not found: it may have been removed. Go back and refresh the list.');
  const data = [
    await loadOrderData(db, person, number, 'ubl', today),
    await loadOrderData(db, person, number, 'csv', today),
  ];
  const files = (await loadFileBytes(db, person, number)) ?? [];
  const bytes = await inPapers('bundleOrder', { paper, files: [...data.filter((d) => d !== undefined), ...files] });
  return fileAnswer({ name: `${number}.zip`, type: 'application/zip', bytes });
});
