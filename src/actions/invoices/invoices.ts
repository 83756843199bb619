import { z } from 'zod';
import { plusDays } from '@/core/calendar/workdays';
import { passFault } from '@/core/invoices/match';
import { LIMITS } from '@/core/limits';
import { formatMoney, lineNet, priceOf } from '@/core/money/money';
import { totalsOf } from '@/core/money/tax';
import { invoiceFault } from '@/core/orders/rules';
import { may } from '@/core/people/rights';
import { ONE } from '@/core/quantity/quantity';
import { loadRates, loadTaxCodes } from '@/store/company';
import {
  invoicingOf,
  compareInvoice,
  heldInCompany,
  refreshHeld,
  type Invoicing,
  type Comparison,
} from '@/store/invoices';
import { openTabLines } from '@/store/tabLines';
import { findOrder, refreshProgress, tabLinesOf, type StoredOrder } from '@/store/orders';
import { insertMany, insertOne } from '@/store/rows';
import { checkLive } from '../jobs/jobs';
import type { Invoice } from '@/store/tables';
import { defineAction, found, once, refuse, sameVersion, type Work } from '../action';
import { invoiceFields } from '@/core/records/invoice';
import { text } from '@/core/records/fields';
import { allow, orderSubjects } from '../orders/orders';

type TypedInvoice = z.output<typeof invoiceFields>;

/** Reads an invoice against its order: what is refused, its lines as rows, and its totals. */
async function readInvoice({ trx, today }: Work, order: StoredOrder, invoice: TypedInvoice, invoiceId?: number) {
  allow(invoiceFault(order));
  if (invoice.lines.length + invoice.extras.length === 0)
    refuse('invoice.lines', 'Enter an invoiced quantity on at least one line.');
  if (invoice.day > today) refuse('invoice.day', 'The invoice date is in the future.', 'day');
  // However it is written: “RE 2026/7” is “re2026/7”.
  const twin = await trx('invoice')
    .where({ supplierId: order.supplierId })
    .whereRaw("lower(replace(number, ' ', '')) = lower(replace(?, ' ', ''))", [invoice.number])
    .whereNot({ state: 'takenOut' })
    .first('id', 'day');
  if (twin !== undefined && twin.id !== invoiceId)
    refuse(
      'invoice.number',
      `This supplier’s invoice ${invoice.number}, dated ${twin.day}, is already entered. Check for a duplicate.`,
      'number',
    );
  await checkLive(
    trx,
    invoice.extras.flatMap(({ to }) => (to.kind === 'job' ? to.jobId : [])),
  );
  const codes = await loadTaxCodes(trx);
  if ([...invoice.lines, ...invoice.extras].some((l) => !codes.some((c) => c.id === l.taxCodeId)))
    refuse('invoice.tax', 'A line uses a tax that has been removed. Choose another tax.');
  const ordered = invoice.lines.map((l) => {
    const own = found(
      order.lines.find((o) => o.id === l.lineId),
      'A line of this order',
    );
    const net = lineNet(l.quantity, l.price, own.priceQuantity, order.currency);
    const none = { description: '', jobId: null, costCodeId: null, spread: 0 };
    return { ...none, ...l, kind: own.kind, priceQuantity: own.priceQuantity, net };
  });
  const extras = invoice.extras.map(({ description, net, taxCodeId, to }) => ({
    kind: 'charge' as const,
    lineId: null,
    description,
    jobId: to.kind === 'job' ? to.jobId : null,
    costCodeId: to.kind === 'stores' ? null : to.costCodeId,
    spread: to.kind === 'jobs' ? 1 : 0,
    quantity: ONE,
    price: priceOf(net, order.currency),
    priceQuantity: 1,
    taxCodeId,
    net,
  }));
  const lines = [...ordered, ...extras];
  const size = lines.reduce((sum, l) => sum + Math.abs(l.net), 0);
  if (lines.some((l) => Math.abs(l.net) > LIMITS.line) || size > LIMITS.document)
    refuse('invoice.large', 'The invoice total is too large. Check the quantities and prices.');
  const { net, tax, gross } = totalsOf(lines, codes);
  const rate = (await loadRates(trx, invoice.day)).get(order.currency) ?? order.rate;
  const supplier = found(
    await trx('supplier').where({ id: order.supplierId }).first('name', 'paymentDays'),
    'The supplier',
  );
  return {
    supplier,
    lines: lines.map(({ kind: _, ...row }, k) => ({ ...row, place: k + 1 })),
    head: {
      number: invoice.number,
      day: invoice.day,
      dueOn: plusDays(invoice.day, supplier.paymentDays),
      rate,
      net,
      tax,
      gross,
      typedTotal: invoice.typedTotal,
    },
  };
}

const writeLines = (trx: Work['trx'], invoiceId: number, lines: readonly object[]) =>
  insertMany(
    trx,
    'invoiceLine',
    lines.map((l) => ({ ...l, invoiceId })),
  );

/** An invoice that comes, changes or goes alters what is claimed of lines that have ended, and what other invoices may claim. */
async function afterInvoice({ trx, touch }: Work, order: StoredOrder, invoiceId: number, event: string): Promise<void> {
  await refreshHeld(trx, order.id);
  touch(
    event,
    'invoice',
    invoiceId,
    tabLinesOf({ lines: order.lines.filter((l) => l.closedShort ?? l.invoicesEnded) }),
  );
}

/** Enters a supplier's invoice against an order. It costs the jobs nothing until it is matched. */
export const enterInvoice = defineAction({
  name: 'enterInvoice',
  right: 'enter invoices',
  input: z.object({ once, orderId: z.number().int(), ...invoiceFields.shape }),
  run: async (work, input) => {
    const { trx, actor, now, audit } = work;
    const order = found(await findOrder(trx, input.orderId), 'This order');
    const { supplier, head, lines } = await readInvoice(work, order, input);
    const id = await insertOne(trx, 'invoice', {
      ...head,
      orderId: order.id,
      supplierId: order.supplierId,
      state: 'entered',
      currency: order.currency,
      enteredBy: actor.id,
      enteredAt: now,
    });
    await writeLines(trx, id, lines);
    await afterInvoice(work, order, id, 'Invoice entered');
    await audit({
      words: `Entered invoice ${head.number} from ${supplier.name}, ${formatMoney(head.gross, order.currency)}, order ${order.number}`,
      subjects: [['invoice', id], ...orderSubjects(order)],
      after: { ...head, lines },
    });
    return { id };
  },
});

const invoiceRef = { invoiceId: z.number().int(), version: z.number().int() };

/** An invoice that waits to be matched, as this person saw it. */
async function waitingInvoice(trx: Work['trx'], invoiceId: number, version: number): Promise<Invoice> {
  const invoice = found(await trx('invoice').where({ id: invoiceId }).first(), 'This invoice');
  sameVersion(invoice, version, 'This invoice');
  if (invoice.state === 'matched') refuse('invoice.matched', `Invoice ${invoice.number} is already matched.`);
  if (invoice.state === 'takenOut') refuse('invoice.out', `Invoice ${invoice.number} is void.`);
  return invoice;
}

/** Changes an invoice that was typed wrong, as long as it is not matched. */
export const changeInvoice = defineAction({
  name: 'changeInvoice',
  right: 'enter invoices',
  input: z.object({ once, ...invoiceRef, ...invoiceFields.shape }),
  run: async (work, { once: _, invoiceId, version, ...invoice }) => {
    const { trx, audit } = work;
    const before = await waitingInvoice(trx, invoiceId, version);
    const order = found(await findOrder(trx, before.orderId), 'This order');
    const { head, lines } = await readInvoice(work, order, invoice, invoiceId);
    const oldLines = await trx('invoiceLine').where({ invoiceId }).orderBy('place');
    await trx('invoiceLine').where({ invoiceId }).delete();
    await writeLines(trx, invoiceId, lines);
    await trx('invoice')
      .where({ id: invoiceId })
      .update({ ...head, version: version + 1 });
    await afterInvoice(work, order, invoiceId, 'Invoice changed');
    const after = found(await trx('invoice').where({ id: invoiceId }).first(), 'This invoice');
    await audit({
      words: `Changed invoice ${head.number}: ${formatMoney(before.gross, order.currency)} to ${formatMoney(head.gross, order.currency)}`,
      subjects: [['invoice', invoiceId], ...orderSubjects(order)],
      before: { ...before, lines: oldLines },
      after: { ...after, lines: await trx('invoiceLine').where({ invoiceId }).orderBy('place') },
    });
    return { id: invoiceId };
  },
});

/** Takes an invoice out that should not be there. It stays on record, claims nothing, and its number is free again. */
export const voidInvoice = defineAction({
  name: 'voidInvoice',
  right: 'enter invoices',
  input: z.object({ once, ...invoiceRef, reason: text(300, 'Give a reason for voiding the invoice.') }),
  run: async (work, { invoiceId, version, reason }) => {
    const { trx, audit } = work;
    const invoice = await waitingInvoice(trx, invoiceId, version);
    const order = found(await findOrder(trx, invoice.orderId), 'This order');
    await trx('invoice')
      .where({ id: invoiceId })
      .update({ state: 'takenOut', version: version + 1 });
    await afterInvoice(work, order, invoiceId, 'Invoice voided');
    await audit({
      words: `Voided invoice ${invoice.number}: ${reason}`,
      subjects: [['invoice', invoiceId], ...orderSubjects(order)],
      before: { state: invoice.state },
      after: { state: 'takenOut', reason },
    });
  },
});

/** Matches an invoice: its amounts become actual cost. One with a difference beyond tolerance needs a reason and the right to pass it. */
export const matchInvoice = defineAction({
  name: 'matchInvoice',
  right: 'match invoices',
  input: z.object({ once, ...invoiceRef, reason: z.string().trim().max(300) }),
  run: async (work, { invoiceId, version, reason }) => {
    const { trx, actor, today, audit, touch } = work;
    const invoice = await waitingInvoice(trx, invoiceId, version);
    const comparison = await compareInvoice(trx, invoice);
    const { order, differs } = comparison;
    allow(invoiceFault(order));
    if (differs) checkPassing(work, comparison, reason);
    const invoicing = await invoicingOf(trx, comparison);
    const beside = await writeInvoicing(trx, comparison, invoicing);
    await trx('invoice')
      .where({ id: invoiceId })
      .update({
        state: 'matched',
        matchedBy: actor.id,
        matchedOn: today,
        passedReason: differs ? reason : '',
        version: version + 1,
      });
    await refreshHeld(trx, order.id);
    const state = await refreshProgress(trx, order.id);
    const invoiced = comparison.lines.flatMap((l) => l.order ?? []);
    touch('Invoice matched', 'invoice', invoiceId, [...tabLinesOf({ lines: invoiced }), ...beside]);
    const jobs = invoicing.extras.flatMap((b) => (b.jobId === null ? [] : [['job', b.jobId] as const]));
    await audit({
      words: `Matched invoice ${invoice.number} to order ${order.number}${differs ? `; difference approved: ${reason}` : ''}`,
      subjects: [['invoice', invoiceId], ...orderSubjects(order), ...jobs],
      before: { state: invoice.state },
      after: { state: 'matched', reason },
    });
    return { state };
  },
});

function checkPassing({ actor, company }: Work, comparison: Comparison, reason: string): void {
  const { invoice } = comparison;
  if (!may(actor, 'pass differences'))
    refuse(
      'invoice.held',
      `Invoice ${invoice.number} is outside tolerance. Accounts or a manager can approve the difference, with a reason.`,
    );
  const size = heldInCompany(comparison, company.currency);
  const own = invoice.enteredBy === actor.id;
  allow(passFault({ number: invoice.number, own, size }, company.ownPassLimit, company.currency));
  if (reason === '') refuse('invoice.reason', 'Give a reason for approving the difference.', 'reason');
}

/** Writes what each split is invoiced and what the invoice costs beside them. @returns the lines of the tab it opened */
async function writeInvoicing(
  trx: Work['trx'],
  { invoice, lines }: Comparison,
  invoicing: Invoicing,
): Promise<number[]> {
  await insertMany(trx, 'invoiceSplit', invoicing.parts);
  for (const { splitId, quantity, amount } of invoicing.parts)
    await trx('split').where({ id: splitId }).increment('invoiced', quantity).increment('invoicedAmount', amount);
  for (const { line } of lines)
    if (line.lineId !== null) await trx('orderLine').where({ id: line.lineId }).increment('invoiced', line.quantity);
  const ids = await openTabLines(
    trx,
    'invoiceCost',
    invoicing.extras.map((b) => b.words),
  );
  const rows = invoicing.extras.map(({ words: _, ...cost }, k) => ({ ...cost, id: ids[k], invoiceId: invoice.id }));
  await insertMany(trx, 'invoiceCost', rows);
  return ids;
}
