import { z } from 'zod';
import { receiveFault } from '@/core/orders/rules';
import { addQ, atLeastNone, NONE, quantity, subtractQ } from '@/core/quantity/quantity';
import { dueOf } from '@/core/orders/states';
import { receive as takeInLine, type DockedLine } from '@/core/receiving/receive';
import { REJECT, REST } from '@/core/receiving/reasons';
import { arrivalFields, deliveryFields } from '@/core/records/delivery';
import { distinct } from '@/core/records/fields';
import { someOf } from '@/core/words';
import { dockedLines } from '@/store/docked';
import { refreshHeld } from '@/store/invoices';
import { refreshProgress, type StoredLine, type StoredOrder } from '@/store/orders';
import { insertMany, nextCount, whereIn } from '@/store/rows';
import type { Piece } from '@/store/stock/follow';
import { gapsBySplit, type Gap } from '@/store/stock/gaps';
import type { Item, ReasonRow } from '@/store/tables';
import { defineAction, found, once, Refused, refuse, type Work } from '../action';
import { allow, orderOf, orderRef, orderSubjects } from '../orders/orders';
import {
  dayOf,
  inItemUnit,
  NOT_MOVED,
  numbersIn,
  piecesIn,
  said,
  whatIsHere,
  writeAtDoor,
  writeReceipt,
} from './receipts';
import { binOf, placeOf } from '../stores/stores';

export type ArrivalSaid = z.output<typeof arrivalFields>;

/** Takes in a delivery against an order: parts of lines, as often as they come, and what became of the rest. */
export const receive = defineAction({
  name: 'receive',
  right: 'receive',
  input: z.object({
    once,
    ...orderRef,
    ...deliveryFields,
    arrivals: z
      .array(arrivalFields)
      .max(1000)
      .refine(distinct('lineId'), 'The same line appears twice. Combine the quantities.'),
  }),
  run: async (work, { once: _, orderId, version, ...delivery }) =>
    takeDelivery(work, await orderOf(work, orderId, version), delivery),
});

export type Delivery = {
  readonly [k in keyof typeof deliveryFields]: z.output<(typeof deliveryFields)[k]>;
} & { readonly arrivals: readonly ArrivalSaid[] };

/** One line of a delivery, worked out. */
type Worked = {
  readonly line: StoredLine;
  readonly docked: DockedLine;
  readonly said: ArrivalSaid;
  readonly item: Item | undefined;
  readonly taken: { accepted: number; held: number; rejected: number; allotted: readonly { splitId: number }[] };
};

/** Takes a delivery in. @returns the number of its receipt, and the state its order is in then */
export async function takeDelivery(work: Work, order: StoredOrder, delivery: Delivery) {
  const { trx, audit, touch, company } = work;
  allow(receiveFault(order));
  const { note, carrier, packages, placeId, arrivals } = delivery;
  if (arrivals.length === 0) refuse('receive.none', 'Enter a quantity for at least one line.');
  if (placeId !== null) await placeOf(trx, placeId);
  const day = dayOf(work, delivery.day, order);
  const docked = await dockedLines(trx, order);
  const items = await itemsOf(trx, order);
  const supplier = await trx('supplier').where({ id: order.supplierId }).first('overDelivery');
  const overDelivery = supplier?.overDelivery ?? company.overDelivery;
  const reasons = await reasonsOf(trx, arrivals);
  const worked = arrivals.map((arrival) => {
    const line = found(
      order.lines.find((l) => l.id === arrival.lineId),
      'A line of this order',
    );
    const item = items.get(line.itemId ?? 0);
    const at = found(docked.get(line.id), 'A line of this order');
    const { arrives, rejected, keepOver, passed } = arrival;
    const inspected = !passed && (line.inspected === 1 || item?.inspected === 1);
    checkReasons(line, arrival, reasons);
    const taken =
      arrives === 0 && arrival.rest !== null
        ? nothing
        : takeInLine({ ...at, arrives, rejected, inspected, keepOver, overDelivery });
    return { line, docked: at, said: arrival, item, taken };
  });
  const faults = worked.flatMap(({ line, taken }) =>
    taken.ok ? [] : taken.refusals.map((r) => ({ ...r, field: `arrivals.${line.id}` })),
  );
  if (faults.length > 0) throw new Refused(faults);
  const lines = worked.flatMap((w): Worked[] => (w.taken.ok ? [{ ...w, taken: w.taken.value }] : []));
  const allotted = worked.flatMap(({ taken }) => (taken.ok ? taken.value.allotted : []));
  const number = `R-${String(await nextCount(trx, 'receipt')).padStart(5, '0')}`;
  const splits = await whatIsHere(trx, allotted, placeId);
  const id = await writeReceipt(
    work,
    { orderId: order.id, number, kind: 'delivery', day, note, carrier, packages, placeId },
    lines
      .filter((w) => w.said.arrives > 0)
      .map(({ line, said: { reasonId }, taken: { accepted, held, rejected } }) => ({
        ...NOT_MOVED,
        line,
        accepted: quantity(accepted),
        held: quantity(held),
        rejected: quantity(rejected),
        reasonId,
      })),
    splits,
  );
  const pieces: Piece[] = [];
  const gaps = await gapsBySplit(
    trx,
    allotted.map((a) => a.splitId),
  );
  for (const w of lines) pieces.push(...(await placeLine(work, w, id, placeId, gaps)));
  await writeRests(work, order, lines, id, reasons);
  const state = await refreshProgress(trx, order.id);
  await refreshHeld(trx, order.id);
  touch('Received', 'receipt', id, [...allotted.map((a) => a.splitId), ...ended(lines, reasons)], { day, pieces });
  const what = lines.filter((w) => w.said.arrives > 0).map(({ line, said: { arrives } }) => said(line, arrives));
  await audit({
    words:
      what.length === 0
        ? `Recorded non-delivery on order ${order.number}, receipt ${number}`
        : `Received ${someOf(what)} on order ${order.number}, receipt ${number}`,
    subjects: [['receipt', id], ...orderSubjects(order)],
    after: { note, day, carrier, packages, placeId, arrivals },
  });
  return { id, number, state };
}

const nothing = { ok: true as const, value: { accepted: NONE, held: NONE, rejected: NONE, allotted: [] } };

export const itemsOf = async (trx: Work['trx'], order: StoredOrder): Promise<Map<number, Item>> =>
  new Map(
    (
      await whereIn(
        trx,
        'item',
        'id',
        order.lines.flatMap((l) => l.itemId ?? []),
      )
    ).map((i) => [i.id, i]),
  );

async function reasonsOf(trx: Work['trx'], arrivals: readonly ArrivalSaid[]): Promise<Map<number, ReasonRow>> {
  const ids = arrivals.flatMap((a) => [a.reasonId ?? [], a.rest?.reasonId ?? []].flat());
  return new Map((await whereIn(trx, 'reason', 'id', ids)).map((r) => [r.id, r]));
}

/** What is rejected says why, and what does not come says what becomes of it. */
function checkReasons(line: StoredLine, arrival: ArrivalSaid, reasons: ReadonlyMap<number, ReasonRow>): void {
  const field = `arrivals.${line.id}`;
  const why = reasons.get(arrival.reasonId ?? 0)?.does;
  if (arrival.rejected > 0 && (why === undefined || !REJECT.includes(why)))
    refuse('receive.why', `Give a reason for rejecting ${said(line, arrival.rejected)}.`, field);
  if (arrival.rest === null) return;
  const does = reasons.get(arrival.rest.reasonId)?.does;
  if (does === undefined || !REST.includes(does))
    refuse('receive.rest', `Choose what happens to the rest of ${line.description}.`, field);
  if (does === 'elsewhere' && arrival.rest.placeId === null)
    refuse('receive.where', `Choose where the rest of ${line.description} was sent.`, field);
}

/** Puts what came of a line where it lies, by its numbers; what is held or rejected lies in no store. */
async function placeLine(
  { trx }: Work,
  { line, said: { binId, numbers, rejectedNumbers }, item, taken }: Worked,
  receiptId: number,
  placeId: number | null,
  gaps: ReadonlyMap<number, Gap>,
): Promise<Piece[]> {
  if (item === undefined) return [];
  const at = placeId ?? line.placeId;
  if (at !== null) await binOf(trx, at, binId);
  const aside = [
    { of: 'held' as const, moved: taken.held, own: taken.held > 0 ? numbers : [] },
    // What is rejected may go without its numbers: it comes into no store.
    { of: 'rejected' as const, moved: rejectedNumbers.length > 0 ? taken.rejected : 0, own: rejectedNumbers },
  ];
  const atDoor = [];
  for (const { of, moved, own } of aside) {
    const lots = await numbersIn(trx, item, inItemUnit(line, item, quantity(moved)), own, true);
    atDoor.push(...lots.map((l) => ({ lotId: l.lotId, [of]: l.quantity })));
  }
  await writeAtDoor(trx, receiptId, line.id, atDoor);
  const placed = { receiptId, placeId, binId, numbers: taken.held > 0 ? [] : numbers };
  return piecesIn(trx, item, gaps, taken.allotted, placed, true);
}

/** Splits of lines that nothing more comes of. */
const ended = (lines: readonly Worked[], reasons: ReadonlyMap<number, ReasonRow>): number[] =>
  lines.flatMap(({ line, said: { rest } }) =>
    rest !== null && reasons.get(rest.reasonId)?.does === 'cancelled' ? line.splits.map((s) => s.id) : [],
  );

/** Writes down what became of what did not come, and does it. */
async function writeRests(
  { trx }: Work,
  order: StoredOrder,
  lines: readonly Worked[],
  receiptId: number,
  reasons: ReadonlyMap<number, ReasonRow>,
): Promise<void> {
  for (const {
    line,
    docked,
    said: { rest },
    taken,
  } of lines) {
    if (rest === null) continue;
    const left = atLeastNone(subtractQ(dueOf(docked), addQ(quantity(taken.accepted), quantity(taken.held))));
    if (left === NONE)
      refuse(
        'receive.rest',
        `${line.description} is already fully received. To receive more, reopen or revise the order.`,
        `arrivals.${line.id}`,
      );
    const { reasonId, promisedOn } = rest;
    await insertMany(trx, 'rest', [{ receiptId, lineId: line.id, reasonId, quantity: left, promisedOn, note: '' }]);
    const reason = found(reasons.get(reasonId), 'This reason');
    if (reason.does === 'toCome' && promisedOn !== null)
      await trx('orderLine').where({ id: line.id }).update({ promisedOn });
    if (reason.does === 'cancelled') {
      if (taken.held > 0 || line.held > 0)
        refuse('receive.held', `Some ${line.description} is awaiting inspection. Release or reject it first.`);
      await trx('orderLine').where({ id: line.id, orderId: order.id }).update({ closedShort: reason.name });
    }
    if (reason.does === 'elsewhere') await trx('orderLine').where({ id: line.id }).update({ placeId: rest.placeId });
  }
}
