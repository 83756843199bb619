import { importBoms } from '@/actions/items/boms';
import { inFiles } from '@/server/threads';
import { sheetFile } from '../../../../../server/sheetFile';

/** A file of BOMs, for the item on top of it. */
export const POST = sheetFile(
  'keep BOMs',
  ({ id: itemId, ...handed }) => inFiles('readBomFile', { itemId, ...handed }),
  (perform, boms, { once, on }) =>
    perform(importBoms, { once, fromDay: on, boms: boms.map((b) => ({ ...b, lines: [...b.lines] })) }),
);
