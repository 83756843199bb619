import { isCharge } from '@/core/orders/kinds';
import type { Day } from '@/core/calendar/workdays';
import { WAITING, type InvoiceState } from '@/core/invoices/states';
import { draftFaults, isShareOfLines, orderTotals, valueOrder, type Valued } from '@/core/orders/order';
import { asConfirmed } from '@/core/orders/confirming';
import { cancelledLines, numbersOf } from '@/core/orders/numbering';
import {
  invoicedChargeFaults,
  orderChanges,
  revisionFaults,
  type OrderChange,
  type SentLine,
  type ToldOrder,
} from '@/core/orders/revising';
import { addQ, NONE, type Quantity } from '@/core/quantity/quantity';
import { done, refused, type Result } from '@/core/result';
import { loadMoney, type LineToSave, type StoredOrder } from '@/store/orders';
import type { Db } from '@/store/db';
import { among, whereIn, rowsOf } from '@/store/rows';
import { settleLines, type TypedLine } from './settleLines';
import type { DeliveryPlace, OrderHead } from '@/store/tables';
import { tellOrder, type Tellable } from './orderInWords';

/** What a revision says, as it is typed: the terms, and all lines as they are to be. */
export type RevisionContent = Pick<
  OrderHead,
  'placeId' | 'wantedOn' | 'latestOn' | 'carrier' | 'carrierService' | 'siteContact' | 'instructions'
> & { readonly lines: readonly TypedLine[] };

export type RevisedOrder = OrderHead & {
  readonly lines: readonly (Valued<LineToSave> & { readonly number: number })[];
};

/** A revision that is being written. */
export type Revision = {
  readonly reason: string;
  readonly at: string;
  readonly content: RevisionContent;
};

export async function findRevision(db: Db, orderId: number): Promise<Revision | undefined> {
  const row = await db('orderChange').where({ orderId }).first();
  return row && { reason: row.reason, at: row.at, content: JSON.parse(row.content) as RevisionContent };
}

/** An order as a revision of it begins: as it was sent. */
export const contentOf = (order: StoredOrder): RevisionContent => ({
  placeId: order.placeId,
  wantedOn: order.wantedOn,
  latestOn: order.latestOn,
  carrier: order.carrier,
  carrierService: order.carrierService,
  siteContact: order.siteContact,
  instructions: order.instructions,
  lines: order.lines.map((l): TypedLine => ({
    id: l.id,
    kind: l.kind,
    itemId: l.itemId,
    description: l.description,
    ourNumber: l.ourNumber,
    theirNumber: l.theirNumber,
    quantity: l.quantity,
    unit: l.unit,
    price: isShareOfLines(l) ? null : (l.grossPrice ?? l.price),
    priceQuantity: l.priceQuantity,
    discount: l.discount,
    free: l.free,
    note: l.note,
    taxCodeId: l.taxCodeId,
    wantedOn: l.wantedOn,
    placeId: l.placeId,
    chargeKind: l.chargeKind,
    chargeCodeId: l.chargeCodeId,
    spread: l.spread,
    splits: l.splits.map((s) => ({
      id: s.id,
      jobId: s.jobId,
      costCodeId: s.costCodeId,
      quantity: s.quantity,
      amount: s.amount,
    })),
  })),
});

/** A revision that says what the supplier confirmed, where that is something else than was ordered. */
export function contentAsConfirmed(order: StoredOrder): RevisionContent {
  const content = contentOf(order);
  const lines = content.lines.map((line, k) => {
    const stored = order.lines[k];
    if (stored === undefined || isCharge(stored) || stored.confirmed === null) return line;
    const { quantity, price, wantedOn, parts } = asConfirmed(stored);
    const splits = line.splits
      .map((s, n) => ({ ...s, quantity: parts[n] ?? s.quantity }))
      .filter((s) => s.quantity > 0);
    return { ...line, quantity, wantedOn, splits, ...(price === undefined ? {} : { price, discount: 0 }) };
  });
  return { ...content, lines };
}

/** The order as a revision has it, worked out as sending it does; refused when something stands against that. */
export async function revise(
  db: Db,
  order: StoredOrder,
  { lines: typed, ...terms }: RevisionContent,
  today: Day,
): Promise<Result<RevisedOrder>> {
  const settled = await settleLines(db, order, typed, today);
  if (!settled.ok) return settled;
  const sent = await sentLines(db, order);
  const faults = [...draftFaults(settled.value, order.currency), ...revisionFaults(sent, settled.value)];
  if (faults.length > 0) return refused(...faults);
  const { codes, companyCurrency } = await loadMoney(db);
  const { currency, rate } = order;
  const lines = valueOrder(settled.value, codes, { currency, companyCurrency, rate });
  const loose = invoicedChargeFaults(sent, lines);
  if (loose.length > 0) return refused(...loose);
  const { net, gross } = orderTotals(settled.value, codes, currency);
  const numbers = numbersOf(lines, order);
  return done({ ...order, ...terms, net, gross, lines: lines.map((l, k) => ({ ...l, number: numbers[k] ?? 0 })) });
}

async function sentLines(db: Db, order: StoredOrder): Promise<SentLine[]> {
  const ids = order.lines.map((l) => l.id);
  const invoices = await rowsOf<{ lineId: number; quantity: Quantity; state: InvoiceState }>(
    db('invoiceLine as b')
      .join('invoice as i', 'i.id', 'b.invoiceId')
      .whereIn('b.lineId', among(db, ids))
      .select('b.lineId', 'b.quantity', 'i.state'),
  );
  const receipts = await whereIn(db, 'receiptLine', 'lineId', ids);
  const claimed = (id: number) => invoices.filter((b) => b.lineId === id && WAITING.includes(b.state));
  return order.lines.map((l) => ({
    ...l,
    claimed: addQ(NONE, ...claimed(l.id).map((b) => b.quantity)),
    traced: [...invoices, ...receipts].some((r) => r.lineId === l.id),
    ended: l.closedShort !== null || l.invoicesEnded !== null,
  }));
}

/** The places that orders and their lines go to. */
export async function placesOf(db: Db, ...orders: readonly Tellable[]): Promise<ReadonlyMap<number, DeliveryPlace>> {
  const ids = orders.flatMap((o) => [o.placeId, ...o.lines.flatMap((l) => l.placeId ?? [])]);
  return new Map((await whereIn(db, 'deliveryPlace', 'id', ids)).map((p) => [p.id, p]));
}

/** Lines that went out with an order, and that it has no more; those of before lines kept their numbers are not told. */
export async function cancelledFrom(
  db: Db,
  { id: orderId, lines }: { readonly id: number; readonly lines: Tellable['lines'] },
): Promise<ToldOrder['lines']> {
  const sent = await db('orderRevision').where({ orderId }).orderBy('number').select('sent');
  const told = (json: string) => (JSON.parse(json) as ToldOrder).lines.filter((l) => 'number' in l);
  return cancelledLines(
    sent.map((s) => told(s.sent)),
    lines,
  );
}

/** What differs between an order as it was sent and as a revision has it. */
export async function changesBetween(db: Db, sent: Tellable, revised: Tellable, today: Day): Promise<OrderChange[]> {
  const places = await placesOf(db, sent, revised);
  return orderChanges(tellOrder(sent, places, today), tellOrder(revised, places, today));
}
