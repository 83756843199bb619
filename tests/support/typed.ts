import { changeOrder } from '@/actions/orders/orders';
import type { StoredOrder } from '@/store/orders';
import type { TestCompany } from './company';

/** An order as its form sends it. */
export const orderInput = (order: StoredOrder) => ({
  placeId: order.placeId,
  wantedOn: order.wantedOn ?? '',
  latestOn: order.latestOn,
  carrier: order.carrier,
  carrierService: order.carrierService,
  siteContact: order.siteContact,
  instructions: order.instructions,
  lines: order.lines.map((l) => ({
    id: l.id,
    kind: l.kind,
    itemId: l.itemId,
    description: l.description,
    ourNumber: l.ourNumber,
    theirNumber: l.theirNumber,
    quantity: l.quantity,
    unit: l.unit,
    price: l.chargeKind === 'discount' && l.discount > 0 ? null : (l.grossPrice ?? l.price),
    priceQuantity: l.priceQuantity,
    discount: l.discount,
    free: l.free,
    note: l.note,
    placeId: l.placeId,
    chargeKind: l.chargeKind,
    spread: l.spread,
    taxCodeId: l.taxCodeId,
    wantedOn: l.wantedOn ?? '',
    chargeCodeId: l.chargeCodeId,
    splits: l.splits.map((s) => ({
      id: s.id,
      jobId: s.jobId,
      costCodeId: s.costCodeId,
      quantity: s.quantity,
      amount: s.amount,
    })),
  })),
});
export type OrderInput = ReturnType<typeof orderInput>;

export const firstLine = (text: OrderInput) => text.lines[0] as OrderInput['lines'][number];

/** Changes a draft as its form would, after `edit` has typed into it. */
export async function changeDraft(yard: TestCompany, order: StoredOrder, edit: (text: OrderInput) => unknown) {
  const text = orderInput(order);
  edit(text);
  const ref = { once: yard.once(), orderId: order.id, version: order.version };
  return changeOrder(await yard.as('buyer'), { ...ref, ...text } as never);
}
