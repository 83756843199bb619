import { z } from 'zod';
import type { Day } from '@/core/calendar/workdays';
import { minor, subtract, type Minor } from '@/core/money/money';
import { convert } from '@/core/money/rate';
import { orderTotals } from '@/core/orders/order';
import { quantitySchema } from '@/core/quantity/schema';
import { loadCompany, loadTaxCodes } from '@/store/company';
import type { Db } from '@/store/db';
import { planOrders } from '@/workings/orders/planOrders';
import { loadPickedRows, type Picked } from '@/store/gathering';
import type { Person } from '@/store/people';
import { permit } from '../permit';
import { loadSellers, type Seller } from '../items/sellers';

export const switchSchema = z.object({
  needId: z.number().int(),
  picks: z.array(z.object({ needId: z.number().int(), buy: quantitySchema })).max(2000),
});

export type Switched = Seller & {
  /** What all that is picked would cost more from there, and how much of that is carriage; null where it cannot be bought. */
  readonly effect: { readonly inAll: Minor; readonly carriage: Minor } | null;
};

/**
 * What buying a line from each other supplier of its part would do to all that is picked: to goods, breaks and packs of
 * both orders, and to their carriage; in the company's currency.
 */
export async function loadSwitched(
  db: Db,
  person: Person,
  { needId, picks }: z.output<typeof switchSchema>,
  today: Day,
): Promise<Switched[]> {
  permit(person, 'draft orders');
  const sellers = await loadSellers(db, person, needId, today);
  const [need] = await loadPickedRows(db, [{ needId, buy: minor(1) as never }]);
  if (need === undefined) return [];
  const others = await loadPickedRows(
    db,
    picks.filter((p) => p.needId !== needId),
  );
  const own = { needId, buy: picks.find((p) => p.needId === needId)?.buy ?? need.open };
  const costOf = costing(db, today);
  const found: Switched[] = [];
  for (const seller of sellers) {
    // Only the two suppliers' orders can change.
    const beside = others
      .filter((o) => o.supplierId === need.supplierId || o.supplierId === seller.supplierId)
      .map((o): Picked => ({ needId: o.id, buy: o.buy }));
    const now = await costOf([...beside, own]);
    const then = await costOf([...beside, { ...own, supplierId: seller.supplierId }]);
    const effect =
      now === undefined || then === undefined
        ? null
        : { inAll: subtract(then.all, now.all), carriage: subtract(then.carriage, now.carriage) };
    found.push({ ...seller, effect });
  }
  return found;
}

/** What the orders that picks make come to, in the company's currency; undefined where something of them has no price or cannot be bought. */
const costing = (db: Db, today: Day) => async (picks: readonly Picked[]) => {
  const plan = await planOrders(db, picks, today);
  if (plan.refusals.length > 0 || plan.orders.some((o) => o.goods.some((l) => l.price === null))) return undefined;
  const { currency } = await loadCompany(db);
  const codes = await loadTaxCodes(db);
  let [all, carriage] = [0, 0];
  for (const { supplier, rate, lines } of plan.orders) {
    const totals = orderTotals(lines, codes, supplier.currency);
    all += convert(totals.net, supplier.currency, currency, rate);
    carriage += convert(totals.charges, supplier.currency, currency, rate);
  }
  return { all: minor(all), carriage: minor(carriage) };
};
