import { datesOf, spanOf } from '@/core/boms/dates';
import { explode } from '@/core/boms/explode';
import type { BomBranch } from '@/core/boms/bom';
import type { Bom, Boms } from '@/core/boms/bom';
import { groupBy } from '@/core/group';
import type { Calendar, Day } from '@/core/calendar/workdays';
import type { Quantity } from '@/core/quantity/quantity';
import { done, refusal, refused, type Result } from '@/core/result';
import type { Planned } from '@/core/planning/changes';
import { findBom } from '@/store/boms';
import { loadCalendar } from '@/store/company';
import type { Db } from '@/store/db';
import type { Item, Job, PlanLineRow } from '@/store/tables';

/** A branch as its BOM has it now, not written down yet. */
export type FreshLine = Planned &
  Pick<PlanLineRow, 'bomId' | 'bomLineId' | 'gotBy' | 'startsOn'> & { readonly part: BomBranch | undefined };

export type ToMake = { readonly item: Item; readonly quantity: Quantity };

/**
 * What a job that makes so many of an item takes by the BOMs that hold at its start: the made item itself first, then
 * every branch of its BOM, with the day it is needed.
 */
export async function freshPlan(
  db: Db,
  job: Pick<Job, 'startsOn' | 'dueOn'>,
  { item, quantity }: ToMake,
  today: Day,
): Promise<Result<FreshLine[]>> {
  const found = await findBom(db, item.id, job.startsOn ?? today);
  if (found === undefined)
    return refused(
      refusal('plan.bom', `${item.number} has no bill of materials valid on that date. Create one first.`, 'itemId'),
    );
  return planFrom(found.bom, found.boms, job, { item, quantity }, await loadCalendar(db));
}

function planFrom(
  bom: Bom,
  boms: Boms,
  job: Pick<Job, 'startsOn' | 'dueOn'>,
  { item, quantity }: ToMake,
  calendar: Calendar,
): Result<FreshLine[]> {
  const exploded = explode(bom, quantity, boms);
  if (!exploded.ok) return exploded;
  const parts = exploded.value;
  const span = spanOf({ startsOn: job.startsOn, endsOn: job.dueOn }, bom.makingDays, calendar);
  const days = datesOf(parts, span, calendar);
  const top: FreshLine = {
    at: 0,
    parent: undefined,
    itemId: item.id,
    description: item.name,
    unit: item.unit,
    quantity,
    neededOn: span.endsOn,
    startsOn: span.startsOn,
    bomId: bom.id,
    bomLineId: null,
    gotBy: 'made',
    part: undefined,
  };
  return done([
    top,
    ...parts.map((part, k): FreshLine => {
      const { line } = part;
      return {
        at: k + 1,
        parent: part.parent === undefined ? 0 : part.parent + 1,
        itemId: line.itemId,
        description: line.description,
        unit: line.unit,
        quantity: part.quantity,
        neededOn: days[k]?.neededOn ?? null,
        startsOn: days[k]?.startsOn ?? null,
        bomId: part.bom?.id ?? null,
        bomLineId: line.id,
        gotBy: line.gotBy,
        part,
      };
    }),
  ]);
}

/** The branches of a job's plan, each after the one above it and in the order of its BOM. */
export async function loadPlan(db: Db, jobId: number): Promise<PlanLineRow[]> {
  const under = groupBy(await db('planLine').where({ jobId }).orderBy('place').orderBy('id'), (l) => l.parentId);
  const open = (under.get(null) ?? []).toReversed();
  const lines: PlanLineRow[] = [];
  for (let next = open.pop(); next !== undefined; next = open.pop()) {
    lines.push(next);
    open.push(...(under.get(next.id) ?? []).toReversed());
  }
  return lines;
}

/** The part of a job's plan that one made item heads. */
export function below(lines: readonly PlanLineRow[], rootId: number): PlanLineRow[] {
  const ids = new Set([rootId]);
  return lines.filter((l) => {
    const own = ids.has(l.id) || ids.has(l.parentId ?? 0);
    if (own) ids.add(l.id);
    return own;
  });
}

/** The same as it is compared with a fresh one. */
export function asPlanned(lines: readonly PlanLineRow[]): Planned[] {
  const at = new Map(lines.map((l, k) => [l.id, k]));
  return lines.map(({ parentId, itemId, description, unit, quantity, neededOn }, k) => ({
    at: k,
    parent: at.get(parentId ?? 0),
    itemId,
    description,
    unit,
    quantity,
    neededOn,
  }));
}
