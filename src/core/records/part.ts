import { z } from 'zod';
import { LIMITS } from '../limits';
import { unitPriceSchema } from '../money/schema';
import { quantitySchema } from '../quantity/schema';
import { ALWAYS, priceFaults, type DatedPrice } from '../sourcing/prices';
import { anyText, days, optionalDay, unit, WHOLE_DAYS } from './fields';
import { textFor, typedCount, typedPrice, typedQuantity } from './typed';

const WHOLE = 'Enter a whole number from 1.';

const breakFields = z.object({
  fromQuantity: quantitySchema.refine((q) => q >= 0, 'Enter 0 or more.'),
  /** The first and the last day it holds; null for always, and until further notice. */
  fromDay: optionalDay.default(null),
  untilDay: optionalDay.default(null),
  price: unitPriceSchema.refine((p) => p >= 0, 'Enter 0 or more.'),
  priceQuantity: z.number().int().positive('Enter 1 or more.').max(LIMITS.priceQuantity),
});
type Break = z.output<typeof breakFields>;

export const asDated = ({
  fromQuantity,
  fromDay,
  ...price
}: Omit<Break, 'priceQuantity'> & { priceQuantity?: number }): DatedPrice => ({
  priceQuantity: 1,
  ...price,
  from: fromQuantity,
  fromDay: fromDay ?? ALWAYS,
});

/** The most prices that a supplier may have for a part: those that were, that are and that will be. */
export const MOST_PRICES = 200;

function soundPrices(breaks: readonly Parameters<typeof asDated>[0][], ctx: z.RefinementCtx): void {
  for (const { row, field, message } of priceFaults(breaks.map(asDated)))
    ctx.addIssue({ code: 'custom', message, path: [row, field] });
}

/** How one supplier sells an item. */
export const partFields = z.object({
  supplierId: z.number().int().positive('Choose a supplier.'),
  theirNumber: anyText(60),
  unit,
  factorMany: z.number().int().positive('Enter a number above zero.').max(LIMITS.factor),
  factorOne: z.number().int().positive('Enter a number above zero.').max(LIMITS.factor),
  minimum: quantitySchema.refine((q) => q >= 0, 'Enter 0 or more.'),
  pack: quantitySchema.refine((q) => q >= 0, 'Enter 0 or more.'),
  /** Working days of the supplier; its usual lead time where this is null. */
  leadDays: days(400).nullable().default(null),
  /** Whether the item is usually bought there. */
  usual: z.boolean().default(false),
  breaks: z.array(breakFields).max(MOST_PRICES, `No more than ${MOST_PRICES} prices.`).superRefine(soundPrices),
});

/** The same as it is typed: all its prices are for one quantity. */
export function partForm(currency: string) {
  const { shape } = partFields;
  const typedBreak = z.object({
    fromQuantity: typedQuantity(breakFields.shape.fromQuantity, 'none'),
    price: typedPrice(breakFields.shape.price, currency),
    fromDay: textFor(optionalDay),
    untilDay: textFor(optionalDay),
  });
  return z
    .object({
      theirNumber: shape.theirNumber,
      unit,
      factorMany: typedCount(shape.factorMany, WHOLE),
      factorOne: typedCount(shape.factorOne, WHOLE),
      minimum: typedQuantity(shape.minimum, 'none'),
      pack: typedQuantity(shape.pack, 'none'),
      leadDays: typedCount(shape.leadDays.unwrap(), WHOLE_DAYS, null),
      usual: z.boolean(),
      per: typedCount(breakFields.shape.priceQuantity, WHOLE),
      breaks: z.array(typedBreak).max(MOST_PRICES).superRefine(soundPrices),
      version: z.number(),
    })
    .transform(({ per, breaks, ...part }) => ({
      ...part,
      breaks: breaks.map((b) => ({ ...b, priceQuantity: per })),
    }));
}
export type PartText = z.input<ReturnType<typeof partForm>>;
