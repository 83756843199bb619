import type { Day } from '@/core/calendar/workdays';
import { loadCompany } from '@/store/company';
import type { Db } from '@/store/db';
import type { Person } from '@/store/people';
import { permit } from '../permit';
import { dock, gather, invoices, orders, outbox } from './buying';
import { items, jobs, sold, suppliers } from './company';
import { history } from './history';
import { budget, buyList, quote, tab } from './job';
import type { List, ListQuery, OpenList } from './list';
import * as settings from './settings';
import { stores } from './stores';

/** Every list that can be taken out. */
export const LISTS = {
  jobs,
  gather,
  orders,
  dock,
  invoices,
  outbox,
  items,
  stores,
  suppliers,
  sold,
  quote,
  budget,
  tab,
  history,
  'buy-list': buyList,
  company: settings.company,
  'days-off': settings.daysOff,
  people: settings.people,
  ladder: settings.ladder,
  rules: settings.rules,
  'cost-codes': settings.costCodes,
  taxes: settings.taxes,
  places: settings.places,
  reasons: settings.reasons,
  units: settings.units,
  'review-lists': settings.reviewLists,
  mails: settings.mailWords,
  rates: settings.rates,
} as const satisfies Readonly<Record<string, List>>;

export type ListName = keyof typeof LISTS;

/** Opens a list to be taken out: its columns, and all that its filters find, page by page. */
export async function openList(
  db: Db,
  person: Person,
  name: ListName,
  query: ListQuery,
  today: Day,
): Promise<OpenList & { readonly title: string }> {
  const { open, title, right }: List = LISTS[name];
  permit(person, right);
  const { currency } = await loadCompany(db);
  return { title, ...open({ db, person, query, today, currency }) };
}
