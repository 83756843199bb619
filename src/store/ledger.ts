import type { Day } from '@/core/calendar/workdays';
import { groupBy } from '@/core/group';
import type { Minor, UnitPrice } from '@/core/money/money';
import { coverage, openOf, plannedOf, type CoveringSplit } from '@/core/needs/coverage';
import { commitmentOf, type OrderState } from '@/core/orders/states';
import type { Quantity } from '@/core/quantity/quantity';
import { movements, type Account, type Standing } from '@/core/tab/postings';
import { NOTHING, splitStages, type Stage } from '@/core/tab/stages';
import { loadCompany } from './company';
import type { Db } from './connection';
import { chunks, insertMany } from './rows';

export type DocumentKind = 'quote' | 'need' | 'order' | 'receipt' | 'invoice';

/** What happened, on whose word and by which document. */
export type Happening = {
  readonly event: string;
  readonly document: DocumentKind;
  readonly documentId: number;
  readonly personId: number;
  readonly day: Day;
  readonly at: string;
};

type LineOfLedger = 'needId' | 'splitId';

async function standing(db: Db, column: LineOfLedger, ids: readonly number[]): Promise<Map<number, Standing[]>> {
  const rows: (Account & { lineId: number; stage: Stage; amount: Minor })[] = [];
  for (const part of chunks(ids)) {
    const summed = db('posting').whereIn(column, part).groupBy(column, 'jobId', 'costCodeId', 'stage');
    rows.push(
      ...((await summed
        .select({ lineId: column }, 'jobId', 'costCodeId', 'stage')
        .sum({ amount: 'amount' })) as typeof rows),
    );
  }
  return new Map(
    [...groupBy(rows, (r) => r.lineId)].map(([id, own]) => [
      id,
      own.map((r) => ({
        account: { jobId: r.jobId, costCodeId: r.costCodeId },
        amounts: { ...NOTHING, [r.stage]: r.amount },
      })),
    ]),
  );
}

type SplitRow = Account & {
  id: number;
  needId: number | null;
  quantity: Quantity;
  covers: Quantity;
  value: Minor;
  received: Quantity;
  billed: Quantity;
  billedAmount: Minor;
  state: OrderState;
  closedShort: string | null;
};

/** The present state of order splits, found by their own ids or by the needs they cover. */
export async function loadSplitStates(
  db: Db,
  by: 'id' | 'needId',
  ids: readonly number[],
): Promise<(Account & CoveringSplit & { id: number; needId: number | null })[]> {
  const rows: SplitRow[] = [];
  for (const part of chunks(ids)) {
    const joined = db('split as s')
      .join('orderLine as l', 'l.id', 's.lineId')
      .join('purchaseOrder as o', 'o.id', 'l.orderId');
    rows.push(...((await joined.whereIn(`s.${by}`, part).select('s.*', 'o.state', 'l.closedShort')) as SplitRow[]));
  }
  return rows.map(({ quantity, state, closedShort, ...split }) => ({
    ...split,
    ordered: quantity,
    commitment: commitmentOf(state, closedShort !== null),
  }));
}

export type NeedState = {
  id: number;
  jobId: number;
  costCodeId: number;
  quantity: Quantity;
  price: UnitPrice | null;
  priceQuantity: number;
  open: Quantity;
};

export async function loadNeedStates(db: Db, ids: readonly number[]) {
  const needs: NeedState[] = [];
  for (const part of chunks(ids)) needs.push(...((await db('need').whereIn('id', part)) as NeedState[]));
  const covering = groupBy(await loadSplitStates(db, 'needId', ids), (s) => s.needId);
  return needs.map((need) => ({ ...need, coverage: coverage(need.quantity, covering.get(need.id) ?? []) }));
}

/** Where a list of needs or splits stands by the stage functions, whatever the ledger says. */
async function present(db: Db, column: LineOfLedger, ids: readonly number[]): Promise<Map<number, Standing>> {
  if (column === 'splitId') {
    const splits = await loadSplitStates(db, 'id', ids);
    return new Map(
      splits.map((s) => [s.id, { account: { jobId: s.jobId, costCodeId: s.costCodeId }, amounts: splitStages(s) }]),
    );
  }
  const { currency } = await loadCompany(db);
  const needs = await loadNeedStates(db, ids);
  return new Map(
    needs.map((n) => [
      n.id,
      { account: { jobId: n.jobId, costCodeId: n.costCodeId }, amounts: plannedOf(n.coverage, n, currency) },
    ]),
  );
}

/** need.open is kept beside the need, so that lists find what is still to buy by index. */
async function refreshOpen(trx: Db, needIds: readonly number[]): Promise<void> {
  for (const need of await loadNeedStates(trx, needIds)) {
    const open = openOf(need.coverage);
    if (open !== need.open) await trx('need').where({ id: need.id }).update({ open });
  }
}

/**
 * Brings the ledger to where these lines stand now: posts, for each, the difference between its present amounts
 * and the sum of its postings. Lines that are gone are posted back to nothing. Writes need.open along the way.
 */
export async function post(
  trx: Db,
  happening: Happening,
  lines: { readonly needIds?: readonly number[]; readonly splitIds?: readonly number[] },
): Promise<void> {
  for (const column of ['splitId', 'needId'] as const) {
    const ids = [...new Set(lines[`${column}s`] ?? [])];
    for (const part of chunks(ids)) {
      const was = await standing(trx, column, part);
      const is = await present(trx, column, part);
      const rows = part.flatMap((id) =>
        movements(was.get(id) ?? [], is.get(id)).map((m) => ({ ...m, ...happening, [column]: id })),
      );
      await insertMany(trx, 'posting', rows);
      if (column === 'needId') await refreshOpen(trx, part);
    }
  }
}

/** Posts what an event did to a whole order: all its splits, and every need they cover or covered before. */
export async function postOrder(
  trx: Db,
  happening: Happening,
  orderId: number,
  before: { splitIds: readonly number[]; needIds: readonly number[] } = { splitIds: [], needIds: [] },
): Promise<void> {
  const now = (await trx('split as s')
    .join('orderLine as l', 'l.id', 's.lineId')
    .where('l.orderId', orderId)
    .select('s.id', 's.needId')) as { id: number; needId: number | null }[];
  await post(trx, happening, {
    splitIds: [...before.splitIds, ...now.map((s) => s.id)],
    needIds: [...before.needIds, ...now.flatMap((s) => (s.needId === null ? [] : [s.needId]))],
  });
}

/**
 * Proves the first law of the ledger over the whole file: every need's and split's postings add up to the stage
 * function of its present state.
 *
 * @returns the ids of lines that do not; empty when the ledger is right
 */
export async function findUnproven(db: Db): Promise<{ needIds: number[]; splitIds: number[] }> {
  const wrong = { needIds: [] as number[], splitIds: [] as number[] };
  for (const column of ['splitId', 'needId'] as const) {
    const posted = (await db('posting').whereNotNull(column).distinct({ id: column })) as { id: number }[];
    const stored = (await db(column === 'splitId' ? 'split' : 'need').select('id')) as { id: number }[];
    const ids = [...new Set([...posted, ...stored].map((r) => r.id))];
    for (const part of chunks(ids)) {
      const was = await standing(db, column, part);
      const is = await present(db, column, part);
      wrong[`${column}s`].push(...part.filter((id) => movements(was.get(id) ?? [], is.get(id)).length > 0));
    }
  }
  return wrong;
}
