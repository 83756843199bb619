import type { Day } from '@/core/calendar/workdays';
import { may } from '@/core/people/rights';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';
import { toBuy } from '../buying/desk';
import { toReceive } from '../dock/desk';
import { toMatch } from '../invoices/desk';
import { overBudget, toAgree, toStart } from '../jobs/desk';
import { drafts, toChase } from '../orders/desk';
import { quotes } from '../quotes/desk';
import { toSign } from '../signoff/desk';
import { toPick, toPost } from '../stores/desk';
import type { Group } from './waiting';

/** What waits for this person today, the most pressing first; only what is theirs to settle. */
export async function loadDesk(db: Db, person: Person, today: Day): Promise<Group[]> {
  const groups: Group[] = [];
  if (may(person, 'sign orders')) groups.push(await toSign(db, person, today));
  if (may(person, 'agree budget changes')) groups.push(await toAgree(db));
  if (may(person, 'see money')) groups.push(await overBudget(db));
  if (may(person, 'draft orders')) groups.push(await toBuy(db, person, today), await drafts(db));
  if (may(person, 'send orders')) groups.push(await toChase(db, today));
  if (may(person, 'receive')) groups.push(await toReceive(db, today));
  if (may(person, 'agree counts')) groups.push(await toPost(db, person));
  if (may(person, 'keep stores')) groups.push(await toPick(db, person, today));
  groups.push(await toStart(db, person, today));
  if (may(person, 'match invoices')) groups.push(await toMatch(db));
  if (may(person, 'win quotes')) groups.push(await quotes(db));
  return groups.filter((g) => g.count > 0);
}
