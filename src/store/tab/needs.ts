import type { Day } from '@/core/calendar/workdays';
import { groupBy } from '@/core/group';
import type { LostTax } from '@/core/money/tax';
import {
  coverage,
  missingOf,
  NOTHING_FROM_STOCK,
  openOf,
  plannedOf,
  type Coverage,
  type FromStock,
} from '@/core/needs/coverage';
import type { SplitState } from '@/core/tab/stages';
import { loadCompany, loadSupplierTaxes } from '../company';
import type { Db } from '../db';
import { among, chunks, whereIn, rowsOf } from '../rows';
import { loadOrderDays } from '../leads';
import { loadFromStock } from '../stock/fromStock';
import type { NeedRow } from '../tables';
import { keepNeeds, keepSplits } from './days';
import type { Disagreement, TabKind } from './kind';
import { loadSplitStates, type ChargedSplit } from './splits';

export type NeedState = NeedRow & {
  readonly tax: LostTax | null;
  readonly splits: readonly ChargedSplit[];
  readonly fromStock: FromStock;
  readonly coverage: Coverage;
};

/** The present state of needs, with the splits that cover them and the tax that buying them bears. */
export async function loadNeedStates(db: Db, ids: readonly number[]): Promise<NeedState[]> {
  const rows = await whereIn(db, 'need', 'id', ids);
  const taxOf = await loadSupplierTaxes(
    db,
    rows.map((n) => n.supplierId),
  );
  const covering = groupBy(
    await loadSplitStates(
      db,
      'needId',
      rows.map((r) => r.id),
    ),
    (s) => s.needId,
  );
  const fromStock = await loadFromStock(
    db,
    rows.map((r) => r.id),
  );
  return rows.map((need) => {
    const splits = covering.get(need.id) ?? [];
    const own = fromStock.get(need.id) ?? NOTHING_FROM_STOCK;
    return {
      tax: taxOf.get(need.supplierId ?? 0) ?? null,
      splits,
      fromStock: own,
      coverage: coverage(need.quantity, splits, own),
      ...need,
    };
  });
}

/** What a need plans, with what covers it or would. */
export const plannedWith = (
  need: NeedState,
  { splits, fromStock }: { readonly splits: readonly SplitState[]; readonly fromStock: FromStock },
  currency: string,
) => plannedOf(coverage(need.quantity, splits, fromStock), need, currency, fromStock);

/** What lists look for beside needs, as it should be. */
async function keptWith(db: Db, states: readonly NeedState[]) {
  const dated = states.filter((n) => openOf(n.coverage) > 0);
  const dayOf = await loadOrderDays(db, dated);
  return states.map((was) => {
    const open = openOf(was.coverage);
    const is = { open, missing: missingOf(was, was.splits, was.fromStock), orderBy: open > 0 ? dayOf(was) : null };
    return { was, is, right: is.open === was.open && is.missing === was.missing && is.orderBy === was.orderBy };
  });
}

const refresh = async (trx: Db, states: readonly NeedState[]): Promise<void> => {
  const stale = (await keptWith(trx, states))
    .filter((n) => !n.right)
    .map(({ was, is }) => [was.id, is.open, is.missing, is.orderBy]);
  await trx.raw(
    `update need set open = n.value ->> 1, missing = n.value ->> 2, order_by = n.value ->> 3
     from json_each(?) n where need.id = n.value ->> 0`,
    JSON.stringify(stale),
  );
};

/** A job whose goods are all there, by the sums kept with it. */
const READY = 'exists (select 1 from job_sum m where m.job_id = job.id and m.goods > 0 and m.missing = 0)';

/** Keeps since when all goods of the jobs of these needs are there. */
async function keepReady(trx: Db, ids: readonly number[], day: Day): Promise<void> {
  const theirs = () => trx('job').whereIn('id', trx('need').whereIn('id', among(trx, ids)).select('jobId'));
  await theirs().whereNotNull('readyOn').whereRaw(`not ${READY}`).update({ readyOn: null });
  await theirs().whereNull('readyOn').whereRaw(READY).update({ readyOn: day, readyTold: 0 });
}

/** Begins to keep it: certificates are waited for, and jobs that are complete were so when something was posted last. */
export async function beginReadiness(trx: Db): Promise<void> {
  const certified = await trx('need as n')
    .join('item as i', 'i.id', 'n.itemId')
    .where('i.certificate', 1)
    .select('n.id');
  for (const part of chunks(certified.map((n) => n.id))) await refresh(trx, await loadNeedStates(trx, part));
  const last = "coalesce((select max(p.day) from posting p where p.job_id = job.id), starts_on, '2000-01-01')";
  await trx('job')
    .whereRaw(READY)
    .update({ readyOn: trx.raw(last), readyTold: 1 } as never);
}

/** How a need stands, as it is kept by day. */
const stood = (n: NeedState, day: Day) => ({
  ...{ ...n, ...n.fromStock, day, drafted: n.coverage.drafted },
  ...{ taxRate: n.tax?.rate ?? null, recoverable: n.tax?.recoverable ?? null },
});

/**
 * Begins to keep how lines stood by day, for a file that did not: as they stand now, from the day on which they were ordered.
 */
export async function beginDays(trx: Db): Promise<void> {
  const sent = await rowsOf<{ id: number; day: Day }>(
    trx.raw(
      `select s.id, coalesce((select min(p.day) from posting p where p.tab_line_id = s.id and p.stage in ('onOrder', 'received', 'actual')), o.sent_on) as day
       from split s join order_line l on l.id = s.line_id join purchase_order o on o.id = l.order_id where o.sent_on is not null`,
    ),
  );
  for (const part of chunks(sent)) {
    const days = new Map(part.map((s) => [s.id, s.day]));
    const states = await loadSplitStates(trx, 'id', [...days.keys()]);
    await keepSplits(
      trx,
      states.map((s) => ({ ...s, stored: s.stored ? 1 : 0, day: days.get(s.id) as Day })),
    );
  }
  const covered = await rowsOf<{ id: number; day: Day }>(
    trx('splitDay').whereNotNull('needId').groupBy('needId').select('needId as id').min({ day: 'day' }),
  );
  for (const part of chunks(covered)) {
    const days = new Map(part.map((n) => [n.id, n.day]));
    const states = await loadNeedStates(trx, [...days.keys()]);
    await keepNeeds(
      trx,
      states.map((n) => stood(n, days.get(n.id) as Day)),
    );
  }
}

/** Brings what is kept beside every open need up to date: after a step of the schema, or when the company works on other days. */
export async function refreshNeeds(db: Db): Promise<void> {
  const ids = (await db('need').whereRaw('open > 0').select('id')).map((n) => n.id);
  for (const part of chunks(ids)) await refresh(db, await loadNeedStates(db, part));
}

/** Lines of buy lists. */
export const needs: TabKind = {
  kind: 'need',
  load: async (db, ids) => {
    const { currency } = await loadCompany(db);
    return new Map(
      (await loadNeedStates(db, ids)).map((n) => [
        n.id,
        [{ account: { jobId: n.jobId, costCodeId: n.costCodeId }, amounts: plannedWith(n, n, currency) }],
      ]),
    );
  },
  datedBack: true,
  refresh: async (trx, ids, { from, today }) => {
    const states = await loadNeedStates(trx, ids);
    await refresh(trx, states);
    await keepReady(trx, ids, from);
    await keepNeeds(
      trx,
      states.map((n) => stood(n, today)),
    );
  },
  disagreements: async (db) => {
    const ids = (await db('need').select('id')).map((n) => n.id);
    const wrong = [];
    for (const part of chunks(ids))
      for (const { was, right } of await keptWith(db, await loadNeedStates(db, part)))
        if (!right) wrong.push({ line: was.id, what: 'what is open or missing of it, or its last day to order' });
    const unsaid = await rowsOf<Disagreement>(
      db.raw(
        `select id as line, 'whether the material of the job is complete' as what from job where (ready_on is null) = ${READY}`,
      ),
    );
    return [...wrong, ...unsaid];
  },
};
