import { TooLarge } from '../limits';
import { groupMark, locale, type DecimalMark } from '../locale/locale';
import { grouped as wholeNumber, groupDigits } from '../words';
import { done, refusal, refused, type Result } from '../result';

/**
 * Divides exactly and rounds half away from zero, the rounding used for line net amounts and tax.
 *
 * @param numerator - any integer
 * @param denominator - a positive integer
 * @returns the quotient as a whole number
 * @throws RangeError when the denominator is not positive or the quotient is no safe integer
 * @example divideRounded(5n, 2n) // 3
 * @example divideRounded(-5n, 2n) // -3
 */
export function divideRounded(numerator: bigint, denominator: bigint): number {
  if (denominator <= 0n) throw new RangeError('The denominator must be positive.');
  const size = numerator < 0n ? -numerator : numerator;
  const rounded = (size * 2n + denominator) / (denominator * 2n);
  const quotient = Number(numerator < 0n ? -rounded : rounded);
  if (!Number.isSafeInteger(quotient)) throw new TooLarge();
  return quotient === 0 ? 0 : quotient;
}

export type DecimalRule = {
  /** Digits kept after the mark: 4 for quantities and prices, 2 for most money. */
  readonly places: number;
  /** The decimal mark in use, the company's unless a file has its own; the other one may group thousands. */
  readonly mark?: DecimalMark;
  /** Largest size accepted, in whole units. */
  readonly most?: number;
};

// A group never begins with a zero: “0,125” groups nothing.
const groupedBy = {
  '.': /^[+-]?[1-9]\d{0,2}(,\d{3})+(\.\d+)?$/,
  ',': /^[+-]?[1-9]\d{0,2}(\.\d{3})+(,\d+)?$/,
} as const;
const plainBy = { '.': /^[+-]?(?:\d+(?:\.\d*)?|\.\d+)$/, ',': /^[+-]?(?:\d+(?:,\d*)?|,\d+)$/ } as const;
/** No number that can be kept is written longer than this. */
const MOST_SIGNS = 60;

/** @example withoutTrailingZeros('2500') // '25' */
export function withoutTrailingZeros(digits: string): string {
  let end = digits.length;
  while (digits[end - 1] === '0') end -= 1;
  return digits.slice(0, end);
}

/**
 * Reads a decimal as a person writes it and returns it as an integer scaled by 10^places.
 * Thousands may be grouped by the other mark, a space or an apostrophe. Nothing is rounded away:
 * more decimals than `places` are refused unless they are zeros.
 *
 * @example parseDecimal('1,234.5', { places: 2 }) // value 123450
 * @example parseDecimal('1.234,5', { places: 2, mark: ',' }) // value 123450
 * @example parseDecimal('12,5', { places: 2 }) // refused: 'number.unclear'
 */
export function parseDecimal(text: string, rule: DecimalRule): Result<number> {
  const { places, mark = locale().decimalMark, most = 1_000_000_000 } = rule;
  if (text.trim().length > MOST_SIGNS)
    return refused(refusal('number.wrong', `“${text.trim().slice(0, 20)}…” is too long for a number.`));
  const bare = text
    .trim()
    .replace(/^\u2212/, '-')
    .replace(/(?<=\d)[\u00a0\u202f ' ’](?=\d{3}(\D|$))/gu, '');
  if (bare === '') return refused(refusal('number.missing', 'Enter a number.'));
  const other = mark === '.' ? ',' : '.';
  if (groupedBy[mark].test(bare) || plainBy[mark].test(bare))
    return scale(bare.replaceAll(other, ''), mark, places, most);
  if (plainBy[other].test(bare)) {
    return refused(refusal('number.unclear', `“${text.trim()}” is ambiguous: use “${mark}” for decimals.`));
  }
  return refused(refusal('number.wrong', `“${text.trim()}” isn’t a number.`));
}

/**
 * Whether a number can be read in two ways, because its only mark may group thousands or begin decimals.
 * @example isUndecided('1,250') // true: 1250, or one and a quarter
 */
export const isUndecided = (text: string): boolean => /^[+-\u2212]?[1-9]\d{0,2}[.,]\d{3}$/u.test(text.trim());

function scale(digits: string, mark: DecimalMark, places: number, most: number): Result<number> {
  const negative = digits.startsWith('-');
  const [whole = '', fraction = ''] = digits.replace(/^[+-]/, '').split(mark);
  const kept = withoutTrailingZeros(fraction);
  if (kept.length > places) {
    return refused(refusal('number.precise', `“${digits}” has more than ${places} decimals.`));
  }
  const size = BigInt(whole + kept.padEnd(places, '0') || '0');
  if (size > BigInt(most) * 10n ** BigInt(places)) {
    return refused(refusal('number.large', `“${digits}” is too large: the most is ${wholeNumber(most)}.`));
  }
  const value = Number(size);
  return done(negative && value !== 0 ? -value : value);
}

/**
 * Writes an integer scaled by 10^places as decimal text, with thousands grouped, as the company writes numbers.
 *
 * @param least - decimals always shown; trailing zeros beyond them are left out
 * @example formatDecimal(12345600, 4, 2) // '1,234.56'
 */
export function formatDecimal(scaled: number, places: number, least = places): string {
  const digits = Math.abs(scaled)
    .toString()
    .padStart(places + 1, '0');
  const whole = groupDigits(digits.slice(0, digits.length - places), groupMark());
  const fraction = places === 0 ? '' : digits.slice(-places);
  const shown = fraction.slice(0, least) + withoutTrailingZeros(fraction.slice(least));
  return (scaled < 0 ? '−' : '') + whole + (shown === '' ? '' : `${locale().decimalMark}${shown}`);
}
