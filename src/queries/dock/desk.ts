import { formatDay, type Day } from '@/core/calendar/workdays';
import type { Db } from '@/store/db';
import { rowsOf } from '@/store/rows';
import { SHOWN, type Group, type Waiting } from '../frame/waiting';
import { countOf } from '../sql';

/** What is to come to a place of ours by today. */
export async function toReceive(db: Db, today: Day): Promise<Group> {
  const due = () => db('purchaseOrder as o').where('o.dueHereOn', '<=', today);
  const found = await rowsOf<{ number: string; dueHereOn: Day; state: string; name: string }>(
    due()
      .join('supplier as s', 's.id', 'o.supplierId')
      .orderBy(['o.dueHereOn', 'o.id'])
      .limit(SHOWN)
      .select('o.number', 'o.dueHereOn', 'o.state', 's.name'),
  );
  const rows = found.map((o): Waiting => ({
    word: o.dueHereOn < today ? 'Late' : 'Today',
    weight: o.dueHereOn < today ? 'over' : 'care',
    text: `${o.number} from ${o.name}, due ${formatDay(o.dueHereOn, today)}${o.state === 'partIn' ? ', part received' : ''}`,
    step: 'Receive',
    href: `/dock/${o.number}`,
  }));
  return { title: 'To receive', href: '/dock', count: await countOf(due()), rows };
}
