import { z } from 'zod';
import { LIMITS } from '@/core/limits';
import { formatMoney } from '@/core/money/money';
import { minorSchema, unitPriceSchema } from '@/core/money/schema';
import { FULL_SHARE } from '@/core/money/tax';
import { CHARGE_KINDS, SPREADS } from '@/core/orders/charges';
import { numberFault } from '@/core/orders/number';
import { draftFaults } from '@/core/orders/order';
import { withoutNeeds } from '@/core/orders/puttingBack';
import { changeFault } from '@/core/orders/rules';
import { move, type OrderEvent } from '@/core/orders/states';
import { quantitySchema } from '@/core/quantity/schema';
import { isUnit } from '@/core/quantity/units';
import type { Refusal } from '@/core/result';
import { counted } from '@/core/words';
import { planOrders, type PlannedOrder } from '@/workings/orders/planOrders';
import { earliest } from '@/store/gathering';
import { nextNumber, renumbered } from '@/store/numbers';
import {
  findOrder,
  loadMoney,
  saveLines,
  setState,
  tabLinesOf,
  type LineToSave,
  type StoredOrder,
} from '@/store/orders';
import { insertOne, whereIn } from '@/store/rows';
import { checkOrderable } from './reviews';
import { checkNotLost } from '../quotes/winning';
import { openRound, staysSigned } from '@/workings/signoff/reckon';
import { settleLines, type TypedLine } from '@/workings/orders/settleLines';
import type { OrderHead } from '@/store/tables';
import { defineAction, found, grant, once, Refused, refuse, sameVersion, type Subject, type Work } from '../action';
import { anyText, distinct, optionalDay, text } from '@/core/records/fields';

export const orderRef = { orderId: z.number().int(), version: z.number().int() };

/** The order as its form saw it; a clash tells the whole of it only to the form that shows both versions. */
export async function orderOf(
  work: Pick<Work, 'trx'>,
  orderId: number,
  version: number,
  { whole = false } = {},
): Promise<StoredOrder> {
  const order = found(await findOrder(work.trx, orderId), 'This order');
  return sameVersion(order, version, `Order ${order.number}`, whole ? order : undefined);
}

const jobsOf = (lines: readonly { readonly splits: readonly { readonly jobId: number | null }[] }[]): Subject[] =>
  [...new Set(lines.flatMap((l) => l.splits.flatMap((s) => s.jobId ?? [])))].map((id) => ['job', id] as const);

export const orderSubjects = (order: StoredOrder): Subject[] => [
  ['order', order.id],
  ['supplier', order.supplierId],
  ...jobsOf(order.lines),
];

/** Ends the action when a rule stands against it. */
export function allow(fault: Refusal | undefined): void {
  if (fault !== undefined) throw new Refused([fault]);
}

/** Applies an event of the order's life, or refuses it. */
export function moved(order: OrderHead, event: OrderEvent): OrderHead['state'] {
  const next = move(order.state, event);
  if (typeof next !== 'string') throw new Refused([next]);
  return next;
}

/** What those who sign look at stays as it is while they do. */
export async function unlessAsked(trx: Work['trx'], { id, number }: Pick<OrderHead, 'id' | 'number'>): Promise<void> {
  if ((await openRound(trx, id)) !== undefined)
    refuse('signOff.open', `${number} is awaiting sign-off and can’t be changed. Withdraw it first.`);
}

/** Keeps who wrote on an order: they do not sign it off beyond their own limit. */
export const wroteOn = ({ trx, actor }: Work, orderId: number) =>
  trx('orderWriter').insert({ orderId, personId: actor.id }).onConflict().ignore();

/** Drafts one order for each supplier from picked lines of buy lists, or adds them to a draft that is still open. */
export const draftOrders = defineAction({
  name: 'draftOrders',
  right: 'draft orders',
  input: z.object({
    once,
    picks: z
      .array(z.object({ needId: z.number().int(), buy: quantitySchema }))
      .max(2000, 'Select up to 2,000 lines at a time; draft these first.')
      .refine(distinct('needId'), 'The same line was selected twice. Refresh Gather and select again.'),
    /** What is bought for stores beside, in the items' own units. */
    stock: z
      .array(z.object({ itemId: z.number().int(), supplierId: z.number().int(), quantity: quantitySchema }))
      .max(200)
      .refine(distinct('itemId'), 'The same item is bought for stores twice. Combine the quantities.')
      .default([]),
    /** Drafts that the lines for their supplier join, as they were when this person chose them. */
    into: z.array(z.object(orderRef)).max(200).default([]),
  }),
  run: async (work, { picks, stock, into }) => {
    const { trx, today } = work;
    if (picks.length + stock.length === 0) refuse('picks.none', 'Select at least one line.', 'picks');
    for (const { orderId, version } of into) await orderOf(work, orderId, version);
    const needs = await whereIn(
      trx,
      'need',
      'id',
      picks.map((p) => p.needId),
    );
    await checkOrderable(
      trx,
      needs.map((n) => n.jobId),
    );
    await checkNotLost(
      trx,
      needs.map((n) => n.id),
    );
    const joined = into.map((o) => o.orderId);
    const plan = await planOrders(trx, picks, today, joined, stock);
    if (plan.refusals.length > 0) throw new Refused(plan.refusals);
    const place = found(
      await trx('deliveryPlace').where({ kind: 'own', closed: 0 }).orderBy('id').first('id'),
      'The delivery address',
    );
    const made: { id: number; number: string; version: number; joined: boolean }[] = [];
    for (const planned of plan.orders) {
      const { into: order, bundle, lines } = planned;
      if (order === undefined) made.push({ ...(await draftOrder(work, planned, place.id)), joined: false });
      else {
        const wantedOn = earliest([order.wantedOn, ...lines.map((l) => l.wantedOn)]);
        const words = `Added ${counted(bundle.lines.length, 'line')} to draft order ${order.number}`;
        const { version } = await resave(work, order, { wantedOn }, lines, words);
        made.push({ id: order.id, number: order.number, version, joined: true });
      }
    }
    return { orders: made };
  },
});

/** Writes a new draft to a supplier, with the next number. */
export async function draftOrder(
  work: Work,
  { supplier, rate, lines }: Pick<PlannedOrder, 'supplier' | 'rate' | 'lines'>,
  placeId: number,
) {
  const { trx, actor, now, today, company, audit, touch } = work;
  const { number, counted } = await nextNumber(trx, company, today, lines);
  const id = await insertOne(trx, 'purchaseOrder', {
    number,
    counted,
    supplierId: supplier.id,
    state: 'drafting',
    currency: supplier.currency,
    rate,
    rateOn: supplier.currency === company.currency ? null : today,
    placeId,
    wantedOn: earliest(lines.map((l) => l.wantedOn)),
    carrier: supplier.carrier,
    madeBy: actor.id,
    madeOn: today,
    madeAt: now,
  });
  await wroteOn(work, id);
  const head = found(await findOrder(trx, id), 'The new order');
  await saveLines(trx, head, lines, await loadMoney(trx));
  const order = found(await findOrder(trx, id), 'The new order');
  touch('Order drafted', 'order', id, tabLinesOf(order));
  await audit({
    words: `Drafted order ${number} to ${supplier.name}, ${formatMoney(order.net, order.currency)} net`,
    subjects: orderSubjects(order),
    after: order,
  });
  return { id, number, version: order.version };
}

/** Writes the terms and the lines of a draft anew, with what that moves on the jobs. */
async function resave(
  work: Work,
  order: StoredOrder,
  terms: Partial<Pick<OrderHead, 'number' | 'counted' | keyof typeof orderTerms>>,
  lines: readonly LineToSave[],
  words: string,
): Promise<StoredOrder> {
  const { trx, audit, touch } = work;
  // One that was signed off, and changed so that it has to be signed anew, is drafted again.
  const signed = order.state !== 'readyToSend' || (await staysSigned(trx, order, lines));
  const state = signed ? order.state : moved(order, 'changeSigned');
  await trx('purchaseOrder')
    .where({ id: order.id })
    .update({ ...terms, state, version: order.version + 1 });
  await saveLines(trx, order, lines, await loadMoney(trx));
  await wroteOn(work, order.id);
  const after = found(await findOrder(trx, order.id), 'This order');
  touch('Draft changed', 'order', order.id, [...tabLinesOf(order), ...tabLinesOf(after)]);
  await audit({
    words: `${words}: ${formatMoney(order.net, order.currency)} to ${formatMoney(after.net, order.currency)} net`,
    subjects: [...orderSubjects(order), ...orderSubjects(after)],
    before: order,
    after,
  });
  return after;
}

const splitInput = z.object({
  id: z.number().int().optional(),
  jobId: z.number().int().nullable(),
  costCodeId: z.number().int().nullable(),
  /** In the line's share unit. */
  quantity: quantitySchema,
  /** Of a charge shared out by amounts. */
  amount: minorSchema.nullable().default(null),
});

const lineInput = z.object({
  id: z.number().int().optional(),
  kind: z.enum(['goods', 'service', 'charge']),
  itemId: z.number().int().nullable(),
  description: text(200, 'Enter an item or description.'),
  ourNumber: z.string().trim().max(60),
  theirNumber: z.string().trim().max(60),
  quantity: quantitySchema,
  unit: z.string().refine(isUnit, 'Choose a unit.'),
  price: unitPriceSchema.nullable(),
  priceQuantity: z.number().int().positive('Enter 1 or more.').max(LIMITS.priceQuantity),
  discount: z.number().int().min(0, 'Enter 0 or more.').max(FULL_SHARE, 'No more than 100 %.').default(0),
  free: z.boolean().default(false),
  note: z.string().trim().max(200, 'No more than 200 characters.').default(''),
  taxCodeId: z.number().int(),
  wantedOn: optionalDay,
  placeId: z.number().int().nullable().default(null),
  chargeKind: z.enum(CHARGE_KINDS).nullable().default(null),
  chargeCodeId: z.number().int().nullable(),
  spread: z.enum(SPREADS).default('value'),
  splits: z
    .array(splitInput)
    .max(100)
    .refine(distinct('id'), 'The same split appears twice. Refresh the page and try again.'),
});

export const orderLines = z
  .array(lineInput)
  .max(LIMITS.sheetLines)
  .refine(distinct('id'), 'The same line appears twice. Refresh the page and try again.');

/** What an order says beside its lines. */
export const orderTerms = {
  placeId: z.number().int(),
  wantedOn: optionalDay,
  latestOn: optionalDay.default(null),
  carrier: anyText(120),
  carrierService: anyText(120).default(''),
  siteContact: anyText(120).default(''),
  instructions: anyText(1000),
};

/** Changes an order that is still being drafted: its number, its terms and all its lines. */
export const changeOrder = defineAction({
  name: 'changeOrder',
  right: 'draft orders',
  input: z.object({
    once,
    ...orderRef,
    /** Set by hand; as it is where nothing is said. */
    number: anyText(30).optional(),
    ...orderTerms,
    lines: orderLines,
  }),
  run: async (work, { once: _, orderId, version, number, lines: typed, ...said }) => {
    const order = await orderOf(work, orderId, version, { whole: true });
    allow(changeFault(order));
    if (number !== undefined) allow(numberFault(number));
    const terms = { ...said, ...grant(await renumbered(work.trx, work.company, order, number ?? order.number)) };
    await checkTargets(work.trx, order, typed);
    const lines = grant(await settleLines(work.trx, order, typed, work.today));
    const faults = draftFaults(lines, order.currency);
    if (faults.length > 0) throw new Refused(faults);
    const after = await resave(work, order, terms, lines, `Changed draft order ${order.number}`);
    return { version: after.version, number: after.number };
  },
});

/** Takes lines of buy lists off a draft, so that they are to buy again. */
export const putBack = defineAction({
  name: 'putBack',
  right: 'draft orders',
  input: z.object({
    once,
    ...orderRef,
    needIds: z.array(z.number().int()).min(1, 'Choose at least one line.').max(2000),
  }),
  run: async (work, { orderId, version, needIds }) => {
    const order = await orderOf(work, orderId, version);
    allow(changeFault(order));
    const lines = withoutNeeds(order.lines, new Set(needIds));
    const taken = order.lines.flatMap((l) => l.splits.filter((s) => needIds.includes(s.needId ?? 0))).length;
    if (taken === 0) refuse('need.notHere', `These lines are no longer on order ${order.number}. Refresh the page.`);
    const faults = draftFaults(lines, order.currency);
    if (faults.length > 0) throw new Refused(faults);
    const after = await resave(
      work,
      order,
      {},
      lines,
      `Returned ${counted(taken, 'line')} of order ${order.number} to the buy list`,
    );
    return { version: after.version };
  },
});

/** Money goes to live jobs only, with taxes that there are; what stood there before may stay. */
export async function checkTargets(trx: Work['trx'], order: StoredOrder, typed: readonly TypedLine[]): Promise<void> {
  const taxes = new Set((await trx('taxCode').select('id')).map((t) => t.id));
  if (typed.some((l) => !taxes.has(l.taxCodeId)))
    refuse('line.tax', 'A line uses a tax that has been removed. Choose another tax.');
  const before = new Set(order.lines.flatMap((l) => l.splits.map((s) => s.jobId)));
  const added = typed.flatMap((l) => l.splits.flatMap((s) => (before.has(s.jobId) ? [] : (s.jobId ?? []))));
  await checkOrderable(trx, added);
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
      words: hold ? `Held order ${order.number} open` : `Resumed drafting order ${order.number}`,
      subjects: orderSubjects(order),
    });
  },
});
