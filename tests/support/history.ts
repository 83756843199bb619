import { saveRate } from '@/actions/company/company';
import { changeInvoice, enterInvoice, matchInvoice, voidInvoice } from '@/actions/invoices/invoices';
import { changeNeeds } from '@/actions/buying/manyNeeds';
import { changeBuyList, changeNeed } from '@/actions/buying/needs';
import { chargeElsewhere } from '@/actions/orders/charging';
import { cancelOrder, closeShort, draftAgain, endInvoices, reopenLines } from '@/actions/orders/ending';
import { confirmOrder } from '@/actions/orders/confirming';
import { changeOrder, draftOrders, holdOrder, putBack } from '@/actions/orders/orders';
import { changeQuote, reviseQuote } from '@/actions/quotes/quotes';
import { winQuote } from '@/actions/quotes/winning';
import { beginRevision, changeRevision, dropRevision } from '@/actions/orders/revising';
import { reverseReceipt } from '@/actions/dock/correcting';
import { markSentByHand } from '@/actions/orders/sending';
import type { Outcome } from '@/actions/action';
import type { Day } from '@/core/calendar/workdays';
import { AWAITED, BILLABLE, EDITABLE, OPEN_AT_SUPPLIER, ORDER_STATES, type OrderState } from '@/core/orders/states';
import { insertMany, insertOne } from '@/store/rows';
import type { TestCompany } from './company';
import { isOfDock, someOf, tryDock } from './dockHistory';
import type { StoredOrder } from '@/store/orders';
import { isOfStores, STORES_ACTS, tryStores } from './storesHistory';
import { typedChange } from './typedChange';

export const ACTS = [
  'draft',
  'draft',
  'join',
  'change',
  'change',
  'send',
  'send',
  'receive',
  'receive',
  'receive',
  'takeBack',
  'inspect',
  'inspect',
  'correct',
  'correct',
  'sendBack',
  'sendBack',
  'invoice',
  'invoice',
  'invoice',
  'changeInvoice',
  'takeOut',
  'match',
  'match',
  'cancel',
  'draftAgain',
  'draftAgain',
  'closeShort',
  'openAgain',
  'elsewhere',
  'reorder',
  'reorder',
  'reorder',
  'reorderHeld',
  'putBack',
  'putBack',
  'confirm',
  'confirm',
  'takeOver',
  'takeOver',
  'endInvoices',
  'endInvoices',
  'endInvoices',
  'endInvoices',
  'endInvoices',
  'endInvoices',
  'endInvoices',
  'cut',
  'fill',
  'fill',
  'quote',
  'quote',
  'win',
  'win',
  'revise',
  'revise',
  'choose',
  'rate',
  'hold',
  ...STORES_ACTS,
] as const;

/** One thing that somebody tries; most numbers choose among what is there. */
export type Step = { readonly act: (typeof ACTS)[number]; readonly which: number; readonly share: number };

/** A company with trouble of every kind: reels for two jobs, hours, another currency, tax that cannot be recovered. */
export async function layOutTrouble(yard: TestCompany, currency: string, rate: string): Promise<void> {
  const { db, ids } = yard;
  const [first, second] = ids.suppliers;
  await db('supplier').where({ id: second }).update({ currency, taxCodeId: 2 });
  await insertMany(db, 'exchangeRate', [{ currency, day: '2026-01-01', rate }]);
  const reel = { supplierId: first, itemId: ids.items[1], unit: 'XRL', factorMany: 60, factorOne: 1 };
  const bar = { supplierId: second, itemId: ids.items[0], unit: 'KGM', factorMany: 1000, factorOne: 888 };
  await db('item')
    .where({ id: ids.items[0] })
    .update({ weight: 8880 as never });
  await db('item')
    .where({ id: ids.items[1] })
    .update({ weight: 3000 as never });
  const [reelId, barId] = [await insertOne(db, 'supplierPart', reel), await insertOne(db, 'supplierPart', bar)];
  await insertMany(db, 'priceBreak', [
    { partId: reelId, fromQuantity: 0, price: 1_770_000 },
    { partId: barId, fromQuantity: 0, price: 31_234 },
  ]);
  await yard.need({ quantity: 12.5, price: 7.77 });
  await yard.need({ item: ids.items[1], quantity: 110, price: 3, neededOn: '2026-06-10' });
  await yard.need({ job: 1, item: ids.items[1], quantity: 40, price: 3, neededOn: '2026-06-01' });
  await yard.need({ job: 1, item: ids.items[0], quantity: 31.5, price: null, supplier: 1 });
  await yard.need({ unit: 'HUR', quantity: 18, price: 42.5, supplier: 1, description: 'Galvanising' });
  await yard.need({ unit: 'C62', quantity: 9, price: 3.33, supplier: null, description: 'Clamp' });
}

/** Tries one step on a day against whatever is there. Many are refused; a refusal changes nothing either. */
export async function tryStep(
  yard: TestCompany,
  { act, which, share }: Step,
  day: Day,
): Promise<Outcome<unknown> | undefined> {
  const { db } = yard;
  const pick = <T>(all: readonly T[]): T | undefined => all[which % Math.max(all.length, 1)];
  const as = (role: Parameters<TestCompany['as']>[0]) => yard.as(role, day);
  const once = yard.once();
  const part = (of: number) => Math.max(1, Math.round(of * share)) as never;
  const whole = someOf(share);
  if (act === 'draft' || act === 'join') {
    const open = await db('need').where('open', '>', 0).whereNotNull('supplierId').orderBy('id');
    const some = open.filter((_, k) => (which >> k) % 2 === 0).slice(0, 3);
    const picked = some.length > 0 ? some : open.slice(0, 2);
    const drafts = await db('purchaseOrder').whereIn('state', ['drafting', 'heldOpen']).select('id', 'version');
    const into = act === 'join' ? drafts.slice(0, 1).map((o) => ({ orderId: o.id, version: o.version })) : [];
    const picks = picked.map((n) => ({
      needId: n.id,
      buy: (which % 3 === 0 ? n.open : whole(n.open, n.unit)) as never,
    }));
    // Now and then something for stores rides along, on the line of the same part.
    const rides = { itemId: yard.ids.items[1], supplierId: yard.ids.suppliers[0], quantity: part(1_200_000) };
    const stock = which % 5 === 1 ? [rides] : [];
    return picks.length === 0 ? undefined : draftOrders(await as('buyer'), { once, picks, stock, into });
  }
  if (act === 'cut') {
    const need = pick(await db('need').orderBy('id'));
    if (need === undefined) return undefined;
    const { description, unit, costCodeId, price, supplierId, neededOn } = need;
    const surplus = which % 2 === 0 ? ('stores' as const) : ('job' as const);
    const text = { description, unit, costCodeId, price, supplierId, neededOn: neededOn ?? '', surplus };
    return changeNeed(await as('lead'), {
      needId: need.id,
      version: need.version,
      quantity: whole(need.quantity * 1.3, unit),
      ...text,
    });
  }
  if (act === 'fill') {
    const jobId = yard.ids.jobs[which % 2 === 0 ? 0 : 1];
    const own = (await db('need').where({ jobId }).orderBy('id')).slice(-3).filter((_, k) => (which >> k) % 2 === 0);
    const lines = own.map((n, k) => ({
      needId: n.id,
      version: n.version,
      itemId: n.itemId,
      description: n.description,
      quantity: whole(n.quantity * 1.4, n.unit),
      unit: n.unit,
      costCodeId: yard.ids.codes[(which + k) % 3] ?? n.costCodeId,
      price: which % 5 === 0 ? null : (Math.round(100_000 * share) as never),
      supplierId: which % 7 === 0 ? null : yard.ids.suppliers[(which + k) % 2 === 0 ? 0 : 1],
      neededOn: n.neededOn,
      surplus: which % 4 === 0 ? ('stores' as const) : ('job' as const),
    }));
    const added = which % 3 === 0 ? [typedLine(yard, which, share)] : [];
    return changeBuyList(await as('lead'), { once, jobId, lines: [...lines, ...added] as never });
  }
  if (isOfStores(act)) return tryStores(yard, { act, which, share }, day);
  if (act === 'revise') {
    const quote = pick(await db('quote').where({ state: 'won' }).whereNull('revisedAs').orderBy('id'));
    if (quote === undefined) return tryStep(yard, { act: 'win', which, share }, day);
    const revised = await reviseQuote(await as('lead'), { once, quoteId: quote.id, version: quote.version });
    if (which % 3 === 0) return revised;
    // Mostly it is rewritten and won in its turn.
    await tryStep(yard, { act: 'quote', which, share }, day);
    return tryStep(yard, { act: 'win', which, share }, day);
  }
  if (act === 'quote' || act === 'win') {
    const quote = pick(await db('quote').whereIn('state', ['writing', 'withCustomer']).orderBy('id'));
    if (quote === undefined) return undefined;
    const ref = { once, quoteId: quote.id, version: quote.version };
    const surplus = which % 2 === 0 ? ('stores' as const) : ('job' as const);
    if (act === 'win') return winQuote(await as('manager'), { ...ref, wonBy: 'the customer', surplus });
    const own = await db('quoteLine').where({ quoteId: quote.id }).orderBy('place');
    const kept = own
      .filter((_, k) => which % 5 !== 0 || k !== which % Math.max(own.length, 1))
      .map(({ id, kind, price, optional, ...l }) => ({
        ...typedLine(yard, which + id, share),
        id,
        kind,
        price,
        optional: optional === 1,
        cost: l.cost,
        quantity: whole(l.quantity * 1.5, l.unit),
        unit: l.unit,
      }));
    const { price: cost, ...typed } = typedLine(yard, which, share);
    const kind = (['bought', 'allowance', 'made', 'labour'] as const)[which % 4] ?? 'bought';
    const optional = which % 7 === 0;
    const added = { ...typed, kind, optional, cost: cost ?? 0, price: which % 3 === 0 ? null : 99_900 };
    const lines = which % 2 === 0 ? [...kept, added] : [added, ...kept].slice(0, 5);
    return changeQuote(await as('lead'), { ...ref, after: 0, upTo: own.length, lines: lines as never });
  }
  if (act === 'choose') {
    const need = pick(await db('need').orderBy('id'));
    if (need === undefined) return undefined;
    const needs = [{ needId: need.id, version: need.version }];
    return changeNeeds(await as('buyer'), { needs, supplierId: yard.ids.suppliers[which % 2 === 0 ? 0 : 1] });
  }
  if (act === 'rate') {
    const last = await db('exchangeRate').orderBy('day', 'desc').first();
    if (last === undefined) return undefined;
    const rate = (Number(last.rate) * (0.95 + share / 10)).toFixed(8);
    return saveRate(await as('buyer'), { once, currency: last.currency, day, rate });
  }
  if (['changeInvoice', 'takeOut', 'match'].includes(act)) {
    const invoice = pick(await db('invoice').whereIn('state', ['entered', 'held']).orderBy('id'));
    if (invoice === undefined) return undefined;
    const ref = { once, invoiceId: invoice.id, version: invoice.version };
    if (act === 'takeOut') return voidInvoice(await as('accounts'), { ...ref, reason: 'typed twice' });
    if (act === 'match') return matchInvoice(await as('manager'), { ...ref, reason: 'passed' });
    const lines = await db('invoiceLine').where({ invoiceId: invoice.id }).whereNotNull('lineId');
    const invoiced = lines.map((l) => ({
      lineId: l.lineId ?? 0,
      quantity: part(l.quantity),
      price: l.price,
      taxCodeId: l.taxCodeId,
    }));
    const total = which % 2 === 0 ? invoice.typedTotal : part(invoice.typedTotal);
    return changeInvoice(await as('accounts'), {
      ...ref,
      number: invoice.number,
      day,
      typedTotal: total,
      lines: invoiced,
    });
  }
  const sent = [...BILLABLE];
  const suits: readonly OrderState[] | undefined = {
    send: EDITABLE,
    change: EDITABLE,
    hold: EDITABLE,
    receive: AWAITED,
    takeBack: sent,
    inspect: OPEN_AT_SUPPLIER,
    correct: sent,
    sendBack: sent,
    invoice: sent,
    closeShort: sent,
    endInvoices: sent,
    openAgain: sent,
    elsewhere: sent,
    reorder: OPEN_AT_SUPPLIER,
    reorderHeld: OPEN_AT_SUPPLIER,
    confirm: OPEN_AT_SUPPLIER,
    takeOver: OPEN_AT_SUPPLIER,
    putBack: EDITABLE,
    draftAgain: ['cancelled'] as const,
  }[act as string];
  // Now and then an order that does not suit, which has to be refused.
  const fitting = which % 13 === 0 || suits === undefined ? ORDER_STATES : suits;
  const orders = await db('purchaseOrder').whereIn('state', fitting).orderBy('id').select('id');
  const apt: typeof orders = [];
  for (const o of orders) if ((await yard.order(o.id)).lines.some(suiting(act))) apt.push(o);
  const order = pick(which % 5 !== 0 && apt.length > 0 ? apt : orders);
  if (order === undefined) return undefined;
  const now = await yard.order(order.id);
  const ref = { orderId: now.id, version: now.version };
  const line = pick(now.lines.filter(suiting(act))) ?? pick(now.lines);
  if (act === 'hold') return holdOrder(await as('buyer'), { ...ref, hold: now.state === 'drafting' });
  if (act === 'send') return markSentByHand(await as('buyer'), { once, ...ref });
  if (act === 'cancel') return cancelOrder(await as('buyer'), { once, ...ref, reason: 'no' });
  if (act === 'draftAgain') return draftAgain(await as('buyer'), ref);
  if (act === 'takeBack') {
    const receipt = pick(await db('receipt').where({ orderId: now.id }).select('id'));
    return (
      receipt && reverseReceipt(await as(which % 2 === 0 ? 'storekeeper' : 'manager'), { once, receiptId: receipt.id })
    );
  }
  if (line === undefined) return undefined;
  if (act === 'closeShort') return closeShort(await as('buyer'), { once, ...ref, lineId: line.id, reason: 'no' });
  if (act === 'openAgain')
    return reopenLines(await as('buyer'), { once, ...ref, lineId: line.id, reason: 'after all' });
  if (act === 'elsewhere') {
    const split = pick(line.splits);
    const to = { jobId: yard.ids.jobs[which % 2 === 0 ? 0 : 1], costCodeId: yard.ids.codes[which % 3 === 0 ? 0 : 1] };
    const charged = split === undefined ? [] : [{ id: split.id, ...to }];
    return chargeElsewhere(await as('buyer'), { once, ...ref, splits: charged, reason: 'wrong job' });
  }
  if (act === 'putBack') {
    const needIds = line.splits.flatMap((s) => s.needId ?? []).slice(0, 1 + (which % 2));
    return putBack(await as('buyer'), { once, ...ref, needIds: needIds.length === 0 ? [0] : needIds });
  }
  if (act === 'confirm') {
    const price = which % 3 === 0 ? line.price : (Math.round((line.price ?? 10_000) * (0.8 + share / 3)) as never);
    const said = { lineId: line.id, quantity: whole(line.quantity * 1.2, line.unit), price, promisedOn: '2026-06-12' };
    return confirmOrder(await as('buyer'), { once, ...ref, theirNumber: once, note: '', lines: [said] } as never);
  }
  if (act === 'takeOver') {
    const begun = await beginRevision(await as('buyer'), { once, ...ref, reason: 'As confirmed', asConfirmed: true });
    if (begun.status !== 'done') return begun;
    const { version } = await yard.order(now.id);
    return markSentByHand(await as('buyer'), { once: yard.once(), orderId: now.id, version });
  }
  if (act === 'reorder') return reorder(yard, now, line.id, which, share, day);
  // Down to where what waits at the door may be more than is left of it.
  if (act === 'reorderHeld') return reorder(yard, now, line.id, 2, share / 2 - 0.2, day);
  if (act === 'endInvoices')
    return endInvoices(await as('accounts'), { once, ...ref, lineId: line.id, reason: 'given' });
  if (isOfDock(act)) return tryDock(yard, { act, which, share }, now, line, day);
  if (act === 'invoice') {
    const factor = which % 3 === 0 ? 1 : 0.9 + share / 4;
    const price = Math.round((line.price ?? 0) * factor) as never;
    const lines = [
      {
        lineId: line.id,
        quantity: which % 2 === 0 ? line.quantity : part(line.quantity),
        price,
        taxCodeId: (which % 2) + 1,
      },
    ];
    const to = [
      { kind: 'jobs' as const, costCodeId: yard.ids.codes[2] },
      { kind: 'job' as const, jobId: yard.ids.jobs[1], costCodeId: yard.ids.codes[0] },
      { kind: 'stores' as const },
    ][which % 3] as { kind: 'stores' };
    const extras =
      which % 4 === 0 ? [{ description: 'Fee', net: (which % 8 === 0 ? -777 : 1999) as never, taxCodeId: 2, to }] : [];
    const invoice = { once, orderId: now.id, number: once, day, lines, extras };
    return enterInvoice(await as('accounts'), { ...invoice, typedTotal: part(now.gross + 1) });
  }
  return changeOrder(await as('buyer'), { once, ...ref, ...typedChange(yard, now, line.id, which, share) });
}

/** Lines that an act is made for; most others it is refused on. */
const suiting =
  (act: string) =>
  (l: StoredOrder['lines'][number]): boolean => {
    const ended = l.closedShort !== null || l.invoicesEnded !== null;
    if (act === 'receive' || act === 'correct') return l.kind === 'goods' && (act === 'receive' || l.received > 0);
    if (act === 'openAgain') return ended;
    if (act === 'inspect' || act === 'reorderHeld') return l.held > 0;
    if (act === 'sendBack') return l.received > 0 || l.rejected > 0;
    return (
      act !== 'endInvoices' || (l.kind === 'goods' && !ended && l.received >= l.quantity && l.invoiced < l.received)
    );
  };

/** A revision, begun where none is, rewritten, and mostly sent. */
async function reorder(
  yard: TestCompany,
  order: StoredOrder,
  lineId: number,
  which: number,
  share: number,
  day: Day,
): Promise<Outcome<unknown>> {
  const buyer = await yard.as('buyer', day);
  const ref = async () => ({ orderId: order.id, version: (await yard.order(order.id)).version });
  const begun = await yard.db('orderChange').where({ orderId: order.id }).first();
  if (begun === undefined) await beginRevision(buyer, { once: yard.once(), ...(await ref()), reason: 'The job grew' });
  else if (which % 9 === 0) return dropRevision(buyer, await ref());
  const { number: _, ...typed } = { number: '', ...typedChange(yard, order, lineId, which, share) };
  type Typed = { readonly id?: number; readonly quantity: number; readonly kind: string; readonly unit: string };
  const lines = (
    typed.lines as unknown as (Typed & { readonly splits: readonly { readonly quantity: number }[] })[]
  ).map((l) => {
    const grown = Math.max(10_000, Math.round((l.quantity * (0.6 + share)) / 10_000) * 10_000);
    const [only] = l.splits;
    const scaled = which % 2 === 0 && l.id === lineId && l.kind !== 'charge' && l.splits.length === 1;
    const grows = scaled && only?.quantity === l.quantity;
    return grows ? { ...l, quantity: grown, splits: [{ ...only, quantity: grown }] } : l;
  });
  const kept = which % 11 === 0 && lines.length > 2 ? lines.filter((l) => l.id !== lineId) : lines;
  const changed = await changeRevision(buyer, { once: yard.once(), ...(await ref()), ...typed, lines: kept as never });
  if (changed.status !== 'done' || which % 4 === 0) return changed;
  return markSentByHand(buyer, { once: yard.once(), ...(await ref()) });
}

/** A line of a quote or a buy list as somebody types it: a part, or a few words. */
const typedLine = (yard: TestCompany, which: number, share: number) => ({
  itemId: which % 4 === 0 ? yard.ids.items[1] : null,
  description: `Typed ${which}`,
  quantity: (1 + (which % 40)) * 10_000,
  unit: which % 4 === 0 ? 'MTR' : which % 4 === 1 ? 'HUR' : 'C62',
  costCodeId: yard.ids.codes[which % 3 === 0 ? 0 : which % 3 === 1 ? 1 : 2],
  price: Math.round(333_333 * share),
  supplierId: which % 5 === 0 ? null : yard.ids.suppliers[which % 2 === 0 ? 0 : 1],
  neededOn: which % 2 === 0 ? '' : '2026-06-20',
});
