import { z } from 'zod';
import { BILLABLE } from '@/core/orders/states';
import { least, NONE, quantity } from '@/core/quantity/quantity';
import { quantitySchema } from '@/core/quantity/schema';
import { returned, WANTS, type Gives } from '@/core/receiving/sendBack';
import { anyText, distinct, optionalDay, text } from '@/core/records/fields';
import { numbersField } from '@/core/records/stock';
import { numbersFault } from '@/core/stores/numbers';
import { someOf } from '@/core/words';
import { dockedLines } from '@/store/docked';
import { refreshHeld } from '@/store/invoices';
import { refreshProgress, type StoredLine } from '@/store/orders';
import { nextCount, rowsOf } from '@/store/rows';
import { cameHere, type Piece } from '@/store/stock/follow';
import { knownLots } from '@/store/stock/lots';
import type { Item } from '@/store/tables';
import { defineAction, found, grant, once, Refused, refuse, type Work } from '../action';
import { orderOf, orderRef, orderSubjects } from '../orders/orders';
import {
  dayOf,
  inItemUnit,
  piecesOut,
  said,
  writeAtDoor,
  writeReceipt,
  type LotQuantity,
  type MovedSplit,
} from './receipts';
import { itemsOf } from './receiving';

const lineFields = z.object({
  lineId: z.number().int(),
  /** What goes, and whether it was rejected or taken; in the line's unit. */
  quantity: quantitySchema.refine((q) => q > 0, 'Enter a quantity above zero.'),
  from: z.enum(['rejected', 'accepted']),
  wants: z.enum(WANTS),
  numbers: numbersField,
});
type Sent = z.output<typeof lineFields>;

/** Sends goods back to their supplier: what was rejected, or what is too much. */
export const returnGoods = defineAction({
  name: 'returnGoods',
  right: 'receive',
  input: z.object({
    once,
    ...orderRef,
    reason: text(120, 'Give a reason for the return.'),
    day: optionalDay.default(null),
    carrier: anyText(80).default(''),
    lines: z
      .array(lineFields)
      .min(1, 'Enter a quantity for at least one line.')
      .max(500)
      .refine(distinct('lineId'), 'The same line appears twice. Make two returns.'),
  }),
  run: async (work, { orderId, version, reason, day: asked, carrier, lines }) => {
    const { trx, audit, touch } = work;
    const order = await orderOf(work, orderId, version);
    if (!BILLABLE.includes(order.state))
      refuse('order.state', `Order ${order.number} hasn’t been sent, so nothing can be returned.`);
    const day = dayOf(work, asked, order);
    const docked = await dockedLines(trx, order);
    const items = await itemsOf(trx, order);
    const worked = lines.map((sent) => {
      const line = found(
        order.lines.find((l) => l.id === sent.lineId),
        'A line of this order',
      );
      const stands = { ...found(docked.get(line.id), 'A line'), rejected: line.rejected };
      return {
        sent,
        line,
        item: items.get(line.itemId ?? 0),
        gives: grant(returned(stands, sent), `lines.${line.id}`),
      };
    });
    const number = `B-${String(await nextCount(trx, 'return')).padStart(5, '0')}`;
    const splits: MovedSplit[] = [];
    for (const w of worked) splits.push(...(await leaves(trx, w.gives)));
    const id = await writeReceipt(
      work,
      { orderId, number, kind: 'sentBack', day, note: reason, carrier },
      worked.map(({ line, sent }) => ({
        line,
        held: NONE,
        accepted: quantity(sent.from === 'accepted' ? -sent.quantity : 0),
        rejected: quantity(sent.from === 'rejected' ? -sent.quantity : 0),
        givenUp: sent.wants === 'credit' ? sent.quantity : NONE,
        reasonId: null,
      })),
      splits,
    );
    const lots = new Map<number, LotQuantity[]>();
    for (const { sent, line, item } of worked)
      if (item !== undefined)
        lots.set(item.id, [...(lots.get(item.id) ?? []), ...(await lotsGone(trx, id, line, item, sent))]);
    const ids = splits.map((s) => s.splitId);
    const pieces: readonly Piece[] = await piecesOut(trx, ids, 'sentBack', id, (itemId) => lots.get(itemId) ?? []);
    const state = await refreshProgress(trx, orderId);
    await refreshHeld(trx, orderId);
    touch('Sent back', 'receipt', id, ids, { day, pieces });
    const what = worked.map(({ line, sent }) => `${said(line, sent.quantity)} for ${sent.wants}`);
    await audit({
      words: `Returned ${someOf(what)} of order ${order.number} to supplier: ${reason}, return ${number}`,
      subjects: [['receipt', id], ...orderSubjects(order)],
      after: { reason, day, carrier, lines },
    });
    return { id, number, state };
  },
});

/** The same with what of it lies in our places. */
async function leaves(trx: Work['trx'], gives: readonly Gives[]): Promise<MovedSplit[]> {
  const here = await cameHere(
    trx,
    gives.map((g) => g.splitId),
  );
  return gives.map(({ splitId, quantity: q, givenUp }) => ({
    splitId,
    quantity: quantity(-q),
    givenUp,
    here: quantity(-least(q, here.get(splitId) ?? NONE)),
  }));
}

/** The lots and serial numbers that go back: out of stores, or of what was rejected at the door. */
async function lotsGone(
  trx: Work['trx'],
  receiptId: number,
  line: StoredLine,
  item: Item,
  sent: Sent,
): Promise<LotQuantity[]> {
  if (item.tracking === 'none' && sent.numbers.length === 0) return [];
  const field = `lines.${line.id}`;
  // What was rejected without its numbers goes without them.
  const asked = sent.from === 'accepted' || sent.numbers.length > 0;
  const fault = asked ? numbersFault(item, inItemUnit(line, item, sent.quantity), sent.numbers) : undefined;
  if (fault !== undefined) throw new Refused([{ ...fault, field }]);
  const known = await knownLots(
    trx,
    item.id,
    sent.numbers.map((n) => n.number),
  );
  const idOf = (number: string) => known.find((l) => l.number.toUpperCase() === number.toUpperCase())?.id ?? 0;
  const missing = sent.numbers.find((n) => idOf(n.number) === 0);
  if (missing !== undefined)
    refuse('numbers.unknown', `${missing.number} isn’t in stock here. Check the number.`, field);
  if (sent.from === 'accepted') return sent.numbers.map((n) => ({ lotId: idOf(n.number), quantity: n.quantity }));
  const sums = await rowsOf<{
    lotId: number;
    rejected: number;
  }>(trx('receiptLot').where({ lineId: line.id }).groupBy('lotId').select('lotId').sum({ rejected: 'rejected' }));
  const lies = new Map(sums.map((s) => [s.lotId, s.rejected]));
  const rows = sent.numbers.map((n) => {
    const lotId = idOf(n.number);
    if ((lies.get(lotId) ?? 0) < n.quantity)
      refuse('numbers.unknown', `${n.number} wasn’t rejected. Choose “accepted stock” instead.`, field);
    return { lotId, rejected: -n.quantity };
  });
  await writeAtDoor(trx, receiptId, line.id, rows);
  return [];
}
