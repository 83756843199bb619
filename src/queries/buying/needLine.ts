import { daysLate } from '@/core/calendar/lead';
import type { Calendar, Day } from '@/core/calendar/workdays';
import { lineNet, subtract, ZERO, type Minor, type UnitPrice } from '@/core/money/money';
import { costOf, type LostTax } from '@/core/money/tax';
import { convert, type Rate } from '@/core/money/rate';
import { spreadMoney } from '@/core/money/spread';
import { assetWords } from '@/core/records/asset';
import { obstaclesOf, wordsFor, type Obstacle } from '@/core/needs/obstacles';
import {
  atLeastNone,
  formatQuantity,
  fromSupplierUnit,
  least,
  NONE,
  subtractQ,
  type Quantity,
} from '@/core/quantity/quantity';
import { loadCalendar, loadCompany, loadRates, loadSupplierTaxes } from '@/store/company';
import type { Db } from '@/store/db';
import { loadItems, loadParts, loadSuppliers, partKey, termsFor, type SoldPart } from '@/store/gathering';
import { loadLeads, type LeadOf } from '@/store/leads';
import { loadFreeStock } from '@/store/stock/piles';
import type { Item } from '@/store/tables';
import { anyQuantity, priceFor, quantityToOrder, type PartTerms } from '@/core/sourcing/terms';
import { exactFactor, unitOf } from '@/core/quantity/units';

export type Tag = {
  readonly words: string;
  readonly weight: 'stop' | 'care' | 'note';
  /** What stands in the way, where it is that. */
  readonly of?: Obstacle['kind'];
};

/** The words of what makes a line late; undefined for one that is not. */
export const lateWords = ({ tags }: NeedLine): string | undefined => tags.find((t) => t.of === 'late')?.words;

export type NeedLine = {
  readonly id: number;
  readonly jobId: number;
  readonly job: string;
  readonly itemId: number | null;
  readonly number: string | null;
  readonly kind: 'goods' | 'service';
  readonly description: string;
  readonly quantity: Quantity;
  readonly unit: string;
  readonly costCodeId: number;
  readonly code: string;
  readonly codeName: string;
  readonly supplierId: number | null;
  readonly supplier: string | null;
  readonly neededOn: Day | null;
  readonly open: Quantity;
  /** The need's own estimate, in the company's currency. */
  readonly price: UnitPrice | null;
  readonly priceQuantity: number;
  /** The price that buying what is open would have: the supplier's for so much, else the estimate. */
  readonly buying: Buying | null;
  readonly version: number;
  /** What of the customer’s its job works on, in words; empty where that is not said. */
  readonly workedOn: string;
  /** What buying what is open comes to beyond its own estimate, in the company's currency; below 0 when it is less. */
  readonly more: Minor;
  /** The last day to order it from its supplier; null without a day or a supplier. */
  readonly orderBy: Day | null;
  readonly tags: readonly Tag[];
  readonly late: boolean;
};

export type Buying = {
  readonly price: UnitPrice;
  readonly priceQuantity: number;
  readonly unit: string;
  readonly currency: string;
  /** In the company's currency, with the tax that cannot be recovered. */
  readonly value: Minor;
};

/** A line as it is read, before what stands in its way is worked out. */
export type RawNeed = Omit<NeedLine, 'tags' | 'late' | 'buying' | 'more' | 'workedOn'> & {
  /** What the quote has for one of it, in the company's currency; null for a line of no quote. */
  quoteCost: UnitPrice | null;
  /** How much of it was sold; null likewise. */
  sold: Quantity | null;
  /** Whether the customer agreed to it; null while that is open, and for a line of no quote. */
  agreed: number | null;
  /** Whom the quote bought it from. */
  quoteSupplierId: number | null;
  supplierCurrency: string | null;
  assetName: string | null;
  assetDescription: string | null;
  assetSerial: string | null;
};

/**
 * Lines with what they are of.
 * @param jobs - a cross join goes through the lines in their own order: SQLite keeps one as it is written
 */
export const joined = (db: Db, jobs: 'join' | 'crossJoin' = 'join') =>
  db('need as n')
    [jobs]('job as j', 'j.id', 'n.jobId')
    .join('costCode as c', 'c.id', 'n.costCodeId')
    .leftJoin('supplier as s', 's.id', 'n.supplierId')
    .leftJoin('item as i', 'i.id', 'n.itemId')
    .leftJoin('quoteLine as q', 'q.id', 'n.quoteLineId')
    .leftJoin('asset as a', 'a.id', 'j.assetId');

export const NEED_COLUMNS = [
  'n.id',
  'n.jobId',
  'n.itemId',
  'n.kind',
  'n.description',
  'n.quantity',
  'n.unit',
  'n.costCodeId',
  'n.supplierId',
  'n.neededOn',
  'n.open',
  'n.orderBy',
  'n.price',
  'n.priceQuantity',
  'n.version',
  {
    job: 'j.number',
    number: 'i.number',
    code: 'c.code',
    codeName: 'c.name',
    supplier: 's.name',
    supplierCurrency: 's.currency',
    quoteCost: 'q.cost',
    quoteSupplierId: 'q.supplierId',
    sold: 'q.quantity',
    agreed: 'q.agreed',
    assetName: 'a.name',
    assetDescription: 'a.description',
    assetSerial: 'a.serial',
  },
] as const;

type Context = {
  readonly today: Day;
  readonly calendar: Calendar;
  readonly receivingDays: number;
  readonly currency: string;
  readonly parts: ReadonlyMap<string, SoldPart>;
  readonly leads: LeadOf;
  /** What suppliers of these items are called. */
  readonly names: ReadonlyMap<number, string>;
  readonly items: ReadonlyMap<number, Item>;
  readonly rates: ReadonlyMap<string, Rate>;
  readonly taxes: ReadonlyMap<number, LostTax>;
  /** What the company has free of items in its stores, in the item's unit. */
  readonly free: ReadonlyMap<number, Quantity>;
};

const WEIGHTS: Readonly<Record<Obstacle['kind'], Tag['weight']>> = {
  noSupplier: 'stop',
  noPrice: 'care',
  noRate: 'stop',
  unit: 'stop',
  late: 'stop',
  notBought: 'stop',
  notAgreed: 'care',
  inStores: 'note',
  aboveQuote: 'care',
  noItem: 'note',
};

function buyingOf(raw: RawNeed, terms: PartTerms, { currency, rates, taxes }: Context): Buying | null {
  const tax = taxes.get(raw.supplierId ?? 0) ?? null;
  const { quantity: ordered } = quantityToOrder(raw.open, terms);
  const found = priceFor(ordered, terms.prices);
  if (found !== undefined) {
    const own = raw.supplierCurrency ?? currency;
    const rate = rates.get(own);
    if (rate === undefined) return null;
    // The need's share of the whole line, as the order will have it.
    const whole = convert(lineNet(ordered, found.price, found.priceQuantity, own), own, currency, rate);
    const over = atLeastNone(subtractQ(fromSupplierUnit(ordered, terms.factor), raw.open));
    const [net = whole] = spreadMoney(whole, [raw.open, over]);
    const { price, priceQuantity } = found;
    return { price, priceQuantity, unit: terms.unit, currency: own, value: costOf(net, tax) };
  }
  return raw.price === null
    ? null
    : {
        price: raw.price,
        priceQuantity: raw.priceQuantity,
        unit: raw.unit,
        currency,
        value: costOf(lineNet(raw.open, raw.price, raw.priceQuantity, currency), tax),
      };
}

/** Of what is open, what the company has free in stores, in the need's unit. */
function freeOf({ open, unit, kind }: RawNeed, item: Item | undefined, { free }: Context): Quantity {
  const factor = item && exactFactor(item.unit, unit);
  const there = free.get(item?.id ?? 0) ?? NONE;
  return factor === undefined || kind === 'service' ? NONE : least(open, fromSupplierUnit(there, factor));
}

/** Suppliers of a need's part, beside the one chosen, from whom it would come in time if it were ordered today. */
function inTime({ itemId, supplierId, neededOn }: RawNeed, context: Context): string[] {
  const { parts, leads, names, receivingDays, today, calendar } = context;
  if (itemId === null || neededOn === null) return [];
  return [...names].flatMap(([id, name]) => {
    const part = id === supplierId ? undefined : parts.get(partKey(id, itemId));
    const lead = part && leads(id, part);
    const makes = lead != null && daysLate(neededOn, lead, receivingDays, today, calendar) === 0;
    return makes ? [name] : [];
  });
}

export function tagged(need: RawNeed, context: Context): NeedLine {
  const { today, calendar, receivingDays, parts, items, rates } = context;
  const {
    supplierCurrency,
    quoteCost,
    quoteSupplierId,
    sold,
    agreed,
    assetName,
    assetDescription,
    assetSerial,
    ...raw
  } = need;
  const workedOn =
    assetName === null
      ? ''
      : assetWords({ name: assetName, description: assetDescription ?? '', serial: assetSerial ?? '' });
  const part = parts.get(partKey(raw.supplierId, raw.itemId));
  const known = termsFor(raw, parts, items.get(raw.itemId ?? 0));
  const terms = known ?? anyQuantity(raw.unit);
  const buying = buyingOf(need, terms, context);
  const lead = context.leads(raw.supplierId, part);
  const { currency, taxes } = context;
  const beyond = (price: UnitPrice | null, per: number, from: number | null): Minor =>
    buying === null || price === null
      ? ZERO
      : subtract(buying.value, costOf(lineNet(raw.open, price, per, currency), taxes.get(from ?? 0) ?? null));
  const obstacles =
    raw.open === 0
      ? []
      : obstaclesOf(
          {
            supplierId: raw.supplierId,
            hasPrice: buying !== null || raw.price !== null,
            hasRate: supplierCurrency === null || rates.has(supplierCurrency),
            hasUnit: known !== undefined,
            hasItem: raw.itemId !== null,
            agreed: quoteCost === null || agreed === 1,
            mayBeBought: items.get(raw.itemId ?? 0)?.bought !== 0,
            freeInStores: freeOf(need, items.get(raw.itemId ?? 0), context),
            unit: raw.unit,
            aboveQuote: beyond(quoteCost, 1, quoteSupplierId),
            currency,
            neededOn: raw.neededOn,
            lead,
          },
          today,
          receivingDays,
          calendar,
        );
  const tags: Tag[] = obstacles.map((o) => ({ of: o.kind, words: wordsFor(o), weight: WEIGHTS[o.kind] }));
  if (obstacles.some((o) => o.kind === 'late'))
    for (const name of inTime(need, context)) tags.push({ words: `${name} can deliver in time`, weight: 'note' });
  const { extra, quantity: ordered } = quantityToOrder(raw.open, terms);
  if (raw.open > 0 && extra > 0)
    tags.push({
      words: `rounds up to ${formatQuantity(ordered)} ${unitOf(terms.unit).short} (pack size)`.trim(),
      weight: 'note',
    });
  if (sold !== null && sold > raw.quantity) {
    const kept = `${formatQuantity(subtractQ(sold, raw.quantity))} ${unitOf(raw.unit).short}`.trim();
    tags.push({ words: `${kept} not bought, kept in hand`, weight: 'note' });
  }
  const more = raw.open === 0 ? ZERO : beyond(raw.price, raw.priceQuantity, raw.supplierId);
  return { ...raw, workedOn, buying, more, tags, late: obstacles.some((o) => o.kind === 'late') };
}

export async function contextFor(db: Db, rows: readonly RawNeed[], today: Day): Promise<Context> {
  const { receivingDays, currency } = await loadCompany(db);
  const itemIds = rows.flatMap((r) => r.itemId ?? []);
  const parts = await loadParts(db, itemIds, today);
  const sellers = [...new Set([...parts.values()].map((p) => p.supplierId))];
  const suppliers = [...sellers, ...rows.map((r) => r.supplierId)];
  return {
    today,
    receivingDays,
    currency,
    calendar: await loadCalendar(db),
    parts,
    leads: await loadLeads(db, suppliers),
    names: new Map([...(await loadSuppliers(db, sellers))].map(([id, s]) => [id, s.name])),
    items: await loadItems(db, itemIds),
    rates: await loadRates(db, today),
    taxes: await loadSupplierTaxes(
      db,
      rows.flatMap((r) => [r.supplierId, r.quoteSupplierId]),
    ),
    free: await loadFreeStock(db, itemIds),
  };
}
