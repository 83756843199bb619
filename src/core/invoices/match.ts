import { isGoodsLine } from '../orders/kinds';
import { divideRounded } from '../money/decimal';
import { formatMoney, lineNet, minor, subtract, type Minor, type UnitPrice } from '../money/money';
import { atLeastNone, formatQuantity, subtractQ, type Quantity } from '../quantity/quantity';
import { refusal, type Refusal } from '../result';

/** One line of an invoice beside its order line, in the line's unit and the order's currency. */
export type InvoicedLine = {
  readonly description: string;
  readonly kind: 'goods' | 'service' | 'charge';
  readonly ordered: Quantity;
  readonly received: Quantity;
  /** What the dock said last was missing from the parcel, as far as it has not come since. */
  readonly missing: Quantity;
  /** On all other invoices of the order, whenever they came, matched or not. */
  readonly invoicedElsewhere: Quantity;
  readonly orderPrice: UnitPrice;
  readonly orderPriceQuantity: number;
  readonly quantity: Quantity;
  readonly price: UnitPrice;
  readonly priceQuantity: number;
};

/** Differences up to these are passed without a question. */
export type Tolerance = {
  /** Of the line's value at order price, in hundredths of a percent. */
  readonly priceShare: number;
  /** On one line, in minor units of the invoice's currency; whichever of the two is smaller holds. */
  readonly priceMost: Minor;
};

export type Difference = {
  readonly kind: 'price' | 'quantity' | 'total' | 'unordered';
  /** Invoiced less expected, in minor units of the invoice's currency. */
  readonly amount: Minor;
  readonly beyond: boolean;
  readonly words: string;
};

/** The invoice's net less the same quantity at order price. */
export function priceDifference(line: InvoicedLine, currency: string): Minor {
  const invoiced = lineNet(line.quantity, line.price, line.priceQuantity, currency);
  return subtract(invoiced, lineNet(line.quantity, line.orderPrice, line.orderPriceQuantity, currency));
}

/** What this invoice may claim: goods that are in, and services and charges as ordered, less all other invoices. */
export const invoiceable = (line: InvoicedLine): Quantity =>
  atLeastNone(subtractQ(isGoodsLine(line) ? line.received : line.ordered, line.invoicedElsewhere));

/** What a tolerance allows on an amount, in minor units. */
const allowedOn = (amount: Minor, tolerance: Tolerance): number =>
  Math.min(tolerance.priceMost, divideRounded(BigInt(Math.abs(amount)) * BigInt(tolerance.priceShare), 10_000n));

/**
 * Three-way match of one line: ordered, received, invoiced. A price difference is held beyond the tolerance;
 * a quantity beyond what was received (or ordered, for a service or charge) is always held.
 */
export function matchLine(line: InvoicedLine, tolerance: Tolerance, currency: string): Difference[] {
  const found: Difference[] = [];
  const excess = subtractQ(line.quantity, invoiceable(line));
  if (excess > 0) {
    const missing = line.missing > 0 ? ` (${formatQuantity(line.missing)} short-delivered)` : '';
    const seen = isGoodsLine(line)
      ? `${formatQuantity(line.received)} received${missing}`
      : `${formatQuantity(line.ordered)} ordered`;
    const other = line.invoicedElsewhere > 0 ? `; ${formatQuantity(line.invoicedElsewhere)} on other invoices` : '';
    found.push({
      kind: 'quantity',
      amount: lineNet(excess, line.price, line.priceQuantity, currency),
      beyond: true,
      words: `${line.description}: ${formatQuantity(line.quantity)} invoiced, ${seen}${other}.`,
    });
  }
  const amount = priceDifference(line, currency);
  if (amount !== 0) {
    const expected = lineNet(line.quantity, line.orderPrice, line.orderPriceQuantity, currency);
    const which = amount > 0 ? 'above' : 'below';
    found.push({
      kind: 'price',
      amount,
      beyond: Math.abs(amount) > allowedOn(expected, tolerance),
      words: `${line.description}: ${formatMoney(minor(Math.abs(amount)), currency)} ${which} order price.`,
    });
  }
  return found;
}

/** A line of an invoice that nobody ordered, such as carriage or a fee: always told, held beyond the tolerance. */
export function matchUnordered(description: string, net: Minor, tolerance: Tolerance, currency: string): Difference[] {
  if (net === 0) return [];
  const words = `${description}: ${formatMoney(net, currency)} not ordered.`;
  return [{ kind: 'unordered', amount: net, beyond: Math.abs(net) > tolerance.priceMost, words }];
}

/** The paper's total against the total of the lines typed in; any difference is held. */
export function matchTotal(typed: Minor, worked: Minor, currency: string): Difference[] {
  const amount = subtract(typed, worked);
  if (amount === 0) return [];
  const words = `Invoice total ${formatMoney(typed, currency)}; lines plus tax ${formatMoney(worked, currency)}.`;
  return [{ kind: 'total', amount, beyond: true, words }];
}

/** What an invoice's held differences come to, each for itself: a claim too high is never made up for by one too low. */
export const heldSize = (differences: readonly Difference[]): Minor =>
  minor(differences.filter((d) => d.beyond).reduce((sum, d) => sum + Math.abs(d.amount), 0));

const few = (differences: readonly Difference[], tell: (d: Difference) => string): string => {
  const beyond = differences.filter((d) => d.beyond);
  const told = beyond.slice(0, 3).map(tell).join(', ');
  return beyond.length > 3 ? `${told} and ${beyond.length - 3} more` : told;
};

/**
 * The few figures with which a list tells what is held: each difference by itself, never netted.
 * @example '+6,696.00, −8,035.00'
 */
export const differenceWords = (differences: readonly Difference[], format: (amount: Minor) => string): string =>
  few(differences, (d) => `${d.amount > 0 ? '+' : ''}${format(d.amount)}`);

/**
 * The same in a sentence.
 * @example '£177.00 over, £15.60 under the order'
 */
export const differenceInWords = (differences: readonly Difference[], format: (amount: Minor) => string): string =>
  `${few(differences, (d) => `${format(minor(Math.abs(d.amount)))} ${d.amount > 0 ? 'over' : 'under'}`)} the order`;

/** Who may pass an invoice that is held: nobody their own, when its differences are above the company's limit. */
export function passFault(
  invoice: { readonly number: string; readonly own: boolean; readonly size: Minor },
  limit: Minor,
  currency: string,
): Refusal | undefined {
  if (!invoice.own || invoice.size <= limit) return undefined;
  return refusal(
    'invoice.own',
    `You entered invoice ${invoice.number}, and its differences exceed your ${formatMoney(limit, currency)} limit. Someone else must approve it.`,
  );
}
