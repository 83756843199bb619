import { z } from 'zod';
import { asDay } from '../calendar/workdays';
import { quantitySchema } from '../quantity/schema';
import { isUnit } from '../quantity/units';

export const text = (most: number, words: string) =>
  z.string().trim().min(1, words).max(most, `No more than ${most} characters.`);

/** Words that may be left out. */
export const anyText = (most: number) => z.string().trim().max(most, `No more than ${most} characters.`);

export const emailText = z.email('That isn’t an email address. Type it like name@example.com.');

/** A calendar day, or nothing. */
export const optionalDay = z
  .string()
  .trim()
  .nullable()
  .transform((t, ctx) => {
    if (t === null || t === '') return null;
    const day = asDay(t);
    if (day === undefined) ctx.addIssue({ code: 'custom', message: `“${t}” isn’t a date between 2000 and 2100.` });
    return day ?? null;
  });

export const requiredDay = (words: string) =>
  z
    .string()
    .trim()
    .transform((t, ctx) => {
      const day = asDay(t);
      if (day !== undefined) return day;
      ctx.addIssue({ code: 'custom', message: t === '' ? words : `“${t}” isn’t a date between 2000 and 2100.` });
      return z.NEVER;
    });

export const WHOLE_DAYS = 'Enter a number of days.';

export const days = (most: number) =>
  z.number(WHOLE_DAYS).int('Enter whole days.').min(0, 'Enter 0 or more.').max(most, `No more than ${most} days.`);

export const unit = z.string().refine(isUnit, 'Choose a unit.');

/** Whether no two rows speak of the same thing; rows that speak of none are left out. */
export const distinct =
  <K extends string>(key: K) =>
  (rows: readonly { readonly [k in K]?: number | undefined }[]): boolean => {
    const ids = rows.flatMap((r) => r[key] ?? []);
    return new Set(ids).size === ids.length;
  };

/** What a line of a quote and of a buy list have in common. */
export const lineFields = {
  description: text(200, 'Enter a description.'),
  quantity: quantitySchema.refine((q) => q >= 0, 'Enter 0 or more.'),
  unit,
  costCodeId: z.number().int().positive('Choose a cost code.'),
  supplierId: z.number().int().nullable(),
  neededOn: optionalDay,
};
