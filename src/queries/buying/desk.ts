import { formatDay, type Day } from '@/core/calendar/workdays';
import { counted } from '@/core/words';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';
import { SHOWN, type Group, type Waiting } from '../frame/waiting';
import { countToBuy, listSoonest } from './buyList';
import { lateWords } from './needLine';

export async function toBuy(db: Db, person: Person, today: Day): Promise<Group> {
  const total = await countToBuy(db);
  const late = (await listSoonest(db, person, today, 40)).filter((r) => r.late);
  const shown = late.slice(0, SHOWN - 1).map((r): Waiting => ({
    word: 'Late',
    weight: 'over',
    text: `${r.description} for ${r.job}, needed by ${r.neededOn === null ? '' : formatDay(r.neededOn, today)}: ${lateWords(r)}`,
    step: 'Gather',
    href: `/gather?job=${r.job}`,
  }));
  const rest: Waiting = {
    word: 'To buy',
    weight: 'care',
    text: `${counted(total, 'line')} to buy for live jobs`,
    step: 'Gather',
    href: '/gather',
  };
  return { title: 'To buy', count: total, rows: [...shown, rest] };
}
