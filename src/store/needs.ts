import type { Day } from '@/core/calendar/workdays';
import { groupBy } from '@/core/group';
import type { Db } from './connection';
import { openTabLines } from './ledger';
import { insertMany, whereIn } from './rows';
import type { NeedRow } from './tables';

export type NewNeed = Omit<
  NeedRow,
  'id' | 'quoteLineId' | 'planLineId' | 'priceQuantity' | 'addedOn' | 'open' | 'missing' | 'version'
> & {
  readonly quoteLineId?: number;
  readonly planLineId?: number;
};

/** Puts lines on buy lists. @returns their ids in order */
export async function insertNeeds(trx: Db, needs: readonly NewNeed[], today: Day): Promise<number[]> {
  const ids = await openTabLines(
    trx,
    'need',
    needs.map((n) => n.description),
  );
  await insertMany(
    trx,
    'need',
    needs.map((n, k) => ({ ...n, id: ids[k], open: n.quantity, addedOn: today })),
  );
  return ids;
}

/** The days on which the needs of some splits are wanted; those without a day, or without a need, come last. */
export async function neededDays(db: Db, needIds: readonly number[]): Promise<(needId: number | null) => string> {
  const days = groupBy(await whereIn(db, 'need', 'id', needIds), (n) => n.id);
  return (needId) => days.get(needId ?? 0)?.[0]?.neededOn ?? '9999';
}
