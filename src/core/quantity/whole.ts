import { refusal, type Refusal } from '../result';
import { formatQuantity, ONE, type Quantity } from './quantity';
import { unitOf } from './units';

/**
 * Why a quantity cannot be had: pieces, reels and boxes cannot be divided.
 * @returns undefined when it is whole, or its unit can be divided
 */
export function wholeFault(q: Quantity, unit: string, name: string, field?: string): Refusal | undefined {
  const { whole, name: one } = unitOf(unit);
  if (whole !== true || q % ONE === 0) return undefined;
  const words = `${name}: a ${one} can’t be divided. Enter a whole number, not ${formatQuantity(q)}.`;
  return refusal('quantity.whole', words, field);
}
