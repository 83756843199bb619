import { groupBy } from '@/core/group';
import type { TaxCode } from '@/core/money/tax';
import { coverage, openOf, plannedOf, type Coverage } from '@/core/needs/coverage';
import { loadCompany } from '../company';
import type { Db } from '../connection';
import { among, chunks } from '../rows';
import type { NeedRow } from '../tables';
import type { TabKind } from './kind';
import { loadSplitStates, type SplitStanding } from './splits';

export type NeedState = NeedRow & {
  readonly tax: Pick<TaxCode, 'rate' | 'recoverable'> | null;
  readonly splits: readonly SplitStanding[];
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
  return rows.map(({ rate, recoverable, ...need }) => {
    const splits = covering.get(need.id) ?? [];
    return {
      ...need,
      tax: rate === null || recoverable === null ? null : { rate, recoverable },
      splits,
      coverage: coverage(need.quantity, splits),
    };
  });
}

/** Lines of buy lists. */
export const needs: TabKind = {
  kind: 'need',
  load: async (db, ids) => {
    const { currency } = await loadCompany(db);
    return new Map(
      (await loadNeedStates(db, ids)).map((n) => [
        n.id,
        { account: { jobId: n.jobId, costCodeId: n.costCodeId }, amounts: plannedOf(n.coverage, n, currency) },
      ]),
    );
  },
  refresh: async (trx, ids) => {
    const stale = (await loadNeedStates(trx, ids))
      .map((n) => [n.id, openOf(n.coverage), n.open] as const)
      .filter(([, open, was]) => open !== was);
    await trx.raw(
      'update need set open = n.value ->> 1 from json_each(?) n where need.id = n.value ->> 0',
      JSON.stringify(stale),
    );
  },
  disagreements: async (db) => {
    const ids = (await db('need').select('id')).map((n) => n.id);
    const wrong = [];
    for (const part of chunks(ids))
      for (const need of await loadNeedStates(db, part))
        if (openOf(need.coverage) !== need.open) wrong.push({ line: need.id, what: 'open quantity' });
    return wrong;
  },
};
