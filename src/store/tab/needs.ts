import { groupBy } from '@/core/group';
import type { TaxCode } from '@/core/money/tax';
import { coverage, missingOf, NOTHING_HELD, openOf, plannedOf, type Coverage, type Held } from '@/core/needs/coverage';
import type { SplitState } from '@/core/tab/stages';
import { loadCompany } from '../company';
import type { Db } from '../connection';
import { among, chunks } from '../rows';
import { loadHeld } from '../stock';
import type { NeedRow } from '../tables';
import type { TabKind } from './kind';
import { loadSplitStates, type SplitStanding } from './splits';

export type NeedState = NeedRow & {
  readonly tax: Pick<TaxCode, 'rate' | 'recoverable'> | null;
  readonly splits: readonly SplitStanding[];
  readonly held: Held;
  readonly coverage: Coverage;
};

/** The present state of needs, with the splits that cover them and the tax that buying them bears. */
export async function loadNeedStates(db: Db, ids: readonly number[]): Promise<NeedState[]> {
  const rows = (await db('need as n')
    .leftJoin('supplier as s', 's.id', 'n.supplierId')
    .leftJoin('taxCode as t', 't.id', 's.taxCodeId')
    .whereIn('n.id', among(db, ids))
    .select('n.*', 't.rate', 't.recoverable')) as (NeedRow & { rate: number | null; recoverable: number | null })[];
  const covering = groupBy(
    await loadSplitStates(
      db,
      'needId',
      rows.map((r) => r.id),
    ),
    (s) => s.needId,
  );
  const held = await loadHeld(
    db,
    rows.map((r) => r.id),
  );
  return rows.map(({ rate, recoverable, ...need }) => {
    const splits = covering.get(need.id) ?? [];
    const own = held.get(need.id) ?? NOTHING_HELD;
    return {
      ...need,
      tax: rate === null || recoverable === null ? null : { rate, recoverable },
      splits,
      held: own,
      coverage: coverage(need.quantity, splits, own),
    };
  });
}

/** What a need plans, now or with other splits than it has. */
export const plannedWith = (need: NeedState, splits: readonly SplitState[], currency: string) =>
  plannedOf(coverage(need.quantity, splits, need.held), need, currency, need.held);

const missing = (need: NeedState) => missingOf(need, need.splits, need.held);

/** Lines of buy lists. */
export const needs: TabKind = {
  kind: 'need',
  load: async (db, ids) => {
    const { currency } = await loadCompany(db);
    return new Map(
      (await loadNeedStates(db, ids)).map((n) => [
        n.id,
        { account: { jobId: n.jobId, costCodeId: n.costCodeId }, amounts: plannedWith(n, n.splits, currency) },
      ]),
    );
  },
  refresh: async (trx, ids) => {
    const stale = (await loadNeedStates(trx, ids))
      .map((n) => ({ id: n.id, open: openOf(n.coverage), missing: missing(n), was: n }))
      .filter((n) => n.open !== n.was.open || n.missing !== n.was.missing)
      .map((n) => [n.id, n.open, n.missing]);
    await trx.raw(
      'update need set open = n.value ->> 1, missing = n.value ->> 2 from json_each(?) n where need.id = n.value ->> 0',
      JSON.stringify(stale),
    );
  },
  disagreements: async (db) => {
    const ids = (await db('need').select('id')).map((n) => n.id);
    const wrong = [];
    for (const part of chunks(ids))
      for (const need of await loadNeedStates(db, part))
        if (openOf(need.coverage) !== need.open || missing(need) !== need.missing)
          wrong.push({ line: need.id, what: 'open or missing quantity' });
    return wrong;
  },
};
