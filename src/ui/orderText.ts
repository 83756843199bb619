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
import { CHARGE_NAMES, type ChargeKind, type Spread } from '@/core/orders/charges';
import { isShareOfLines, type LineKind } from '@/core/orders/order';
import {
  formatQuantity,
  fromSupplierUnit,
  ONE,
  parseQuantity,
  quantity,
  SAME_UNIT,
  type Factor,
  type Quantity,
} from '@/core/quantity/quantity';
import { exactFactor } from '@/core/quantity/units';
import { sourceOf } from '@/core/sourcing/source';
import { priceFor, type PriceBreak } from '@/core/sourcing/terms';
import type { ItemTerms } from '@/queries/orderTerms';
import type { LineToSave } from '@/store/orders';
import type { OrderHead } from '@/store/tables';
import { named, type Named } from './entry/column';
import { beginReading, chosen, NOT_CHOSEN, type Choice } from './entry/reading';

/** Stands for stores where a job is chosen. */
export const STORES: Named = { id: 0, number: '', name: 'Stores' };

/** An order as a person types it. */
export type SplitText = {
  /** Its line of the tab; undefined for a new part. */
  readonly id?: number;
  readonly job: Choice;
  readonly code: Choice;
  readonly needId: number | null;
  /** In the unit of the line's parts. */
  readonly quantity: string;
  /** Of a charge shared out by amounts. */
  readonly amount: string;
};

export type LineText = {
  readonly key: string;
  readonly id?: number;
  readonly kind: LineKind;
  readonly itemId: number | null;
  readonly ourNumber: string;
  readonly description: string;
  readonly theirNumber: string;
  readonly quantity: string;
  readonly unit: string;
  /** What was given as a unit and is none. */
  readonly unitWords: string;
  /** Before the discount. */
  readonly price: string;
  readonly priceQuantity: string;
  /** In percent. */
  readonly discount: string;
  readonly free: boolean;
  readonly note: string;
  readonly taxCodeId: string;
  readonly wantedOn: string;
  /** Where it goes, when it is elsewhere than the order. */
  readonly place: Named | null;
  readonly chargeKind: ChargeKind;
  readonly spread: Spread;
  /** Of a charge: the cost code that takes it; nothing lets it follow the lines. */
  readonly chargeCode: Choice;
  /** The unit it was bought in, and that of its parts, with how many of these are in how many of that. */
  readonly bought: { readonly unit: string; readonly shareUnit: string; readonly factor: Factor };
  /** A part was taken for it, whose unit, price and number at the supplier are still to be filled in. */
  readonly asks?: true;
  readonly splits: readonly SplitText[];
};

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

const quantityText = (q: Quantity) => ungrouped(formatQuantity(q));

function naming({ jobs, codes, places }: Names) {
  const byId = new Map(codes.map((c) => [c.id, { id: c.id, number: c.code, name: c.name }]));
  return {
    job: (id: number | null): Named => (id === null ? STORES : { id, ...(jobs.get(id) ?? { number: '', name: '' }) }),
    code: (id: number | null): Named | null => byId.get(id ?? 0) ?? null,
    place: (id: number | null): Named | null =>
      id === null ? null : { id, number: '', name: places.get(id)?.name ?? '' },
  };
}

function lineText(l: LineToSave, k: number, currency: string, names: Names): LineText {
  const { job, code, place } = naming(names);
  return {
    key: l.id === undefined ? `added ${k}` : `line ${l.id}`,
    ...(l.id === undefined ? {} : { id: l.id }),
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
    splits:
      l.kind === 'charge' && l.spread !== 'amounts'
        ? []
        : l.splits.map((s) => ({
            ...(s.id === undefined ? {} : { id: s.id }),
            job: chosen(job(s.jobId)),
            code: chosen(code(s.costCodeId)),
            needId: s.needId,
            quantity: quantityText(s.quantity),
            amount: s.amount == null ? '' : ungrouped(formatAmount(s.amount, currency)),
          })),
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

/** Where a new line goes until it is said: to what the line above is for. */
export type Towards = Pick<SplitText, 'job' | 'code'>;

/** Where a new line goes: to what the line above it is for, else to the job one came from. */
export function towardsOf(lines: readonly LineText[], lastJob: Named | null): Towards {
  const last = lines.findLast((l) => l.splits.length > 0)?.splits.at(-1);
  return last === undefined
    ? { job: lastJob === null ? NOT_CHOSEN : chosen(named(lastJob)), code: NOT_CHOSEN }
    : { job: last.job, code: last.code };
}

export const newLine = (
  kind: LineKind,
  taxCodeId: number,
  count: number,
  towards: Towards,
  chargeKind: ChargeKind = 'other',
): LineText => ({
  key: `new ${count}`,
  kind,
  itemId: null,
  ourNumber: '',
  description: kind === 'charge' && chargeKind !== 'other' ? CHARGE_NAMES[chargeKind] : '',
  theirNumber: '',
  quantity: '1',
  unit: 'C62',
  unitWords: '',
  price: '',
  priceQuantity: '1',
  discount: '',
  free: false,
  note: '',
  taxCodeId: String(taxCodeId),
  wantedOn: '',
  place: null,
  chargeKind,
  spread: 'value',
  chargeCode: NOT_CHOSEN,
  bought: { unit: 'C62', shareUnit: 'C62', factor: SAME_UNIT },
  splits: kind === 'charge' ? [] : [{ ...towards, needId: null, quantity: '1', amount: '' }],
});

/** The unit that a line's parts are in, and how many of it are in how many of the line's. */
export function partsOf({ unit, bought }: LineText): { readonly unit: string; readonly factor: Factor } {
  if (unit === bought.unit) return { unit: bought.shareUnit, factor: bought.factor };
  const exact = exactFactor(unit, bought.shareUnit);
  return exact === undefined ? { unit, factor: SAME_UNIT } : { unit: bought.shareUnit, factor: exact };
}

function shareText(line: LineText, text: string): string {
  const { factor } = partsOf(line);
  const read = parseQuantity(text);
  return factor.many === factor.one || !read.ok ? text : quantityText(fromSupplierUnit(read.value, factor));
}

/** Whether the line's price is what the supplier lists for its quantity. */
function followsList(line: LineText, prices: readonly PriceBreak[]): boolean {
  const [price, q] = [parsePrice(line.price), parseQuantity(line.quantity)];
  if (!price.ok || !q.ok) return line.price.trim() === '';
  return sourceOf({ price: price.value, priceQuantity: Number(line.priceQuantity) }, q.value, prices).from !== 'typed';
}

const listedPrice = (prices: readonly PriceBreak[], text: string, currency: string) => {
  const q = parseQuantity(text);
  const listed = q.ok ? priceFor(q.value, prices) : undefined;
  return (
    listed && { price: ungrouped(formatPrice(listed.price, currency)), priceQuantity: String(listed.priceQuantity) }
  );
};

/**
 * A line with another quantity: its only split goes with it, and a price that came from the supplier's list goes to the
 * break that holds for so many.
 */
export function withQuantity(
  line: LineText,
  text: string,
  prices: readonly PriceBreak[] = [],
  currency = '',
): LineText {
  const [only] = line.splits;
  const listed =
    line.unit === line.bought.unit && followsList(line, prices) ? listedPrice(prices, text, currency) : undefined;
  return {
    ...line,
    ...listed,
    quantity: text,
    splits:
      line.splits.length === 1 && only !== undefined ? [{ ...only, quantity: shareText(line, text) }] : line.splits,
  };
}

/** A line of a part that was taken for it, with what its supplier says of that: unit, number, and price for so many. */
export function withTerms(line: LineText, terms: ItemTerms, currency: string): LineText {
  const { asks: _, ...rest } = line;
  const same = rest.unit === terms.unit;
  const bought = same ? rest.bought : { unit: terms.unit, shareUnit: terms.unit, factor: SAME_UNIT };
  const listed = rest.price.trim() === '' ? listedPrice(terms.prices, rest.quantity, currency) : undefined;
  return { ...rest, unit: terms.unit, bought, theirNumber: rest.theirNumber || terms.theirNumber, ...listed };
}

/** Reads a typed order; what cannot be read is told by field, as `lines.2.price`. */
export function readOrder(text: OrderText, currency: string) {
  const reading = beginReading();
  const { faults, take } = reading;
  const idOf = (field: string, choice: Choice, missing?: string): number | null => {
    const id = reading.idOf(field, choice, missing);
    return id === STORES.id ? null : id;
  };
  const lines = text.lines.map((l, k) => {
    const at = (field: string) => `lines.${k}.${field}`;
    const per = Number(l.priceQuantity);
    const chargeKind = l.kind === 'charge' ? l.chargeKind : null;
    if (!Number.isInteger(per) || per < 1)
      faults.push({ field: at('priceQuantity'), message: 'A price is for a whole number from 1.' });
    reading.unit(at('unit'), l.unitWords);
    return {
      ...(l.id === undefined ? {} : { id: l.id }),
      kind: l.kind,
      itemId: l.itemId,
      ourNumber: l.ourNumber,
      description: l.description,
      theirNumber: l.theirNumber,
      quantity: l.kind === 'charge' ? ONE : take(at('quantity'), parseQuantity(l.quantity), quantity(0)),
      unit: l.kind === 'charge' ? 'C62' : l.unit,
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
          ...(s.id === undefined ? {} : { id: s.id }),
          jobId: idOf(part('job'), s.job, 'Say which job it is for, or stores.'),
          costCodeId:
            s.job.thing?.id === STORES.id ? null : idOf(part('code'), s.code, 'Choose a cost code for the job.'),
          quantity: l.kind === 'charge' ? ONE : take(part('quantity'), parseQuantity(s.quantity), quantity(0)),
          amount:
            l.kind === 'charge'
              ? amountTyped(chargeKind, take(part('amount'), parseMoney(s.amount, currency), ZERO))
              : null,
        };
      }),
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
