import { z } from 'zod';
import { minorSchema, unitPriceSchema } from '../money/schema';
import { quantitySchema } from '../quantity/schema';
import { distinct, requiredDay, text } from './fields';
import { chosen, rowsOf, typedMoney, typedPrice, typedQuantity, type Named } from './typed';

const number = text(40, 'Enter the invoice number.');
const day = requiredDay('Enter the invoice date.');
const TWICE = 'The same order line appears twice. Combine the quantities.';

const billedFields = z.object({
  lineId: z.number().int(),
  /** In the order line's unit. */
  quantity: quantitySchema.refine((q) => q > 0, 'Enter a quantity above zero.'),
  price: unitPriceSchema,
  taxCodeId: z.number().int(),
});

/** Something that was not ordered, such as carriage or a fee: for one job, for stores, or over the order's jobs by value. */
const extraFields = z.object({
  description: text(200, 'Enter what it is for.'),
  net: minorSchema,
  taxCodeId: z.number().int(),
  to: z.discriminatedUnion('kind', [
    z.object({ kind: z.literal('jobs'), costCodeId: z.number().int().nullable() }),
    z.object({ kind: z.literal('job'), jobId: z.number().int(), costCodeId: z.number().int() }),
    z.object({ kind: z.literal('stores') }),
  ]),
});
type To = z.output<typeof extraFields>['to'];

/** A supplier's bill as it is kept. */
export const billFields = z.object({
  number,
  day,
  typedTotal: minorSchema,
  lines: z.array(billedFields).max(1000).refine(distinct('lineId'), TWICE),
  extras: z.array(extraFields).max(50).default([]),
});

/** The jobs of the order, and stores, beside all other jobs; and no code of its own, but those of the lines. */
export const ORDERS_JOBS: Named = { id: -1, number: '', name: 'the order’s jobs' };
export const STORES: Named = { id: 0, number: '', name: 'stores' };
export const FOLLOWS: Named = { id: 0, number: '', name: 'as the lines’ codes' };

/** What is billed of a line, as it is typed. */
export const billedForm = (currency: string) =>
  z.object({
    lineId: z.number(),
    quantity: typedQuantity(billedFields.shape.quantity),
    price: typedPrice(billedFields.shape.price, currency),
    taxCodeId: chosen,
  });
export type BilledText = z.input<ReturnType<typeof billedForm>>;

/** Something that was not ordered, as it is typed. */
export const extraForm = (currency: string) =>
  z
    .object({
      description: extraFields.shape.description,
      net: typedMoney(extraFields.shape.net, currency),
      taxCodeId: chosen,
      to: z.custom<Named | null>(),
      code: z.custom<Named | null>(),
    })
    .transform(({ to: toWhom, code, ...extra }, ctx) => {
      const costCodeId = code === null || code.id === FOLLOWS.id ? null : code.id;
      if (toWhom === null) ctx.addIssue({ code: 'custom', message: 'Choose what it is charged to.', path: ['to'] });
      else if (toWhom.id > 0 && costCodeId === null)
        ctx.addIssue({ code: 'custom', message: 'Choose a cost code for the job.', path: ['code'] });
      return { ...extra, to: chargedTo(toWhom ?? ORDERS_JOBS, costCodeId) };
    });
export type ExtraText = z.input<ReturnType<typeof extraForm>>;

function chargedTo({ id }: Named, costCodeId: number | null): To {
  if (id === STORES.id) return { kind: 'stores' };
  if (id === ORDERS_JOBS.id) return { kind: 'jobs', costCodeId };
  return { kind: 'job', jobId: id, costCodeId: costCodeId ?? 0 };
}

/** Whether nothing is billed of a line, and whether a row that was not ordered says nothing. */
export const isNotBilled = (typed: BilledText): boolean => ['', '0'].includes(typed.quantity.trim());
export const isNoExtra = (typed: ExtraText): boolean => typed.description.trim() === '' && typed.net.trim() === '';

/** A bill as it is typed. */
export const billForm = (currency: string) =>
  z.object({
    number,
    day,
    typedTotal: z
      .string()
      .trim()
      .min(1, 'Enter the invoice total incl. tax.')
      .pipe(typedMoney(billFields.shape.typedTotal, currency)),
    lines: rowsOf(billedForm(currency), isNotBilled),
    extras: rowsOf(extraForm(currency), isNoExtra),
  });
export type BillText = z.input<ReturnType<typeof billForm>>;
export type BillRead = z.output<ReturnType<typeof billForm>>;
