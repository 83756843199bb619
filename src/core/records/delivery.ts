import { z } from 'zod';
import { quantitySchema } from '../quantity/schema';
import { anyText } from './fields';
import { rowsOf, typedQuantity } from './typed';

/** What came of a line, in its unit. */
export const arrivalFields = z.object({
  lineId: z.number().int(),
  arrives: quantitySchema,
  /** Whether what is more than was ordered stays here. */
  keepOver: z.boolean(),
});
export const noteField = anyText(80);

const arrivalForm = z.object({ ...arrivalFields.shape, arrives: typedQuantity(arrivalFields.shape.arrives) });
export type ArrivalText = z.input<typeof arrivalForm>;

export const isNotHere = ({ arrives }: ArrivalText): boolean => ['', '0'].includes(arrives.trim());

/** A delivery as it is typed; lines of which nothing came are left out. */
export const deliveryForm = z.object({ note: noteField, arrivals: rowsOf(arrivalForm, isNotHere) });
export type DeliveryText = z.input<typeof deliveryForm>;
