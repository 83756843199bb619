import { groupBy } from '../group';
import { add, lineNet, ZERO, type Minor, type UnitPrice } from '../money/money';
import type { Quantity } from '../quantity/quantity';

/** A line that is left to buy, with what buying it comes to beyond its own estimate. */
export type ToBuy = {
  readonly code: string;
  readonly codeName: string;
  readonly open: Quantity;
  readonly price: UnitPrice | null;
  readonly priceQuantity: number;
  readonly more: Minor;
};

/** What is left to buy on a cost code as it is planned, and how much more it comes to at today's prices. */
export type CodeToday = {
  readonly code: string;
  readonly name: string;
  readonly planned: Minor;
  /** Below zero where it comes to less. */
  readonly more: Minor;
};

/** The cost codes on which today's prices differ from what is planned, in their order. */
export const todayByCode = (lines: readonly ToBuy[], currency: string): CodeToday[] =>
  [...groupBy(lines, (l) => l.code)]
    .map(([code, own]) => ({
      code,
      name: own[0]?.codeName ?? '',
      planned: add(
        ZERO,
        ...own.map((l) => (l.price === null ? ZERO : lineNet(l.open, l.price, l.priceQuantity, currency))),
      ),
      more: add(ZERO, ...own.map((l) => l.more)),
    }))
    .filter((c) => c.more !== 0)
    .sort((a, b) => a.code.localeCompare(b.code));
