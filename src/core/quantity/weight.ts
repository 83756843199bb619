import { fromSupplierUnit, type Quantity } from './quantity';
import { exactFactor } from './units';

/**
 * Kilograms of one of a unit of an item, in ten-thousandths.
 * @param weight - of one of the item's own unit
 * @returns null where the item has no weight, or no exact way to that unit
 * @example a sheet of 36 kg, by the piece: 36 kg; tube of 1.8 kg a metre, by the millimetre: 0.0018 kg
 */
export function shareWeight(
  item: { readonly unit: string; readonly weight: Quantity | null },
  unit: string,
): Quantity | null {
  const factor = exactFactor(item.unit, unit);
  if (item.weight === null || factor === undefined) return null;
  // Of so many that are in one of the item's own, each weighs so much less.
  return fromSupplierUnit(item.weight, { many: factor.one, one: factor.many });
}
