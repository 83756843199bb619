import { z } from 'zod';
import { divideRounded } from '@/core/money/decimal';
import { formatMoney, unitPriceSchema } from '@/core/money/money';
import { numberBy } from '@/core/orders/number';
import { lineFaults } from '@/core/orders/order';
import { EDITABLE, move, OPEN_AT_SUPPLIER, type OrderEvent } from '@/core/orders/states';
import { addQ, formatQuantity, NONE, quantity, quantitySchema } from '@/core/quantity/quantity';
import { isUnit } from '@/core/quantity/units';
import { planOrders } from '@/store/drafts';
import { postOrder } from '@/store/ledger';
import {
  findOrder,
  loadTaxed,
  refreshProgress,
  saveLines,
  setState,
  type LineToSave,
  type OrderHead,
  type StoredOrder,
} from '@/store/orders';
import { earliest } from '@/store/gathering';
import { insertOne, nextCount } from '@/store/rows';
import { defineAction, distinct, found, once, Refused, refuse, sameVersion, type Subject, type Work } from './action';
import { optionalDay, text } from './jobs';
import { counted } from '@/core/words';

export const orderRef = { orderId: z.number().int(), version: z.number().int() };

export async function orderOf(work: Pick<Work, 'trx'>, orderId: number, version: number): Promise<StoredOrder> {
  const order = found(await findOrder(work.trx, orderId), 'This order');
  return sameVersion(order, version, `Order ${order.number}`);
}

const jobsOf = (lines: readonly { readonly splits: readonly { readonly jobId: number | null }[] }[]): Subject[] =>
  [...new Set(lines.flatMap((l) => l.splits.flatMap((s) => s.jobId ?? [])))].map((id) => ['job', id] as const);

export const subjectsOf = (order: StoredOrder): Subject[] => [
  ['order', order.id],
  ['supplier', order.supplierId],
  ...jobsOf(order.lines),
];

/** Applies an event of the order's life, or refuses it. */
export function moved(order: OrderHead, event: OrderEvent): OrderHead['state'] {
  const next = move(order.state, event);
  if (typeof next !== 'string') throw new Refused([next]);
  return next;
}

/** Drafts one order for each supplier from picked lines of buy lists, or adds them to a draft that is still open. */
export const draftOrders = defineAction({
  name: 'draftOrders',
  right: 'draft orders',
  input: z.object({
    once,
    picks: z
      .array(z.object({ needId: z.number().int(), buy: quantitySchema }))
      .min(1, 'Pick a line first.')
      .max(2000, 'Pick at most 2,000 lines at a time.')
      .refine(distinct('needId'), 'A line is picked twice.'),
    /** Drafts that the lines for their supplier join, as they were when this person chose them. */
    into: z.array(z.object(orderRef)).max(200).default([]),
  }),
  run: async (work, { picks, into }) => {
    const { trx } = work;
    for (const { orderId, version } of into) await orderOf(work, orderId, version);
    const plan = await planOrders(
      trx,
      picks,
      into.map((o) => o.orderId),
    );
    if (plan.refusals.length > 0) throw new Refused(plan.refusals);
    const place = found(
      (await trx('deliveryPlace').whereNull('jobId').orderBy('id').first('id')) as { id: number } | undefined,
      'The place of delivery',
    );
    const made: { id: number; number: string; joined: boolean }[] = [];
    for (const { supplier, into: order, bundle, lines } of plan.orders) {
      if (order === undefined) made.push({ ...(await draft(work, supplier, lines, place.id)), joined: false });
      else {
        const count = bundle.lines.length;
        const wantedOn = earliest([order.wantedOn, ...lines.map((l) => l.wantedOn)]);
        await resave(work, order, { wantedOn }, lines, `Added ${counted(count, 'line')} to draft ${order.number}`);
        made.push({ id: order.id, number: order.number, joined: true });
      }
    }
    return { orders: made };
  },
});

type DraftFor = {
  readonly id: number;
  readonly name: string;
  readonly currency: string;
  readonly rate: number;
  readonly carrier: string;
};

async function draft(work: Work, supplier: DraftFor, lines: readonly LineToSave[], placeId: number) {
  const { trx, actor, now, today, company, audit, happening } = work;
  const number = numberBy(
    company.orderPattern,
    Number(today.slice(0, 4)),
    await nextCount(trx, `order ${today.slice(0, 4)}`),
  );
  const id = await insertOne(trx, 'purchaseOrder', {
    number,
    supplierId: supplier.id,
    state: 'drafting',
    currency: supplier.currency,
    rate: supplier.rate,
    placeId,
    wantedOn: earliest(lines.map((l) => l.wantedOn)),
    carrier: supplier.carrier,
    madeBy: actor.id,
    madeAt: now,
  });
  const head = found(await findOrder(trx, id), 'The new order');
  await saveLines(trx, head, lines, await loadTaxed(trx));
  await postOrder(trx, happening('Order drafted', 'order', id), id);
  const order = found(await findOrder(trx, id), 'The new order');
  await audit({
    words: `Drafted order ${number} to ${supplier.name}, ${formatMoney(order.net, order.currency)} net`,
    subjects: subjectsOf(order),
    after: order,
  });
  return { id, number };
}

/** Writes the terms and the lines of a draft anew, with what that moves on the jobs. */
async function resave(
  work: Work,
  order: StoredOrder,
  terms: Partial<Pick<OrderHead, 'placeId' | 'wantedOn' | 'carrier' | 'instructions'>>,
  lines: readonly LineToSave[],
  words: string,
): Promise<StoredOrder> {
  const { trx, audit, happening } = work;
  await trx('purchaseOrder')
    .where({ id: order.id })
    .update({ ...terms, version: order.version + 1 });
  const splitIds = order.lines.flatMap((l) => l.splits.map((s) => s.id));
  const needIds = await saveLines(trx, order, lines, await loadTaxed(trx));
  await postOrder(trx, happening('Draft changed', 'order', order.id), order.id, { splitIds, needIds });
  const after = found(await findOrder(trx, order.id), 'This order');
  await audit({
    words: `${words}: ${formatMoney(order.net, order.currency)} to ${formatMoney(after.net, order.currency)} net`,
    subjects: [...subjectsOf(order), ...subjectsOf(after)],
    before: order,
    after,
  });
  return after;
}

const splitInput = z.object({
  jobId: z.number().int().nullable(),
  costCodeId: z.number().int().nullable(),
  needId: z.number().int().nullable(),
  quantity: quantitySchema,
});

export const lineInput = z.object({
  id: z.number().int().optional(),
  kind: z.enum(['goods', 'service', 'charge']),
  itemId: z.number().int().nullable(),
  description: text(200, 'Say what is ordered.'),
  ourNumber: z.string().trim().max(60),
  theirNumber: z.string().trim().max(60),
  quantity: quantitySchema,
  unit: z.string().refine(isUnit, 'Choose a unit.'),
  price: unitPriceSchema.nullable(),
  priceQuantity: z.number().int().positive('A price is for at least one.').max(100_000),
  taxCodeId: z.number().int(),
  wantedOn: optionalDay,
  chargeCodeId: z.number().int().nullable(),
  splits: z.array(splitInput).max(100),
});

/** Changes an order that is still being drafted: its terms and all its lines. */
export const changeOrder = defineAction({
  name: 'changeOrder',
  right: 'draft orders',
  input: z.object({
    once,
    ...orderRef,
    placeId: z.number().int(),
    wantedOn: optionalDay,
    carrier: z.string().trim().max(120),
    instructions: z.string().trim().max(1000),
    lines: z.array(lineInput).max(1000).refine(distinct('id'), 'A line of the order stands there twice.'),
  }),
  run: async (work, { once: _, orderId, version, lines, ...terms }) => {
    const order = await orderOf(work, orderId, version);
    if (!EDITABLE.includes(order.state))
      refuse('order.state', `Order ${order.number} is no longer being drafted, so its lines stay as they are.`);
    const known = new Set(order.lines.map((l) => l.id));
    if (lines.some((l) => l.id !== undefined && !known.has(l.id)))
      refuse('line.missing', 'A line of this order is not there any more. Look at the order again.');
    const covered = withCover(order, lines);
    const faults = covered.flatMap((l, k) => lineFaults(l.kind === 'charge' ? { ...l, splits: [] } : l, `lines.${k}`));
    if (faults.length > 0) throw new Refused(faults);
    const after = await resave(work, order, terms, covered, `Changed draft ${order.number}`);
    return { version: after.version };
  },
});

/**
 * What each split covers of its need: as before, in proportion to its quantity. A split that was charged elsewhere
 * before covers nothing.
 */
function withCover(order: StoredOrder, lines: readonly z.output<typeof lineInput>[]): LineToSave[] {
  return lines.map((line) => {
    const stored = order.lines.find((l) => l.id === line.id);
    const splits = line.splits.map((s) => {
      const before = stored?.splits.find(
        (b) => b.needId !== null && b.needId === s.needId && b.jobId === s.jobId && b.costCodeId === s.costCodeId,
      );
      if (before === undefined) return { ...s, needId: null, covers: NONE };
      return {
        ...s,
        covers: quantity(divideRounded(BigInt(before.covers) * BigInt(s.quantity), BigInt(before.quantity))),
      };
    });
    return { ...line, splits };
  });
}

/** Holds a draft open for late additions, or takes it up again. */
export const holdOrder = defineAction({
  name: 'holdOrder',
  right: 'draft orders',
  input: z.object({ ...orderRef, hold: z.boolean() }),
  run: async (work, { orderId, version, hold }) => {
    const order = await orderOf(work, orderId, version);
    await setState(work.trx, order, { state: moved(order, hold ? 'holdOpen' : 'takeUp') });
    await work.audit({
      words: hold ? `Held ${order.number} open` : `Took ${order.number} up again`,
      subjects: subjectsOf(order),
    });
  },
});

/** Calls an order off before anything of it was received or billed; what it covered is to buy again. */
export const callOff = defineAction({
  name: 'callOff',
  right: 'draft orders',
  input: z.object({ once, ...orderRef, reason: text(200, 'Say why the order is called off.') }),
  run: async (work, { orderId, version, reason }) => {
    const order = await orderOf(work, orderId, version);
    if (order.lines.some((l) => l.splits.some((s) => s.received > 0 || s.billed > 0))) {
      refuse(
        'order.begun',
        `Something of ${order.number} was received or billed already. Close its lines short instead.`,
      );
    }
    await setState(work.trx, order, { state: moved(order, 'callOff') });
    await postOrder(work.trx, work.happening('Order called off', 'order', orderId), orderId);
    await work.audit({
      words: `Called off ${order.number}: ${reason}`,
      subjects: subjectsOf(order),
      before: order.state,
      after: { reason },
    });
  },
});

/** Ends a line of a sent order with quantity left; what is left is free again and back on the buy list. */
export const closeShort = defineAction({
  name: 'closeShort',
  right: 'send orders',
  input: z.object({
    once,
    ...orderRef,
    lineId: z.number().int(),
    reason: text(200, 'Say why the rest is not wanted.'),
  }),
  run: async (work, { orderId, version, lineId, reason }) => {
    const { trx, audit, happening } = work;
    const order = await orderOf(work, orderId, version);
    const line = found(
      order.lines.find((l) => l.id === lineId),
      'This line',
    );
    if (!OPEN_AT_SUPPLIER.includes(order.state))
      refuse('order.state', `Order ${order.number} is not with its supplier, so no line of it can be closed short.`);
    if (line.closedShort !== null) refuse('line.closed', `${line.description} is closed short already.`);
    const came = addQ(...line.splits.map((s) => s.received));
    if (came >= line.quantity)
      refuse('line.in', `All of ${line.description} is in, so there is nothing to close short.`);
    await trx('orderLine').where({ id: lineId }).update({ closedShort: reason });
    await refreshProgress(trx, orderId);
    await postOrder(trx, happening('Line closed short', 'order', orderId), orderId);
    await audit({
      words: `Closed ${line.description} short on ${order.number} at ${formatQuantity(came)} of ${formatQuantity(line.quantity)}: ${reason}`,
      subjects: subjectsOf(order),
      after: { lineId, reason },
    });
  },
});
