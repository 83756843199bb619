import { divideRounded } from '../money/decimal';
import { formatMoney, lineNet, minor, subtract, ZERO, type Minor, type UnitPrice } from '../money/money';
import { spreadMoney } from '../money/spread';
import {
  addQ,
  atLeastNone,
  formatQuantity,
  least,
  NONE,
  quantity,
  subtractQ,
  type Quantity,
} from '../quantity/quantity';

/** One line of a bill beside its order line, in the line's unit and the order's currency. */
export type BilledLine = {
  readonly description: string;
  readonly kind: 'goods' | 'service' | 'charge';
  readonly ordered: Quantity;
  readonly received: Quantity;
  /** On earlier bills. */
  readonly billedBefore: Quantity;
  readonly orderPrice: UnitPrice;
  readonly orderPriceQuantity: number;
  readonly quantity: Quantity;
  readonly price: UnitPrice;
  readonly priceQuantity: number;
};

/** Differences up to these are passed without a question. */
export type Tolerance = {
  /** Of the line's value at the order’s price, in hundredths of a percent. */
  readonly priceShare: number;
  /** On one line, in minor units; whichever of the two is smaller holds. */
  readonly priceMost: Minor;
};

export type Difference = {
  readonly kind: 'price' | 'quantity' | 'total';
  /** Billed less expected, in minor units of the order's currency. */
  readonly amount: Minor;
  readonly held: boolean;
  readonly words: string;
};

/** The bill's net less the same quantity at the order’s price. */
export function priceDifference(line: BilledLine, currency: string): Minor {
  const billed = lineNet(line.quantity, line.price, line.priceQuantity, currency);
  return subtract(billed, lineNet(line.quantity, line.orderPrice, line.orderPriceQuantity, currency));
}

/** What may be billed by now: goods that are in, and services and charges as ordered, less earlier bills. */
export const billable = (line: BilledLine): Quantity =>
  atLeastNone(subtractQ(line.kind === 'goods' ? line.received : line.ordered, line.billedBefore));

/**
 * Three-way match of one line: ordered, received, billed. A price difference is held beyond the tolerance;
 * a quantity beyond what was received (or ordered, for a service or charge) is always held.
 */
export function matchLine(line: BilledLine, tolerance: Tolerance, currency: string): Difference[] {
  const found: Difference[] = [];
  const excess = subtractQ(line.quantity, billable(line));
  if (excess > 0) {
    const seen =
      line.kind === 'goods' ? `${formatQuantity(line.received)} received` : `${formatQuantity(line.ordered)} ordered`;
    const before = line.billedBefore > 0 ? ` and ${formatQuantity(line.billedBefore)} billed before` : '';
    found.push({
      kind: 'quantity',
      amount: lineNet(excess, line.price, line.priceQuantity, currency),
      held: true,
      words: `${line.description}: ${formatQuantity(line.quantity)} billed, ${seen}${before}.`,
    });
  }
  const amount = priceDifference(line, currency);
  if (amount !== 0) {
    const expected = Math.abs(lineNet(line.quantity, line.orderPrice, line.orderPriceQuantity, currency));
    const allowed = Math.min(
      tolerance.priceMost,
      divideRounded(BigInt(expected) * BigInt(tolerance.priceShare), 10_000n),
    );
    const which = amount > 0 ? 'above' : 'below';
    found.push({
      kind: 'price',
      amount,
      held: Math.abs(amount) > allowed,
      words: `${line.description}: ${formatMoney(minor(Math.abs(amount)), currency)} ${which} the order’s price.`,
    });
  }
  return found;
}

/** The paper's total against the total of the lines typed in; any difference is held. */
export function matchTotal(typed: Minor, worked: Minor, currency: string): Difference[] {
  const amount = subtract(typed, worked);
  if (amount === 0) return [];
  const words = `The bill says ${formatMoney(typed, currency)}, its lines and tax come to ${formatMoney(worked, currency)}.`;
  return [{ kind: 'total', amount, held: true, words }];
}

export type BillingSplit = {
  readonly splitId: number;
  readonly ordered: Quantity;
  readonly received: Quantity;
  readonly billed: Quantity;
};

export type BilledPart = { readonly splitId: number; readonly quantity: Quantity; readonly amount: Minor };

/**
 * Shares a billed line among its splits: first what is received and not billed, then what is ordered and not
 * billed, each in turn; anything beyond the order goes to the last. The amount follows the quantities.
 *
 * @param amount - in the company's currency, with tax that cannot be recovered
 * @returns parts that add up to `billed` and `amount`
 */
export function shareBill(splits: readonly BillingSplit[], billed: Quantity, amount: Minor): BilledPart[] {
  if (splits.length === 0) throw new RangeError('A billed line must be charged to something.');
  let left = billed;
  const parts = splits.map(() => NONE);
  const fill = (room: (s: BillingSplit, k: number) => number) =>
    splits.forEach((s, k) => {
      const part = least(left, atLeastNone(quantity(room(s, k))));
      parts[k] = addQ(parts[k] ?? NONE, part);
      left = subtractQ(left, part);
    });
  fill((s) => s.received - s.billed);
  fill((s, k) => s.ordered - s.billed - (parts[k] ?? 0));
  parts[parts.length - 1] = addQ(parts.at(-1) ?? NONE, left);
  const amounts = spreadMoney(amount, parts);
  return splits
    .map((s, k) => ({ splitId: s.splitId, quantity: parts[k] ?? NONE, amount: amounts[k] ?? ZERO }))
    .filter((p) => p.quantity > 0 || p.amount !== 0);
}
