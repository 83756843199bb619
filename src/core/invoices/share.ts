import { ZERO, type Minor } from '../money/money';
import { spreadMoney } from '../money/spread';
import { addQ, atLeastNone, least, NONE, quantity, subtractQ, type Quantity } from '../quantity/quantity';

/** A split that an invoice can claim, in the need's unit; `value` in minor units of the company's currency. */
export type InvoicingSplit = {
  readonly splitId: number;
  readonly ordered: Quantity;
  readonly received: Quantity;
  readonly invoiced: Quantity;
  readonly value: Minor;
};

export type InvoicedSplit = { readonly splitId: number; readonly quantity: Quantity; readonly amount: Minor };

/**
 * Shares an invoiced quantity of goods or services among a line's splits: first what is received and not invoiced, then what
 * is ordered and not invoiced, each in turn; anything beyond the order goes to the last.
 *
 * @param invoiced - in the need's unit
 * @returns one quantity for each split; they add up to `invoiced`
 */
export function shareQuantity(splits: readonly Omit<InvoicingSplit, 'value'>[], invoiced: Quantity): Quantity[] {
  let left = invoiced;
  const parts = splits.map(() => NONE);
  const fill = (room: (s: Omit<InvoicingSplit, 'value'>, k: number) => number) =>
    splits.forEach((s, k) => {
      const part = least(left, atLeastNone(quantity(room(s, k))));
      parts[k] = addQ(parts[k] ?? NONE, part);
      left = subtractQ(left, part);
    });
  fill((s) => s.received - s.invoiced);
  fill((s, k) => s.ordered - s.invoiced - (parts[k] ?? 0));
  const last = parts.length - 1;
  if (last >= 0) parts[last] = addQ(parts[last] ?? NONE, left);
  return parts;
}

/**
 * Shares an invoiced line among its splits. The amount of goods and services follows the quantities; that of a charge
 * follows what each split was to cost, because every split of a charge has its whole quantity.
 *
 * @param amount - in the company's currency, with tax that cannot be recovered
 * @returns parts whose amounts add up to `amount`
 */
export function shareInvoice(
  kind: 'goods' | 'service' | 'charge',
  splits: readonly InvoicingSplit[],
  invoiced: Quantity,
  amount: Minor,
): InvoicedSplit[] {
  const charge = kind === 'charge';
  const parts = charge ? splits.map(() => invoiced) : shareQuantity(splits, invoiced);
  const amounts = spreadMoney(amount, charge ? splits.map((s) => Math.abs(s.value)) : parts);
  return splits
    .map((s, k) => ({ splitId: s.splitId, quantity: parts[k] ?? NONE, amount: amounts[k] ?? ZERO }))
    .filter((p) => p.quantity > 0 || p.amount !== 0);
}
