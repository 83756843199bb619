import { z } from 'zod';
import { asDay } from '@/core/calendar/workdays';

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
