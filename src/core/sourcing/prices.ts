import { plusDays, type Day } from '../calendar/workdays';
import { counted } from '../words';
import { formatQuantity } from '../quantity/quantity';
import type { PriceBreak } from './terms';

/** A price with the days it holds, both with it: from a day, until further notice where `untilDay` is null. */
export type DatedPrice = PriceBreak & { readonly fromDay: Day; readonly untilDay: Day | null };

/** The first day a price can be for; it stands for “always”. */
export const ALWAYS = '2000-01-01' as Day;
const NEVER_ENDS = '9999-12-31';
const endOf = ({ untilDay }: Pick<DatedPrice, 'untilDay'>): string => untilDay ?? NEVER_ENDS;

/** Whether a price holds on a day. */
export const holdsOn = (price: Pick<DatedPrice, 'fromDay' | 'untilDay'>, day: Day): boolean =>
  price.fromDay <= day && day <= endOf(price);

const overlap = (a: DatedPrice, b: DatedPrice): boolean => a.fromDay <= endOf(b) && b.fromDay <= endOf(a);
const each = ({ price, priceQuantity }: PriceBreak): number => price / priceQuantity;

export type PriceFault = {
  readonly row: number;
  readonly field: 'untilDay' | 'fromQuantity';
  readonly message: string;
};

/** What is wrong with the prices of a part: one that ends before it begins, and two for one quantity on the same days. */
export function priceFaults(prices: readonly DatedPrice[]): PriceFault[] {
  return prices.flatMap((p, row): PriceFault[] => {
    if (endOf(p) < p.fromDay)
      return [{ row, field: 'untilDay', message: 'The last date is before the first. Correct one of them.' }];
    const twin = prices.findIndex((o, n) => n < row && o.from === p.from && overlap(o, p));
    const message = `Price ${twin + 1} has the same quantity and overlapping dates.`;
    return twin < 0 ? [] : [{ row, field: 'fromQuantity', message }];
  });
}

/** Prices that cost more each than a smaller quantity does on the same days; they stand, but deserve a look. */
export const dearerBreaks = (prices: readonly DatedPrice[]): DatedPrice[] =>
  prices.filter((p) => prices.some((o) => o.from < p.from && overlap(o, p) && each(o) < each(p)));

/** In words, what a break that is dearer than a smaller one is told by. */
export const dearerWords = (prices: readonly DatedPrice[]): string | undefined => {
  const dearer = dearerBreaks(prices);
  return dearer.length === 0
    ? undefined
    : `${counted(dearer.length, 'price')} ${dearer.length === 1 ? 'is' : 'are'} higher than for a smaller quantity: from ${dearer
        .map((d) => formatQuantity(d.from))
        .join(', from ')}.`;
};

/**
 * What a part's prices are once a list takes over that holds from a day: what held until then ends the day before, what
 * was to begin later is replaced, and what had ended stays.
 */
export function takeOver(known: readonly DatedPrice[], list: readonly PriceBreak[], from: Day): DatedPrice[] {
  const before = known.filter((p) => p.fromDay < from);
  const kept = before.map((p) => (endOf(p) < from ? p : { ...p, untilDay: plusDays(from, -1) }));
  return [...kept, ...list.map((p) => ({ ...p, fromDay: from, untilDay: null }))];
}
