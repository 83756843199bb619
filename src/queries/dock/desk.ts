import { formatDay, plusDays, type Day } from '@/core/calendar/workdays';
import type { Db } from '@/store/db';
import { rowsOf } from '@/store/rows';
import { SHOWN, type Group, type Waiting } from '../frame/waiting';
import { countOf } from '../sql';

/** How many days ahead it is told what is to come. */
const AHEAD = 7;

const LATE = ['Late', 'over'] as const;
const TODAY = ['Today', 'care'] as const;
const SOON = ['Expected', 'good'] as const;

/** What should have come to a place of ours, comes today, and comes soon. */
export async function toReceive(db: Db, today: Day): Promise<Group> {
  const due = () => db('purchaseOrder as o').where('o.dueHereOn', '<=', plusDays(today, AHEAD));
  const found = await rowsOf<{ number: string; dueHereOn: Day; state: string; name: string }>(
    due()
      .join('supplier as s', 's.id', 'o.supplierId')
      .orderBy(['o.dueHereOn', 'o.id'])
      .limit(SHOWN)
      .select('o.number', 'o.dueHereOn', 'o.state', 's.name'),
  );
  const rows = found.map((o): Waiting => {
    const [word, weight] = o.dueHereOn > today ? SOON : o.dueHereOn === today ? TODAY : LATE;
    const part = o.state === 'partIn' ? ', part received' : '';
    return {
      ...{ word, weight },
      text: `${o.number} from ${o.name}, due ${formatDay(o.dueHereOn, today)}${part}`,
      step: 'Receive',
      href: `/dock/${o.number}`,
    };
  });
  return { title: 'To receive', href: '/dock', count: await countOf(due()), rows };
}
