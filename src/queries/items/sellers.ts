import { rowsOf } from '@/store/rows';
import { comesOn, daysLate, readyAfter } from '@/core/calendar/lead';
import type { Day } from '@/core/calendar/workdays';
import type { Minor, UnitPrice } from '@/core/money/money';
import { lineNet } from '@/core/money/money';
import { costOf } from '@/core/money/tax';
import { loadCalendar, loadCompany, loadSupplierTaxes } from '@/store/company';
import type { Db } from '@/store/db';
import { loadEstimates } from '@/store/estimates';
import { loadParts, loadSuppliers } from '@/store/gathering';
import { loadLeads } from '@/store/leads';
import type { Person } from '@/store/people';
import { permit } from '../permit';
import { loadDaysKept, type DaysKept } from './suppliers';

/** A supplier of a part, as it stands to one line to buy. */
export type Seller = {
  readonly supplierId: number;
  readonly name: string;
  readonly theirNumber: string;
  /** What it asks today for one of the line's unit at what is open, and for all of that with the tax that cannot be
   * recovered, in the company's currency. */
  readonly price: UnitPrice | null;
  readonly value: Minor | null;
  /** The day it would be there and taken in, if it were ordered today; and by how many working days that is too late. */
  readonly readyOn: Day;
  readonly late: number;
  /** How often it was bought there, when last, and how the supplier kept its days over the last year. */
  readonly times: number;
  readonly lastOn: Day | null;
  readonly kept: DaysKept;
  readonly chosen: boolean;
};

/** Every supplier that sells the part of a line to buy, side by side; none for a line of words. */
export async function loadSellers(db: Db, person: Person, needId: number, today: Day): Promise<Seller[]> {
  permit(person, 'see money');
  const need = await db('need').where({ id: needId }).first();
  if (need === undefined || need.itemId === null) return [];
  const { itemId } = need;
  const parts = [...(await loadParts(db, [itemId], today)).values()];
  const suppliers = await loadSuppliers(
    db,
    parts.map((p) => p.supplierId),
  );
  const leads = await loadLeads(
    db,
    parts.map((p) => p.supplierId),
  );
  const estimate = await loadEstimates(db, [itemId], today);
  const { receivingDays, currency } = await loadCompany(db);
  const calendar = await loadCalendar(db);
  const open = need.open === 0 ? need.quantity : need.open;
  const past = new Map(
    (
      await rowsOf<{ supplierId: number; times: number; lastOn: Day }>(
        db('orderLine as l')
          .join('purchaseOrder as o', 'o.id', 'l.orderId')
          .where('l.itemId', itemId)
          .whereNotNull('o.sentOn')
          .whereNot('o.state', 'cancelled')
          .groupBy('o.supplierId')
          .select('o.supplierId')
          .count({ times: '*' })
          .max({ lastOn: 'o.sentOn' }),
      )
    ).map((p) => [p.supplierId, p]),
  );
  const taxes = await loadSupplierTaxes(
    db,
    parts.map((p) => p.supplierId),
  );
  const sellers: Seller[] = [];
  for (const part of parts) {
    const supplier = suppliers.get(part.supplierId);
    if (supplier === undefined) continue;
    const lead = leads(supplier.id, part);
    if (lead === null) continue;
    const { price } = estimate({ ...need, quantity: open }, supplier.id);
    sellers.push({
      supplierId: supplier.id,
      name: supplier.name,
      theirNumber: part.theirNumber,
      price,
      value: price === null ? null : costOf(lineNet(open, price, 1, currency), taxes.get(supplier.id) ?? null),
      readyOn: readyAfter(comesOn(today, lead), receivingDays, calendar),
      late: need.neededOn === null ? 0 : daysLate(need.neededOn, lead, receivingDays, today, calendar),
      times: past.get(supplier.id)?.times ?? 0,
      lastOn: past.get(supplier.id)?.lastOn ?? null,
      kept: await loadDaysKept(db, supplier.id, today),
      chosen: need.supplierId === supplier.id,
    });
  }
  return sellers.sort((a, b) => (a.value ?? Infinity) - (b.value ?? Infinity));
}
