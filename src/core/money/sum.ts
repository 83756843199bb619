import { groupMark, locale } from '../locale/locale';
import { refusal, refused, type Result } from '../result';
import { divideRounded, formatDecimal, isUndecided, parseDecimal, type DecimalRule } from './decimal';

/** An exact fraction; the denominator is positive. */
type Fraction = { readonly over: bigint; readonly under: bigint };

const MOST_SIGNS = 120;
/** Decimals of a number within a sum. */
const FINE = 9;
const PLACES_SHOWN = 4;
/** Parts thousands and can be taken for nothing else. */
const NARROW_SPACE = '\u202f';

class NoSum extends Error {}

/** A sum is read from left to right, products first: `sum = product {±product}`, `product = part {×÷ part}`. */
class Reader {
  private at = 0;
  constructor(private readonly signs: readonly string[]) {}

  read(): Fraction {
    const value = this.sum();
    if (this.at < this.signs.length) throw new NoSum();
    return value;
  }

  private take(...wanted: readonly string[]): string | undefined {
    const sign = this.signs[this.at];
    if (sign === undefined || !wanted.includes(sign)) return undefined;
    this.at += 1;
    return sign;
  }

  private sum(): Fraction {
    let left = this.product();
    for (let sign = this.take('+', '-'); sign !== undefined; sign = this.take('+', '-')) {
      const right = this.product();
      const added = right.over * left.under;
      left = {
        over: left.over * right.under + (sign === '+' ? added : -added),
        under: left.under * right.under,
      };
    }
    return left;
  }

  private product(): Fraction {
    let left = this.part();
    for (let sign = this.take('*', '/'); sign !== undefined; sign = this.take('*', '/')) {
      const right = this.part();
      if (sign === '/' && right.over === 0n) throw new NoSum('You can’t divide by zero.');
      const [over, under] = sign === '*' ? [right.over, right.under] : [right.under, right.over];
      left = { over: left.over * over * (under < 0n ? -1n : 1n), under: left.under * (under < 0n ? -under : under) };
    }
    return left;
  }

  private part(): Fraction {
    if (this.take('-') !== undefined) {
      const { over, under } = this.part();
      return { over: -over, under };
    }
    if (this.take('(') !== undefined) {
      const value = this.sum();
      if (this.take(')') === undefined) throw new NoSum('A bracket isn’t closed.');
      return value;
    }
    const sign = this.signs[this.at] ?? '';
    this.at += 1;
    const read = parseDecimal(sign, { places: FINE });
    if (!read.ok) throw new NoSum(read.refusals[0]?.message);
    return { over: BigInt(read.value), under: 10n ** BigInt(FINE) };
  }
}

/** Whether a text is a sum, and no single number. */
export const isSum = (text: string): boolean => /[*/×÷()+]|[\d.,)]\s*[-\u2212]/u.test(text.trim().replace(/^[+]/, ''));

/**
 * Reads a number as a person types it, which may be a sum: + − × (or *) ÷ (or /) and brackets. It is worked out
 * exactly and rounded once, half away from zero, to the places kept.
 *
 * @returns an integer scaled by 10^places
 * @example parseTyped('3*12+4', { places: 4 }) // value 400000
 * @example parseTyped('100/3', { places: 2 }) // value 3333
 */
export function parseTyped(text: string, rule: DecimalRule): Result<number> {
  if (!isSum(text)) return parseDecimal(text, rule);
  const bare = text
    .replaceAll('×', '*')
    .replaceAll('÷', '/')
    .replaceAll('\u2212', '-')
    .replaceAll(/[\s\u202f]/g, '');
  const wrong = (why: string) =>
    refused(
      refusal('number.sum', `“${text.trim().slice(0, 40)}” isn’t a calculation. Type one like 3*12+4. ${why}`.trim()),
    );
  if (bare.length > MOST_SIGNS) return wrong('It is too long.');
  try {
    const { over, under } = new Reader(bare.match(/[\d.,'’]+|\D/g) ?? []).read();
    const value = divideRounded(over * 10n ** BigInt(rule.places), under);
    // What it comes to keeps the limits of a number that is typed.
    return parseDecimal(written(value, rule.places), rule);
  } catch (error) {
    if (error instanceof NoSum) return wrong(error.message);
    if (error instanceof RangeError) return wrong('The result is too large.');
    throw error;
  }
}

const written = (value: number, places: number): string =>
  `${value < 0 ? '-' : ''}${plainDigits(Math.abs(value), places)}`;

function plainDigits(size: number, places: number): string {
  const digits = String(size).padStart(places + 1, '0');
  const cut = digits.length - places;
  return places === 0 ? digits : `${digits.slice(0, cut)}${locale().decimalMark}${digits.slice(cut)}`;
}

/**
 * What a typed number was read as, where that could be doubted: a sum, or a mark that groups thousands and might divide.
 * @example readAs('3*12+4') // '= 40'
 */
export function readAs(text: string): string | undefined {
  const read = parseTyped(text, { places: PLACES_SHOWN });
  if (!read.ok) return undefined;
  const value = formatDecimal(read.value, PLACES_SHOWN, 0);
  if (isSum(text)) return `= ${value}`;
  if (!isUndecided(text) || text.includes(locale().decimalMark)) return undefined;
  return `read as ${value.replaceAll(groupMark(), NARROW_SPACE)}, with no decimals`;
}
