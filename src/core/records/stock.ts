import { z } from 'zod';
import { minorSchema } from '../money/schema';
import { quantitySchema } from '../quantity/schema';
import type { Tracking } from '../items/kinds';
import { addQ, NONE, ONE, quantity } from '../quantity/quantity';
import { LONGEST_NUMBER, MOST_NUMBERS, readNumbered } from '../stores/numbers';
import { anyText, optionalDay, text } from './fields';
import { picked, pickedOrNone, textFor, typedMoney, typedQuantity } from './typed';

/** Lots or serial numbers of what moves, with how many pieces each is of, in the item's unit; none where it has none. */
export const numbersField = z
  .array(
    z.object({
      number: text(LONGEST_NUMBER, 'A serial or lot number is empty.'),
      expiresOn: optionalDay.default(null),
      quantity: quantitySchema,
    }),
  )
  .max(MOST_NUMBERS, `No more than ${MOST_NUMBERS} numbers at a time.`)
  .default([]);

/** Where in a place something lies: a bin, or none of them. */
export const binField = z.number().int().nullable();

/** What a person counted: how much lies there, what all of it is worth, and why it is put right. */
export const countFields = z.object({
  quantity: quantitySchema.refine((q) => q >= 0, 'Enter 0 or more.'),
  /** null to keep the average. */
  value: minorSchema.refine((v) => v >= 0, 'Enter 0 or more.').nullable(),
  reason: text(120, 'Give a reason: opening count, correction, found.'),
});

export const countForm = (currency: string, tracking: Tracking) =>
  z
    .object({
      quantity: typedQuantity(countFields.shape.quantity, 'none'),
      value: typedMoney(countFields.shape.value, currency, null),
      reason: countFields.shape.reason,
      /** The numbers that lie there, where it has some: its quantity is theirs. */
      numbers: z.string(),
      expiresOn: textFor(optionalDay),
    })
    .transform(({ numbers: text, expiresOn, ...said }, ctx) => {
      const read = readNumbered(tracking, text, expiresOn, said.quantity);
      if (!read.ok) {
        ctx.addIssue({ code: 'custom', message: read.refusals[0]?.message ?? '', path: ['numbers'] });
        return z.NEVER;
      }
      const many = addQ(NONE, ...read.value.map((n) => n.quantity));
      return { ...said, quantity: tracking === 'none' ? said.quantity : many, numbers: [...read.value] };
    });

/** How much moves between stores and a job. */
export const movedQuantity = quantitySchema.refine((q) => q > 0, 'Enter a quantity above zero.');

/** How much goes, as it is typed; of what has serial numbers, the pieces that are ticked. */
const goesFields = { quantity: z.string(), ticked: z.array(z.string()) };
const typedMoved = typedQuantity(movedQuantity);

type Goes = z.output<z.ZodObject<typeof goesFields>>;

const goes =
  (tracking: Tracking) =>
  <T extends Goes>({ quantity: text, ticked, ...said }: T, ctx: z.RefinementCtx) => {
    const fault = (message: string) => {
      ctx.addIssue({ code: 'custom', message, path: ['quantity'] });
      return z.NEVER;
    };
    if (tracking === 'serial') {
      if (ticked.length === 0) return fault('Tick the serial numbers.');
      const numbers = ticked.map((number) => ({ number, quantity: ONE }));
      return { ...said, quantity: quantity(ticked.length * ONE), numbers };
    }
    const read = typedMoved.safeParse(text);
    return read.success
      ? { ...said, quantity: read.data, numbers: [] }
      : fault(read.error.issues[0]?.message ?? 'Enter a quantity.');
  };

export const issueForm = (tracking: Tracking) =>
  z
    .object({ ...goesFields, jobId: picked('Choose the job.'), costCodeId: picked('Choose a cost code.') })
    .transform(goes(tracking));

export const issueForNeedForm = (tracking: Tracking) => z.object(goesFields).transform(goes(tracking));

export const returnForm = (tracking: Tracking) =>
  z.object({ ...goesFields, reason: anyText(120) }).transform(goes(tracking));

/** How much of a pile is reserved for a line, typed. */
export const reserveForm = z.object({ quantity: typedMoved, placeId: z.string().min(1, 'Choose the location.') });

export const moveForm = (tracking: Tracking) =>
  z
    .object({ ...goesFields, from: z.string(), to: z.string().min(1, 'Choose where it goes.') })
    .transform(goes(tracking));

export const scrapForm = (tracking: Tracking) =>
  z.object({ ...goesFields, reason: text(120, 'Give a reason for scrapping it.') }).transform(goes(tracking));

export const transferForm = (tracking: Tracking) =>
  z
    .object({
      ...goesFields,
      stores: z.boolean(),
      jobId: pickedOrNone,
      costCodeId: pickedOrNone,
      reason: text(120, 'Give a reason for the transfer.'),
    })
    .transform((t, ctx) => {
      const { stores, jobId, costCodeId, ...rest } = t;
      if (stores) return { ...rest, to: { stores: true as const } };
      if (jobId === null || costCodeId === null) {
        ctx.addIssue({
          code: 'custom',
          message: 'Choose the job and its cost code.',
          path: [jobId === null ? 'jobId' : 'costCodeId'],
        });
        return z.NEVER;
      }
      return { ...rest, to: { jobId, costCodeId } };
    })
    .transform(goes(tracking));

export const keptQuantity = quantitySchema.refine((q) => q >= 0, 'Enter 0 or more.');
export const levelForm = z.object({ keep: typedQuantity(keptQuantity, 'none') });
