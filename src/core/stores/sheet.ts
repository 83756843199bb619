import type { Tracking } from '../items/kinds';
import { add, minor, subtract, ZERO, type Minor } from '../money/money';
import { addQ, ONE, quantity, type Quantity } from '../quantity/quantity';
import { worth, type Pile } from './pile';

/** Where a count stands: being counted, counted and to be looked over, in the books, or given up. */
export const COUNT_STATES = ['open', 'counted', 'posted', 'dropped'] as const;
export type CountState = (typeof COUNT_STATES)[number];

export const COUNT_STATE_NAMES: Readonly<Record<CountState, string>> = {
  open: 'counting',
  counted: 'counted, to review',
  posted: 'posted',
  dropped: 'cancelled',
};

/** One spot of a counting sheet. In the item's unit. */
export type SheetLine = {
  /** null as long as it is not counted. */
  readonly counted: Quantity | null;
  /** What lay there by the book at the moment that the count of it is for. */
  readonly book: Quantity | null;
};

/**
 * By how much a spot differs from the book: what moved after it was counted is on both sides, so it makes no difference.
 *
 * @returns above zero for what was found, below for what is missed; null as long as it is not counted
 * @example 12 by the book, 10 counted, then 2 issued: −2, and 8 lie there once it is posted
 */
export const differenceOf = ({ counted, book }: SheetLine): number | null =>
  counted === null || book === null ? null : counted - book;

/** A difference of a pile: by how much, and what the piece is worth where it has a serial number. */
export type Difference = { readonly by: Quantity; readonly piece: Minor | null };

/**
 * What each difference of a pile comes to: a piece that is missed what it is worth, all else its share of the pile. Where
 * no piece is told by its number they come together to what is posted, the first has what rounding leaves.
 */
export function worthOfDifferences(differences: readonly Difference[], pile: Pile): Minor[] {
  const each = differences.map(({ by, piece }) => (by < 0 && piece !== null ? minor(-piece) : worth(by, pile)));
  if (differences.some((d) => d.piece !== null)) return each;
  const counted = addQ(pile.quantity, ...differences.map((d) => d.by));
  const rest = subtract(subtract(worth(counted, pile), pile.value), add(ZERO, ...each));
  return each.map((value, k) => (k === 0 ? add(value, rest) : value));
}

/** A line as codes find it. */
export type SheetTarget = {
  readonly id: number;
  readonly tracking: Tracking;
  readonly number: string | null;
  readonly codes: readonly string[];
  readonly counted: Quantity | null;
  readonly description: string;
};

const same = (a: string, b: string) => a.toUpperCase() === b.toUpperCase();

/**
 * The line that a scanned code counts one more on: a piece by its serial number, a lot by its own, all else by the part.
 * @returns the line and what is counted of it with that; or why it counts nowhere
 */
export function countScanned(
  lines: readonly SheetTarget[],
  said: { readonly words: readonly string[]; readonly serial?: string; readonly lot?: string; readonly count: number },
): { readonly line?: SheetTarget; readonly counted?: Quantity; readonly words: string } {
  const calls = [said.serial, said.lot, ...said.words].filter((w) => w !== undefined);
  const numbered = lines.find((l) => l.number !== null && calls.some((c) => same(c, l.number ?? '')));
  const called = lines.filter((l) => l.codes.some((c) => said.words.some((w) => same(c, w))));
  const line = numbered ?? called.find((l) => l.tracking === 'none');
  if (line === undefined)
    return called.length > 0
      ? { words: `${called[0]?.description} is tracked by serial or lot number: scan one of them.` }
      : { words: 'No line on this sheet has this code.' };
  if (line.tracking === 'serial')
    return line.counted === ONE
      ? { words: `${line.number} is already counted.` }
      : { line, counted: ONE, words: `${line.number} found` };
  const counted = quantity((line.counted ?? 0) + said.count * ONE);
  return { line, counted, words: `${line.description} counted` };
}
