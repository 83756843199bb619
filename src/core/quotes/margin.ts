import { TooLarge } from '../limits';
import { divideRounded, formatDecimal } from '../money/decimal';
import { subtract, type Minor, type UnitPrice } from '../money/money';

/** Shares are in hundredths of a percent. */
const WHOLE = 10_000;

/** What may be put on a cost: from giving it away to a hundredfold. */
export const MARKUP = { least: -WHOLE, most: 100 * WHOLE } as const;

/**
 * The price of what costs so much, with a mark-up on cost, to four decimals.
 * @param markup - hundredths of a percent of the cost
 * @example priceWith(400_000 as UnitPrice, 2500) // 500_000: 40.00 and 25 % are 50.00
 */
export const priceWith = (cost: UnitPrice, markup: number): UnitPrice =>
  divideRounded(BigInt(cost) * BigInt(WHOLE + markup), BigInt(WHOLE)) as UnitPrice;

/**
 * The mark-up on cost that a price has: (price − cost) ÷ cost.
 * @returns hundredths of a percent; undefined for what costs nothing
 */
export const markupOf = (cost: UnitPrice, price: UnitPrice): number | undefined =>
  cost <= 0 ? undefined : share(price - cost, cost);

/**
 * The margin on price: (price − cost) ÷ price.
 * @returns hundredths of a percent; undefined where nothing is asked
 */
export const marginShare = (cost: Minor, price: Minor): number | undefined =>
  price <= 0 ? undefined : share(subtract(price, cost), price);

/** The margin on price in words; a dash where nothing is asked. @example marginWords(2250, 3000) // '25 %' */
export function marginWords(cost: Minor, price: Minor): string {
  const margin = marginShare(cost, price);
  return margin === undefined ? '–' : `${formatDecimal(margin, 2, 0)} %`;
}

function share(part: number, whole: number): number | undefined {
  try {
    return divideRounded(BigInt(part) * BigInt(WHOLE), BigInt(whole));
  } catch (error) {
    if (error instanceof TooLarge) return undefined;
    throw error;
  }
}
