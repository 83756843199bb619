import { z } from 'zod';
import { NONE } from '../quantity/quantity';
import { quantitySchema } from '../quantity/schema';
import { anyText, optionalDay } from './fields';
import { binField, numbersField } from './stock';
import { rowsOf, typedQuantity } from './typed';

const fromNone = quantitySchema.refine((q) => q >= 0, 'A quantity cannot be below zero.');

/** What became of what is still due of a line when a part of it came. */
export const restFields = z.object({
  reasonId: z.number().int(),
  /** When it is to come now. */
  promisedOn: optionalDay.default(null),
  /** Where it went, when it was sent elsewhere. */
  placeId: z.number().int().nullable().default(null),
});

/** What came of a line, in its unit. */
export const arrivalFields = z.object({
  lineId: z.number().int(),
  /** All that came, also what is rejected. */
  arrives: fromNone,
  /** Whether what is more than was ordered stays here. */
  keepOver: z.boolean(),
  /** What of it is rejected, and why. */
  rejected: fromNone.default(NONE),
  reasonId: z.number().int().nullable().default(null),
  binId: binField.default(null),
  /** Lots or serial numbers of what is good, and of what is rejected. */
  numbers: numbersField,
  rejectedNumbers: numbersField,
  rest: restFields.nullable().default(null),
});
export const noteField = anyText(80);

/** What is said of a delivery as a whole. */
export const deliveryFields = {
  note: noteField,
  /** When it came; today where that is not said. */
  day: optionalDay.default(null),
  carrier: anyText(80).default(''),
  packages: z
    .number()
    .int()
    .min(1, 'At least one package.')
    .max(10_000, 'At most 10,000 packages.')
    .nullable()
    .default(null),
  /** Where it came to, when that is another place than its order says. */
  placeId: z.number().int().nullable().default(null),
};

const arrivalForm = z.object({
  lineId: arrivalFields.shape.lineId,
  arrives: typedQuantity(arrivalFields.shape.arrives),
  keepOver: arrivalFields.shape.keepOver,
});
export type ArrivalText = z.input<typeof arrivalForm>;

export const isNotHere = ({ arrives }: ArrivalText): boolean => ['', '0'].includes(arrives.trim());

/** A delivery as it is typed; lines of which nothing came are left out. */
export const deliveryForm = z.object({ note: noteField, arrivals: rowsOf(arrivalForm, isNotHere) });
export type DeliveryText = z.input<typeof deliveryForm>;
