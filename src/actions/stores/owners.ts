import { rowsOf } from '@/store/rows';
import { atLeastNone, fromSupplierUnit, NONE, subtractQ, type Quantity } from '@/core/quantity/quantity';
import { exactFactor } from '@/core/quantity/units';
import { loadOverOfJobs, pileKey, type PileKey } from '@/store/stock/piles';
import type { Item } from '@/store/tables';
import type { Work } from '../action';

/** The account that goods of a job were bought on, and the line of its buy list that loses them, if one does. */
export type TakenOff = {
  readonly costCodeId: number | null;
  readonly needId: number | null;
  /** In that line's unit. */
  readonly share: Quantity;
};

const NOBODY: TakenOff = { costCodeId: null, needId: null, share: NONE };

/**
 * Who gives it up when goods of a job go: what none of its lines asked for goes first, then the line that needs it last.
 *
 * @param gone - in the item's unit; nothing, or less, where something was found
 */
export async function takenOff(trx: Work['trx'], key: PileKey, item: Item, gone: Quantity): Promise<TakenOff> {
  if (key.jobId === null) return NOBODY;
  const lines = await rowsOf<{
    costCodeId: number;
    needId: number | null;
    unit: string | null;
  }>(
    trx('split as s')
      .join('orderLine as l', 'l.id', 's.lineId')
      .leftJoin('need as n', 'n.id', 's.needId')
      .where({ 's.jobId': key.jobId, 'l.itemId': item.id })
      .where('s.received', '>', 0)
      .orderByRaw("coalesce(n.needed_on, '~') desc, s.id desc")
      .select('s.costCodeId', 's.needId', { unit: 'n.unit' }),
  );
  const [first] = lines;
  const over = (await loadOverOfJobs(trx, [item.id])).get(pileKey(key)) ?? NONE;
  const lost = atLeastNone(subtractQ(gone, atLeastNone(over)));
  const loser = lines.find((l) => l.needId !== null);
  const factor = exactFactor(item.unit, loser?.unit ?? item.unit);
  if (lost === NONE || loser === undefined || factor === undefined)
    return { ...NOBODY, costCodeId: first?.costCodeId ?? null };
  return { costCodeId: loser.costCodeId, needId: loser.needId, share: fromSupplierUnit(lost, factor) };
}
