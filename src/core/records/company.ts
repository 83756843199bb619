import { z } from 'zod';
import { LANGUAGES, PAPERS } from '../locale/locale';
import { isCurrency } from '../money/currencies';
import { minorSchema } from '../money/schema';
import { rateSchema } from '../money/schema';
import { anyText, days, emailText, requiredDay, text } from './fields';
import { passwordField } from './person';
import { codeLines } from './settings';
import { typedCount, typedMoney, typedShare } from './typed';

const COUNTED = /\{0+\}/;
const notBelowZero = minorSchema.refine((m) => m >= 0, 'Enter 0 or more.');
const currency = z.string().toUpperCase().refine(isCurrency, 'Use a currency code such as EUR or USD.');

/** ISO 3166, with a part of the country where its holidays differ. */
const country = z.string().regex(/^[A-Z]{2}(-[A-Z0-9]{1,3})?$/, 'Choose a country.');

/** How documents are numbered: see `numberBy`. */
const pattern = (words: string) =>
  text(40, words)
    .refine((p) => COUNTED.test(p), 'The pattern has no place for the count. Type it like {yy}-{0000}.')
    .refine((p) => !/[/\\?#%]/.test(p), 'The pattern can’t hold / \\ ? # or %.');

/** Who a company is: what stands on its papers. */
const identity = {
  name: text(120, 'Enter the company’s name.'),
  address: text(500, 'Enter the address: it is printed on every order.'),
  email: emailText,
  taxNumber: anyText(40),
};

/** How much more than was ordered is taken in without a question, in hundredths of a percent. */
export const overDelivery = z.number().int().min(0, 'Enter 0 or more.').max(10_000, 'No more than 100 %.');

/** How a company works and writes. */
export const companyFields = z.object({
  ...identity,
  country,
  language: z.enum(LANGUAGES),
  decimalMark: z.enum(['.', ',']),
  firstDay: z.literal([1, 7]),
  paper: z.enum(PAPERS),
  /** ISO weekdays on which one works. */
  week: z
    .array(z.number().int().min(1).max(7))
    .min(1, 'Choose at least one working day.')
    .transform((w) => [...new Set(w)].sort()),
  receivingDays: days(60),
  /** Hundredths of a percent. */
  priceToleranceShare: z.number().int().min(0, 'Enter 0 or more.').max(10_000, 'No more than 100 %.'),
  priceToleranceMost: notBelowZero,
  ownPassLimit: notBelowZero,
  /** Hundredths of a percent; as it is where nothing is said. */
  overDelivery: overDelivery.optional(),
  countLimit: notBelowZero.optional(),
  /** How orders are numbered; as it is where nothing is said. */
  orderPattern: pattern('Enter the order number pattern.').optional(),
  jobPattern: pattern('Enter the job number pattern.')
    .refine((p) => !p.includes('{job}'), 'The job number pattern can’t hold {job}.')
    .optional(),
  orderGaps: z.enum(['leave', 'fill']).optional(),
  orderTerms: anyText(2000).optional(),
});

/** The same as it is typed. */
export function companyForm(own: string) {
  const { shape } = companyFields;
  return z.object({
    ...shape,
    firstDay: z.codec(z.string(), shape.firstDay, { decode: (t) => (t === '7' ? 7 : 1), encode: String }),
    orderPattern: shape.orderPattern.unwrap(),
    jobPattern: shape.jobPattern.unwrap(),
    orderGaps: shape.orderGaps.unwrap(),
    orderTerms: shape.orderTerms.unwrap(),
    receivingDays: typedCount(shape.receivingDays, 'Enter a number of days.'),
    priceToleranceShare: typedShare(shape.priceToleranceShare),
    priceToleranceMost: typedMoney(shape.priceToleranceMost, own),
    ownPassLimit: typedMoney(shape.ownPassLimit, own),
    overDelivery: typedShare(shape.overDelivery.unwrap()),
    countLimit: typedMoney(shape.countLimit.unwrap(), own),
  });
}
export type CompanyText = z.input<ReturnType<typeof companyForm>>;

/** What a company begins with, and who begins it. */
export const foundingFields = z.object({
  company: identity.name,
  address: identity.address,
  companyEmail: identity.email,
  currency,
  country,
  costCodes: codeLines,
  owner: text(120, 'Enter your name.'),
  email: emailText,
  password: passwordField,
});

export const dayOffFields = z.object({
  day: requiredDay('Enter the date.'),
  name: text(80, 'Enter the reason.'),
});

/** Of which year public holidays are taken in. */
export const holidayYear = z.number().int().min(2000, 'Enter a year from 2000.').max(2100, 'Enter a year up to 2100.');
export const holidaysForm = z.object({ year: typedCount(holidayYear, 'Enter a year.') });

/** What one unit of another currency costs, from a day on. */
export const rateFields = z.object({
  currency,
  day: requiredDay('Enter the date the rate is valid from.'),
  rate: rateSchema,
});
