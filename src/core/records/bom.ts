import { z } from 'zod';
import { GOT_BY, OFFSET_FROM, PER } from '../boms/bom';
import { unitPriceSchema } from '../money/schema';
import { quantitySchema } from '../quantity/schema';
import { anyText, days, distinct, requiredDay, text, unit } from './fields';

/** The most lines that one BOM may have; longer ones are parted into what is made within them. */
export const MOST_BOM_LINES = 5000;
/** Scrap of a thousand percent: in hundredths of a percent. */
const MOST_SCRAP = 100_000;

/** A line of a bill of materials as it is kept. */
export const bomLineFields = z.object({
  gotBy: z.enum(GOT_BY),
  itemId: z.number().int().nullable(),
  description: text(200, 'Enter an item or description.'),
  quantity: quantitySchema.refine((q) => q > 0, 'Enter a quantity above zero.'),
  unit,
  per: z.enum(PER),
  scrap: z.number().int().min(0, 'Enter 0 or more.').max(MOST_SCRAP, 'No more than 1,000 %.'),
  offsetDays: days(1000),
  offsetFrom: z.enum(OFFSET_FROM),
  costCodeId: z.number().int().nullable(),
  price: unitPriceSchema.refine((p) => p >= 0, 'Enter 0 or more.').nullable(),
});

/** A version of a BOM: from when it holds, how long making takes, and what it takes. */
export const bomFields = z.object({
  fromDay: requiredDay('Enter the date it is valid from.'),
  note: anyText(200),
  makingDays: days(1000),
  lines: z
    .array(bomLineFields.extend({ id: z.number().int().optional() }))
    .min(1, 'Enter at least one line.')
    .max(MOST_BOM_LINES, `No more than ${MOST_BOM_LINES} lines in a BOM. Move some into a BOM of their own.`)
    .refine(distinct('id'), 'A line appears twice.'),
});
