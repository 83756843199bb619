import { z } from 'zod';
import { minorSchema } from '../money/schema';
import { quantitySchema } from '../quantity/schema';
import { LONGEST_NUMBER, MOST_NUMBERS } from '../stores/numbers';
import { anyText, optionalDay, text } from './fields';
import { picked, typedMoney, typedQuantity } from './typed';

/** Lots or serial numbers of what moves, with how many pieces each is of, in the item's unit; none where it has none. */
export const numbersField = z
  .array(
    z.object({
      number: text(LONGEST_NUMBER, 'A number is empty.'),
      expiresOn: optionalDay.default(null),
      quantity: quantitySchema,
    }),
  )
  .max(MOST_NUMBERS, `At most ${MOST_NUMBERS} numbers are taken at once.`)
  .default([]);

/** Where in a place something lies: a bin, or none of them. */
export const binField = z.number().int().nullable();

/** What a person counted: how much lies there, what all of it is worth, and why it is put right. */
export const countFields = z.object({
  quantity: quantitySchema.refine((q) => q >= 0, 'A count cannot be below zero.'),
  /** null to keep the average. */
  value: minorSchema.refine((v) => v >= 0, 'A value cannot be below zero.').nullable(),
  reason: text(120, 'Say why: an opening count, a correction, what was found.'),
});

export const countForm = (currency: string) =>
  z.object({
    quantity: typedQuantity(countFields.shape.quantity, 'none'),
    value: typedMoney(countFields.shape.value, currency, null),
    reason: countFields.shape.reason,
  });

/** How much moves between stores and a job. */
export const movedQuantity = quantitySchema.refine((q) => q > 0, 'A quantity must be above zero.');

export const issueForm = z.object({
  quantity: typedQuantity(movedQuantity),
  jobId: picked('Choose the job.'),
  costCodeId: picked('Choose a cost code.'),
});

export const issueForNeedForm = z.object({ quantity: typedQuantity(movedQuantity) });

export const returnForm = z.object({ quantity: typedQuantity(movedQuantity), reason: anyText(120) });

export const keptQuantity = quantitySchema.refine((q) => q >= 0, 'A level cannot be below zero.');
export const levelForm = z.object({ keep: typedQuantity(keptQuantity, 'none') });
