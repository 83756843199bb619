import { takePriceList } from '@/actions/items/items';
import { inHelper } from '@/server/threads';
import { sheetFile } from '../../../../server/sheetFile';

/** A price list of a supplier. */
export const POST = sheetFile(
  'keep suppliers',
  ({ id: supplierId, ...handed }) => inHelper('readPriceFile', { supplierId, ...handed }),
  (perform, parts, { once, id: supplierId, on }) =>
    perform(takePriceList, { once, supplierId, fromDay: on, parts: [...parts] }),
);
