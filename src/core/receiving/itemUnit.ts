import { SAME_UNIT, through, type Factor } from '../quantity/quantity';
import { exactFactor } from '../quantity/units';

/**
 * From a line's unit to its item's, in which numbers are counted: through the unit that its parts are kept in.
 * @returns the same unit where there is no item, or the two do not convert
 */
export function lineToItem(factor: Factor, shareUnit: string, itemUnit: string | undefined): Factor {
  const own = itemUnit === undefined ? undefined : exactFactor(shareUnit, itemUnit);
  return own === undefined ? SAME_UNIT : through(factor, own);
}
