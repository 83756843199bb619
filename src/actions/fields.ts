import { z } from 'zod';
import { asDay } from '@/core/calendar/workdays';
import { quantitySchema } from '@/core/quantity/quantity';
import { isUnit } from '@/core/quantity/units';

export const text = (most: number, words: string) =>
  z.string().trim().min(1, words).max(most, `At most ${most} characters.`);

/** A calendar day, or nothing. */
export const optionalDay = z
  .string()
  .trim()
  .transform((t, ctx) => {
    if (t === '') return null;
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

export const days = (most: number) =>
  z.coerce
    .number('Write a number of days.')
    .int('Whole days only.')
    .min(0, 'Days cannot be below zero.')
    .max(most, `At most ${most} days.`);

/** What a line of a quote and of a buy list have in common. */
export const lineFields = {
  description: text(200, 'Say what it is.'),
  quantity: quantitySchema.refine((q) => q >= 0, 'A quantity cannot be below zero.'),
  unit: z.string().refine(isUnit, 'Choose a unit.'),
  costCodeId: z.number().int().positive('Choose a cost code.'),
  supplierId: z.number().int().nullable(),
  neededOn: optionalDay,
};
