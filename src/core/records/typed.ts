import { z } from 'zod';
import { ungrouped } from '../locale/locale';
import { formatDecimal, parseDecimal } from '../money/decimal';
import { formatAmount, formatPrice, parseMoney, parsePrice, type Minor, type UnitPrice } from '../money/money';
import { formatQuantity, NONE, parseQuantity, type Quantity } from '../quantity/quantity';
import { done, refusal, refused, type Result } from '../result';

/** A field of an action that takes a number, and perhaps nothing. */
type NumberField<O, I extends number | null | undefined> = z.ZodType<O, I>;

type Ways = {
  readonly read: (text: string) => Result<number>;
  readonly write: (value: number) => string;
  /** What an empty field stands for; without it, `read` says that something is missing. */
  readonly empty?: 0 | null | undefined;
};

/**
 * A number as it is typed, and the one it stands for: read and written by one definition, as the company writes
 * numbers. `to` is the field of the action, so that what it refuses is refused beside the field too.
 */
function typedNumber<O, I extends number | null | undefined>(to: NumberField<O, I>, { read, write, empty }: Ways) {
  return z.codec(z.string(), to, {
    decode: (text, ctx) => {
      if (empty !== undefined && text.trim() === '') return empty as I;
      const result = read(text);
      if (result.ok) return result.value as I;
      ctx.issues.push({ code: 'custom', input: text, message: result.refusals[0]?.message ?? '' });
      return z.NEVER;
    },
    encode: (value) => (value === empty || value === null || value === undefined ? '' : write(value)),
  });
}

/** Money in minor units of a currency; an empty field may stand for none (0) or for nothing said (null). */
export const typedMoney = <O, I extends number | null | undefined>(
  to: NumberField<O, I>,
  currency: string,
  empty?: 0 | null,
) =>
  typedNumber(to, {
    read: (t) => parseMoney(t, currency),
    write: (m) => ungrouped(formatAmount(m as Minor, currency)),
    empty,
  });

/** A price in ten-thousandths of the currency's major unit. */
export const typedPrice = <O, I extends number | null | undefined>(
  to: NumberField<O, I>,
  currency: string,
  empty?: null,
) =>
  typedNumber(to, {
    read: parsePrice,
    write: (p) => ungrouped(formatPrice(p as UnitPrice, currency)),
    empty,
  });

/**
 * A quantity in ten-thousandths of its unit, above zero; `none` lets an empty field or 0 stand for none, null an empty
 * field for nothing said.
 */
export const typedQuantity = <O, I extends number | null | undefined>(to: NumberField<O, I>, none?: 'none' | null) =>
  typedNumber(to, {
    read: (t) => (none === 'none' && t.trim() === '0' ? done(NONE) : parseQuantity(t)),
    write: (q) => ungrouped(formatQuantity(q as Quantity)),
    empty: none === 'none' ? 0 : none,
  });

/** A share in hundredths of a percent, typed in percent up to `most`. */
export const typedShare = <O, I extends number | null | undefined>(to: NumberField<O, I>, most = 100) =>
  typedNumber(to, {
    read: (t) => parseDecimal(t, { places: 2, most }),
    write: (share) => ungrouped(formatDecimal(share, 2, 0)),
  });

/** The same, where an empty field says nothing. */
export const typedShareOrNone = <O, I extends number | null>(to: NumberField<O, I>) =>
  typedNumber(to, {
    read: (t) => parseDecimal(t, { places: 2, most: 100 }),
    write: (share) => ungrouped(formatDecimal(share, 2, 0)),
    empty: null,
  });

/** A count; `words` say what is wanted where something else was typed. `empty` null lets a field say nothing. */
export const typedCount = <O, I extends number | null | undefined>(
  to: NumberField<O, I>,
  words: string,
  empty?: null,
) =>
  typedNumber(to, {
    empty,
    read: (t) => (/^\d{1,15}$/.test(t.trim()) ? done(Number(t)) : refused(refusal('number.whole', words))),
    write: String,
  });

/** A thing of the company as its field holds it. */
const named = z.object({ id: z.number(), number: z.string(), name: z.string() });
export type Named = Readonly<z.output<typeof named>>;

/** What is picked, read as its id; nothing is null. */
export const pickedOrNone = named.nullable().transform((thing) => thing?.id ?? null);

/** What has to be picked, read as its id. */
export const picked = (words: string) =>
  named.nullable().transform((thing, ctx) => {
    if (thing !== null) return thing.id;
    ctx.addIssue({ code: 'custom', message: words });
    return z.NEVER;
  });

/** A field of an action that may be left out, where a form always has its text. */
export const textFor = <O>(to: z.ZodType<O, string | null | undefined>) => z.string().pipe(to as z.ZodType<O, string>);

/** The id of a choice from a short list. */
export const chosen = z.codec(z.string(), z.number().int(), { decode: Number, encode: String });

/** Rows of a form, read one by one; those that are left empty say nothing. */
export const rowsOf = <R, S extends z.ZodType>(row: S, isEmpty: (typed: R) => boolean) =>
  z.custom<readonly R[]>(Array.isArray).transform((rows, ctx) =>
    rows.flatMap((typed, k): z.output<S>[] => {
      if (isEmpty(typed)) return [];
      const read = row.safeParse(typed);
      if (read.success) return [read.data];
      for (const issue of read.error.issues)
        ctx.addIssue({ code: 'custom', message: issue.message, path: [k, ...issue.path] });
      return [];
    }),
  );
