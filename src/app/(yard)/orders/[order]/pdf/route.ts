import { loadOrderPaper } from '@/queries/orders';
import { fileFor } from '../../../../server/file';
import { clock } from '@/server/setting';
import { inHelper } from '@/server/threads';

/** The order's paper as it would go now. */
export async function GET(_: Request, { params }: { params: Promise<{ order: string }> }): Promise<Response> {
  const number = decodeURIComponent((await params).order);
  return fileFor(async (db, person) => {
    const paper = await loadOrderPaper(db, person, number, clock.today());
    if (paper === undefined) return undefined;
    return { name: `${number}.pdf`, type: 'application/pdf', bytes: await inHelper('setPaper', paper) };
  });
}
