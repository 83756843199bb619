import type { Day } from '@/core/calendar/workdays';
import { groupBy } from '@/core/group';
import { closedRefusal } from '@/core/jobs/closing';
import { LIMITS, TooLarge } from '@/core/limits';
import { movements, NOWHERE, type Balance, type Movement } from '@/core/tab/postings';
import { NOTHING } from '@/core/tab/stages';
import type { Db } from './db';
import { postingsSince } from './datedBack';
import type { Happening } from './happening';
import { NotPostable } from './notPostable';
import { among, chunks, insertMany, rowsOf } from './rows';
import { followSplits, type Piece } from './stock/follow';
import { sumsDisagreement } from './levels';
import { storesDisagreement } from './stock/law';
import type { Disagreement } from './tab/kind';
import { TAB_KINDS } from './tab/registry';
import type { PostingRow, TabLineKind } from './tables';

/** Lines of the tab that something happened to, and where goods came in or went away with it. */
export type Touch = {
  readonly happening: Happening;
  readonly lines: readonly number[];
  readonly pieces?: readonly Piece[];
  /** The earlier day that it is dated back to. */
  readonly from?: Day;
};

/** What a line is posted under, and the day it holds from. */
type Under = { readonly happening: Happening; readonly from: Day };
type Row = Movement & { readonly tabLineId: number };

async function standing(db: Db, ids: readonly number[]): Promise<Map<number, Balance[]>> {
  const rows = await rowsOf<Pick<PostingRow, 'tabLineId' | 'jobId' | 'costCodeId' | 'stage' | 'amount'>>(
    db('posting')
      .whereIn('tabLineId', among(db, ids))
      .groupBy('tabLineId', 'jobId', 'costCodeId', 'stage')
      .select('tabLineId', 'jobId', 'costCodeId', 'stage')
      .sum({ amount: 'amount' }),
  );
  return new Map(
    [...groupBy(rows, (r) => r.tabLineId)].map(([id, own]) => [
      id,
      own.map((r) => ({
        account: { jobId: r.jobId, costCodeId: r.costCodeId },
        amounts: { ...NOTHING, [r.stage]: r.amount },
      })),
    ]),
  );
}

async function byKind(db: Db, ids: readonly number[]): Promise<Map<TabLineKind, number[]>> {
  const kinds = new Map(
    (await db('tabLine').whereIn('id', among(db, ids)).select('id', 'kind')).map((l) => [l.id, l.kind]),
  );
  return groupBy(
    ids.filter((id) => kinds.has(id)),
    (id) => kinds.get(id) as TabLineKind,
  );
}

/** What lines of any kind move, by the line that moves it. */
async function movedBy(db: Db, lines: readonly number[]): Promise<Map<number, number[]>> {
  const moved = new Map<number, number[]>();
  for (const part of chunks(lines))
    for (const [kind, ids] of await byKind(db, part))
      for (const { by, id } of (await TAB_KINDS[kind].moves?.(db, ids)) ?? [])
        moved.set(by, [...(moved.get(by) ?? []), id]);
  return moved;
}

/** What each line is posted under: the first thing that happened to it or to a line that moves it, in that order. */
async function firstOf(trx: Db, touches: readonly Touch[]): Promise<Map<number, Under>> {
  const splits = new Set<number>();
  for (const part of chunks([...new Set(touches.flatMap((t) => t.lines))]))
    for (const id of (await byKind(trx, part)).get('split') ?? []) splits.add(id);
  const direct: (readonly number[])[] = [];
  for (const { happening, lines, pieces, from = happening.day } of touches) {
    const then = { ...happening, day: from };
    const followed = lines.some((id) => splits.has(id)) ? await followSplits(trx, then, lines, pieces) : [];
    direct.push([...lines, ...followed]);
  }
  const moved = await movedBy(trx, [...new Set(direct.flat())]);
  const first = new Map<number, Under>();
  for (const [k, { happening, from = happening.day }] of touches.entries()) {
    const own = direct[k] ?? [];
    for (const id of [...own, ...own.flatMap((line) => moved.get(line) ?? [])])
      if (!first.has(id)) first.set(id, { happening, from });
  }
  return first;
}

/**
 * Brings stock and the ledger to where these lines stand now: posts, for each, the difference between its present amounts and the
 * sum of its postings, under the first thing that happened to it. Lines that are gone are posted back to nothing. What is
 * dated back is posted on every day since then that it moves.
 *
 * @throws TooLarge when an account comes to more than can be kept; NotPostable when it belongs to a job that is closed
 */
export async function post(trx: Db, touches: readonly Touch[]): Promise<void> {
  const first = await firstOf(trx, touches);
  const accounts = new Set<string>();
  const write = async (rows: readonly (Row & Happening)[]) => {
    await insertMany(trx, 'posting', rows);
    rows.forEach((r) => r.jobId !== null && accounts.add(`${r.jobId}/${r.costCodeId}`));
  };
  for (const { happening, from, lines } of touches)
    if (from !== undefined) {
      const since = { from, today: happening.day };
      await write((await postingsSince(trx, since, lines)).map((row) => ({ ...happening, ...row })));
    }
  const touched = new Map<TabLineKind, number[]>();
  for (const part of chunks([...first.keys()])) {
    const was = await standing(trx, part);
    for (const [kind, ids] of await byKind(trx, part)) {
      touched.set(kind, [...(touched.get(kind) ?? []), ...ids]);
      const is = await TAB_KINDS[kind].load(trx, ids);
      const rows = ids.flatMap((id) => {
        const { happening, from } = first.get(id) as Under;
        // A part of an order, and its need, were posted on the earlier days: what is left is today's.
        const day = TAB_KINDS[kind].datedBack === true ? happening.day : from;
        const moves = movements(was.get(id) ?? [], is.get(id) ?? NOWHERE);
        return moves.map((m) => ({ ...m, ...happening, day, tabLineId: id }));
      });
      await write(rows);
    }
  }
  // Parts of orders before the needs that they cover.
  for (const { kind, refresh } of Object.values(TAB_KINDS))
    for (const part of chunks(touched.get(kind) ?? []))
      for (const [days, ids] of groupBy(part, (id) => `${first.get(id)?.from}/${first.get(id)?.happening.day}`)) {
        const [from, today] = days.split('/') as [Day, Day];
        await refresh?.(trx, ids, { from, today });
      }
  await checkOpen(trx, accounts);
  await checkSize(trx, accounts);
}

/** A closed job takes no posting, whatever happened. */
async function checkOpen(trx: Db, accounts: ReadonlySet<string>): Promise<void> {
  const jobIds = [...new Set([...accounts].map((a) => Number(a.split('/')[0])))];
  const closed = await trx('job').whereIn('id', among(trx, jobIds)).where({ state: 'complete' }).first('number');
  if (closed !== undefined) throw new NotPostable(closedRefusal(closed.number));
}

async function checkSize(trx: Db, accounts: ReadonlySet<string>): Promise<void> {
  const pairs = JSON.stringify([...accounts].map((a) => a.split('/').map(Number)));
  const large = await rowsOf<{ amount: number }>(
    trx.raw(
      `select t.amount from json_each(?) a join tab_sum t on t.job_id = a.value ->> 0 and t.cost_code_id = a.value ->> 1
      where abs(t.amount) > ? limit 1`,
      [pairs, LIMITS.account],
    ),
  );
  if (large.length > 0) throw new TooLarge();
}

/** Posts what happened to one set of lines. */
export const postOne = (trx: Db, happening: Happening, lines: readonly number[]): Promise<void> =>
  post(trx, [{ happening, lines }]);

/**
 * Proves the laws of the ledger over the whole file: the postings of every line of the tab, of whatever kind, add up to
 * the stage function of its present state, every line's own figures agree with the documents they come from, and stores
 * are worth on the ledger what lies in them, and the sums kept of each job are what its rows add up to.
 *
 * @returns the lines that do not; empty when the ledger is right
 */
export async function findUnproven(db: Db): Promise<Disagreement[]> {
  const wrong: Disagreement[] = [];
  const lines = (await db('tabLine').orderBy('id').select('id')).map((l) => l.id);
  for (const part of chunks(lines)) {
    const was = await standing(db, part);
    for (const [kind, ids] of await byKind(db, part)) {
      const is = await TAB_KINDS[kind].load(db, ids);
      for (const id of ids)
        if (movements(was.get(id) ?? [], is.get(id) ?? NOWHERE).length > 0) wrong.push({ line: id, what: 'postings' });
    }
  }
  for (const { disagreements } of Object.values(TAB_KINDS)) wrong.push(...(await disagreements(db)));
  return [...wrong, ...(await storesDisagreement(db)), ...(await sumsDisagreement(db))];
}
