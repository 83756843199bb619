import { z } from 'zod';
import { ONE, quantity } from '@/core/quantity/quantity';
import { quantitySchema } from '@/core/quantity/schema';
import { REJECT } from '@/core/receiving/reasons';
import { release } from '@/core/receiving/receive';
import { noteField } from '@/core/records/delivery';
import { distinct, optionalDay } from '@/core/records/fields';
import { binField, numbersField } from '@/core/records/stock';
import type { Numbered } from '@/core/stores/numbers';
import { dockedLines } from '@/store/docked';
import { refreshHeld } from '@/store/invoices';
import { refreshProgress, type StoredLine } from '@/store/orders';
import { nextCount, rowsOf } from '@/store/rows';
import type { Piece } from '@/store/stock/follow';
import { gapsBySplit } from '@/store/stock/gaps';
import type { Item } from '@/store/tables';
import { defineAction, found, once, Refused, refuse, type Work } from '../action';
import { allow, orderOf, orderRef, orderSubjects } from '../orders/orders';
import { receiveFault } from '@/core/orders/rules';
import { someOf } from '@/core/words';
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
import { itemsOf } from './receiving';

const none = quantitySchema.refine((q) => q >= 0, 'Enter 0 or more.');

/** Says what of goods that are in and not released is good, and what is rejected; who says it is the inspector. */
export const inspect = defineAction({
  name: 'inspect',
  right: 'receive',
  input: z.object({
    once,
    ...orderRef,
    note: noteField.default(''),
    day: optionalDay.default(null),
    lines: z
      .array(
        z.object({
          lineId: z.number().int(),
          released: none,
          rejected: none,
          reasonId: z.number().int().nullable().default(null),
          binId: binField.default(null),
          numbers: numbersField,
          rejectedNumbers: numbersField,
        }),
      )
      .min(1, 'Enter how much is released or rejected.')
      .max(1000)
      .refine(distinct('lineId'), 'The same line appears twice. Combine the quantities.'),
  }),
  run: async (work, { orderId, version, note, day: asked, lines }) => {
    const { trx, audit, touch } = work;
    const order = await orderOf(work, orderId, version);
    allow(receiveFault(order));
    const day = dayOf(work, asked, order);
    const docked = await dockedLines(trx, order);
    const items = await itemsOf(trx, order);
    const worked = [];
    for (const l of lines) {
      const line = found(
        order.lines.find((x) => x.id === l.lineId),
        'A line of this order',
      );
      const taken = release(found(docked.get(line.id), 'A line of this order'), l.released, l.rejected);
      if (!taken.ok) throw new Refused(taken.refusals.map((r) => ({ ...r, field: `lines.${line.id}` })));
      if (l.rejected > 0) await checkReason(trx, l.reasonId, line);
      worked.push({ ...l, line, item: items.get(line.itemId ?? 0), taken: taken.value });
    }
    const number = `I-${String(await nextCount(trx, 'inspection')).padStart(5, '0')}`;
    const allotted = worked.flatMap((w) => w.taken.allotted);
    const id = await writeReceipt(
      work,
      { orderId, number, kind: 'inspection', day, note },
      worked.map(({ line, reasonId, taken: { accepted, held, rejected } }) => ({
        ...NOT_MOVED,
        ...{ line, accepted, held, rejected, reasonId },
      })),
      await whatIsHere(trx, allotted, null),
    );
    const pieces: Piece[] = [];
    const gaps = await gapsBySplit(
      trx,
      allotted.map((a) => a.splitId),
    );
    for (const w of worked) {
      if (w.item === undefined) continue;
      await leaveDoor(trx, id, w.line, w.item, w);
      pieces.push(
        ...(await piecesIn(
          trx,
          w.item,
          gaps,
          w.taken.allotted,
          { receiptId: id, placeId: null, binId: w.binId, numbers: w.numbers },
          false,
        )),
      );
    }
    const state = await refreshProgress(trx, orderId);
    await refreshHeld(trx, orderId);
    touch(
      'Inspected',
      'receipt',
      id,
      allotted.map((a) => a.splitId),
      { day, pieces },
    );
    const what = worked.flatMap(({ line, released, rejected }) => [
      ...(released > 0 ? [`${said(line, released)} released`] : []),
      ...(rejected > 0 ? [`${said(line, rejected)} rejected`] : []),
    ]);
    await audit({
      words: `Inspected order ${order.number}: ${someOf(what)}, inspection ${number}`,
      subjects: [['receipt', id], ...orderSubjects(order)],
      after: { note, day, lines },
    });
    return { id, number, state };
  },
});

/** What is rejected says why. */
export async function checkReason(trx: Work['trx'], reasonId: number | null, line: StoredLine): Promise<void> {
  const reason = reasonId === null ? undefined : await trx('reason').where({ id: reasonId }).first('does');
  if (reason === undefined || !REJECT.includes(reason.does))
    refuse('receive.why', `Give a reason for rejecting ${line.description}.`, `lines.${line.id}`);
}

type Leaving = {
  readonly released: number;
  readonly rejected: number;
  readonly numbers: readonly Numbered[];
  readonly rejectedNumbers: readonly Numbered[];
};

/** The numbers of what was held leave the door: those that are released, and those that are rejected. */
async function leaveDoor(
  trx: Work['trx'],
  receiptId: number,
  line: StoredLine,
  item: Item,
  { released, rejected, numbers, rejectedNumbers }: Leaving,
): Promise<void> {
  if (item.tracking === 'none') return;
  const sums = await rowsOf<{ lotId: number; held: number }>(
    trx('receiptLot').where({ lineId: line.id }).groupBy('lotId').select('lotId').sum({ held: 'held' }),
  );
  const held = new Map(sums.map((s) => [s.lotId, s.held]));
  const goes = async (of: 'released' | 'rejected', q: number, own: readonly Numbered[]) => {
    const lots = await numbersIn(trx, item, inItemUnit(line, item, quantity(q)), own, false);
    lots.forEach(({ lotId, quantity: part }, k) => {
      if ((held.get(lotId) ?? 0) < part)
        refuse(
          'numbers.held',
          `${own[k]?.number} of ${item.name} isn’t awaiting inspection. Check the number.`,
          `lines.${line.id}`,
        );
      held.set(lotId, (held.get(lotId) ?? 0) - part);
    });
    return lots.map(({ lotId, quantity: part }) => ({ lotId, held: -part, rejected: of === 'rejected' ? part : 0 }));
  };
  // What stands in both lists is refused by the sum of what is held: a serial number is of one piece.
  if (numbers.some((n) => n.quantity === ONE && rejectedNumbers.some((r) => r.number === n.number)))
    refuse('numbers.both', `A number is marked both released and rejected. Choose one.`, `lines.${line.id}`);
  const moved = [await goes('released', released, numbers), await goes('rejected', rejected, rejectedNumbers)].flat();
  await writeAtDoor(trx, receiptId, line.id, moved);
}
