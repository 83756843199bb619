import type { Brand } from '../brand';
import { done, refusal, refused, type Result } from '../result';
import { divideRounded, withoutTrailingZeros } from './decimal';
import { decimalsOf } from './currencies';
import { minor, type Minor, type UnitPrice } from './money';

/**
 * An exchange rate as exact decimal text, “0.8624”: units of the company's currency for one unit of another. Text keeps
 * as many places as a pair needs, from a rial in dinars to a dinar in rials.
 */
export type Rate = Brand<string, 'Rate'>;

/** One for one: the company's own currency. */
export const PAR = '1' as Rate;

const WRITTEN = /^\d{1,9}(\.\d{1,12})?$/;

/**
 * Reads an exchange rate above zero, with at most nine digits before and twelve after the point.
 * @example parseRate('0.862400') // value '0.8624'
 */
export function parseRate(text: string): Result<Rate> {
  const bare = text.trim();
  if (bare === '') return refused(refusal('rate.missing', 'Enter a rate.'));
  if (!WRITTEN.test(bare))
    return refused(
      refusal('rate.wrong', `“${bare}” isn’t an exchange rate. Type it like 0.8624, with up to twelve decimals.`),
    );
  const [whole = '0', decimals = ''] = bare.split('.');
  const kept = withoutTrailingZeros(decimals);
  const rate = `${BigInt(whole)}${kept === '' ? '' : `.${kept}`}`;
  return rate === '0' ? refused(refusal('rate.low', 'Enter a rate above zero.')) : done(rate as Rate);
}

function fraction(rate: Rate): { many: bigint; one: bigint } {
  const [whole = '0', decimals = ''] = rate.split('.');
  return { many: BigInt(whole + decimals), one: 10n ** BigInt(decimals.length) };
}

/**
 * An amount in another currency, in the company's, rounded half away from zero.
 * @example convert(1000 as Minor, 'EUR', 'GBP', '0.86' as Rate) // 860
 */
export function convert(amount: Minor, from: string, to: string, rate: Rate): Minor {
  const { many, one } = fraction(rate);
  return minor(
    divideRounded(BigInt(amount) * many * 10n ** BigInt(decimalsOf(to)), one * 10n ** BigInt(decimalsOf(from))),
  );
}

/**
 * The other way: an amount in the company's currency, in the other.
 * @example convertBack(860 as Minor, 'EUR', 'GBP', '0.86' as Rate) // 1000
 */
export function convertBack(amount: Minor, to: string, from: string, rate: Rate): Minor {
  const { many, one } = fraction(rate);
  return minor(
    divideRounded(BigInt(amount) * one * 10n ** BigInt(decimalsOf(to)), many * 10n ** BigInt(decimalsOf(from))),
  );
}

/** A price in the company's currency, in the other, to four decimals. */
export function priceIn(price: UnitPrice, rate: Rate): UnitPrice {
  const { many, one } = fraction(rate);
  return divideRounded(BigInt(price) * one, many) as UnitPrice;
}

/** A price in another currency, in the company's, to four decimals. */
export function priceFrom(price: UnitPrice, rate: Rate): UnitPrice {
  const { many, one } = fraction(rate);
  return divideRounded(BigInt(price) * many, one) as UnitPrice;
}
