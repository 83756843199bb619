import { loadOrderPaper } from '@/queries/orders/order';
import { clock } from '@/server/setting';
import { inPapers } from '@/server/threads';
import { fileAnswer } from '../../../../server/file';
import { route } from '../../../../server/answer';
import { readers } from '@/server/readers';

/** The order's paper as it would go now. */
export const GET = route('see money', async ({ person, params }) => {
  const number = params.order ?? '';
  const paper = await loadOrderPaper(await readers(), person, number, clock.today());
  return fileAnswer(
    paper && { name: `${number}.pdf`, type: 'application/pdf', bytes: await inPapers('setPaper', paper) },
  );
});
