import { z } from 'zod';
import { isCurrency } from '../money/currencies';
import { type Minor } from '../money/money';
import { minorSchema } from '../money/schema';
import { anyText, days, emailText, text } from './fields';
import { chosen, typedCount, typedMoney } from './typed';

const WHOLE_DAYS = 'Write a number of days.';

/** A supplier as it is kept. */
export const supplierFields = z.object({
  name: text(120, 'Give the supplier’s name.'),
  contact: anyText(120).default(''),
  email: z.union([z.literal(''), emailText]),
  address: anyText(500).default(''),
  currency: z.string().toUpperCase().refine(isCurrency, 'Use a currency code such as GBP or EUR.'),
  paymentDays: days(365).default(30),
  leadDays: days(400).default(5),
  carriage: minorSchema.refine((c) => c >= 0, 'Carriage cannot be below zero.').default(0 as Minor),
  carriageFreeFrom: minorSchema
    .refine((c) => c >= 0, 'This cannot be below zero.')
    .nullable()
    .default(null),
  /** The company's first when it is not said. */
  taxCodeId: z.number().int().optional(),
  carrier: anyText(120).default(''),
});

/** A supplier as it is typed; amounts are in the currency typed beside them, in the company's own while that is none. */
export function supplierForm(typedCurrency: string, own: string) {
  const code = typedCurrency.toUpperCase();
  const currency = isCurrency(code) ? code : own;
  const { shape } = supplierFields;
  return z.object({
    ...shape,
    paymentDays: typedCount(shape.paymentDays, WHOLE_DAYS),
    leadDays: typedCount(shape.leadDays, WHOLE_DAYS),
    carriage: typedMoney(shape.carriage, currency, 0),
    carriageFreeFrom: typedMoney(shape.carriageFreeFrom, currency, null),
    taxCodeId: chosen,
    version: z.number(),
  });
}
export type SupplierText = z.input<ReturnType<typeof supplierForm>>;
