import type { Day } from '@/core/calendar/workdays';
import { minor, type Minor } from '@/core/money/money';
import { coverage, openOf, plannedOf } from '@/core/needs/coverage';
import { beside, isChanged } from '@/core/planning/changes';
import { GONE } from '@/core/planning/plan';
import { PLANNING, type Planning } from '@/core/planning/netting';
import { may } from '@/core/people/rights';
import { NONE, type Quantity } from '@/core/quantity/quantity';
import { loadCompany } from '@/store/company';
import type { Db } from '@/store/db';
import { boughtOf } from '@/store/needs';
import type { Person } from '@/store/people';
import { asPlanned, below, freshPlan, loadPlan } from '@/workings/buying/plans';
import { loadShortfall, needsOfJob, reservationsOf, sharesOf } from '@/store/planning';
import { among, whereIn } from '@/store/rows';
import { loadFromStock } from '@/store/stock/fromStock';
import { permit } from '../permit';

/** What a line has left to buy by either plan. */
export type AheadLine = {
  readonly needId: number;
  readonly description: string;
  readonly unit: string;
  readonly now: Quantity;
  readonly then: Readonly<Record<Planning, Quantity>>;
};

export type Ahead = {
  /** What is planned of the job by either plan; null without the right to see money. */
  readonly planned: Readonly<Record<Planning, Minor>> | null;
  /** Lines of which either plan leaves more or less to buy than there is now. */
  readonly lines: readonly AheadLine[];
  /** Lines for which something could be reserved now. */
  readonly reservable: readonly number[];
  /** How many branches came out otherwise further up since they were planned. */
  readonly changes: number;
};

/**
 * What planning a job anew would do, in full and by its shortfall: worked out by the functions that do it, with nothing
 * written.
 */
export async function loadAhead(db: Db, person: Person, jobId: number, today: Day): Promise<Ahead> {
  permit(person, 'see jobs');
  const { currency } = await loadCompany(db);
  const { needs, covers } = await loadShortfall(db, await needsOfJob(db, jobId), today);
  const ids = needs.map((n) => n.id);
  const firm = (await whereIn(db, 'reservation', 'needId', ids)).filter((r) => r.firm === 1);
  const fromStock = {
    inFull: await loadFromStock(db, ids, firm),
    shortfall: await loadFromStock(db, ids, [...firm, ...reservationsOf(covers, false)]),
  };
  const planned: Record<Planning, number> = { inFull: 0, shortfall: 0 };
  const lines = needs.flatMap((need): AheadLine[] => {
    const then = { inFull: need.open, shortfall: need.open };
    for (const way of PLANNING) {
      const own = fromStock[way].get(need.id);
      const cover = coverage(need.quantity, need.splits, own);
      then[way] = openOf(cover);
      planned[way] += plannedOf(cover, need, currency, own).planned;
    }
    const same = PLANNING.every((way) => then[way] === need.open);
    return same ? [] : [{ needId: need.id, description: need.description, unit: need.unit, now: need.open, then }];
  });
  const counted = new Set(
    (await db('reservation').whereIn('needId', among(db, ids)).where({ firm: 0 }).select('needId')).map(
      (r) => r.needId,
    ),
  );
  const shares = sharesOf(covers);
  return {
    planned: may(person, 'see money') ? { inFull: minor(planned.inFull), shortfall: minor(planned.shortfall) } : null,
    lines,
    reservable: ids.filter((id) => (shares.get(id) ?? NONE) > 0 || counted.has(id)),
    changes: (await loadPlanChanges(db, person, jobId, today)).reduce((sum, r) => sum + r.changes.length, 0),
  };
}

export type BranchChange = {
  readonly key: string;
  readonly description: string;
  readonly unit: string;
  readonly was: { readonly quantity: Quantity; readonly neededOn: Day | null } | null;
  readonly is: { readonly quantity: Quantity; readonly neededOn: Day | null } | null;
  /** How much of it is drafted, ordered, reserved or issued already. */
  readonly bought: Quantity;
};

export type RootChanges = {
  readonly rootId: number;
  readonly name: string;
  readonly quantity: Quantity;
  readonly changes: readonly BranchChange[];
  /** Why the plan cannot be worked out anew. */
  readonly fault: string | undefined;
};

/**
 * How a job's plan comes out now by the BOMs and dates that hold, beside how it is planned.
 * @param asked - another quantity for what one root makes
 */
export async function loadPlanChanges(
  db: Db,
  person: Person,
  jobId: number,
  today: Day,
  asked?: { readonly rootId: number; readonly quantity: Quantity },
): Promise<RootChanges[]> {
  permit(person, 'see jobs');
  const job = await db('job').where({ id: jobId }).first('startsOn', 'dueOn');
  const all = await loadPlan(db, jobId);
  const found: RootChanges[] = [];
  for (const root of all.filter((l) => l.parentId === null)) {
    const item = await db('item')
      .where({ id: root.itemId ?? 0 })
      .first();
    if (job === undefined || item === undefined) continue;
    const quantity = asked?.rootId === root.id ? asked.quantity : root.quantity;
    const own = below(all, root.id).filter((l) => l.leftOut !== GONE);
    const fresh = await freshPlan(db, job, { item, quantity }, today);
    const pairs = fresh.ok ? beside(asPlanned(own), fresh.value).filter(isChanged) : [];
    const bought = await boughtOf(
      db,
      'planLineId',
      pairs.flatMap(({ was }) => (was === undefined ? [] : (own[was.at]?.id ?? []))),
    );
    found.push({
      rootId: root.id,
      name: root.description,
      quantity,
      fault: fresh.ok ? undefined : fresh.refusals[0]?.message,
      changes: pairs.map(({ key, was, is }) => ({
        key,
        description: (is ?? was)?.description ?? '',
        unit: (is ?? was)?.unit ?? '',
        was: was === undefined ? null : { quantity: was.quantity, neededOn: was.neededOn },
        is: is === undefined ? null : { quantity: is.quantity, neededOn: is.neededOn },
        bought: (was === undefined ? undefined : bought.get(own[was.at]?.id ?? 0)) ?? NONE,
      })),
    });
  }
  return found;
}
