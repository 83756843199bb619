import { z } from 'zod';
import { isGtin } from '../find/gtin';
import { ITEM_KINDS, TRACKING } from '../items/kinds';
import { LIMITS } from '../limits';
import { unitPriceSchema } from '../money/schema';
import { quantitySchema } from '../quantity/schema';
import { anyText, distinct, text, unit } from './fields';
import { pickedOrNone, textFor, typedCount, typedPrice, typedQuantity } from './typed';

const SAME_START = 'Two prices begin at the same quantity.';
const WHOLE = 'A whole number from 1.';

const breakFields = z.object({
  fromQuantity: quantitySchema.refine((q) => q >= 0, 'A price cannot begin below zero.'),
  price: unitPriceSchema.refine((p) => p >= 0, 'A price cannot be below zero.'),
  priceQuantity: z.number().int().positive('A price is for at least one.').max(LIMITS.priceQuantity),
});

/** How one supplier sells an item. */
export const partFields = z.object({
  supplierId: z.number().int(),
  theirNumber: anyText(60),
  unit,
  factorMany: z.number().int().positive('A conversion is above zero.').max(LIMITS.factor),
  factorOne: z.number().int().positive('A conversion is above zero.').max(LIMITS.factor),
  minimum: quantitySchema.refine((q) => q >= 0, 'The least quantity cannot be below zero.'),
  pack: quantitySchema.refine((q) => q >= 0, 'A pack cannot be below zero.'),
  breaks: z.array(breakFields).max(12).refine(distinct('fromQuantity'), SAME_START),
});

/** An item as it is kept and, where given, how one supplier sells it. */
export const itemFields = z.object({
  number: text(40, 'Give the item a number.'),
  name: text(120, 'Give the item a name.'),
  unit,
  gtin: z
    .string()
    .trim()
    .nullable()
    .transform((t) => t || null)
    .refine((t) => t === null || isGtin(t), 'This is no GTIN: its check digit does not fit.')
    .default(null),
  kind: z.enum(ITEM_KINDS).default('part'),
  bought: z.boolean().default(true),
  stocked: z.boolean().default(false),
  tracking: z.enum(TRACKING).default('none'),
  certificate: z.boolean().default(false),
  /** Kilograms of one of its unit, in ten-thousandths. */
  weight: quantitySchema
    .refine((q) => q > 0, 'A weight is above zero.')
    .nullable()
    .default(null),
  costCodeId: z.number().int().nullable().default(null),
  supplierId: z.number().int().nullable().default(null),
  part: partFields.nullable().default(null),
});

/** How the usual supplier sells an item, as it is typed: all its prices are for one quantity. */
export function partForm(currency: string) {
  const { theirNumber, unit: sold, factorMany, factorOne, minimum, pack } = partFields.shape;
  const { fromQuantity, price, priceQuantity } = breakFields.shape;
  const typedBreak = z.object({
    fromQuantity: typedQuantity(fromQuantity, 'none'),
    price: typedPrice(price, currency),
  });
  return z.object({
    theirNumber,
    unit: sold,
    factorMany: typedCount(factorMany, WHOLE),
    factorOne: typedCount(factorOne, WHOLE),
    minimum: typedQuantity(minimum, 'none'),
    pack: typedQuantity(pack, 'none'),
    per: typedCount(priceQuantity, WHOLE),
    breaks: z.array(typedBreak).max(12).refine(distinct('fromQuantity'), SAME_START),
  });
}
type PartText = z.input<ReturnType<typeof partForm>>;

/** An item as it is typed; how it is sold is read where it has a supplier. */
export const itemForm = (currency: string, sold: boolean) =>
  z
    .object({
      number: itemFields.shape.number,
      name: itemFields.shape.name,
      unit,
      gtin: textFor(itemFields.shape.gtin),
      kind: z.enum(ITEM_KINDS),
      bought: z.boolean(),
      stocked: z.boolean(),
      tracking: z.enum(TRACKING),
      certificate: z.boolean(),
      weight: typedQuantity(itemFields.shape.weight.unwrap(), null),
      costCodeId: pickedOrNone,
      supplierId: pickedOrNone,
      version: z.number(),
      part: sold ? partForm(currency) : z.custom<PartText>().transform(() => null),
    })
    .transform(({ part, ...item }) => ({
      ...item,
      part: part === null || item.supplierId === null ? null : soldBy(item.supplierId, part),
    }));
export type ItemText = z.input<ReturnType<typeof itemForm>>;

const soldBy = (supplierId: number, { per, breaks, ...part }: z.output<ReturnType<typeof partForm>>) => ({
  ...part,
  supplierId,
  breaks: breaks.map((b) => ({ ...b, priceQuantity: per })),
});
