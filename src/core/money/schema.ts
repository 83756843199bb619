import { z } from 'zod';
import { LIMITS } from '../limits';
import type { Minor, UnitPrice } from './money';
import { parseRate, type Rate } from './rate';

const LARGE = 'This amount is too large.';

const within = (most: number) => z.number().int().min(-most, LARGE).max(most, LARGE);

/** An amount in minor units, within what a document may come to. */
export const minorSchema = z.codec(within(LIMITS.document), z.custom<Minor>(), {
  decode: (n) => n as Minor,
  encode: Number,
});

/** A price in ten-thousandths of the currency's major unit. */
export const unitPriceSchema = z.codec(within(LIMITS.price), z.custom<UnitPrice>(), {
  decode: (n) => n as UnitPrice,
  encode: Number,
});

/** What one unit of another currency costs, as it is written. */
export const rateSchema = z.string().transform((text, ctx): Rate => {
  const read = parseRate(text);
  if (read.ok) return read.value;
  ctx.addIssue({ code: 'custom', message: read.refusals[0]?.message ?? '' });
  return z.NEVER;
});
