import { loadOrderPapers } from '@/queries/orders/order';
import { readers } from '@/server/readers';
import { clock } from '@/server/setting';
import { inPapers } from '@/server/threads';
import { Answer, idIn, route } from '../../server/answer';
import { fileAnswer } from '../../server/file';

const MOST = 60;

/** The papers of several orders as one PDF, to be printed. */
export const GET = route('see money', async ({ request, person }) => {
  const ids = new URL(request.url).searchParams.get('orders')?.split(',') ?? [];
  if (ids.length > MOST) throw new Answer(400, `You can print up to ${MOST} orders at a time. Select fewer.`);
  const papers = await loadOrderPapers(await readers(), person, ids.map(idIn), clock.today());
  if (papers.length === 0)
    throw new Answer(404, 'Not found: they may have been removed. Go back and refresh the list.');
  const bytes = await inPapers('setPapers', papers);
  return fileAnswer({ name: 'Orders.pdf', type: 'application/pdf', bytes });
});
