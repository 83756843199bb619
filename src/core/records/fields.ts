import { z } from 'zod';
import { asDay } from '../calendar/workdays';
import { quantitySchema } from '../quantity/schema';
import { isUnit } from '../quantity/units';

export const text = (most: number, words: string) =>
  z.string().trim().min(1, words).max(most, `At most ${most} characters.`);

/** Words that may be left out. */
export const anyText = (most: number) => z.string().trim().max(most, `At most ${most} characters.`);

export const emailText = z.email('This is no e-mail address.');

/** A calendar day, or nothing. */
export const optionalDay = z
  .string()
  .trim()
  .nullable()
  .transform((t, ctx) => {
    if (t === null || t === '') return null;
    const day = asDay(t);
    if (day === undefined) ctx.addIssue({ code: 'custom', message: `“${t}” is no date between 2000 and 2100.` });
    return day ?? null;
  });

export const requiredDay = (words: string) =>
  z
    .string()
    .trim()
    .transform((t, ctx) => {
      const day = asDay(t);
      if (day !== undefined) return day;
      ctx.addIssue({ code: 'custom', message: t === '' ? words : `“${t}” is no date between 2000 and 2100.` });
      return z.NEVER;
    });

export const WHOLE_DAYS = 'Write a number of days.';

export const days = (most: number) =>
  z.number(WHOLE_DAYS).int('Whole days only.').min(0, 'Days cannot be below zero.').max(most, `At most ${most} days.`);

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
  description: text(200, 'Say what it is.'),
  quantity: quantitySchema.refine((q) => q >= 0, 'A quantity cannot be below zero.'),
  unit,
  costCodeId: z.number().int().positive('Choose a cost code.'),
  supplierId: z.number().int().nullable(),
  neededOn: optionalDay,
};
