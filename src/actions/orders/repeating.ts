import { isCharge } from '@/core/orders/kinds';
import { z } from 'zod';
import { draftFaults } from '@/core/orders/order';
import { todaysPrice } from '@/core/sourcing/today';
import { loadRates } from '@/store/company';
import { carriageFor } from '@/workings/orders/planOrders';
import { loadParts, loadSuppliers, partKey } from '@/store/gathering';
import { findOrder, type LineToSave } from '@/store/orders';
import { defineAction, found, once, Refused, refuse, type Work } from '../action';
import { draftOrder } from './orders';
import { checkOrderable } from './reviews';

/**
 * Raises an order once more: the same goods and services for the same jobs and stores, at today's prices where their
 * supplier lists them, else at those that were paid. It covers no line of a buy list, and carries carriage as it is today.
 */
export const repeatOrder = defineAction({
  name: 'repeatOrder',
  right: 'draft orders',
  input: z.object({
    once,
    orderId: z.number().int(),
    /** Of the lines, those that are wanted again; all goods and services where none are named. */
    lineIds: z.array(z.number().int()).max(1000).default([]),
  }),
  run: async (work, { orderId, lineIds }) => {
    const { trx, today, company } = work;
    const order = found(await findOrder(trx, orderId), 'This order');
    const again = order.lines.filter((l) => !isCharge(l) && (lineIds.length === 0 || lineIds.includes(l.id)));
    if (again.length === 0)
      refuse('repeat.none', `Order ${order.number} has none of these lines to order again. Refresh the page.`);
    await checkOrderable(
      trx,
      again.flatMap((l) => l.splits.flatMap((s) => s.jobId ?? [])),
    );
    const { supplier, rate } = await sellingToday(work, order.supplierId);
    const parts = await loadParts(
      trx,
      again.flatMap((l) => l.itemId ?? []),
      today,
    );
    const lines = again.map((l): LineToSave => {
      const terms = parts.get(partKey(supplier.id, l.itemId))?.terms;
      const { id: _, ...line } = l;
      return {
        ...line,
        ...todaysPrice(l, terms, supplier.currency === order.currency),
        wantedOn: null,
        splits: l.splits.map(({ jobId, costCodeId, quantity }) => ({ jobId, costCodeId, quantity, needId: null })),
      };
    });
    const all = [...lines, ...carriageFor(supplier, lines, company.freightCodeId)];
    const faults = draftFaults(all, supplier.currency);
    if (faults.length > 0) throw new Refused(faults);
    return draftOrder(work, { supplier, rate, lines: all }, order.placeId);
  },
});

/** A supplier with the rate of its currency that holds today. */
async function sellingToday({ trx, today }: Work, supplierId: number) {
  const supplier = found((await loadSuppliers(trx, [supplierId])).get(supplierId), 'The supplier');
  const rate = (await loadRates(trx, today)).get(supplier.currency);
  if (rate === undefined)
    return refuse('rate.none', `There is no exchange rate for ${supplier.currency}. Enter one under Exchange rates.`);
  return { supplier, rate };
}

/** Begins an order to a supplier with nothing on it yet. */
export const startOrder = defineAction({
  name: 'startOrder',
  right: 'draft orders',
  input: z.object({ once, supplierId: z.number().int() }),
  run: async (work, { supplierId }) => {
    const selling = await sellingToday(work, supplierId);
    const place = await work.trx('deliveryPlace').where({ kind: 'own', closed: 0 }).orderBy('id').first('id');
    return draftOrder(work, { ...selling, lines: [] }, found(place, 'The delivery address').id);
  },
});
