import { purchaseOrderPdf } from '@/formats/pdf/purchaseOrder';
import { permit } from '@/queries/permit';
import { loadPaper } from '@/store/paper';
import { fileFor } from '../../../../server/file';
import { clock } from '../../../../server/yard';

/** The order's paper as it would go now. */
export async function GET(_: Request, { params }: { params: Promise<{ order: string }> }): Promise<Response> {
  const number = decodeURIComponent((await params).order);
  return fileFor(async (db, person) => {
    permit(person, 'see money');
    const order = (await db('purchaseOrder').where({ number }).first('id')) as { id: number } | undefined;
    const paper = order === undefined ? undefined : await loadPaper(db, order.id, clock.today());
    return paper === undefined
      ? undefined
      : { name: `${number}.pdf`, type: 'application/pdf', bytes: await purchaseOrderPdf(paper) };
  });
}
