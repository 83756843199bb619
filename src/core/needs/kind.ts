import { isWork } from '../quantity/units';

/** What is bought by the hour, the day or the lump sum is a service, and so is an item that is kept as one. */
export const needKind = (unit: string, item?: { readonly kind: 'goods' | 'service' }): 'goods' | 'service' =>
  item?.kind === 'service' || isWork(unit) ? 'service' : 'goods';
