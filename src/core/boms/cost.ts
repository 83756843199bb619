import { add, lineNet, ZERO, type Minor, type UnitPrice } from '../money/money';
import type { BomBranch, BomLine } from './bom';

export type Cost = {
  /** What it comes to, in minor units of the company's currency. */
  readonly amount: Minor;
  /** Whether something in it has no price, so that it comes to more. */
  readonly partly: boolean;
};

/**
 * What each branch of a batch costs, rolled up: its own price × quantity, or what its parts come to.
 *
 * @param parts - as `explode` gives them, each after the one above it
 * @param priceOf - the price for one of a line's unit when so many are had; undefined where none is known
 * @returns a cost for each part in order, and the cost of the whole batch
 */
export function rollUp(
  parts: readonly BomBranch[],
  priceOf: (line: BomLine, part: BomBranch) => UnitPrice | undefined,
  currency: string,
): { readonly parts: readonly Cost[]; readonly whole: Cost } {
  const none: Cost = { amount: ZERO, partly: false };
  const sum = (a: Cost, b: Cost): Cost => ({ amount: add(a.amount, b.amount), partly: a.partly || b.partly });
  const below = parts.map(() => none);
  const costs: Cost[] = parts.map(() => none);
  let whole = none;
  // From the last to the first: what is below a part is known before the part itself.
  for (let k = parts.length - 1; k >= 0; k -= 1) {
    const part = parts[k];
    if (part === undefined) continue;
    const price = part.bom === undefined ? priceOf(part.line, part) : undefined;
    const own: Cost =
      price === undefined
        ? { amount: ZERO, partly: true }
        : { amount: lineNet(part.quantity, price, 1, currency), partly: false };
    const cost = part.bom === undefined ? own : (below[k] ?? none);
    costs[k] = cost;
    if (part.parent === undefined) whole = sum(whole, cost);
    else below[part.parent] = sum(below[part.parent] ?? none, cost);
  }
  return { parts: costs, whole };
}
