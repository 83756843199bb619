import { takePriceList } from '@/actions/items/items';
import { inFiles } from '@/server/threads';
import { sheetFile } from '../../../../server/sheetFile';

/** A price list of a supplier. */
export const POST = sheetFile(
  'keep suppliers',
  ({ id: supplierId, ...handed }) => inFiles('readPriceFile', { supplierId, ...handed }),
  (perform, parts, { once, id: supplierId, on }) =>
    perform(takePriceList, { once, supplierId, fromDay: on, parts: [...parts] }),
);
