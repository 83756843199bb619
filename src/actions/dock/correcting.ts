import { z } from 'zod';
import type { Day } from '@/core/calendar/workdays';
import { takeBackFault } from '@/core/orders/rules';
import { progressOf } from '@/core/orders/states';
import { may } from '@/core/people/rights';
import { least, NONE, quantity } from '@/core/quantity/quantity';
import type { Allotment } from '@/core/receiving/receive';
import { giveBack, wentFurther } from '@/core/receiving/sendBack';
import { arrivalFields, deliveryFields } from '@/core/records/delivery';
import { distinct } from '@/core/records/fields';
import { refreshHeld } from '@/store/invoices';
import { findOrder, refreshProgress, type StoredLine, type StoredOrder } from '@/store/orders';
import { insertMany, rowsOf } from '@/store/rows';
import { loadGoodsSplits } from '@/store/stock/arriving';
import { cameHere, type Piece } from '@/store/stock/follow';
import { movedSince } from '@/store/stock/movedSince';
import type { Receipt, ReceiptLine, ReceiptSplit } from '@/store/tables';
import { defineAction, found, once, refuse, type Work } from '../action';
import { allow, orderOf, orderSubjects } from '../orders/orders';
import { piecesOut, writeReceipt, type LotQuantity, type MovedSplit } from './receipts';
import { takeDelivery } from './receiving';

/** Takes a receipt back that was made by mistake: what it brought is due again. */
export const reverseReceipt = defineAction({
  name: 'reverseReceipt',
  right: 'receive',
  input: z.object({ once, receiptId: z.number().int() }),
  run: async (work, { receiptId }) => {
    const { receipt, order } = await undo(work, receiptId, work.today);
    await work.audit({
      words: `Reversed receipt ${receipt.number} on order ${order.number}`,
      subjects: [['receipt', receiptId], ...orderSubjects(order)],
    });
  },
});

/** Puts a delivery right that was taken in wrongly: what was written is taken back, and what came is taken in. */
export const correctReceipt = defineAction({
  name: 'correctReceipt',
  right: 'receive',
  input: z.object({
    once,
    receiptId: z.number().int(),
    ...deliveryFields,
    arrivals: z
      .array(arrivalFields)
      .max(1000)
      .refine(distinct('lineId'), 'The same line appears twice. Combine the quantities.'),
  }),
  run: async (work, { once: _, receiptId, ...delivery }) => {
    // It never was as it was written, so it is undone on its own day.
    const { receipt, order } = await undo(work, receiptId, null);
    if (receipt.kind !== 'delivery')
      refuse(
        'receipt.kind',
        `${receipt.number} isn’t a delivery, so it can’t be corrected. Reverse it and enter it again.`,
      );
    await work.audit({
      words: `Corrected receipt ${receipt.number} on order ${order.number}`,
      subjects: [['receipt', receiptId], ...orderSubjects(order)],
    });
    await work.settle();
    const now = found(await findOrder(work.trx, order.id), 'This order');
    return takeDelivery(work, await orderOf(work, order.id, now.version), delivery);
  },
});

/** Takes what a receipt did away again, on a day; on its own where none is said. */
async function undo(work: Work, receiptId: number, on: Day | null): Promise<{ receipt: Receipt; order: StoredOrder }> {
  const { trx, actor, touch } = work;
  const receipt = found(await trx('receipt').where({ id: receiptId }).first(), 'This receipt');
  const order = found(await findOrder(trx, receipt.orderId), 'This order');
  const [came, parts] = [await trx('receiptLine').where({ receiptId }), await trx('receiptSplit').where({ receiptId })];
  const back =
    receipt.reversesId !== null || (await trx('receipt').where({ reversesId: receiptId }).first('id')) !== undefined;
  const own = order.lines.filter((l) => came.some((c) => c.lineId === l.id));
  allow(
    takeBackFault(
      { number: receipt.number, back },
      own.map((l) => ({ ...progressOf(l), description: l.description })),
      may(actor, 'match invoices'),
    ),
  );
  for (const line of own) {
    const { held = NONE, rejected = NONE, accepted = NONE } = came.find((c) => c.lineId === line.id) ?? {};
    allow(wentFurther(line.description, line, { held, rejected, received: accepted }, receipt.number));
  }
  const given = own.flatMap((line) => givenBy(line, came, parts));
  const splits = await goesFrom(trx, given, parts);
  await checkMovedSince(trx, receipt, splits);
  const id = await writeReceipt(
    work,
    {
      ...{ orderId: receipt.orderId, number: `${receipt.number}-back`, kind: 'takenBack', day: on ?? receipt.day },
      ...{ note: `Reversal of ${receipt.number}`, reversesId: receiptId, placeId: receipt.placeId },
    },
    own.flatMap((line) =>
      came
        .filter((c) => c.lineId === line.id)
        .map(({ accepted, held, rejected, givenUp }) => ({
          line,
          accepted: quantity(-accepted),
          held: quantity(-held),
          rejected: quantity(-rejected),
          givenUp: quantity(-givenUp),
          reasonId: null,
        })),
    ),
    splits,
  );
  const numbers = await trx('receiptLot').where({ receiptId });
  await insertMany(
    trx,
    'receiptLot',
    numbers.map((n) => ({ ...n, receiptId: id, held: -n.held, rejected: -n.rejected })),
  );
  const lots = await rowsOf<LotQuantity & { readonly itemId: number }>(
    trx('stockMove')
      .where({ receiptId })
      .whereNotNull('lotId')
      .groupBy('itemId', 'lotId')
      .select('itemId', 'lotId')
      .sum({ quantity: 'quantity' }),
  );
  const ids = splits.map((s) => s.splitId);
  const out = await piecesOut(trx, ids, 'received', id, (itemId) => lots.filter((l) => l.itemId === itemId));
  const pieces = [...out, ...(await comeAgain(trx, receiptId, id))];
  await refreshProgress(trx, receipt.orderId);
  await refreshHeld(trx, receipt.orderId);
  touch('Receipt reversed', 'receipt', id, ids, { day: on ?? receipt.day, pieces });
  return { receipt, order };
}

/** What went back to the supplier, and did not after all, lies where it lay. */
const comeAgain = async (trx: Work['trx'], receiptId: number, id: number): Promise<Piece[]> =>
  (await trx('stockMove').where({ receiptId, kind: 'sentBack' }).where('quantity', '<', 0)).flatMap(
    ({ splitId, placeId, binId, lotId, quantity: q }) =>
      splitId === null
        ? []
        : [{ splitId, placeId, binId, lotId, quantity: quantity(-q), kind: 'sentBack' as const, receiptId: id }],
  );

/** What each part of a line gives back of what a receipt brought; what went back to the supplier comes again. */
function givenBy(line: StoredLine, came: readonly ReceiptLine[], parts: readonly ReceiptSplit[]): Allotment[] {
  const back = came.find((c) => c.lineId === line.id)?.accepted ?? NONE;
  if (back < 0)
    return parts
      .filter((p) => line.splits.some((s) => s.id === p.splitId))
      .map((p) => ({ splitId: p.splitId, quantity: p.quantity }));
  const had = line.splits.map((s) => ({
    splitId: s.id,
    received: s.received,
    came: parts.find((p) => p.splitId === s.id)?.quantity ?? NONE,
  }));
  return giveBack({ factor: line.factor, received: line.received, came: back, splits: had });
}

/** The same with what of it lies here; what a part had of it straight does not. */
async function goesFrom(
  trx: Work['trx'],
  given: readonly Allotment[],
  parts: readonly ReceiptSplit[],
): Promise<MovedSplit[]> {
  const here = await cameHere(
    trx,
    given.map((g) => g.splitId),
  );
  const own = new Map(parts.map((p) => [p.splitId, p]));
  const all = new Map(given.map((g) => [g.splitId, g.quantity]));
  return [...new Set([...all.keys(), ...own.keys()])].map((splitId) => {
    const [q, part] = [all.get(splitId) ?? NONE, own.get(splitId)];
    const straight = part !== undefined && part.quantity > 0 && part.here === 0;
    const lies = q < 0 ? (part?.here ?? q) : straight ? NONE : least(q, here.get(splitId) ?? NONE);
    return {
      splitId,
      quantity: quantity(-q),
      givenUp: quantity(-(part?.givenUp ?? 0)),
      here: quantity(-lies),
    };
  });
}

async function checkMovedSince(trx: Work['trx'], receipt: Receipt, splits: readonly MovedSplit[]): Promise<void> {
  const goes = splits.filter((s) => s.here < 0).map((s) => s.splitId);
  const going = new Map(splits.map((s) => [s.splitId, quantity(-s.here)]));
  const goods = await loadGoodsSplits(trx, 'splitId', goes);
  const resting = await movedSince(
    trx,
    goods.map((g) => ({ splitId: g.splitId, quantity: g.own(going.get(g.splitId) ?? NONE) })),
  );
  if (resting.length === 0) return;
  const what = [...new Set(resting.map((r) => `${r.item} was ${r.what}`))].join(', ');
  refuse(
    'receipt.stock',
    `${receipt.number} can’t be reversed: ${what} since. Reverse that first, or correct the stock with a count.`,
  );
}
