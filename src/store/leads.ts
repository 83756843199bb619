import { calendarOf, orderBy, type Lead } from '@/core/calendar/lead';
import type { Day } from '@/core/calendar/workdays';
import { groupBy } from '@/core/group';
import { loadCalendar, loadCompany } from './company';
import type { Db } from './db';
import { partKey, type SoldPart } from './gathering';
import { whereIn } from './rows';
import type { NeedRow } from './tables';

/** The lead time of a supplier, or of a part it sells where that has one of its own; null without a supplier. */
export type LeadOf = (supplierId: number | null, part?: Pick<SoldPart, 'leadDays'>) => Lead | null;

export async function loadLeads(db: Db, supplierIds: readonly (number | null)[]): Promise<LeadOf> {
  const ids = [...new Set(supplierIds.filter((id) => id !== null))];
  const company = await loadCalendar(db);
  const closed = groupBy(await whereIn(db, 'supplierClosed', 'supplierId', ids), (c) => c.supplierId);
  const suppliers = new Map(
    (await whereIn(db, 'supplier', 'id', ids)).map(({ id, leadDays, week }) => {
      const own = week === null ? null : new Set(week.split(',').map(Number));
      return [id, { leadDays, calendar: calendarOf(company, own, closed.get(id) ?? []) }];
    }),
  );
  return (supplierId, part) => {
    const supplier = suppliers.get(supplierId ?? 0);
    return supplier === undefined ? null : { days: part?.leadDays ?? supplier.leadDays, calendar: supplier.calendar };
  };
}

/** The last day to order a need from its supplier; null without a day or a supplier. */
export async function loadOrderDays(
  db: Db,
  needs: readonly Pick<NeedRow, 'supplierId' | 'itemId' | 'neededOn'>[],
): Promise<(need: (typeof needs)[number]) => Day | null> {
  const { receivingDays } = await loadCompany(db);
  const calendar = await loadCalendar(db);
  const leads = await loadLeads(
    db,
    needs.map((n) => n.supplierId),
  );
  const sold = await whereIn(
    db,
    'supplierPart',
    'itemId',
    needs.flatMap((n) => n.itemId ?? []),
  );
  const parts = new Map(sold.map((p) => [partKey(p.supplierId, p.itemId), p]));
  return ({ supplierId, itemId, neededOn }) => {
    const lead = leads(supplierId, parts.get(partKey(supplierId, itemId)));
    return lead === null || neededOn === null ? null : orderBy(neededOn, lead, receivingDays, calendar);
  };
}
