import type { Day } from '@/core/calendar/workdays';
import { checksOf, type Check } from '@/core/orders/checks';
import type { OrderChange } from '@/core/orders/revising';
import { draftFaults, orderTotals, valueOrder, type OrderLine } from '@/core/orders/order';
import { loadCalendar } from '@/store/company';
import type { Db } from '@/store/db';
import { loadItems, loadParts, loadSuppliers, partKey } from '@/store/gathering';
import { loadLeads } from '@/store/leads';
import { findOrderNumbered, loadMoney, type StoredOrder } from '@/store/orders';
import { changesBetween, findRevision, revise, type RevisionContent } from '@/workings/orders/revise';
import type { Person } from '@/store/people';
import { among, rowsOf } from '@/store/rows';
import { settleLines, type TypedLine } from '@/workings/orders/settleLines';
import type { Supplier } from '@/store/tables';
import { orderEffects, revisionEffects, type NamedEffect } from '@/workings/orders/effects';
import { permit } from '../permit';
import { loadSigning, type SignView } from '../signoff/signOff';

export type OrderPreview = {
  readonly checks: readonly Check[];
  /** What it would do to each budget; undefined while something on it is not right yet. */
  readonly effects?: readonly NamedEffect[];
  /** What a revision changes, line by line. */
  readonly changes?: readonly OrderChange[];
  /** What it will take before it is sent. */
  readonly signing?: SignView;
};

/** What a draft would do if it were saved with these lines, worked out as saving it does, without writing anything. */
export async function previewOrder(
  db: Db,
  person: Person,
  number: string,
  typed: readonly TypedLine[],
  today: Day,
): Promise<OrderPreview | undefined> {
  permit(person, 'draft orders');
  permit(person, 'see money');
  const order = await findOrderNumbered(db, number);
  if (order === undefined) return undefined;
  const supplier = (await loadSuppliers(db, [order.supplierId])).get(order.supplierId) as Supplier;
  const revision = await findRevision(db, order.id);
  if (revision !== undefined)
    return previewRevision(db, person, order, { ...revision.content, lines: typed }, supplier, today);
  const settled = await settleLines(db, order, typed, today);
  const faults = settled.ok ? draftFaults(settled.value, order.currency) : settled.refusals;
  if (!settled.ok || faults.length > 0) return { checks: faults.map((f) => ({ good: false, words: f.message })) };
  const { codes, companyCurrency } = await loadMoney(db);
  const { currency, rate } = order;
  const lines = valueOrder(settled.value, codes, { currency, companyCurrency, rate });
  const effects = await orderEffects(db, order, lines);
  const signing = await loadSigning(db, person, order, { lines, effects }, today);
  return {
    checks: [...signing.checks, ...(await checkLines(db, order, settled.value, supplier, today))],
    effects,
    signing: signing.view,
  };
}

/** The same for a revision that is being written: what sending it would move. */
async function previewRevision(
  db: Db,
  person: Person,
  order: StoredOrder,
  content: RevisionContent,
  supplier: Supplier,
  today: Day,
): Promise<OrderPreview> {
  const revised = await revise(db, order, content, today);
  if (!revised.ok) return { checks: revised.refusals.map((f) => ({ good: false, words: f.message })) };
  const { lines } = revised.value;
  const effects = await revisionEffects(db, order, lines);
  const signing = await loadSigning(db, person, order, { lines, effects }, today);
  return {
    checks: [...signing.checks, ...(await checkLines(db, order, newlyAsked(order, lines), supplier, today))],
    effects,
    signing: signing.view,
    changes: await changesBetween(db, order, revised.value, today),
  };
}

/** Lines of a revision, those that were asked for a day before without it: whether they come by then shows by now. */
export const newlyAsked = <L extends CheckedLine & { readonly id?: number }>(
  order: StoredOrder,
  lines: readonly L[],
): L[] => {
  const sent = new Map(order.lines.map((l) => [l.id, l.wantedOn]));
  return lines.map((l) => (l.id !== undefined && sent.get(l.id) === l.wantedOn ? { ...l, wantedOn: null } : l));
};

type CheckedLine = OrderLine & { readonly itemId: number | null; readonly wantedOn: Day | null };

/** What deserves a look on an order with these lines. */
export async function checkLines(
  db: Db,
  { currency }: { readonly currency: string },
  lines: readonly CheckedLine[],
  supplier: Supplier,
  today: Day,
): Promise<Check[]> {
  const parts = await loadParts(
    db,
    lines.flatMap((l) => l.itemId ?? []),
    today,
  );
  const calendar = await loadCalendar(db);
  const leads = await loadLeads(db, [supplier.id]);
  const leadOf = (itemId: number | null) =>
    leads(supplier.id, parts.get(partKey(supplier.id, itemId))) ?? { days: 0, calendar };
  const { codes } = await loadMoney(db);
  const asked = await partsAsked(db, lines);
  const early = await notAccepted(db, lines);
  return checksOf({
    lines: lines.map((l) => ({ ...l, lead: leadOf(l.itemId), insteadOf: asked(l), notAccepted: early(l) })),
    supplier,
    goods: orderTotals(lines, codes, currency).lines,
    currency,
    today,
    calendar,
  });
}

/** Which part the needs that a line covers ask for, where that is another than the line's. */
async function partsAsked(db: Db, lines: readonly CheckedLine[]): Promise<(line: CheckedLine) => string | undefined> {
  const needIds = lines.flatMap((l) => l.splits.flatMap((s) => s.needId ?? []));
  const rows = await db('need').whereIn('id', among(db, needIds)).select('id', 'itemId');
  const needs = new Map(rows.map((n) => [n.id, n.itemId]));
  const askedBy = (line: CheckedLine) =>
    line.splits.map((s) => needs.get(s.needId ?? 0)).find((id) => id != null && id !== line.itemId) ?? 0;
  const items = await loadItems(db, lines.map(askedBy));
  return (line) => items.get(askedBy(line))?.number;
}

/** The quotes that a line is bought for before their customers said yes. */
async function notAccepted(db: Db, lines: readonly CheckedLine[]) {
  const needIds = lines.flatMap((l) => l.splits.flatMap((s) => s.needId ?? []));
  const rows = await rowsOf<{ needId: number; quote: string; reason: string; who: string }>(
    db('need as n')
      .join('quoteLine as l', 'l.id', 'n.quoteLineId')
      .join('quote as q', 'q.id', 'l.quoteId')
      .join('person as p', 'p.id', 'q.earlyBy')
      .whereIn('n.id', among(db, needIds))
      .whereRaw('l.agreed is not 1')
      .select({ needId: 'n.id', quote: 'q.number', reason: 'q.earlyReason', who: 'p.name' }),
  );
  const early = new Map(rows.map((r) => [r.needId, r]));
  return (line: CheckedLine) => line.splits.flatMap((s) => early.get(s.needId ?? 0) ?? []);
}
