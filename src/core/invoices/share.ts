import { ZERO, type Minor } from '../money/money';
import { spreadMoney } from '../money/spread';
import { addQ, atLeastNone, least, NONE, quantity, subtractQ, type Quantity } from '../quantity/quantity';

/** A split that a bill can claim, in the need's unit; `value` in minor units of the company's currency. */
export type BillingSplit = {
  readonly splitId: number;
  readonly ordered: Quantity;
  readonly received: Quantity;
  readonly billed: Quantity;
  readonly value: Minor;
};

export type BilledPart = { readonly splitId: number; readonly quantity: Quantity; readonly amount: Minor };

/**
 * Shares a billed quantity of goods or services among a line's splits: first what is received and not billed, then what
 * is ordered and not billed, each in turn; anything beyond the order goes to the last.
 *
 * @param billed - in the need's unit
 * @returns one quantity for each split; they add up to `billed`
 */
export function shareQuantity(splits: readonly Omit<BillingSplit, 'value'>[], billed: Quantity): Quantity[] {
  let left = billed;
  const parts = splits.map(() => NONE);
  const fill = (room: (s: Omit<BillingSplit, 'value'>, k: number) => number) =>
    splits.forEach((s, k) => {
      const part = least(left, atLeastNone(quantity(room(s, k))));
      parts[k] = addQ(parts[k] ?? NONE, part);
      left = subtractQ(left, part);
    });
  fill((s) => s.received - s.billed);
  fill((s, k) => s.ordered - s.billed - (parts[k] ?? 0));
  const last = parts.length - 1;
  if (last >= 0) parts[last] = addQ(parts[last] ?? NONE, left);
  return parts;
}

/**
 * Shares a billed line among its splits. The amount of goods and services follows the quantities; that of a charge
 * follows what each split was to cost, because every split of a charge has its whole quantity.
 *
 * @param amount - in the company's currency, with tax that cannot be recovered
 * @returns parts whose amounts add up to `amount`
 */
export function shareBill(
  kind: 'goods' | 'service' | 'charge',
  splits: readonly BillingSplit[],
  billed: Quantity,
  amount: Minor,
): BilledPart[] {
  const charge = kind === 'charge';
  const parts = charge ? splits.map(() => billed) : shareQuantity(splits, billed);
  const amounts = spreadMoney(amount, charge ? splits.map((s) => Math.abs(s.value)) : parts);
  return splits
    .map((s, k) => ({ splitId: s.splitId, quantity: parts[k] ?? NONE, amount: amounts[k] ?? ZERO }))
    .filter((p) => p.quantity > 0 || p.amount !== 0);
}
