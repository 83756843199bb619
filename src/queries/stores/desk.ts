import { formatDay, type Day } from '@/core/calendar/workdays';
import { counted } from '@/core/words';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';
import { SHOWN, type Group, type Waiting } from '../frame/waiting';
import { listCounted } from './counts';
import { listToPick } from './picking';

/** Counts that wait to be looked over and posted. */
export async function toPost(db: Db, person: Person): Promise<Group> {
  const found = await listCounted(db, person);
  return {
    title: 'Counted',
    href: '/stores/count',
    count: found.length,
    rows: found.slice(0, SHOWN).map((c): Waiting => ({
      word: 'Count',
      weight: 'care',
      text: `${c.number} of ${c.bin ?? c.place}: ${c.differ === 0 ? 'no differences' : counted(c.differ, 'difference')}`,
      step: 'Review and post',
      href: `/stores/count/${c.id}`,
    })),
  };
}

/** Jobs whose material is complete and lies here. */
export async function toPick(db: Db, person: Person, today: Day): Promise<Group> {
  const { rows, count } = await listToPick(db, person, { most: SHOWN, ready: true });
  return {
    title: 'To pick',
    href: '/stores/pick',
    count,
    rows: rows.map((j): Waiting => ({
      word: 'Pick',
      weight: 'good',
      text: `${counted(j.lines, 'item')} for ${j.number} ${j.name}${j.startsOn === null ? '' : `, ${j.startsOn < today ? 'start was due' : 'starts'} ${formatDay(j.startsOn, today)}`}`,
      step: 'Pick',
      href: `/stores/pick/${j.number}`,
    })),
  };
}
