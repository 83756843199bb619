import { lineNet, subtract, type Minor } from '../money/money';
import { subtractQ, type Quantity } from '../quantity/quantity';
import { priceFor, quantityToOrder, type PartTerms, type PriceBreak } from './terms';

/** A price break that is not reached yet. */
export type BreakAhead = {
  readonly reached: PriceBreak;
  /** What would be ordered to have it, and how much more that is, in the supplier's unit. */
  readonly at: Quantity;
  readonly more: Quantity;
  /** What the whole line would cost more; below zero where more costs less. */
  readonly costs: Minor;
};

/** How much further than what is ordered a break may lie to be worth telling. */
const WITHIN = 1.5;

/**
 * The next price break after what is ordered, where it is near, or where more costs less in all.
 *
 * @param ordered - in the supplier's unit
 * @param currency - of the supplier; `costs` is in its minor units
 * @returns undefined where there is no further break, it is far away, or no price holds for so little
 * @example 18 at 10.00, from 20 at 8.50: 2 more, and the line costs 170.00 instead of 180.00
 */
export function breakAhead(ordered: Quantity, terms: PartTerms, currency: string): BreakAhead | undefined {
  const now = priceFor(ordered, terms.prices);
  const next = terms.prices.filter((p) => p.from > ordered).sort((a, b) => a.from - b.from)[0];
  if (now === undefined || next === undefined) return undefined;
  const { quantity: at } = quantityToOrder(next.from, { ...terms, factor: { many: 1, one: 1 } });
  const net = (q: Quantity, p: PriceBreak) => lineNet(q, p.price, p.priceQuantity, currency);
  const costs = subtract(net(at, next), net(ordered, now));
  if (costs >= 0 && at > ordered * WITHIN) return undefined;
  return { reached: next, at, more: subtractQ(at, ordered), costs };
}
