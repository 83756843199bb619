import { belowMinimumOrder, carriageOf, toFreeCarriage } from '../sourcing/bundle';
import { isCharge } from './kinds';
import { formatMoney, type Minor } from '../money/money';
import { daysLate, type Lead } from '../calendar/lead';
import type { Calendar, Day } from '../calendar/workdays';
import { formatQuantity, type Quantity } from '../quantity/quantity';
import { sendingFaults, type OrderLine } from './order';

export type Check = {
  readonly good: boolean;
  readonly words: string;
  /** Said once more where the order is sent. */
  readonly atSending?: true;
};

type Facts = {
  /** `wantedOn` is the day at the dock. */
  readonly lines: readonly (OrderLine & {
    readonly wantedOn: Day | null;
    readonly lead: Lead;
    /** The part that a buy list asks for, where the line is for another. */
    readonly insteadOf?: string | undefined;
    /** The quotes that it is bought for before their customers said yes, and why. */
    readonly notAccepted?: readonly { readonly quote: string; readonly reason: string; readonly who: string }[];
  })[];
  readonly supplier: {
    readonly email: string | null;
    readonly carriage: Minor;
    readonly carriageFreeFrom: Minor | null;
    readonly minimumOrder: Minor | null;
  };
  /** Net of goods and services, charges left out. */
  readonly goods: Minor;
  readonly currency: string;
  readonly today: Day;
  readonly calendar: Calendar;
};

/** What a buyer would look at before sending: what stops it, what deserves a look, and what is in order. */
export function checksOf({ lines, supplier, goods, currency, today, calendar }: Facts): Check[] {
  const faults = sendingFaults(lines, currency, supplier.email);
  const checks: Check[] = faults.map((f) => ({ good: false, words: f.message }));
  const early = lines
    .flatMap((l) => l.notAccepted ?? [])
    .map(({ quote, reason, who }) => `Quote ${quote} isn’t accepted yet: “${reason}”, ${who}`);
  for (const words of new Set(early)) checks.push({ good: false, words, atSending: true });
  if (faults.length === 0) checks.push({ good: true, words: 'Every line has a price, and a job or stores to go to' });
  const missed = lines.filter(
    (l) => !isCharge(l) && l.wantedOn !== null && daysLate(l.wantedOn, l.lead, 0, today, calendar) > 0,
  );
  for (const { description, lead } of missed)
    checks.push({
      good: false,
      words: `${description}: required date is inside the ${lead.days}-working-day lead time`,
    });
  for (const { description, insteadOf } of lines)
    if (insteadOf !== undefined)
      checks.push({ good: false, words: `${description} replaces ${insteadOf} on the buy list` });
  if (missed.length === 0) checks.push({ good: true, words: 'All required dates allow for lead time' });
  const belowMinimum = belowMinimumOrder(goods, supplier.minimumOrder);
  if (belowMinimum > 0)
    checks.push({
      good: false,
      words: `${formatMoney(belowMinimum, currency)} below this supplier’s minimum order`,
    });
  const charged = lines.some((l) => l.chargeKind === 'carriage');
  const more = toFreeCarriage(goods, carriageOf(supplier));
  if (more !== null && more > 0)
    checks.push({ good: false, words: `${formatMoney(more, currency)} more for free carriage` });
  if (more === 0)
    checks.push(
      charged
        ? { good: false, words: 'Carriage is charged although the order qualifies for free carriage' }
        : { good: true, words: 'Free carriage' },
    );
  for (const line of lines) {
    const toStores = line.splits.filter((s) => s.jobId === null).reduce((sum, s) => sum + s.quantity, 0);
    if (toStores > 0 && !isCharge(line))
      checks.push({
        good: true,
        words: `${formatQuantity(toStores as Quantity)} of ${line.description} surplus to stores`,
      });
  }
  return checks;
}
