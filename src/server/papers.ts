/** The thread that sets papers. */
import { zip } from '@/formats/zip';
import { purchaseOrderPdf, type OrderPaper } from '@/formats/pdf/purchaseOrder';
import { together } from '@/formats/pdf/together';
import { floorSlipPdf, type FloorPaper } from '@/formats/pdf/floorSlip';
import type { LabelWay } from '@/core/receiving/labels';
import { labelsPdf, type Label } from '@/formats/pdf/labels';
import { quotePdf, type QuotePaper } from '@/formats/pdf/quote';
import { countSheetPdf, type CountPaper } from '@/formats/pdf/countSheet';
import { pickingListPdf, type PickPaper } from '@/formats/pdf/pickingList';
import { returnNotePdf, type ReturnPaper } from '@/formats/pdf/returnNote';

export const setPaper = (paper: OrderPaper): Promise<Buffer> => purchaseOrderPdf(paper);
/** Several papers as one PDF. */
export async function setPapers(papers: readonly OrderPaper[]): Promise<Uint8Array> {
  const files: Buffer[] = [];
  for (const paper of papers) files.push(await purchaseOrderPdf(paper));
  return together(files);
}

/** An order's PDF and the files that go with it, in one archive. */
export const bundleOrder = async ({
  paper,
  files,
}: {
  paper: OrderPaper;
  files: readonly { readonly name: string; readonly bytes: Uint8Array }[];
}) => zip([{ name: `${paper.number}.pdf`, bytes: await purchaseOrderPdf(paper) }, ...files]);

export const setReturnNote = (paper: ReturnPaper): Promise<Buffer> => returnNotePdf(paper);

export const setCountSheet = (paper: CountPaper): Promise<Buffer> => countSheetPdf(paper);

export const setPickingList = (paper: PickPaper): Promise<Buffer> => pickingListPdf(paper);

export const setLabels = ({ labels, way }: { labels: readonly Label[]; way: LabelWay }): Promise<Buffer> =>
  labelsPdf(labels, way);

export const setFloorSlip = (paper: FloorPaper): Promise<Buffer> => floorSlipPdf(paper);

export const setQuote = (paper: QuotePaper): Promise<Buffer> => quotePdf(paper);
