import { z } from 'zod';
import type { Day } from '@/core/calendar/workdays';
import { groupBy } from '@/core/group';
import { formatMoney, formatPrice, minor, subtract, ZERO, type Minor } from '@/core/money/money';
import { orderTotals } from '@/core/orders/order';
import { JOINABLE, type OrderState } from '@/core/orders/states';
import { type Quantity } from '@/core/quantity/quantity';
import { quantitySchema } from '@/core/quantity/schema';
import { formatQuantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import type { Refusal } from '@/core/result';
import { breakAhead } from '@/core/sourcing/ahead';
import { belowMinimumOrder, carriageOf, toFreeCarriage, type PlannedLine } from '@/core/sourcing/bundle';
import { loadTaxCodes } from '@/store/company';
import type { StockPick } from '@/workings/orders/planOrders';
import type { Db } from '@/store/db';
import { among, whereIn, rowsOf } from '@/store/rows';
import type { NeedRow } from '@/store/tables';
import type { Person } from '@/store/people';
import { gatherEffects, type NamedEffect } from '@/workings/orders/effects';
import { permit } from '../permit';

export const askSchema = z.object({
  picks: z.array(z.object({ needId: z.number().int(), buy: quantitySchema })).max(2000),
  /** What is bought for stores beside. */
  stock: z
    .array(z.object({ itemId: z.number().int(), supplierId: z.number().int(), quantity: quantitySchema }))
    .max(200)
    .default([]),
  /** By supplier, the draft that the lines join, or 0 for a new order; where none is said, a draft that is held open. */
  joins: z.record(z.string(), z.number().int()),
});

export type Draft = {
  readonly id: number;
  readonly version: number;
  readonly number: string;
  readonly net: Minor;
  readonly state: OrderState;
};

export type BundleView = {
  readonly supplierId: number;
  readonly supplier: string;
  readonly currency: string;
  /** Drafts for this supplier that are still open, those held open first. */
  readonly drafts: readonly Draft[];
  readonly into: Draft | null;
  /** What the picks add to it, or the whole of a new order. */
  readonly adds: Minor;
  /** Of the whole order as it will be. */
  readonly goods: Minor;
  readonly carriage: Minor;
  readonly freeFrom: Minor | null;
  /** What the goods lack to free carriage; null where there is none to be had. */
  readonly toFree: Minor | null;
  /** How far the order is from the smallest that its supplier takes; 0 where it is not. */
  readonly belowMinimum: Minor;
  /** Price breaks that are near, or that make the line cheaper, in words. */
  readonly breaks: readonly { readonly words: string; readonly saves: boolean }[];
  readonly lines: number;
  readonly jobs: readonly string[];
  /** How many of them should have been ordered before today. */
  readonly late: number;
  /** What minimum and pack add, in words. */
  readonly added: readonly string[];
  /** Lines that have no price yet. */
  readonly unpriced: number;
};

export type GatherView = {
  readonly bundles: readonly BundleView[];
  readonly effects: readonly NamedEffect[];
  readonly refusals: readonly Refusal[];
};

/** What the picks would make, told for the page: the orders, and what they do to each budget. */
export async function loadGatherPreview(
  db: Db,
  person: Person,
  today: Day,
  { picks, stock = [], joins }: Omit<z.output<typeof askSchema>, 'stock'> & { readonly stock?: readonly StockPick[] },
): Promise<GatherView> {
  permit(person, 'draft orders');
  const drafts = await openDrafts(db, picks, stock);
  const chosen = (supplierId: number, own: readonly Draft[]) => {
    const said = joins[supplierId];
    return said === undefined ? own.find((d) => d.state === 'heldOpen') : own.find((d) => d.id === said);
  };
  const into = new Map([...drafts].map(([supplierId, own]) => [supplierId, chosen(supplierId, own)]));
  const { plan, effects } = await gatherEffects(
    db,
    picks,
    today,
    [...into.values()].flatMap((d) => d?.id ?? []),
    stock,
  );
  const codes = await loadTaxCodes(db);
  const jobs = new Map(
    (
      await whereIn(
        db,
        'job',
        'id',
        plan.needs.map((n) => n.jobId),
      )
    ).map((j) => [j.id, j.number]),
  );
  const late = new Set<number | null>(
    plan.needs.filter((n) => n.orderBy !== null && n.orderBy < today).map((n) => n.id),
  );
  const measured = (q: Quantity, unit: string) => `${formatQuantity(q)} ${unitOf(unit).short}`.trim();
  const bundles = plan.orders.map(({ supplier, bundle, into: order, goods, lines }): BundleView => {
    const totals = orderTotals(lines, codes, supplier.currency);
    const splits = bundle.lines.flatMap((l) => l.splits);
    const added = bundle.lines.flatMap((l, k) => {
      if (l.added === 0) return [];
      const goesTo = l.splits.some((s) => s.jobId === null) ? 'stores' : 'the job';
      return [
        `${goods[k]?.description}: ${measured(l.amount.quantity, l.unit)} ordered; ${measured(l.added, l.shareUnit)} surplus to ${goesTo}`,
      ];
    });
    return {
      supplierId: supplier.id,
      supplier: supplier.name,
      currency: supplier.currency,
      drafts: drafts.get(supplier.id) ?? [],
      into: into.get(supplier.id) ?? null,
      adds: subtract(totals.net, order?.net ?? ZERO),
      goods: totals.lines,
      carriage: totals.charges,
      freeFrom: supplier.carriageFreeFrom,
      toFree: toFreeCarriage(totals.lines, carriageOf(supplier)),
      belowMinimum: belowMinimumOrder(totals.lines, supplier.minimumOrder),
      breaks: bundle.lines.flatMap((l, k) => breakWords(l, goods[k]?.description ?? '', supplier.currency)),
      lines: bundle.lines.length,
      jobs: [...new Set(splits.flatMap((s) => (s.jobId === null ? [] : [jobs.get(s.jobId) ?? ''])))].sort(),
      late: splits.filter((s) => late.has(s.needId)).length,
      added,
      unpriced: bundle.lines.filter((l) => l.price === null).length,
    };
  });
  return { bundles: bundles.sort((a, b) => a.supplierId - b.supplierId), effects, refusals: plan.refusals };
}

function breakWords(line: PlannedLine, name: string, currency: string): { words: string; saves: boolean }[] {
  const ahead = breakAhead(line.amount.quantity, line.terms, currency);
  if (ahead === undefined) return [];
  const { more, reached, costs } = ahead;
  const each = `${formatPrice(reached.price, currency)}${reached.priceQuantity > 1 ? ` per ${reached.priceQuantity}` : ''}`;
  const all = formatMoney(minor(Math.abs(costs)), currency);
  const what = `${formatQuantity(more)} ${unitOf(line.unit).short}`.trim();
  const words = `${name}: ${what} more reaches the ${each} break, ${all} ${costs < 0 ? 'less' : 'more'} in total`;
  return [{ words, saves: costs < 0 }];
}

/** The drafts that picks could join, by supplier. One in another currency than its supplier has now takes no more lines. */
async function openDrafts(
  db: Db,
  picks: readonly { readonly needId: number }[],
  stock: readonly StockPick[],
): Promise<Map<number, Draft[]>> {
  const needIds = picks.map((p) => p.needId);
  const needs = await rowsOf<Pick<NeedRow, 'supplierId'>>(
    db('need').whereIn('id', among(db, needIds)).distinct('supplierId'),
  );
  const suppliers = [...needs, ...stock].flatMap((n) => n.supplierId ?? []);
  const rows = await rowsOf<Draft & { supplierId: number }>(
    db('purchaseOrder as o')
      .join('supplier as s', 's.id', 'o.supplierId')
      .whereIn('o.supplierId', among(db, suppliers))
      .whereIn('o.state', JOINABLE)
      .whereRaw('o.currency = s.currency')
      .orderByRaw("o.state = 'heldOpen' desc, o.id desc")
      .select('o.id', 'o.version', 'o.number', 'o.net', 'o.state', 'o.supplierId'),
  );
  return groupBy(rows, (r) => r.supplierId);
}

export type SupplierTerms = {
  readonly id: number;
  readonly leadDays: number;
  readonly carriage: Minor;
  readonly carriageFreeFrom: Minor | null;
  readonly currency: string;
};

/** What Gather offers to filter by, and the terms of every supplier. */
export async function loadGatherForm(db: Db, person: Person) {
  permit(person, 'draft orders');
  return {
    terms: await rowsOf<SupplierTerms>(
      db('supplier').select('id', 'leadDays', 'carriage', 'carriageFreeFrom', 'currency'),
    ),
  };
}
