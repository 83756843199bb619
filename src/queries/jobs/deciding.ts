import { waysOut, type Ways } from '@/core/budgets/ways';
import type { Minor } from '@/core/money/money';
import { UNSENT } from '@/core/orders/states';
import type { Named } from '@/core/records/typed';
import { headroomOf } from '@/core/tab/sums';
import { loadContingency } from '@/store/budgets';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';
import type { Tab } from './job';
import { permit } from '../permit';

/** A budget that is passed, with what can be done about it. */
export type DecideView = {
  readonly code: Named;
  readonly ways: Ways;
  /** The cost code that has the most room. */
  readonly from: Named | null;
  readonly contingency: Minor;
  /** Drafts that put money on it, which can be changed or put to sign-off. */
  readonly drafts: readonly { readonly number: string; readonly supplier: string; readonly value: Minor }[];
};

/** What can be done about a cost code of a job that passes its budget; undefined where it does not. */
export async function loadDecide(
  db: Db,
  person: Person,
  jobId: number,
  tab: Tab,
  codeNumber: string,
): Promise<DecideView | undefined> {
  permit(person, 'see money');
  const row = tab.rows.find((r) => r.code.code === codeNumber);
  if (row === undefined) return undefined;
  const contingency = await loadContingency(db, jobId);
  const rooms = tab.rows.map((r) => ({ costCodeId: r.code.id, headroom: headroomOf(r) }));
  const ways = waysOut(row.code.id, rooms, contingency);
  if (ways === undefined) return undefined;
  const named = (id: number | undefined): Named | null => {
    const code = tab.rows.find((r) => r.code.id === id)?.code;
    return code === undefined ? null : { id: code.id, number: code.code, name: code.name };
  };
  const drafts = (await db('split as s')
    .join('orderLine as l', 'l.id', 's.lineId')
    .join('purchaseOrder as o', 'o.id', 'l.orderId')
    .join('supplier as p', 'p.id', 'o.supplierId')
    .where({ 's.jobId': jobId, 's.costCodeId': row.code.id })
    .whereIn('o.state', UNSENT)
    .groupBy('o.id')
    .orderBy('o.id')
    .select('o.number', { supplier: 'p.name' })
    .sum({ value: 's.value' })) as unknown as DecideView['drafts'];
  return { code: named(row.code.id) as Named, ways, from: named(ways.from?.costCodeId), contingency, drafts };
}
