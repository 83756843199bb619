import { z } from 'zod';
import { unitPriceSchema } from '../money/schema';
import { SURPLUS } from '../needs/surplus';
import { lineFields } from './fields';
import { picked, pickedOrNone, textFor, typedPrice, typedQuantity, type Named } from './typed';

/** A line of a buy list as it is kept. */
export const needFields = z.object({
  ...lineFields,
  price: unitPriceSchema.refine((p) => p >= 0, 'Enter 0 or more.').nullable(),
});

const { shape } = needFields;

/** The same as it is typed; nothing more of it may be wanted. */
export const needForm = (currency: string) =>
  z.object({
    ...shape,
    quantity: typedQuantity(shape.quantity, 'none'),
    price: typedPrice(shape.price, currency, null),
    costCodeId: picked('Choose a cost code.'),
    supplierId: pickedOrNone,
    neededOn: textFor(shape.neededOn),
    item: z.custom<Named | null>(),
    surplus: z.enum(['', ...SURPLUS]),
  });
export type NeedText = z.input<ReturnType<typeof needForm>>;
