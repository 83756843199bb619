import { formatMoney } from '@/core/money/money';
import type { Day } from '@/core/calendar/workdays';
import { loadCompany } from '@/store/company';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';
import { SHOWN, type Group, type Waiting } from '../frame/waiting';
import { listToSign } from './toSign';

export async function toSign(db: Db, person: Person, today: Day): Promise<Group> {
  const { currency } = await loadCompany(db);
  const waiting = await listToSign(db, person, today);
  const rows = waiting.slice(0, SHOWN).map((w): Waiting => ({
    word: 'Sign',
    weight: 'care',
    text: `${w.revision > 0 ? `Revision ${w.revision} of ` : ''}${w.number} to ${w.supplier}, ${formatMoney(w.value, currency)}: ${w.why}`,
    step: 'Review and sign',
    href: `/sign/${w.number}`,
  }));
  return { title: 'To sign', href: '/sign', count: waiting.length, rows };
}
