import { formatDay, type Day } from '@/core/calendar/workdays';
import { counted } from '@/core/words';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';
import { SHOWN, type Group, type Waiting } from '../frame/waiting';
import { countToBuy } from './buyList';
import { listLate } from './openNeeds';
import { lateWords } from './needLine';

/** What is left to buy for live jobs, and of that what should have been ordered before today. */
export async function toBuy(db: Db, person: Person, today: Day): Promise<Group> {
  const total = await countToBuy(db);
  const late = await listLate(db, person, today, SHOWN - 1);
  const shown = late.map((r): Waiting => ({
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
