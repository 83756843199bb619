import { z } from 'zod';
import { plusDays } from '@/core/calendar/workdays';
import { formatMoney, lineNet, minorSchema, unitPriceSchema } from '@/core/money/money';
import { totalsOf } from '@/core/money/tax';
import { OPEN_AT_SUPPLIER } from '@/core/orders/states';
import { may } from '@/core/people/rights';
import { quantitySchema } from '@/core/quantity/quantity';
import { loadTaxCodes } from '@/store/company';
import { billedParts, compareInvoice, refreshHeld, type Comparison, type StoredInvoice } from '@/store/invoices';
import { postOrder } from '@/store/ledger';
import { findOrder, refreshProgress } from '@/store/orders';
import { insertMany, insertOne } from '@/store/rows';
import { defineAction, distinct, found, once, refuse, sameVersion, type Work } from './action';
import { optionalDay, text } from './jobs';
import { subjectsOf } from './orders';

const billedInput = z.object({
  lineId: z.number().int(),
  quantity: quantitySchema.refine((q) => q > 0, 'A billed quantity must be above zero.'),
  price: unitPriceSchema.refine((p) => p >= 0, 'A billed price cannot be below zero.'),
  taxCodeId: z.number().int(),
});

/** Enters a supplier's bill against an order. It costs the jobs nothing until it is matched. */
export const enterInvoice = defineAction({
  name: 'enterInvoice',
  right: 'enter invoices',
  input: z.object({
    once,
    orderId: z.number().int(),
    number: text(40, 'Type the number that stands on the invoice.'),
    day: optionalDay.refine((d) => d !== null, 'Type the date that stands on the invoice.'),
    typedTotal: minorSchema,
    lines: z
      .array(billedInput)
      .min(1, 'Say what is billed of at least one line.')
      .max(1000)
      .refine(distinct('lineId'), 'A line of the order is billed twice on this invoice. Add the two up.'),
  }),
  run: async (work, input) => {
    const { trx, actor, now, today, audit } = work;
    const order = found(await findOrder(trx, input.orderId), 'This order');
    const day = input.day ?? today;
    if (![...OPEN_AT_SUPPLIER, 'settled'].includes(order.state))
      refuse('order.state', `Order ${order.number} was not sent, so it cannot be billed.`);
    if (day > today) refuse('invoice.day', 'The invoice is dated after today.', 'day');
    const twin = (await trx('invoice').where({ supplierId: order.supplierId, number: input.number }).first('day')) as
      { day: string } | undefined;
    if (twin !== undefined)
      refuse(
        'invoice.number',
        `Invoice ${input.number} of this supplier was entered before, dated ${twin.day}.`,
        'number',
      );
    const lines = input.lines.map((l) => {
      const own = found(
        order.lines.find((o) => o.id === l.lineId),
        'A line of this order',
      );
      return {
        ...l,
        kind: own.kind,
        priceQuantity: own.priceQuantity,
        net: lineNet(l.quantity, l.price, own.priceQuantity, order.currency),
      };
    });
    const totals = totalsOf(lines, await loadTaxCodes(trx));
    const supplier = (await trx('supplier').where({ id: order.supplierId }).first('name', 'paymentDays')) as {
      name: string;
      paymentDays: number;
    };
    const id = await insertOne(trx, 'invoice', {
      orderId: order.id,
      supplierId: order.supplierId,
      number: input.number,
      day,
      dueOn: plusDays(day, supplier.paymentDays),
      state: 'entered',
      currency: order.currency,
      rate: order.rate,
      net: totals.net,
      tax: totals.tax,
      gross: totals.gross,
      typedTotal: input.typedTotal,
      enteredBy: actor.id,
      enteredAt: now,
    });
    await insertMany(
      trx,
      'invoiceLine',
      lines.map(({ kind: _, ...l }) => ({ ...l, invoiceId: id })),
    );
    await refreshHeld(trx, order.id);
    await audit({
      words: `Entered invoice ${input.number} from ${supplier.name}, ${formatMoney(totals.gross, order.currency)}, against ${order.number}`,
      subjects: [['invoice', id], ...subjectsOf(order)],
      after: input,
    });
    return { id };
  },
});

/** Matches an invoice: its amounts become actual cost. One with a difference beyond tolerance needs a reason and the right to pass it. */
export const matchInvoice = defineAction({
  name: 'matchInvoice',
  right: 'match invoices',
  input: z.object({ once, invoiceId: z.number().int(), version: z.number().int(), reason: z.string().trim().max(300) }),
  run: async (work, { invoiceId, version, reason }) => {
    const { trx, actor, today, audit, happening } = work;
    const invoice = sameVersion(
      found((await trx('invoice').where({ id: invoiceId }).first()) as StoredInvoice | undefined, 'This invoice'),
      version,
      'This invoice',
    );
    if (invoice.state === 'matched') refuse('invoice.matched', `Invoice ${invoice.number} is matched already.`);
    const comparison = await compareInvoice(trx, invoice);
    if (comparison.held) checkPassing(work, comparison, reason);
    await bill(trx, comparison);
    await trx('invoice')
      .where({ id: invoiceId })
      .update({
        state: 'matched',
        matchedBy: actor.id,
        matchedOn: today,
        passedReason: comparison.held ? reason : '',
        version: version + 1,
      });
    await refreshHeld(trx, invoice.orderId);
    const state = await refreshProgress(trx, invoice.orderId);
    await postOrder(trx, happening('Invoice matched', 'invoice', invoiceId), invoice.orderId);
    const order = found(await findOrder(trx, invoice.orderId), 'This order');
    const passed = comparison.held ? `, difference passed: ${reason}` : '';
    await audit({
      words: `Matched invoice ${invoice.number} against ${order.number}${passed}`,
      subjects: [['invoice', invoiceId], ...subjectsOf(order)],
      after: { reason },
    });
    return { state };
  },
});

function checkPassing({ actor }: Work, { invoice }: Comparison, reason: string): void {
  if (!may(actor, 'pass differences'))
    refuse(
      'invoice.held',
      `Invoice ${invoice.number} differs from its order beyond the tolerance. Accounts or a manager can pass it, with a reason.`,
    );
  if (reason === '') refuse('invoice.reason', 'Say why the difference is passed.', 'reason');
}

/** Writes what each split is billed. */
async function bill(trx: Work['trx'], comparison: Comparison): Promise<void> {
  const parts = await billedParts(trx, comparison);
  await insertMany(trx, 'invoiceSplit', parts);
  for (const { splitId, quantity, amount } of parts)
    await trx('split').where({ id: splitId }).increment({ billed: quantity, billedAmount: amount });
}
