import type { Per } from '../boms/bom';
import { divideRounded } from '../money/decimal';
import { decimalsOf } from '../money/currencies';
import { add, lineNet, PRICE_PLACES, ZERO, type Minor, type UnitPrice } from '../money/money';
import { ONE, quantity, type Quantity } from '../quantity/quantity';
import { unitOf } from '../quantity/units';
import { priceWith } from './margin';

/** The most numbers of pieces that a quote is priced for beside its own. */
export const MOST_PRICED = 6;
export const MOST_PIECES = 1_000_000;

/**
 * Reads numbers of pieces as they are typed: 25, 50 100.
 * @returns them without doubles, the smallest first; undefined for what is none, or too many
 */
export function piecesTyped(text: string): number[] | undefined {
  const words = text.split(/[\s,;]+/).filter((w) => w !== '');
  const read = words.map((w) => (/^\d{1,7}$/.test(w) ? Number(w) : 0));
  if (read.length > MOST_PRICED || read.some((n) => n < 1 || n > MOST_PIECES)) return undefined;
  return [...new Set(read)].sort((a, b) => a - b);
}

/** Numbers of pieces as they are kept, by commas. */
export const piecesKept = (text: string): number[] => text.split(',').flatMap((n) => (n === '' ? [] : Number(n)));

/** A line as it is priced for some number of pieces. */
export type PricedLine = {
  readonly per: Per;
  readonly itemId: number | null;
  readonly supplierId: number | null;
  readonly quantity: Quantity;
  readonly unit: string;
  readonly cost: UnitPrice;
  readonly price: UnitPrice | null;
  /** What is put on the cost, in hundredths of a percent; null where the price was typed. */
  readonly markup: number | null;
  /** How much of it a person wrote for how many pieces, where the quote was rewritten for others since. */
  readonly basisQuantity?: Quantity | null;
  readonly basisPieces?: number | null;
};

/** What a part is had for from the line's supplier when so many are bought; null where that is not known. */
export type Listed = (line: PricedLine, quantity: Quantity) => UnitPrice | null;

/** What a line was written with, and for how many pieces: as a person wrote it, however often it was rewritten since. */
export const basisOf = ({ quantity: own, basisQuantity, basisPieces }: PricedLine, written: number) => ({
  basisQuantity: basisQuantity ?? own,
  basisPieces: basisPieces ?? written,
});

/**
 * How much of a line so many pieces take: what is had once stays, all else grows with them. What is not divided is
 * rounded up, once, so that a quote that is rewritten for others and back is what it was.
 * @param written - for how many pieces the line is written now
 * @example 7 bolts for 10 pieces, for 25: 18
 */
export function quantityFor(line: PricedLine, written: number, pieces: number): Quantity {
  const { per, quantity: own, unit } = line;
  if (per === 'batch' || pieces === written) return own;
  const { basisQuantity, basisPieces } = basisOf(line, written);
  const [grown, by] = [BigInt(basisQuantity) * BigInt(pieces), BigInt(basisPieces)];
  if (unitOf(unit).whole !== true) return quantity(Math.max(divideRounded(grown, by), 1));
  const step = by * BigInt(ONE);
  return quantity(Number(((grown + step - 1n) / step) * BigInt(ONE)));
}

/**
 * A line as it would be written for another number of pieces. A cost that is what the supplier lists for so many follows
 * its breaks; one that was typed stays, and so does a price without a mark-up.
 */
export function lineFor<L extends PricedLine>(line: L, written: number, pieces: number, listed: Listed): L {
  if (pieces === written) return line;
  const many = quantityFor(line, written, pieces);
  const follows = line.cost > 0 && listed(line, line.quantity) === line.cost;
  const cost = (follows ? listed(line, many) : null) ?? line.cost;
  const price = line.markup === null ? line.price : priceWith(cost, line.markup);
  return { ...line, ...basisOf(line, written), quantity: many, cost, price };
}

/** What a quote comes to for a number of pieces, in minor units of the company's currency. */
export type Priced = { readonly pieces: number; readonly cost: Minor; readonly price: Minor };

/** What one of so many pieces comes to, to four decimals. */
export const eachOf = (amount: Minor, pieces: number, currency: string): UnitPrice =>
  divideRounded(BigInt(amount) * 10n ** BigInt(PRICE_PLACES - decimalsOf(currency)), BigInt(pieces)) as UnitPrice;

/** A quote priced side by side for several numbers of pieces; its lines are those that count. */
export const pricedFor = (
  lines: readonly PricedLine[],
  written: number,
  numbers: readonly number[],
  listed: Listed,
  currency: string,
): Priced[] =>
  numbers.map((pieces) => {
    const own = lines.map((l) => lineFor(l, written, pieces, listed));
    return {
      pieces,
      cost: add(ZERO, ...own.map((l) => lineNet(l.quantity, l.cost, 1, currency))),
      price: add(ZERO, ...own.map((l) => (l.price === null ? ZERO : lineNet(l.quantity, l.price, 1, currency)))),
    };
  });
