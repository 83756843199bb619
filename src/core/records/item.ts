import { z } from 'zod';
import { isGtin } from '../find/gtin';
import { ITEM_KINDS, TRACKING } from '../items/kinds';
import { quantitySchema } from '../quantity/schema';
import { anyText, text, unit } from './fields';
import { pickedOrNone, textFor, typedQuantity } from './typed';

/** An item as it is kept. */
export const itemFields = z.object({
  number: text(40, 'Enter an item number.'),
  name: text(120, 'Enter a name.'),
  unit,
  gtin: z
    .string()
    .trim()
    .nullable()
    .transform((t) => t || null)
    .refine((t) => t === null || isGtin(t), 'That isn’t a GTIN: its check digit is wrong.')
    .default(null),
  kind: z.enum(ITEM_KINDS).default('part'),
  bought: z.boolean().default(true),
  stocked: z.boolean().default(false),
  tracking: z.enum(TRACKING).default('none'),
  certificate: z.boolean().default(false),
  /** Whether what comes of it waits for an inspection. */
  inspected: z.boolean().default(false),
  numberPattern: anyText(60).default(''),
  /** Kilograms of one of its unit, in ten-thousandths. */
  weight: quantitySchema
    .refine((q) => q > 0, 'Enter a weight above zero.')
    .nullable()
    .default(null),
  costCodeId: z.number().int().nullable().default(null),
  supplierId: z.number().int().nullable().default(null),
});

/** An item as it is typed. */
export const itemForm = z.object({
  ...itemFields.shape,
  gtin: textFor(itemFields.shape.gtin),
  kind: z.enum(ITEM_KINDS),
  bought: z.boolean(),
  stocked: z.boolean(),
  tracking: z.enum(TRACKING),
  certificate: z.boolean(),
  inspected: z.boolean(),
  numberPattern: anyText(60),
  weight: typedQuantity(itemFields.shape.weight.unwrap(), null),
  costCodeId: pickedOrNone,
  supplierId: pickedOrNone,
  version: z.number(),
});
export type ItemText = z.input<typeof itemForm>;
