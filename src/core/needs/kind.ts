import { isGoods, type ItemKind } from '../items/kinds';
import { isWork } from '../quantity/units';

/** What is bought by the hour, the day or the lump sum is a service, and so is an item that is no goods. */
export const needKind = (unit: string, item?: { readonly kind: ItemKind }): 'goods' | 'service' =>
  isWork(unit) || (item !== undefined && !isGoods(item.kind)) ? 'service' : 'goods';
