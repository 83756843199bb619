import { z } from 'zod';
import { isCurrency } from '../money/currencies';
import { type Minor } from '../money/money';
import { minorSchema } from '../money/schema';
import { anyText, days, emailText, requiredDay, text, WHOLE_DAYS } from './fields';
import { overDelivery } from './company';
import { chosen, rowsOf, typedCount, typedMoney, typedShareOrNone } from './typed';

const notBelowZero = minorSchema.refine((m) => m >= 0, 'Enter 0 or more.');

const contactFields = z
  .object({
    name: text(120, 'Enter a name.'),
    whatFor: anyText(60),
    email: z.union([z.literal(''), emailText]),
    phone: anyText(40),
    /** Gets our orders beside the supplier's own address. */
    getsOrders: z.boolean().default(false),
  })
  .refine((c) => !c.getsOrders || c.email !== '', {
    message: 'A contact who receives orders needs an email address.',
    path: ['email'],
  });

const addressFields = z.object({
  whatFor: text(60, 'Enter what it is for: collections, returns, accounts.'),
  address: text(500, 'Enter the address.'),
});

const closedFields = z
  .object({
    fromDay: requiredDay('Enter the first date.'),
    untilDay: requiredDay('Enter the last date.'),
    words: anyText(80),
  })
  .refine((c) => c.untilDay >= c.fromDay, {
    message: 'The last date is before the first. Correct one of them.',
    path: ['untilDay'],
  })
  .refine((c) => Date.parse(c.untilDay) - Date.parse(c.fromDay) <= 366 * 86_400_000, {
    message: 'A closure can last up to one year.',
    path: ['untilDay'],
  });

const closedApart = (all: readonly z.output<typeof closedFields>[], ctx: z.RefinementCtx): void =>
  all.forEach((c, k) => {
    if (all.some((o, n) => n < k && o.fromDay <= c.untilDay && c.fromDay <= o.untilDay))
      ctx.addIssue({ code: 'custom', message: 'These dates overlap another closure.', path: [k, 'fromDay'] });
  });

/** Data files that can go with an order: UBL 2.1 Order, and a list. */
export const DATA_FILES = ['ubl', 'csv'] as const;

const MOST_ROWS = 50;

/** A supplier as it is kept. */
export const supplierFields = z.object({
  name: text(120, 'Enter the supplier’s name.'),
  contact: anyText(120).default(''),
  email: z.union([z.literal(''), emailText]),
  address: anyText(500).default(''),
  currency: z.string().toUpperCase().refine(isCurrency, 'Use a currency code such as GBP or EUR.'),
  paymentDays: days(365).default(30),
  terms: anyText(500).default(''),
  leadDays: days(400).default(5),
  /** As the company's where it is not said, in hundredths of a percent. */
  overDelivery: overDelivery.nullable().default(null),
  /** ISO weekdays on which it works; the company's where this is null. */
  week: z
    .array(z.number().int().min(1).max(7))
    .min(1, 'Choose at least one working day.')
    .transform((w) => [...new Set(w)].sort())
    .nullable()
    .default(null),
  carriage: minorSchema.refine((c) => c >= 0, 'Enter 0 or more.').default(0 as Minor),
  carriageFreeFrom: notBelowZero.nullable().default(null),
  /** The smallest order it takes, goods without carriage and tax. */
  minimumOrder: notBelowZero.nullable().default(null),
  /** The company's first when it is not said. */
  taxCodeId: z.number().int().optional(),
  carrier: anyText(120).default(''),
  delivers: anyText(500).default(''),
  /** Data files that go with an order. */
  dataFiles: z.array(z.enum(DATA_FILES)).default([]),
  contacts: z.array(contactFields).max(MOST_ROWS).default([]),
  addresses: z.array(addressFields).max(MOST_ROWS).default([]),
  closed: z.array(closedFields).max(MOST_ROWS).superRefine(closedApart).default([]),
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
    overDelivery: typedShareOrNone(shape.overDelivery.unwrap()),
    carriage: typedMoney(shape.carriage, currency, 0),
    carriageFreeFrom: typedMoney(shape.carriageFreeFrom, currency, null),
    minimumOrder: typedMoney(shape.minimumOrder, currency, null),
    taxCodeId: chosen,
    contacts: rowsOf(contactFields, isNoContact),
    addresses: rowsOf(addressFields, isNoAddress),
    closed: rowsOf(closedFields, isNotClosed).superRefine(closedApart),
    version: z.number(),
  });
}
export type SupplierText = z.input<ReturnType<typeof supplierForm>>;

export type ContactText = z.input<typeof contactFields>;
export type AddressText = z.input<typeof addressFields>;
export type ClosedText = z.input<typeof closedFields>;

const isEmpty = (...texts: readonly string[]): boolean => texts.every((t) => t.trim() === '');
const isNoContact = (c: ContactText): boolean => isEmpty(c.name, c.whatFor, c.email, c.phone);
const isNoAddress = (a: AddressText): boolean => isEmpty(a.whatFor, a.address);
const isNotClosed = (c: ClosedText): boolean => isEmpty(c.fromDay, c.untilDay, c.words);
