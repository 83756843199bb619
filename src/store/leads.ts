import { calendarOf, type Lead } from '@/core/calendar/lead';
import { groupBy } from '@/core/group';
import { loadCalendar } from './company';
import type { Db } from './connection';
import type { Part } from './gathering';
import { whereIn } from './rows';

/** The lead time of a supplier, or of a part it sells where that has one of its own; null without a supplier. */
export type LeadOf = (supplierId: number | null, part?: Pick<Part, 'leadDays'>) => Lead | null;

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
