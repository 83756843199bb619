import type { Brand } from '../brand';
import { LIMITS, TooLarge } from '../limits';
import { PLACES, type Quantity } from '../quantity/quantity';
import { done, type Result } from '../result';
import { decimalsOf } from './currencies';
import { divideRounded, formatDecimal } from './decimal';
import { parseTyped } from './sum';

/** Whole minor units (pence, cents) of a currency that stands beside it. */
export type Minor = Brand<number, 'Minor'>;
/** A price in ten-thousandths of the currency's major unit, for the price quantity beside it. */
export type UnitPrice = Brand<number, 'UnitPrice'>;

export const ZERO = 0 as Minor;
export const PRICE_PLACES = 4;

export const minor = (n: number): Minor => {
  if (!Number.isSafeInteger(n)) throw new TooLarge();
  return (n === 0 ? 0 : n) as Minor;
};

export const add = (...amounts: readonly Minor[]): Minor => minor(amounts.reduce((sum, a) => sum + a, 0));
export const subtract = (from: Minor, what: Minor): Minor => minor(from - what);

/**
 * Net amount of a line: quantity × price ÷ price quantity, rounded half away from zero to the minor unit.
 * Source: EN 16931-1, BT-131 (invoice line net amount) with BT-146 (item net price) and BT-149 (price base quantity).
 *
 * @param priceQuantity - what the price is for: 1, 100, 1000, or a reel's length
 * @example lineNet(quantity('48'), price('9.85'), 1, 'GBP') // 47280
 */
export function lineNet(quantity: Quantity, price: UnitPrice, priceQuantity: number, currency: string): Minor {
  const numerator = BigInt(quantity) * BigInt(price) * 10n ** BigInt(decimalsOf(currency));
  return minor(divideRounded(numerator, BigInt(priceQuantity) * 10n ** BigInt(PLACES + PRICE_PLACES)));
}

/** Reads an amount, which may be a sum. */
export const parseMoney = (text: string, currency: string): Result<Minor> => {
  const places = decimalsOf(currency);
  const read = parseTyped(text, { places, most: LIMITS.document / 10 ** places });
  return read.ok ? done(read.value as Minor) : read;
};

/** Reads a unit price, which may be a sum. */
export const parsePrice = (text: string): Result<UnitPrice> => {
  const read = parseTyped(text, { places: PRICE_PLACES, most: LIMITS.price / 10 ** PRICE_PLACES });
  return read.ok ? done(read.value as UnitPrice) : read;
};

/** The price of one thing that costs this much: a fixed charge for one. */
export const priceOf = (amount: Minor, currency: string): UnitPrice =>
  (amount * 10 ** (PRICE_PLACES - decimalsOf(currency))) as UnitPrice;

const SIGNS: Record<string, string> = { GBP: '£', EUR: '€', USD: 'US$' };

/** The sign people write before an amount, or the ISO code. */
export const signOf = (currency: string): string => SIGNS[currency] ?? currency;

/** @example formatAmount(121240 as Minor, 'GBP') // '1,212.40' */
export const formatAmount = (amount: Minor, currency: string): string => formatDecimal(amount, decimalsOf(currency));

/** @example formatMoney(-4020 as Minor, 'GBP') // '−£\u202f40.20' */
export const formatMoney = (amount: Minor, currency: string): string =>
  `${amount < 0 ? '−' : ''}${signOf(currency)}\u202f${formatAmount(Math.abs(amount) as Minor, currency)}`;

/**
 * Whole major units, for overviews.
 * @example formatWhole(-40250 as Minor, 'GBP') // '−403'
 */
export const formatWhole = (amount: Minor, currency: string): string =>
  formatDecimal(divideRounded(BigInt(amount), 10n ** BigInt(decimalsOf(currency))), 0);

/** @example formatPrice(98500 as UnitPrice, 'GBP') // '9.85' */
export const formatPrice = (price: UnitPrice, currency: string): string =>
  formatDecimal(price, PRICE_PLACES, Math.min(decimalsOf(currency), PRICE_PLACES));
