import { isCharge } from '@/core/orders/kinds';
import { wantedBy } from '@/core/calendar/lead';
import type { Calendar, Day } from '@/core/calendar/workdays';
import { add, priceOf, type Minor } from '@/core/money/money';
import { priceIn, type Rate } from '@/core/money/rate';
import { CHARGE_NAMES } from '@/core/orders/charges';
import { groupBy } from '@/core/group';
import { changeFault } from '@/core/orders/rules';
import { UNSENT } from '@/core/orders/states';
import { draftFaults, netOf } from '@/core/orders/order';
import { ONE, quantity, SAME_UNIT, type Quantity } from '@/core/quantity/quantity';
import { measured, unitOf } from '@/core/quantity/units';
import { shareWeight } from '@/core/quantity/weight';
import { wholeFault } from '@/core/quantity/whole';
import { refusal, type Refusal } from '@/core/result';
import { bundle, carriageOf, carriageOn, isEarned, type Bundle, type PickedNeed } from '@/core/sourcing/bundle';
import type { PartTerms } from '@/core/sourcing/terms';
import { loadCalendar, loadCompany, loadRates } from '@/store/company';
import type { Db } from '@/store/db';
import {
  earliest,
  loadItems,
  loadParts,
  loadPickedRows,
  loadSuppliers,
  partKey,
  termsFor,
  type SoldPart,
  type Picked,
} from '@/store/gathering';
import { findOrder, type LineToSave, type StoredOrder } from '@/store/orders';
import { among, rowsOf } from '@/store/rows';
import type { Company, Item, NeedRow, Supplier } from '@/store/tables';

/** An order as it would be drafted or added to: what the preview shows and the action writes. */
export type PlannedOrder = {
  readonly supplier: Supplier;
  readonly rate: Rate;
  readonly bundle: Bundle;
  /** The draft that the picks join; undefined when they make a new order. */
  readonly into: StoredOrder | undefined;
  /** The lines that the picks make. */
  readonly goods: readonly LineToSave[];
  /** All lines that the order then has. */
  readonly lines: readonly LineToSave[];
};

/** What is to be bought: a need, or something for stores that no job asks for. */
type PickedRow = Pick<
  NeedRow,
  'itemId' | 'kind' | 'description' | 'unit' | 'price' | 'priceQuantity' | 'supplierId' | 'neededOn' | 'open'
> & {
  readonly id: number | null;
  readonly jobId: number | null;
  readonly costCodeId: number | null;
  readonly buy: Quantity;
};

/** Something bought for stores, in its item's unit. */
export type StockPick = { readonly itemId: number; readonly supplierId: number; readonly quantity: Quantity };

export type Plan = {
  readonly orders: readonly PlannedOrder[];
  readonly needs: readonly (NeedRow & { readonly buy: Quantity })[];
  /** Picks that cannot be bought as they are; they are in no order. */
  readonly refusals: readonly Refusal[];
};

type Context = {
  readonly company: Company;
  readonly calendar: Calendar;
  readonly items: ReadonlyMap<number, Item>;
  readonly parts: ReadonlyMap<string, SoldPart>;
  readonly suppliers: ReadonlyMap<number, Supplier>;
  readonly rates: ReadonlyMap<string, Rate>;
  /** By need, who has it on a draft, in words. */
  readonly heldBy: ReadonlyMap<number, string>;
};

/** Who has needs on orders that are not sent yet, in words. */
async function holders(db: Db, needIds: readonly number[]): Promise<Map<number, string>> {
  if (needIds.length === 0) return new Map();
  const rows = await rowsOf<{ needId: number; number: string; name: string }>(
    db('split as s')
      .join('orderLine as l', 'l.id', 's.lineId')
      .join('purchaseOrder as o', 'o.id', 'l.orderId')
      .join('person as p', 'p.id', 'o.madeBy')
      .whereIn('s.needId', among(db, needIds))
      .whereIn('o.state', UNSENT)
      .orderBy('o.id')
      .select('s.needId', 'o.number', 'p.name'),
  );
  return new Map(
    [...groupBy(rows, (r) => r.needId)].map(([id, own]) => [
      id,
      ` ${[...new Set(own.map((o) => `${o.name} has it on ${o.number}`))].join(', ')}.`,
    ]),
  );
}

/** How a pick can be bought, or why it cannot. */
function readPick(need: PickedRow, { items, parts, suppliers, rates, heldBy }: Context): Refusal | PartTerms {
  const field = need.id === null ? `stock.${need.itemId}` : `picks.${need.id}`;
  const name = need.description;
  const supplier = suppliers.get(need.supplierId ?? 0);
  if (supplier === undefined)
    return refusal('need.supplier', `${name} has no supplier yet. Choose one before drafting.`, field);
  if (!rates.has(supplier.currency))
    return refusal(
      'rate.none',
      `${name}: ${supplier.name} sells in ${supplier.currency}, and there is no exchange rate for it. Enter one under Exchange rates.`,
      field,
    );
  if (need.buy <= 0) return refusal('need.buy', `${name}: enter a quantity above zero.`, field);
  if (need.buy > need.open)
    return refusal(
      'need.open',
      `${name}: ${measured(need.buy, need.unit)} selected, but only ${measured(need.open, need.unit)} left to buy.${heldBy.get(need.id ?? 0) ?? ' Someone may have drafted the rest.'}`,
      field,
    );
  const whole = wholeFault(need.buy, need.unit, name, field);
  if (whole !== undefined) return whole;
  const item = items.get(need.itemId ?? 0);
  if (need.id === null && item?.stocked !== 1)
    return refusal('item.stocked', `${name} is not a stock item. Change that on the item.`, field);
  if (item?.bought === 0)
    return refusal(
      'need.notBought',
      `${name}: item ${item.number} is marked not for purchase. Change that on the item.`,
      field,
    );
  return (
    termsFor(need, parts, item) ??
    refusal(
      'need.unit',
      `${name} is needed in ${unitOf(need.unit).name}s, but item ${item?.number} is held in ${unitOf(item?.unit ?? need.unit).name}s, and these can’t be converted. Change the unit of the line.`,
      field,
    )
  );
}

const isRefusal = (read: Refusal | PartTerms): read is Refusal => 'message' in read;

/**
 * Plans the orders that a set of picks makes, without writing anything.
 * @param joined - ids of drafts that picks for the same supplier are added to
 */
export async function planOrders(
  db: Db,
  picks: readonly Picked[],
  today: Day,
  joined: readonly number[] = [],
  stock: readonly StockPick[] = [],
): Promise<Plan> {
  const needs = await loadPickedRows(db, picks);
  const all = [...needs, ...(await stockRows(db, stock))];
  const itemIds = all.flatMap((n) => n.itemId ?? []);
  const context: Context = {
    company: await loadCompany(db),
    calendar: await loadCalendar(db),
    items: await loadItems(db, itemIds),
    parts: await loadParts(db, itemIds, today),
    suppliers: await loadSuppliers(
      db,
      all.flatMap((n) => n.supplierId ?? []),
    ),
    rates: await loadRates(db, today),
    heldBy: await holders(
      db,
      needs.filter((n) => n.buy > n.open).map((n) => n.id),
    ),
  };
  const read = all.map((need) => ({ need, terms: readPick(need, context) }));
  const refusals = read.flatMap(({ terms }) => (isRefusal(terms) ? [terms] : []));
  if (needs.length < picks.length)
    refusals.push(
      refusal('need.gone', 'A selected line is no longer on its buy list. Refresh Gather and select again.'),
    );
  const picked = read.flatMap(({ need, terms }) => (isRefusal(terms) ? [] : [pickedNeed(need, terms, context)]));
  const drafts = await loadDrafts(db, joined, context, refusals);
  const byId = new Map(needs.map((n) => [n.id, n]));
  const sellers = new Map(
    [...context.suppliers].map(([id, s]) => [id, { currency: s.currency, carriage: carriageOf(s) }]),
  );
  const orders = bundle(picked, sellers).map((b): PlannedOrder => {
    const supplier = context.suppliers.get(b.supplierId) as Supplier;
    const into = drafts.get(supplier.id);
    const goods = goodsOf(b, supplier, byId, context);
    const old = into?.lines ?? [];
    const value = add(b.goods, ...old.filter((l) => !isCharge(l)).map((l) => l.net));
    const before = old.filter((l) => !isEarned(l, value, carriageOf(supplier)));
    const carriage =
      into === undefined && b.carriage > 0 ? [carriageLine(supplier, b.carriage, context.company.freightCodeId)] : [];
    const lines = [...before, ...goods, ...carriage];
    const rate = into?.rate ?? (context.rates.get(supplier.currency) as Rate);
    refusals.push(...draftFaults(lines, supplier.currency).map((r) => ({ ...r, field: undefined })));
    return { supplier, rate, bundle: b, into, goods, lines };
  });
  const good = new Set(read.flatMap(({ need, terms }) => (isRefusal(terms) ? [] : (need.id ?? []))));
  return { orders, needs: needs.filter((n) => good.has(n.id)), refusals };
}

/** What is bought for stores, as it is planned: nobody waits for it on a day. */
async function stockRows(db: Db, stock: readonly StockPick[]): Promise<PickedRow[]> {
  const items = await loadItems(
    db,
    stock.map((s) => s.itemId),
  );
  return stock.flatMap(({ itemId, supplierId, quantity: buy }) => {
    const item = items.get(itemId);
    if (item === undefined) return [];
    const { name: description, unit } = item;
    const none = { id: null, jobId: null, costCodeId: null, price: null, priceQuantity: 1, neededOn: null };
    return [{ ...none, itemId, supplierId, description, unit, kind: 'goods' as const, open: buy, buy }];
  });
}

function pickedNeed(need: PickedRow, terms: PartTerms, { items, suppliers, rates }: Context): PickedNeed {
  const supplier = suppliers.get(need.supplierId ?? 0) as Supplier;
  const words = `${need.description.trim().toLowerCase()}/${need.kind}/${need.price}`;
  const rate = rates.get(supplier.currency) as Rate;
  return {
    needId: need.id,
    jobId: need.jobId,
    costCodeId: need.costCodeId,
    supplierId: supplier.id,
    sameAs: `${need.itemId === null ? words : `item ${need.itemId}`}/${need.unit}`,
    kind: need.kind,
    stocked: items.get(need.itemId ?? 0)?.stocked === 1,
    unit: need.unit,
    buy: need.buy,
    terms,
    estimate:
      need.price === null
        ? null
        : { price: priceIn(need.price, rate), priceQuantity: need.priceQuantity, unit: need.unit },
  };
}

/** The item that a line is of, by what makes its needs the same. */
const itemOf = (sameAs: string): number | undefined => {
  const id = /^item (\d+)\//.exec(sameAs)?.[1];
  return id === undefined ? undefined : Number(id);
};

async function loadDrafts(
  db: Db,
  ids: readonly number[],
  { suppliers }: Context,
  refusals: Refusal[],
): Promise<Map<number, StoredOrder>> {
  const drafts = new Map<number, StoredOrder>();
  for (const id of ids) {
    const order = await findOrder(db, id);
    if (order === undefined) continue;
    drafts.set(order.supplierId, order);
    const closed = changeFault(order);
    if (closed !== undefined) refusals.push(closed);
    if ((suppliers.get(order.supplierId)?.currency ?? order.currency) !== order.currency)
      refusals.push(
        refusal(
          'order.currency',
          `Order ${order.number} is in ${order.currency}, but the supplier now sells in another currency. Draft a new order instead of adding to this one.`,
        ),
      );
  }
  return drafts;
}

function goodsOf(
  b: Bundle,
  supplier: Supplier,
  byId: ReadonlyMap<number, NeedRow>,
  { items, parts, company, calendar }: Context,
): LineToSave[] {
  return b.lines.map((line): LineToSave => {
    const needs = line.splits.flatMap((s) => byId.get(s.needId ?? 0) ?? []);
    const item = items.get(itemOf(line.sameAs) ?? 0);
    const needed = earliest(needs.map((n) => n.neededOn));
    return {
      kind: line.kind,
      chargeKind: null,
      chargeCodeId: null,
      itemId: item?.id ?? null,
      description: item?.name ?? needs[0]?.description ?? '',
      ourNumber: item?.number ?? '',
      theirNumber: parts.get(partKey(supplier.id, item?.id ?? null))?.theirNumber ?? '',
      quantity: line.amount.quantity,
      unit: line.unit,
      factor: line.factor,
      shareUnit: line.shareUnit,
      price: line.price?.price ?? null,
      priceQuantity: line.price?.priceQuantity ?? 1,
      taxCodeId: supplier.taxCodeId,
      wantedOn: needed === null ? null : wantedBy(needed, company.receivingDays, calendar),
      weight: item === undefined ? null : shareWeight(item, line.shareUnit),
      splits: line.splits,
      ...PLAIN,
    };
  });
}

/** What a line says that nobody said anything else of; it is spread in last, which V8 does many times faster. */
const PLAIN = {
  note: '',
  grossPrice: null,
  discount: 0,
  free: false,
  placeId: null,
  spread: 'value',
} as const satisfies Partial<LineToSave>;

/** The supplier's charge for carriage; its splits are worked out when the order is saved. */
const carriageLine = (supplier: Supplier, carriage: Minor, freightCodeId: number | null): LineToSave => ({
  kind: 'charge',
  chargeKind: 'carriage',
  itemId: null,
  description: CHARGE_NAMES.carriage,
  ourNumber: '',
  theirNumber: '',
  wantedOn: null,
  weight: null,
  quantity: quantity(ONE),
  unit: 'C62',
  factor: SAME_UNIT,
  shareUnit: 'C62',
  price: priceOf(carriage, supplier.currency),
  priceQuantity: 1,
  taxCodeId: supplier.taxCodeId,
  chargeCodeId: freightCodeId,
  splits: [],
  ...PLAIN,
});

/** The carriage that a supplier charges on lines; none where they earn it. */
export function carriageFor(
  supplier: Supplier,
  lines: readonly LineToSave[],
  freightCodeId: number | null,
): LineToSave[] {
  const goods = add(...lines.map((l) => netOf(l, supplier.currency)));
  const charge = carriageOn(goods, carriageOf(supplier));
  return charge > 0 ? [carriageLine(supplier, charge, freightCodeId)] : [];
}
