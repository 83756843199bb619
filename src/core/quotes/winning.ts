import { add, lineNet, ZERO, type Minor, type UnitPrice } from '../money/money';
import { costOf, type LostTax } from '../money/tax';
import type { Quantity } from '../quantity/quantity';
import { done, refusal, refused, type Result } from '../result';
import type { QuoteLineKind } from './rows';

export const QUOTE_STATES = ['writing', 'withCustomer', 'won', 'lost'] as const;
export type QuoteState = (typeof QUOTE_STATES)[number];

export const QUOTE_STATE_NAMES: Readonly<Record<QuoteState, string>> = {
  writing: 'In preparation',
  withCustomer: 'With customer',
  won: 'Won',
  lost: 'Lost',
};

type HasState = { readonly state: QuoteState };

/** Quotes that the customer has not decided on. */
export const OPEN_QUOTE_STATES: readonly QuoteState[] = ['writing', 'withCustomer'];
export const isOpenQuote = ({ state }: HasState): boolean => OPEN_QUOTE_STATES.includes(state);
export const isWon = ({ state }: HasState): boolean => state === 'won';

export type CostedLine = {
  readonly kind: QuoteLineKind;
  readonly quantity: Quantity;
  readonly cost: UnitPrice;
  readonly costCodeId: number;
  /** Of its supplier; null where none is chosen yet. */
  readonly tax: LostTax | null;
};

/** Only bought lines become purchases. */
export const isBought = (line: { readonly kind: QuoteLineKind }): boolean => line.kind === 'bought';

/**
 * Why a line of a won quote puts nothing on the buy list; undefined for one that does.
 * @param item - its part, and whether that may be bought; undefined for a line of words
 */
export function whyNotBought(
  line: { readonly kind: QuoteLineKind; readonly agreed: number | null },
  item: { readonly bought: number } | undefined,
): string | undefined {
  if (line.agreed === 0) return 'not accepted';
  if (line.kind === 'allowance') return 'budget only';
  if (line.kind === 'made') return 'made, from its BOM';
  if (line.kind === 'labour') return 'own labour';
  if (line.kind === 'customer') return 'free issue';
  return item?.bought === 0 ? 'item not for purchase' : undefined;
}

export const opensBudget = (line: { readonly kind: QuoteLineKind }): boolean =>
  isBought(line) || line.kind === 'allowance';

/** What a line of a quote costs and is sold for, in minor units of the company's currency. */
export const amountsOf = (
  {
    quantity,
    cost,
    price,
  }: { readonly quantity: Quantity; readonly cost: UnitPrice; readonly price: UnitPrice | null },
  currency: string,
): { net: Minor; priceNet: Minor | null } => ({
  net: lineNet(quantity, cost, 1, currency),
  priceNet: price === null ? null : lineNet(quantity, price, 1, currency),
});

/**
 * The budget for buying that a quote opens: the cost side of its bought lines and allowances by cost code, with the tax
 * that cannot be recovered, which is cost of the job like the rest.
 * @returns minor units of the company's currency by cost code id
 */
export function budgetOf(lines: readonly CostedLine[], currency: string): Map<number, Minor> {
  const budget = new Map<number, Minor>();
  for (const l of lines.filter(opensBudget)) {
    const cost = costOf(lineNet(l.quantity, l.cost, 1, currency), l.tax);
    budget.set(l.costCodeId, add(budget.get(l.costCodeId) ?? ZERO, cost));
  }
  return budget;
}

/** Whether a quote can be marked won: it is open, lines of it are agreed to, and it says who said yes. */
export function win(quote: { readonly state: QuoteState; readonly lines: number }, saidYesBy: string): Result<'won'> {
  if (isWon(quote))
    return refused(refusal('quote.won', 'This quote is already won. Its budget and buy list are open.'));
  if (quote.state === 'lost')
    return refused(refusal('quote.lost', 'This quote was lost, so nothing can be bought for it. Revise it first.'));
  if (quote.lines === 0)
    return refused(refusal('quote.empty', 'This quote has no lines yet. Enter or import them first.'));
  if (saidYesBy.trim() === '') return refused(refusal('quote.who', 'Enter who accepted for the customer.', 'wonBy'));
  return done('won');
}
