import { z } from 'zod';
import { TRACKING } from '../items/kinds';
import { fromSupplierUnit, NONE, ONE, quantity, toSupplierUnit } from '../quantity/quantity';
import { quantitySchema } from '../quantity/schema';
import { anyText, optionalDay, text } from './fields';
import { binField, numbersField } from './stock';
import { readNumbered } from '../stores/numbers';
import { pickedOrNone, rowsOf, textFor, typedCount, typedQuantity } from './typed';

const fromNone = quantitySchema.refine((q) => q >= 0, 'Enter 0 or more.');

/** What became of what is still due of a line when a part of it came. */
export const restFields = z.object({
  reasonId: z.number().int(),
  /** When it is to come now. */
  promisedOn: optionalDay.default(null),
  /** Where it went, when it was sent elsewhere. */
  placeId: z.number().int().nullable().default(null),
});

/** What came of a line, in its unit. */
export const arrivalFields = z.object({
  lineId: z.number().int(),
  /** All that came, also what is rejected. */
  arrives: fromNone,
  /** Whether what is more than was ordered stays here. */
  keepOver: z.boolean(),
  /** Looked at and found good by who takes it in, where it would wait for its inspection. */
  passed: z.boolean().default(false),
  /** What of it is rejected, and why. */
  rejected: fromNone.default(NONE),
  reasonId: z.number().int().nullable().default(null),
  binId: binField.default(null),
  /** Lots or serial numbers of what is good, and of what is rejected. */
  numbers: numbersField,
  rejectedNumbers: numbersField,
  rest: restFields.nullable().default(null),
});
export const noteField = anyText(80);

/** What is said of a delivery as a whole. */
export const deliveryFields = {
  note: noteField,
  /** When it came; today where that is not said. */
  day: optionalDay.default(null),
  carrier: anyText(80).default(''),
  packages: z
    .number()
    .int()
    .min(1, 'Enter 1 or more.')
    .max(10_000, 'No more than 10,000 packages.')
    .nullable()
    .default(null),
  /** Where it came to, when that is another place than its order says. */
  placeId: z.number().int().nullable().default(null),
};

/** Serial numbers as they are typed, or one lot with its date; read against what moves when the form is sent. */
const numbersText = z.string();

const arrivalForm = z
  .object({
    lineId: arrivalFields.shape.lineId,
    arrives: typedQuantity(fromNone, 'none'),
    keepOver: z.boolean(),
    passed: z.boolean(),
    rejected: typedQuantity(fromNone, 'none'),
    /** The id of a choice as text; empty for none. */
    reason: z.string(),
    bin: z.string(),
    tracking: z.enum(TRACKING),
    /** From the line's unit to the item's. */
    toItem: z.object({ many: z.number(), one: z.number() }),
    numbers: numbersText,
    expiresOn: textFor(optionalDay),
    rest: z.string(),
    restDay: textFor(optionalDay),
    restPlace: pickedOrNone,
  })
  .transform((typed, ctx) => {
    const good = quantity(typed.arrives - typed.rejected);
    const numbers = readNumbered(typed.tracking, typed.numbers, typed.expiresOn, fromSupplierUnit(good, typed.toItem));
    if (!numbers.ok) {
      ctx.addIssue({ code: 'custom', message: numbers.refusals[0]?.message ?? '', path: ['numbers'] });
      return z.NEVER;
    }
    const { lineId, arrives, keepOver, passed, rejected, restDay: promisedOn, restPlace: placeId } = typed;
    return {
      ...{ lineId, arrives, keepOver, passed, rejected, numbers: [...numbers.value] },
      reasonId: idIn(typed.reason),
      binId: idIn(typed.bin),
      rest: typed.rest === '' ? null : { reasonId: Number(typed.rest), promisedOn, placeId },
    };
  });
/** What is not right of a line that was scanned. */
export const notRightForm = z
  .object({
    rejected: typedQuantity(fromNone, 'none'),
    reason: z.string(),
    rest: z.string(),
    restDay: textFor(optionalDay),
  })
  .transform(({ rejected, reason, rest, restDay: promisedOn }) => ({
    rejected,
    reasonId: idIn(reason),
    rest: rest === '' ? null : { reasonId: Number(rest), promisedOn },
  }));

export type ArrivalText = z.input<typeof arrivalForm>;

const idIn = (text: string): number | null => (text === '' ? null : Number(text));

/** Nothing came of a line, and nothing is said of it. */
export const isNotHere = ({ arrives, rest }: ArrivalText): boolean => ['', '0'].includes(arrives.trim()) && rest === '';

/** A delivery as it is typed; lines of which nothing came are left out. */
export const deliveryForm = z.object({
  note: noteField,
  day: textFor(optionalDay),
  carrier: anyText(80),
  packages: typedCount(deliveryFields.packages.unwrap(), 'Enter the number of packages.', null),
  arrivals: rowsOf(arrivalForm, isNotHere),
});
export type DeliveryText = z.input<typeof deliveryForm>;

const ONE_EACH = (number: string) => ({ number, expiresOn: null, quantity: ONE });

/** What an inspection found, as it is typed: by quantity, or piece by piece where each has its number. */
const inspectedForm = z
  .object({
    lineId: z.number().int(),
    tracking: z.enum(TRACKING),
    toItem: z.object({ many: z.number(), one: z.number() }),
    released: typedQuantity(fromNone, 'none'),
    rejected: typedQuantity(fromNone, 'none'),
    reason: z.string(),
    good: z.array(z.string()),
    bad: z.array(z.string()),
  })
  .transform((t) => {
    const { lineId } = t;
    if (t.tracking === 'none') return { lineId, released: t.released, rejected: t.rejected, reasonId: idIn(t.reason) };
    const own = (n: number) => toSupplierUnit(quantity(n * ONE), t.toItem);
    return {
      ...{ lineId, released: own(t.good.length), rejected: own(t.bad.length), reasonId: idIn(t.reason) },
      ...{ numbers: t.good.map(ONE_EACH), rejectedNumbers: t.bad.map(ONE_EACH) },
    };
  });
export const inspectionForm = z.object({
  lines: rowsOf(inspectedForm, (t: z.input<typeof inspectedForm>) =>
    t.tracking === 'none'
      ? ['', '0'].includes(t.released.trim()) && ['', '0'].includes(t.rejected.trim())
      : t.good.length + t.bad.length === 0,
  ),
});

/** What goes back to the supplier, as it is typed. */
const returnedForm = z
  .object({
    lineId: z.number().int(),
    tracking: z.enum(TRACKING),
    toItem: z.object({ many: z.number(), one: z.number() }),
    quantity: typedQuantity(fromNone),
    from: z.enum(['rejected', 'accepted']),
    wants: z.enum(['replacement', 'credit']),
    numbers: numbersText,
  })
  .transform(({ tracking, toItem, numbers: text, ...said }, ctx) => {
    const numbers = readNumbered(tracking, text, null, fromSupplierUnit(said.quantity, toItem));
    if (numbers.ok) return { ...said, numbers: [...numbers.value] };
    ctx.addIssue({ code: 'custom', message: numbers.refusals[0]?.message ?? '', path: ['numbers'] });
    return z.NEVER;
  });
export const sentBackForm = z.object({
  reason: text(120, 'Give a reason for the return.'),
  carrier: anyText(80),
  lines: rowsOf(returnedForm, (t: z.input<typeof returnedForm>) => ['', '0'].includes(t.quantity.trim())),
});
