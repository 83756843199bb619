import { LIVE } from '@/core/jobs/states';
import { isGoodsLine } from '@/core/orders/kinds';
import { wantedBy } from '@/core/calendar/lead';
import type { Calendar, Day } from '@/core/calendar/workdays';
import { netting, type Cover, type Requirement, type Source, type Supply } from '@/core/planning/netting';
import { groupBy } from '@/core/group';
import { freeOf } from '@/core/stores/claims';
import { addQ, NONE, quantity, subtractQ, type Quantity } from '@/core/quantity/quantity';
import { exactFactor } from '@/core/quantity/units';
import { openOf, type Coverage } from '@/core/needs/coverage';
import { loadCalendar, loadCompany } from './company';
import type { Db } from './db';
import { loadItems } from './gathering';
import { among, rowsOf } from './rows';
import { loadStoresSplits } from './stock/arriving';
import { claimsOf, sourceKey, type StoredClaim } from './stock/claims';
import { loadOverOfJobs, loadPiles, pileKey } from './stock/piles';
import { loadNeedStates, type NeedState } from './tab/needs';
import type { Reservation } from './tables';

const columnsOf = (source: Source) => ({
  placeId: source.kind === 'stock' ? source.placeId : null,
  jobId: source.kind === 'stock' ? source.jobId : null,
  splitId: source.kind === 'coming' ? source.splitId : null,
});

/**
 * What is there of these items, and coming, that nobody has a claim on.
 * @param without - claims that are left out of it, as they are about to be made anew
 */
export async function loadSupplies(
  db: Db,
  itemIds: readonly number[],
  today: Day,
  without: (claim: StoredClaim) => boolean = () => false,
): Promise<Supply[]> {
  const items = [...new Set(itemIds)];
  if (items.length === 0) return [];
  const taken = groupBy(
    (await claimsOf(db, items)).filter((c) => !without(c)),
    sourceKey,
  );
  const free = (source: Source, itemId: number, there: Quantity): Supply => ({
    source,
    itemId,
    free: freeOf(
      there,
      (taken.get(sourceKey({ itemId, ...columnsOf(source) })) ?? []).map((c) => c.quantity),
    ),
  });
  const over = await loadOverOfJobs(db, items);
  const piles = (await loadPiles(db, items)).map((p) =>
    p.jobId === 0
      ? free({ kind: 'stock', placeId: p.placeId, jobId: null }, p.itemId, p.quantity)
      : free({ kind: 'stock', placeId: p.placeId, jobId: p.jobId }, p.itemId, over.get(pileKey(p)) ?? NONE),
  );
  const coming = (await loadStoresSplits(db, 'itemId', items))
    .filter((s) => s.toCome > 0)
    .map((s) =>
      // What was to come by now can come today at the earliest.
      free(
        { kind: 'coming', splitId: s.splitId, on: s.on === null || s.on > today ? s.on : today },
        s.itemId,
        s.toCome,
      ),
    );
  return [...piles, ...coming].filter((s) => s.free > 0);
}

/** A need as netting sees it; undefined where stores cannot cover it. */
export function requirementOf(
  need: NeedState,
  coverage: Coverage,
  unit: string | undefined,
  receivingDays: number,
  calendar: Calendar,
): Requirement | undefined {
  if (need.itemId === null || unit === undefined || !isGoodsLine(need)) return undefined;
  const factor = exactFactor(unit, need.unit);
  const open = openOf(coverage);
  if (factor === undefined || open === 0) return undefined;
  const by = need.neededOn === null ? null : wantedBy(need.neededOn, receivingDays, calendar);
  return { needId: need.id, itemId: need.itemId, jobId: need.jobId, by, open, factor };
}

export type Shortfall = {
  readonly needs: readonly NeedState[];
  /** What stores and incoming orders would cover of them, were they planned anew now. */
  readonly covers: readonly Cover[];
};

/** What stores and incoming orders would cover of needs if they were planned anew: what plans count on now gives way. */
export async function loadShortfall(db: Db, needIds: readonly number[], today: Day): Promise<Shortfall> {
  const needs = await loadNeedStates(db, needIds);
  const ids = new Set(needs.map((n) => n.id));
  const itemIds = needs.flatMap((n) => n.itemId ?? []);
  const items = await loadItems(db, itemIds);
  const calendar = await loadCalendar(db);
  const { receivingDays } = await loadCompany(db);
  const counted = (claim: StoredClaim) => !claim.firm && ids.has(claim.needId);
  const own = groupBy((await claimsOf(db, [...new Set(itemIds)])).filter(counted), (c) => c.needId);
  const requirements = needs.flatMap((need) => {
    const without = addQ(NONE, ...(own.get(need.id) ?? []).map((c) => c.share));
    const reserved = subtractQ(need.coverage.reserved, without);
    const unit = items.get(need.itemId ?? 0)?.unit;
    return requirementOf(need, { ...need.coverage, reserved }, unit, receivingDays, calendar) ?? [];
  });
  return { needs, covers: netting(requirements, await loadSupplies(db, itemIds, today, counted)) };
}

const rowOf = ({ needId, itemId, source, quantity: q, share }: Cover, firm: boolean): Omit<Reservation, 'id'> => ({
  needId,
  itemId,
  ...columnsOf(source),
  quantity: q,
  share,
  firm: Number(firm),
});

/** Rows of what is taken, as it is kept. */
export const reservationsOf = (covers: readonly Cover[], firm: boolean): Omit<Reservation, 'id'>[] =>
  covers.map((c) => rowOf(c, firm));

/** Takes back what plans count on for needs. */
export const dropCounted = (trx: Db, needIds: readonly number[]): Promise<number> =>
  trx('reservation').whereIn('needId', among(trx, needIds)).where({ firm: 0 }).delete();

/** What of live jobs that buy their shortfall is left to buy, or is counted on. */
export const needsToPlan = async (db: Db): Promise<number[]> =>
  (
    await rowsOf<{ id: number }>(
      db('need as n')
        .join('job as j', 'j.id', 'n.jobId')
        .where({ 'j.state': LIVE, 'j.planning': 'shortfall' })
        .whereRaw('(n.open > 0 or exists (select 1 from reservation r where r.need_id = n.id and r.firm = 0))')
        .select('n.id'),
    )
  ).map((n) => n.id);

const claimKey = (r: Omit<Reservation, 'id'>): string =>
  [r.itemId, r.placeId, r.jobId, r.splitId, r.quantity, r.share].join();

/** Needs for which other stock or deliveries would be counted on than are now. */
export async function movedNeeds(
  db: Db,
  needIds: readonly number[],
  fresh: readonly Omit<Reservation, 'id'>[],
): Promise<number[]> {
  const now = await db('reservation').whereIn('needId', among(db, needIds)).where({ firm: 0 });
  const told = (rows: readonly Omit<Reservation, 'id'>[]) =>
    new Map([...groupBy(rows, (r) => r.needId)].map(([id, own]) => [id, own.map(claimKey).sort().join(';')]));
  const [before, after] = [told(now), told(fresh)];
  return needIds.filter((id) => before.get(id) !== after.get(id));
}

export const needsOfJob = async (db: Db, jobId: number): Promise<number[]> =>
  (await db('need').where({ jobId }).select('id')).map((n) => n.id);

export const sharesOf = (covers: readonly Cover[]): Map<number, Quantity> => {
  const shares = new Map<number, Quantity>();
  for (const { needId, share } of covers) shares.set(needId, addQ(shares.get(needId) ?? quantity(0), share));
  return shares;
};
