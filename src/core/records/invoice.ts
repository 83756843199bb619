import { z } from 'zod';
import { minorSchema, unitPriceSchema } from '../money/schema';
import { quantitySchema } from '../quantity/schema';
import { distinct, requiredDay, text } from './fields';
import { chosen, rowsOf, typedMoney, typedPrice, typedQuantity, type Named } from './typed';

const number = text(40, 'Enter the invoice number.');
const day = requiredDay('Enter the invoice date.');
const TWICE = 'The same order line appears twice. Combine the quantities.';

const invoicedFields = z.object({
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

/** A supplier's invoice as it is kept. */
export const invoiceFields = z.object({
  number,
  day,
  typedTotal: minorSchema,
  lines: z.array(invoicedFields).max(1000).refine(distinct('lineId'), TWICE),
  extras: z.array(extraFields).max(50).default([]),
});

/** The jobs of the order, and stores, beside all other jobs; and no code of its own, but those of the lines. */
export const ORDERS_JOBS: Named = { id: -1, number: '', name: 'the order’s jobs' };
export const STORES: Named = { id: 0, number: '', name: 'stores' };
export const FOLLOWS: Named = { id: 0, number: '', name: 'as the lines’ codes' };

/** What is invoiced of a line, as it is typed. */
export const invoicedForm = (currency: string) =>
  z.object({
    lineId: z.number(),
    quantity: typedQuantity(invoicedFields.shape.quantity),
    price: typedPrice(invoicedFields.shape.price, currency),
    taxCodeId: chosen,
  });
export type InvoicedText = z.input<ReturnType<typeof invoicedForm>>;

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

/** Whether nothing is invoiced of a line, and whether a row that was not ordered says nothing. */
export const isNotInvoiced = (typed: InvoicedText): boolean => ['', '0'].includes(typed.quantity.trim());
export const isNoExtra = (typed: ExtraText): boolean => typed.description.trim() === '' && typed.net.trim() === '';

/** An invoice as it is typed. */
export const invoiceForm = (currency: string) =>
  z.object({
    number,
    day,
    typedTotal: z
      .string()
      .trim()
      .min(1, 'Enter the invoice total incl. tax.')
      .pipe(typedMoney(invoiceFields.shape.typedTotal, currency)),
    lines: rowsOf(invoicedForm(currency), isNotInvoiced),
    extras: rowsOf(extraForm(currency), isNoExtra),
  });
export type InvoiceText = z.input<ReturnType<typeof invoiceForm>>;
export type InvoiceRead = z.output<ReturnType<typeof invoiceForm>>;
