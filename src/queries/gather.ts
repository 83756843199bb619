import { z } from 'zod';
import type { Minor } from '@/core/money/money';
import { quantitySchema, type Quantity } from '@/core/quantity/quantity';
import { formatQuantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import type { Refusal } from '@/core/result';
import type { Db } from '@/store/connection';
import { whereIn } from '@/store/rows';
import type { Person } from '@/store/people';
import { previewGather, type NamedEffect } from './effects';
import { permit } from './permit';

export const picksSchema = z.array(z.object({ needId: z.number().int(), buy: quantitySchema })).max(2000);

export type BundleView = {
  readonly supplierId: number;
  readonly supplier: string;
  readonly currency: string;
  readonly goods: Minor;
  readonly carriage: Minor;
  readonly freeFrom: Minor | null;
  readonly lines: number;
  readonly jobs: readonly string[];
  readonly needIds: readonly number[];
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
  picks: z.output<typeof picksSchema>,
): Promise<GatherView> {
  const { plan, effects } = await previewGather(db, person, picks);
  const jobs = new Map(
    (
      await whereIn<{ id: number; number: string }>(
        db,
        'job',
        'id',
        plan.needs.map((n) => n.jobId),
      )
    ).map((j) => [j.id, j.number]),
  );
  const measured = (q: Quantity, unit: string) => `${formatQuantity(q)} ${unitOf(unit).short}`.trim();
  const bundles = plan.orders.map(({ supplier, bundle, lines }): BundleView => {
    const splits = bundle.lines.flatMap((l) => l.splits);
    const added = bundle.lines.flatMap((l, k) => {
      if (l.added === 0) return [];
      const needUnit = plan.needs.find((n) => n.id === l.splits[0]?.needId)?.unit ?? l.unit;
      const goesTo = l.splits.some((s) => s.jobId === null) ? 'stores' : 'the job';
      return [
        `${lines[k]?.description}: ${measured(l.amount.quantity, l.unit)} ordered, ${measured(l.added, needUnit)} more than needed goes to ${goesTo}`,
      ];
    });
    return {
      supplierId: supplier.id,
      supplier: supplier.name,
      currency: supplier.currency,
      goods: bundle.goods,
      carriage: bundle.carriage,
      freeFrom: supplier.carriageFreeFrom,
      lines: bundle.lines.length,
      jobs: [...new Set(splits.flatMap((s) => (s.jobId === null ? [] : [jobs.get(s.jobId) ?? ''])))].sort(),
      needIds: splits.flatMap((s) => s.needId ?? []),
      added,
      unpriced: bundle.lines.filter((l) => l.price === null).length,
    };
  });
  return { bundles: bundles.sort((a, b) => a.supplierId - b.supplierId), effects, refusals: plan.refusals };
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
    jobs: (await db('job').where({ state: 'live' }).orderBy('number').select('number', 'shortName')) as {
      number: string;
      shortName: string;
    }[],
    terms: (await db('supplier').select(
      'id',
      'leadDays',
      'carriage',
      'carriageFreeFrom',
      'currency',
    )) as SupplierTerms[],
  };
}
