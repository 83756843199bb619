import type { Tracking } from '../items/kinds';
import { formatQuantity, NONE, ONE, parseQuantity, quantity, type Quantity } from '../quantity/quantity';
import { done, refusal, refused, type Refusal, type Result } from '../result';

/** The most numbers that are taken at once. */
export const MOST_NUMBERS = 2000;
/** The longest number that is kept. */
export const LONGEST_NUMBER = 60;

/** What stands between the first number of a range and its last. */
const UP_TO = /…|\.{2,3}| to /i;

/** The figures at the end of a number, and what stands before them. */
function counted(number: string): readonly [before: string, figures: string] {
  let at = number.length;
  while (at > 0 && /\d/.test(number[at - 1] ?? '')) at -= 1;
  return [number.slice(0, at), number.slice(at)];
}

const fault = (code: string, message: string) => refused(refusal(code, message, 'numbers'));

/**
 * The numbers from one to another: what stands before the last figures is the same, and the figures count on. They are as
 * wide as those of the first.
 *
 * @returns refused where the two do not belong together, or run backwards
 * @example expandRange('SN-098', 'SN-101') // SN-098, SN-099, SN-100, SN-101
 */
export function expandRange(from: string, to: string): Result<string[]> {
  const [[before, start], [upTo, end]] = [counted(from), counted(to)];
  // What is short for the last number, as in SN-2041…2060, means the same beginning.
  if (start === '' || end === '' || (upTo !== before && upTo !== ''))
    return fault('numbers.range', `${from}…${to} isn’t a range: only the last digits may differ.`);
  if (start.length > 15 || end.length > 15)
    return fault('numbers.range', `${from} to ${to} has too many digits for a range. List the numbers.`);
  const many = Number(end) - Number(start) + 1;
  if (many < 1) return fault('numbers.range', `${from} to ${to} runs backwards: put the lower number first.`);
  if (many > MOST_NUMBERS)
    return fault('numbers.many', `${from} to ${to} are ${many} numbers. Enter up to ${MOST_NUMBERS} at a time.`);
  return done(Array.from({ length: many }, (_, k) => before + String(Number(start) + k).padStart(start.length, '0')));
}

/**
 * Reads serial numbers as they are typed, scanned one after the other or pasted: one for each line, comma, semicolon or
 * tab, and ranges.
 *
 * @returns refused for a number that stands there twice, or one that is too long
 * @example readNumbers('SN-2041…SN-2043, SN-2050') // four numbers
 */
export function readNumbers(text: string): Result<string[]> {
  const found: string[] = [];
  const seen = new Set<string>();
  for (const part of text.split(/[\n\r,;\t]+/).map((p) => p.trim())) {
    if (part === '') continue;
    const [from = '', to] = part.split(UP_TO).map((p) => p.trim());
    const read = to === undefined ? done([part]) : expandRange(from, to);
    if (!read.ok) return read;
    for (const number of read.value) {
      if (number.length > LONGEST_NUMBER)
        return fault('numbers.long', `${number.slice(0, 20)}… is too long. Enter up to ${LONGEST_NUMBER} characters.`);
      if (seen.has(number.toUpperCase())) return fault('numbers.twice', `${number} appears twice.`);
      seen.add(number.toUpperCase());
      found.push(number);
    }
    if (found.length > MOST_NUMBERS) return fault('numbers.many', `Enter up to ${MOST_NUMBERS} numbers at a time.`);
  }
  return done(found);
}

const ANY: Readonly<Record<string, RegExp>> = { '9': /\d/, A: /[a-z]/i, '*': /[a-z\d]/i };

/**
 * Why a number does not read as an item's numbers do.
 * @param pattern - 9 for a figure, A for a letter, * for either, all else as it is; empty for any
 * @example patternFault('SN-20', 'SN-9999') // does not fit
 */
export function patternFault(number: string, pattern: string): Refusal | undefined {
  if (pattern === '') return undefined;
  const signs = [...pattern];
  const fits =
    number.length === signs.length &&
    signs.every((sign, k) => ANY[sign]?.test(number[k] ?? '') ?? sign.toUpperCase() === number[k]?.toUpperCase());
  return fits
    ? undefined
    : refusal('numbers.pattern', `${number} doesn’t match the format ${pattern}. Scan it again.`, 'numbers');
}

/** A lot or a serial number with how many pieces it is of, as a person gave it; in the item's unit. */
export type Numbered = { readonly number: string; readonly expiresOn: string | null; readonly quantity: Quantity };

type Item = { readonly name: string; readonly tracking: Tracking; readonly numberPattern: string };

/**
 * Whether goods come with the numbers that they have to have: as many serial numbers as pieces, lots for all of it, and
 * none for what has none.
 *
 * @returns what stands against them; undefined when they are right
 */
export function numbersFault(item: Item, moved: Quantity, numbers: readonly Numbered[]): Refusal | undefined {
  const { name, tracking } = item;
  const no = (code: string, message: string) => refusal(code, message, 'numbers');
  if (tracking === 'none')
    return numbers.length === 0
      ? undefined
      : no('numbers.none', `${name} isn’t tracked by serial number or lot: leave the numbers empty.`);
  const seen = new Set<string>();
  for (const { number, quantity: q } of numbers) {
    if (number.trim() === '' || number.length > LONGEST_NUMBER)
      return no('numbers.empty', `A number of ${name} is empty or too long.`);
    if (seen.has(number.toUpperCase())) return no('numbers.twice', `${number} appears twice.`);
    seen.add(number.toUpperCase());
    if (q <= 0) return no('numbers.quantity', `${number}: enter a quantity above zero.`);
    if (tracking === 'serial' && q !== ONE) return no('numbers.one', `${number} is one piece: enter quantity 1.`);
    const pattern = patternFault(number, item.numberPattern);
    if (pattern !== undefined) return pattern;
  }
  const given = quantity(numbers.reduce((sum, n) => sum + n.quantity, 0));
  if (given === moved) return undefined;
  if (tracking === 'lot')
    return no(
      'numbers.lots',
      `${name}: lots total ${formatQuantity(given)}, quantity is ${formatQuantity(moved)}. Make them equal.`,
    );
  return no(
    'numbers.many',
    `${name}: enter ${formatQuantity(moved)} serial ${moved === ONE ? 'number' : 'numbers'} (${given === NONE ? 'none' : formatQuantity(given)} so far).`,
  );
}

/**
 * The numbers that come with goods, as they were typed: serial numbers of one piece each, or a lot of all of it; several
 * lots each with their quantity, as “LOT-7: 40”.
 *
 * @param moved - what comes, in the item's unit
 */
export function readNumbered(
  tracking: Tracking,
  text: string,
  expiresOn: string | null,
  moved: Quantity,
): Result<readonly Numbered[]> {
  if (tracking === 'none' || text.trim() === '') return done([]);
  if (tracking === 'serial') {
    const read = readNumbers(text);
    return read.ok ? done(read.value.map((number) => ({ number, expiresOn: null, quantity: ONE }))) : read;
  }
  const rows = text.split(/[\n\r;]+/).filter((r) => r.trim() !== '');
  const lots: Numbered[] = [];
  for (const row of rows) {
    const [number = '', many = ''] = row.split(':').map((c) => c.trim());
    if (many === '' && rows.length > 1)
      return fault('numbers.lots', `Enter how much is of ${number}, like “${number}: 40”.`);
    const read = many === '' ? done(moved) : parseQuantity(many);
    if (!read.ok)
      return fault('numbers.lots', `“${many}” isn’t a quantity of ${number}. Type it like “${number}: 40”.`);
    lots.push({ number, expiresOn, quantity: read.value });
  }
  return done(lots);
}
