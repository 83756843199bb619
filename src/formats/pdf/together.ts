import { PDFDocument } from 'pdf-lib';

/** Several PDFs as one, page after page. */
export async function together(files: readonly Uint8Array[]): Promise<Uint8Array> {
  const whole = await PDFDocument.create();
  for (const file of files) {
    const own = await PDFDocument.load(file);
    for (const page of await whole.copyPages(own, own.getPageIndices())) whole.addPage(page);
  }
  return whole.save();
}
