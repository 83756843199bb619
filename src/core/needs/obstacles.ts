import { daysLate, type Lead } from '../calendar/lead';
import type { Calendar, Day } from '../calendar/workdays';
import { formatMoney, type Minor } from '../money/money';
import { formatQuantity, type Quantity } from '../quantity/quantity';
import { unitOf } from '../quantity/units';
import { counted } from '../words';

export type Obstacle =
  | { readonly kind: 'noSupplier' }
  | { readonly kind: 'noPrice' }
  | { readonly kind: 'noRate' }
  | { readonly kind: 'unit' }
  | { readonly kind: 'noItem' }
  /** Its part not for purchase. */
  | { readonly kind: 'notBought' }
  /** The customer has not agreed to it, and it is bought all the same. */
  | { readonly kind: 'notAgreed' }
  /** So much of it is free in stores, and is not counted on. */
  | { readonly kind: 'inStores'; readonly free: Quantity; readonly unit: string }
  /** Buying it costs so much more than the quote has for it. */
  | { readonly kind: 'aboveQuote'; readonly by: Minor; readonly currency: string }
  | { readonly kind: 'late'; readonly days: number };

export type BuyingFacts = {
  readonly supplierId: number | null;
  readonly hasPrice: boolean;
  /** Whether the supplier's currency has an exchange rate. */
  readonly hasRate: boolean;
  /** Whether the need's unit can be converted to the item's. */
  readonly hasUnit: boolean;
  readonly hasItem: boolean;
  readonly mayBeBought: boolean;
  /** Whether the customer agreed to it, or no quote asks. */
  readonly agreed: boolean;
  /** Of what is open, what is free in stores, in the need's unit. */
  readonly freeInStores: Quantity;
  readonly unit: string;
  /** What buying what is open costs beyond what its quote has for it; 0 or less when it does not. */
  readonly aboveQuote: Minor;
  readonly currency: string;
  readonly neededOn: Day | null;
  /** Of its supplier; null without one. */
  readonly lead: Lead | null;
};

/** What stands in the way of ordering a need today, the hindrance first and the remark last. */
export function obstaclesOf(facts: BuyingFacts, today: Day, receivingDays: number, calendar: Calendar): Obstacle[] {
  const found: Obstacle[] = [];
  if (facts.supplierId === null) found.push({ kind: 'noSupplier' });
  if (!facts.hasRate) found.push({ kind: 'noRate' });
  if (!facts.mayBeBought) found.push({ kind: 'notBought' });
  if (!facts.agreed) found.push({ kind: 'notAgreed' });
  if (!facts.hasUnit) found.push({ kind: 'unit' });
  if (!facts.hasPrice) found.push({ kind: 'noPrice' });
  if (facts.lead !== null && facts.neededOn !== null) {
    const days = daysLate(facts.neededOn, facts.lead, receivingDays, today, calendar);
    if (days > 0) found.push({ kind: 'late', days });
  }
  const { freeInStores: free, aboveQuote: by, unit, currency } = facts;
  if (free > 0) found.push({ kind: 'inStores', free, unit });
  if (by > 0) found.push({ kind: 'aboveQuote', by, currency });
  if (!facts.hasItem) found.push({ kind: 'noItem' });
  return found;
}

/** The few words that mark a row. */
export function wordsFor(obstacle: Obstacle): string {
  if (obstacle.kind === 'late') return `${counted(obstacle.days, 'day')} late`;
  if (obstacle.kind === 'inStores')
    return `${formatQuantity(obstacle.free)} ${unitOf(obstacle.unit).short} in stock`.replace('  ', ' ');
  if (obstacle.kind === 'aboveQuote') return `${formatMoney(obstacle.by, obstacle.currency)} above quote`;
  const words = { noSupplier: 'no supplier', noPrice: 'no price', noItem: 'no item number' };
  return {
    ...words,
    noRate: 'no exchange rate',
    unit: 'unit doesn’t match item',
    notBought: 'not for purchase',
    notAgreed: 'not accepted yet',
  }[obstacle.kind];
}
