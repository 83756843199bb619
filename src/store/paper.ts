import { formatDay, plusDays, type Day } from '@/core/calendar/workdays';
import { add, formatAmount, formatMoney, formatPrice, type Minor } from '@/core/money/money';
import { orderTotals } from '@/core/orders/order';
import { formatQuantity, type Quantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import { UNSENT } from '@/core/orders/states';
import type { OrderPaper } from '@/formats/pdf/purchaseOrder';
import { loadCompany, loadTaxCodes } from './company';
import type { Db } from './connection';
import { findOrder } from './orders';
import { counted } from '@/core/words';

const measured = (q: Quantity, unit: string) => `${formatQuantity(q)} ${unitOf(unit).short}`.trim();

/** Gathers all that stands on an order's paper; undefined for an order that is not there. */
export async function loadPaper(db: Db, orderId: number, today: Day, sending = false): Promise<OrderPaper | undefined> {
  const order = await findOrder(db, orderId);
  if (order === undefined) return undefined;
  const company = await loadCompany(db);
  const supplier = await db('supplier').where({ id: order.supplierId }).first();
  const place = await db('deliveryPlace').where({ id: order.placeId }).first();
  const buyer = await db('person').where({ id: order.madeBy }).first('name');
  if (supplier === undefined || place === undefined) return undefined;
  const { currency } = order;
  const totals = orderTotals(order.lines, await loadTaxCodes(db), currency);
  const day = (d: Day | null) => (d === null ? '–' : formatDay(d, plusDays(today, -1000)));
  const money = (a: Minor) => formatAmount(a, currency);
  return {
    number: order.number,
    draft: UNSENT.includes(order.state) && !sending,
    size: company.paper,
    date: day(order.sentOn ?? today),
    company,
    supplier,
    deliverTo: place,
    wanted: day(order.wantedOn),
    carrier: order.carrier,
    payment: `${counted(supplier.paymentDays, 'day')} from invoice`,
    buyer: buyer?.name ?? '',
    instructions: order.instructions,
    currency,
    lines: order.lines.map((l, k) => ({
      place: String(k + 1),
      description: l.description,
      ourNumber: l.ourNumber,
      theirNumber: l.theirNumber,
      quantity: l.kind === 'charge' ? '' : measured(l.quantity, l.unit),
      price:
        l.price === null
          ? 'to be agreed'
          : `${formatPrice(l.price, currency)}${l.priceQuantity === 1 ? '' : ` per ${l.priceQuantity}`}`,
      wanted: day(l.wantedOn),
      net: money(l.net),
    })),
    totals: [
      ...(totals.charges === 0
        ? []
        : [
            { label: 'Goods and services', amount: money(totals.lines) },
            { label: 'Charges', amount: money(totals.charges) },
          ]),
      { label: 'Net', amount: money(totals.net) },
      ...totals.taxes.map((t) => ({ label: `${t.name} on ${money(t.base)}`, amount: money(t.tax) })),
      { label: 'Order total', amount: formatMoney(add(totals.net, totals.tax), currency), strong: true },
    ],
    terms: company.orderTerms,
  };
}
