import { bringInBills } from '@/actions/items/boms';
import { inHelper } from '@/server/threads';
import { sheetFile } from '../../../../../server/sheetFile';

/** A file of bills, for the item on top of it. */
export const POST = sheetFile(
  'keep bills',
  ({ id: itemId, ...handed }) => inHelper('readBillFile', { itemId, ...handed }),
  (perform, bills, { once, on }) =>
    perform(bringInBills, { once, fromDay: on, bills: bills.map((b) => ({ ...b, lines: [...b.lines] })) }),
);
