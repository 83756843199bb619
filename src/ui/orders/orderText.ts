import { followsLines, isCharge } from '@/core/orders/kinds';
import { ungrouped } from '@/core/locale/locale';
import { formatDecimal, parseDecimal } from '@/core/money/decimal';
import {
  formatAmount,
  formatPrice,
  minor,
  parseMoney,
  parsePrice,
  ZERO,
  type Minor,
  type UnitPrice,
} from '@/core/money/money';
import { type ChargeKind } from '@/core/orders/charges';
import { isShareOfLines } from '@/core/orders/order';
import { ONE, parseQuantity, quantity } from '@/core/quantity/quantity';
import type { LineToSave } from '@/store/orders';
import type { OrderHead } from '@/store/tables';
import { type Named } from '../entry/column';
import { quantityText, STORES, type LineText } from './orderLineText';
import { beginReading, chosen, type PickedText } from '../entry/reading';

/** An order as it is typed, beside its lines. */
export const HEAD_KEYS = [
  'number',
  'place',
  'wantedOn',
  'latestOn',
  'carrier',
  'carrierService',
  'siteContact',
  'instructions',
] as const;

export type OrderText = {
  readonly number: string;
  readonly place: Named | null;
  readonly wantedOn: string;
  readonly latestOn: string;
  readonly carrier: string;
  readonly carrierService: string;
  readonly siteContact: string;
  readonly instructions: string;
  readonly lines: readonly LineText[];
};

/** Names of what an order is charged to. */
export type Names = {
  readonly jobs: ReadonlyMap<number, { readonly number: string; readonly name: string }>;
  readonly codes: readonly { readonly id: number; readonly code: string; readonly name: string }[];
  readonly places: ReadonlyMap<number, { readonly name: string }>;
};

function naming({ jobs, codes, places }: Names) {
  const byId = new Map(codes.map((c) => [c.id, { id: c.id, number: c.code, name: c.name }]));
  return {
    job: (id: number | null): Named => (id === null ? STORES : { id, ...(jobs.get(id) ?? { number: '', name: '' }) }),
    code: (id: number | null): Named | null => byId.get(id ?? 0) ?? null,
    place: (id: number | null): Named | null =>
      id === null ? null : { id, number: '', name: places.get(id)?.name ?? '' },
  };
}

/** The id of what was there before. It is spread in last, which V8 does many times faster. */
const sameId = ({ id }: { readonly id?: number | undefined }) => (id === undefined ? {} : { id });

function lineText(l: LineToSave, k: number, currency: string, names: Names): LineText {
  const { job, code, place } = naming(names);
  return {
    key: l.id === undefined ? `added ${k}` : `line ${l.id}`,
    kind: l.kind,
    itemId: l.itemId,
    ourNumber: l.ourNumber,
    description: l.description,
    theirNumber: l.theirNumber,
    quantity: quantityText(l.quantity),
    unit: l.unit,
    unitWords: '',
    price: priceText(l, currency),
    priceQuantity: String(l.priceQuantity),
    discount: l.discount === 0 ? '' : ungrouped(formatDecimal(l.discount, 2, 0)),
    free: l.free,
    note: l.note,
    taxCodeId: String(l.taxCodeId),
    wantedOn: l.wantedOn ?? '',
    place: place(l.placeId),
    chargeKind: l.chargeKind ?? 'other',
    spread: l.spread,
    chargeCode: chosen(code(l.chargeCodeId)),
    bought: { unit: l.unit, shareUnit: l.shareUnit, factor: l.factor },
    splits: followsLines(l)
      ? []
      : l.splits.map((s) => ({
          job: chosen(job(s.jobId)),
          code: chosen(code(s.costCodeId)),
          needId: s.needId,
          quantity: quantityText(s.quantity),
          amount: s.amount == null ? '' : ungrouped(formatAmount(s.amount, currency)),
          ...sameId(s),
        })),
    ...sameId(l),
  };
}

/** A price as it is typed: before its discount; of a discount on the lines none, and of another one above zero. */
function priceText(l: LineToSave, currency: string): string {
  if (isShareOfLines(l)) return '';
  const price = l.grossPrice ?? l.price;
  return price === null ? '' : ungrouped(formatPrice(asTyped(l.chargeKind, price), currency));
}

/** A discount is typed above zero, and counts below it. */
const asTyped = (kind: ChargeKind | null, price: UnitPrice): UnitPrice =>
  kind === 'discount' ? (-price as UnitPrice) : price;

/** An order that can be typed on: as it is stored, or as a revision of it is being written. */
export type Typeable = Pick<
  OrderHead,
  | 'number'
  | 'currency'
  | 'placeId'
  | 'wantedOn'
  | 'latestOn'
  | 'carrier'
  | 'carrierService'
  | 'siteContact'
  | 'instructions'
> & { readonly lines: readonly LineToSave[] };

export const orderText = (order: Typeable, names: Names): OrderText => ({
  number: order.number,
  place: naming(names).place(order.placeId),
  wantedOn: order.wantedOn ?? '',
  latestOn: order.latestOn ?? '',
  carrier: order.carrier,
  carrierService: order.carrierService,
  siteContact: order.siteContact,
  instructions: order.instructions,
  lines: order.lines.map((l, k) => lineText(l, k, order.currency, names)),
});

/** Reads a typed order; what cannot be read is told by field, as `lines.2.price`. */
export function readOrder(text: OrderText, currency: string) {
  const reading = beginReading();
  const { faults, take } = reading;
  const idOf = (field: string, choice: PickedText, missing?: string): number | null => {
    const id = reading.idOf(field, choice, missing);
    return id === STORES.id ? null : id;
  };
  const lines = text.lines.map((l, k) => {
    const at = (field: string) => `lines.${k}.${field}`;
    const per = Number(l.priceQuantity);
    const chargeKind = isCharge(l) ? l.chargeKind : null;
    if (!Number.isInteger(per) || per < 1)
      faults.push({ field: at('priceQuantity'), message: 'Enter a whole number from 1.' });
    reading.unit(at('unit'), l.unitWords);
    return {
      kind: l.kind,
      itemId: l.itemId,
      ourNumber: l.ourNumber,
      description: l.description,
      theirNumber: l.theirNumber,
      quantity: isCharge(l) ? ONE : take(at('quantity'), parseQuantity(l.quantity), quantity(0)),
      unit: isCharge(l) ? 'C62' : l.unit,
      price: l.price.trim() === '' ? null : asTyped(chargeKind, take(at('price'), parsePrice(l.price), 0 as UnitPrice)),
      priceQuantity: per,
      discount:
        l.discount.trim() === '' ? 0 : take(at('discount'), parseDecimal(l.discount, { places: 2, most: 100 }), 0),
      free: l.free,
      note: l.note,
      taxCodeId: Number(l.taxCodeId),
      wantedOn: l.wantedOn,
      placeId: l.place?.id ?? null,
      chargeKind,
      chargeCodeId: idOf(at('chargeCodeId'), l.chargeCode),
      spread: l.spread,
      splits: l.splits.map((s, j) => {
        const part = (field: string) => at(`splits.${j}.${field}`);
        return {
          jobId: idOf(part('job'), s.job, 'Choose a job, or Stores.'),
          costCodeId:
            s.job.thing?.id === STORES.id ? null : idOf(part('code'), s.code, 'Choose a cost code for the job.'),
          quantity: isCharge(l) ? ONE : take(part('quantity'), parseQuantity(s.quantity), quantity(0)),
          amount: isCharge(l)
            ? amountTyped(chargeKind, take(part('amount'), parseMoney(s.amount, currency), ZERO))
            : null,
          ...sameId(s),
        };
      }),
      ...sameId(l),
    };
  });
  return {
    faults,
    value: {
      number: text.number,
      placeId: text.place?.id ?? 0,
      wantedOn: text.wantedOn,
      latestOn: text.latestOn,
      carrier: text.carrier,
      carrierService: text.carrierService,
      siteContact: text.siteContact,
      instructions: text.instructions,
      lines,
    },
  };
}

const amountTyped = (kind: ChargeKind | null, amount: Minor): Minor => (kind === 'discount' ? minor(-amount) : amount);
