import { isCharge } from '@/core/orders/kinds';
import { formatDay, plusDays, type Day } from '@/core/calendar/workdays';
import { formatDecimal } from '@/core/money/decimal';
import { formatPrice, type UnitPrice } from '@/core/money/money';
import { CHARGE_NAMES } from '@/core/orders/charges';
import { isShareOfLines } from '@/core/orders/order';
import type { ToldOrder } from '@/core/orders/revising';
import { measured } from '@/core/quantity/units';
import type { LineToSave } from '@/store/orders';
import type { DeliveryPlace, OrderHead } from '@/store/tables';

/** What an order says on paper, whether it is stored so or is to be. */
export type Tellable = Pick<
  OrderHead,
  'currency' | 'placeId' | 'wantedOn' | 'latestOn' | 'carrier' | 'carrierService' | 'siteContact' | 'instructions'
> & { readonly lines: readonly (Omit<LineToSave, 'splits'> & { readonly number: number })[] };

/** A day with its year, as it stands on paper. */
export const dayOnPaper = (day: Day | null, today: Day): string =>
  day === null ? '–' : formatDay(day, plusDays(today, -1000));

const shareInWords = (discount: number): string => `${formatDecimal(discount, 2, 0)} %`;

/** A line's price as it stands on paper, with what it is for and its discount. */
export function priceOnPaper(line: Tellable['lines'][number], currency: string): string {
  if (line.free) return 'free of charge';
  if (isShareOfLines(line)) return shareInWords(line.discount);
  if (line.price === null) return 'Price to be agreed';
  const price = (p: UnitPrice) => formatPrice(p, currency);
  const per = line.priceQuantity === 1 ? '' : ` per ${line.priceQuantity}`;
  return line.grossPrice === null
    ? `${price(line.price)}${per}`
    : `${price(line.grossPrice)}${per}, less ${shareInWords(line.discount)}`;
}

/** Tells an order in words, so that it can be laid beside another one. */
export function tellOrder(order: Tellable, places: ReadonlyMap<number, DeliveryPlace>, today: Day): ToldOrder {
  const day = (d: Day | null) => dayOnPaper(d, today);
  const at = (id: number | null) => (id === null ? '' : (places.get(id)?.name ?? ''));
  return {
    terms: {
      'Deliver to': at(order.placeId),
      'Required by': day(order.wantedOn),
      'No later than': day(order.latestOn),
      Carrier: [order.carrier, order.carrierService].filter(Boolean).join(', '),
      'Site contact': order.siteContact,
      Instructions: order.instructions,
    },
    lines: order.lines.map((l) => ({
      id: l.id,
      number: l.number,
      name: l.description || CHARGE_NAMES[l.chargeKind ?? 'other'],
      says: {
        Description: l.description,
        'Supplier’s item no.': l.theirNumber,
        Quantity: isCharge(l) ? '' : measured(l.quantity, l.unit),
        Price: priceOnPaper(l, order.currency),
        'Required by': isCharge(l) ? '' : day(l.wantedOn),
        'Deliver to': at(l.placeId),
        Note: l.note,
      },
    })),
  };
}
