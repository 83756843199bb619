import { TooLarge } from '../limits';
import { add, lineNet, parsePrice, subtract, ZERO, type Minor, type UnitPrice } from '../money/money';
import { parseTyped } from '../money/sum';
import { parseQuantity } from '../quantity/quantity';
import { refusal, refused, type Result } from '../result';
import { MARKUP, priceWith } from './margin';

/** A quantity and what one of it costs or is sold for, as both are typed. */
export type TypedAmount = { readonly quantity: string; readonly price: string };

/**
 * What a line comes to as it is typed: nothing while one of the two cannot be read, or it is more than can be kept.
 * @returns minor units of the currency
 * @example netTyped({ quantity: '3*4', price: '2.50' }, 'GBP') // 3000
 */
export function netTyped({ quantity, price }: TypedAmount, currency: string): Minor {
  const [many, each] = [parseQuantity(quantity), parsePrice(price)];
  try {
    return many.ok && each.ok ? lineNet(many.value, each.value, 1, currency) : ZERO;
  } catch (error) {
    if (error instanceof TooLarge) return ZERO;
    throw error;
  }
}

/**
 * The price that a mark-up gives, as both are typed.
 * @param markup - in percent
 * @returns undefined while one of the two cannot be read
 * @example priceTyped('40', '25') // 500_000: 50.00
 */
export function priceTyped(cost: string, markup: string): UnitPrice | undefined {
  const [each, share] = [parsePrice(cost), parseMarkup(markup)];
  try {
    return each.ok && share.ok ? priceWith(each.value, share.value) : undefined;
  } catch (error) {
    if (error instanceof TooLarge) return undefined;
    throw error;
  }
}

/** Reads a mark-up in percent, to two decimals. @returns hundredths of a percent */
export function parseMarkup(text: string): Result<number> {
  const read = parseTyped(text.replace('%', ''), { places: 2, most: MARKUP.most / 100 });
  if (!read.ok || read.value >= MARKUP.least) return read;
  return refused(refusal('markup.low', 'Enter 0 or more.'));
}

/** What a line costs and is sold for. */
export type TypedLine = TypedAmount & {
  readonly sold: string;
  readonly costCodeId: number | null;
  readonly counts: boolean;
};

export type CodeAmounts = { readonly costCodeId: number; readonly cost: Minor; readonly price: Minor };

/** What lines come to by cost code, as they are typed; those left open to the customer do not count. */
function sumsTyped(lines: readonly TypedLine[], currency: string): Map<number, CodeAmounts> {
  const sums = new Map<number, CodeAmounts>();
  for (const { quantity, price, sold, costCodeId, counts } of lines) {
    if (costCodeId === null || !counts) continue;
    const was = sums.get(costCodeId) ?? { costCodeId, cost: ZERO, price: ZERO };
    sums.set(costCodeId, {
      costCodeId,
      cost: add(was.cost, netTyped({ quantity, price }, currency)),
      price: add(was.price, netTyped({ quantity, price: sold }, currency)),
    });
  }
  return sums;
}

/**
 * What a whole quote comes to by cost code while a part of its lines is typed over.
 *
 * @param whole - what all saved lines come to, in minor units
 * @param saved - the lines that are typed over, as they are saved
 * @param typed - the same as they are typed; some may be gone and others new
 */
export function sumsWhileTyped(
  whole: readonly CodeAmounts[],
  saved: readonly TypedLine[],
  typed: readonly TypedLine[],
  currency: string,
): CodeAmounts[] {
  const [before, now] = [sumsTyped(saved, currency), sumsTyped(typed, currency)];
  const all = new Map(whole.map((c) => [c.costCodeId, c]));
  for (const costCodeId of now.keys())
    if (!all.has(costCodeId)) all.set(costCodeId, { costCodeId, cost: ZERO, price: ZERO });
  return [...all.values()].map((c) => {
    const moved = (column: 'cost' | 'price') =>
      add(c[column], subtract(now.get(c.costCodeId)?.[column] ?? ZERO, before.get(c.costCodeId)?.[column] ?? ZERO));
    return { costCodeId: c.costCodeId, cost: moved('cost'), price: moved('price') };
  });
}
