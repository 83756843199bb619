import type { StoredOrder } from '@/store/orders';
import type { TestCompany } from './company';
import { lineNet } from './plainSums';
import { orderInput } from './typed';

/** By what a charge is shared out, for some of the numbers. */
const SPREAD_BY = ['quantity', 'weight', 'amounts'] as const;

/** The parts of a charge as a person says them: some for one job, the rest for the other. */
function amountsOf(yard: TestCompany, whole: number, share: number) {
  const first = Math.round(whole * share);
  return [first, whole - first].map((amount, k) => ({
    ...{ jobId: yard.ids.jobs[k === 0 ? 0 : 1], costCodeId: yard.ids.codes[2], quantity: 10_000, amount },
  }));
}

/** A draft as its sheet would send it after a price, the code of a part, a part for the other job or a discount was typed. */
export function typedChange(yard: TestCompany, order: StoredOrder, lineId: number, which: number, share: number) {
  const typed = orderInput(order);
  // By weight only where everything has one.
  const weighed = typed.lines.every((l) => l.kind !== 'goods' || l.itemId !== null);
  const by = which % 12 === 1 && !weighed ? undefined : SPREAD_BY[which % 12];
  const lines = typed.lines.map((l) => {
    const touched = l.id === lineId && l.kind !== 'charge';
    const splits: { id?: number; jobId: number | null; costCodeId: number | null; quantity: number }[] = [...l.splits];
    const [head] = splits;
    const price = touched && which % 4 === 0 ? (Math.round((l.price ?? 10_000) * (0.5 + share)) as never) : l.price;
    if (touched && which % 4 === 1 && head?.jobId) head.costCodeId = yard.ids.codes[0];
    if (touched && which % 4 === 2 && head !== undefined && head.quantity > 1) {
      const given = Math.max(1, Math.floor(head.quantity * Math.min(share, 0.9)));
      head.quantity -= given;
      // The same job, code and need twice, or the other job.
      const other = { ...head, id: undefined, quantity: given };
      splits.push(which % 8 === 2 ? other : { ...other, jobId: yard.ids.jobs[1], costCodeId: yard.ids.codes[2] });
    }
    const discount = touched && which % 5 === 0 ? Math.round(3000 * share) : l.discount;
    const spread = l.kind === 'charge' && l.chargeKind !== 'discount' ? (by ?? l.spread) : l.spread;
    const said =
      spread === 'amounts' && l.spread !== 'amounts'
        ? amountsOf(yard, lineNet(10_000, l.price ?? 0, 1, order.currency), share)
        : splits;
    return { ...l, price, discount, spread, splits: said as never };
  });
  const discount = {
    kind: 'charge' as const,
    itemId: null,
    description: 'Discount',
    ourNumber: '',
    theirNumber: '',
    quantity: 10_000 as never,
    unit: 'C62',
    price: which % 8 === 3 ? null : (-123_400 as never),
    priceQuantity: 1,
    discount: which % 8 === 3 ? 725 : 0,
    free: false,
    note: '',
    placeId: null,
    chargeKind: 'discount' as const,
    spread: 'value' as const,
    taxCodeId: which % 8 === 3 ? 1 : 2,
    wantedOn: '',
    chargeCodeId: null,
    splits: [] as never,
  };
  const all = which % 4 === 3 && lines.length < 6 ? [...lines, discount] : lines;
  return { ...typed, lines: all };
}
