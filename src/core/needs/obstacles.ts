import { daysLate, type Calendar, type Day } from '../calendar/workdays';
import { counted } from '../words';

export type Obstacle =
  | { readonly kind: 'noSupplier' }
  | { readonly kind: 'noPrice' }
  | { readonly kind: 'noRate' }
  | { readonly kind: 'unit' }
  | { readonly kind: 'noItem' }
  | { readonly kind: 'late'; readonly days: number };

export type BuyingFacts = {
  readonly supplierId: number | null;
  readonly hasPrice: boolean;
  /** Whether the supplier's currency has an exchange rate. */
  readonly hasRate: boolean;
  /** Whether the need's unit can be converted to the item's. */
  readonly hasUnit: boolean;
  readonly hasItem: boolean;
  readonly neededOn: Day | null;
  readonly leadDays: number;
};

/** What stands in the way of ordering a need today, the hindrance first and the remark last. */
export function obstaclesOf(facts: BuyingFacts, today: Day, receivingDays: number, calendar: Calendar): Obstacle[] {
  const found: Obstacle[] = [];
  if (facts.supplierId === null) found.push({ kind: 'noSupplier' });
  if (!facts.hasRate) found.push({ kind: 'noRate' });
  if (!facts.hasUnit) found.push({ kind: 'unit' });
  if (!facts.hasPrice) found.push({ kind: 'noPrice' });
  if (facts.supplierId !== null && facts.neededOn !== null) {
    const days = daysLate(facts.neededOn, facts.leadDays, receivingDays, today, calendar);
    if (days > 0) found.push({ kind: 'late', days });
  }
  if (!facts.hasItem) found.push({ kind: 'noItem' });
  return found;
}

/** The few words that mark a row. */
export function wordsFor(obstacle: Obstacle): string {
  if (obstacle.kind === 'late') return `${counted(obstacle.days, 'day')} too late`;
  const words = { noSupplier: 'no supplier', noPrice: 'no price', noItem: 'no item number' };
  return { ...words, noRate: 'no exchange rate', unit: 'unit does not fit its item' }[obstacle.kind];
}
