import type { Day } from '@/core/calendar/workdays';
import { coveredOf } from '@/core/needs/coverage';
import type { Surplus } from '@/core/needs/surplus';
import { NONE, type Quantity } from '@/core/quantity/quantity';
import { loadNeedStates } from '@/store/tab/needs';
import type { NeedRow } from '@/store/tables';
import type { Work } from '../action';
import { alterNeed } from './needs';

export type Wanted = { readonly need: NeedRow; readonly quantity: Quantity; readonly neededOn: Day | null };

/**
 * Brings needs to what is wanted now. What only a plan counts on, or what is reserved, gives way without a word; what is
 * drafted or ordered beyond it needs one.
 */
export async function applyWanted(work: Work, wanted: readonly Wanted[], surplus: Surplus | undefined): Promise<void> {
  const { trx } = work;
  const ids = wanted.map(({ need }) => need.id);
  const states = new Map((await loadNeedStates(trx, ids)).map((s) => [s.id, s]));
  for (const { need, ...change } of wanted) {
    const state = states.get(need.id);
    const covered = state === undefined ? NONE : coveredOf(state.coverage);
    const reserved = state === undefined ? NONE : state.coverage.reserved;
    if (change.quantity < covered && reserved > 0) await trx('reservation').where({ needId: need.id }).delete();
    if (change.quantity < covered - reserved) await alterNeed(work, need, { ...fieldsOf(need), ...change, surplus });
    else
      await trx('need')
        .where({ id: need.id })
        .update({ ...change, version: need.version + 1 });
  }
}

const fieldsOf = ({ description, unit, costCodeId, supplierId, price, itemId }: NeedRow) => ({
  description,
  unit,
  costCodeId,
  supplierId,
  price,
  itemId,
});
