import { wantedBy, type Calendar } from '@/core/calendar/workdays';
import { add, PAR, type Minor, type UnitPrice } from '@/core/money/money';
import { divideRounded } from '@/core/money/decimal';
import type { Split } from '@/core/orders/order';
import { EDITABLE } from '@/core/orders/states';
import { formatQuantity, ONE, quantity, type Quantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import { refusal, type Refusal } from '@/core/result';
import { bundle, isEarned, type Bundle, type Carriage, type PickedNeed } from '@/core/sourcing/bundle';
import { loadCalendar, loadCompany, type Company } from './company';
import type { Db } from './connection';
import {
  earliest,
  loadParts,
  loadPickedRows,
  loadSuppliers,
  partKey,
  termsFor,
  type NeedRow,
  type Part,
  type Picked,
  type Supplier,
} from './gathering';
import { findOrder, type LineToSave, type StoredOrder } from './orders';
import { whereIn } from './rows';

/** An order as it would be drafted or added to: what the preview shows and the action writes. */
export type PlannedOrder = {
  readonly supplier: Supplier;
  readonly bundle: Bundle;
  /** The draft that the picks join; undefined when they make a new order. */
  readonly into: StoredOrder | undefined;
  /** The lines that the picks make. */
  readonly goods: readonly LineToSave[];
  /** All lines that the order then has. */
  readonly lines: readonly LineToSave[];
};

export type Plan = {
  readonly orders: readonly PlannedOrder[];
  readonly needs: readonly (NeedRow & { buy: Quantity })[];
  /** Picks that cannot be bought as they are; they are in no order. */
  readonly refusals: readonly Refusal[];
};

type ItemRow = { id: number; number: string; name: string; stocked: number };

/** The need's estimate is in the company's currency; a line needs it in the supplier's. */
function estimateFor(need: NeedRow, supplier: Supplier): PickedNeed['estimate'] {
  if (need.price === null) return null;
  const price =
    supplier.rate === PAR
      ? need.price
      : (divideRounded(BigInt(need.price) * BigInt(PAR), BigInt(supplier.rate)) as UnitPrice);
  return { price, priceQuantity: need.priceQuantity };
}

function faultOf(need: NeedRow & { buy: Quantity }): Refusal | undefined {
  const field = `picks.${need.id}`;
  const unit = unitOf(need.unit);
  const said = (q: Quantity) => `${formatQuantity(q)}${unit.short === '' ? '' : ` ${unit.short}`}`;
  if (need.supplierId === null)
    return refusal('need.supplier', `${need.description} has no supplier yet. Choose one before drafting.`, field);
  if (need.buy <= 0) return refusal('need.buy', `${need.description}: the quantity to buy must be above zero.`, field);
  if (need.buy > need.open)
    return refusal(
      'need.open',
      `${need.description}: ${said(need.buy)} picked, but ${said(need.open)} are left to buy. Somebody may have drafted the rest.`,
      field,
    );
  if (unit.whole === true && need.buy % ONE !== 0)
    return refusal('need.whole', `${need.description}: a ${unit.name} cannot be divided.`, field);
  return undefined;
}

/**
 * Plans the orders that a set of picks makes, without writing anything.
 * @param joined - ids of drafts that picks for the same supplier are added to
 */
export async function planOrders(db: Db, picks: readonly Picked[], joined: readonly number[] = []): Promise<Plan> {
  const company = await loadCompany(db);
  const calendar = await loadCalendar(db);
  const all = await loadPickedRows(db, picks);
  const refusals = all.flatMap((n) => faultOf(n) ?? []);
  if (all.length < picks.length)
    refusals.push(refusal('need.gone', 'A picked line is no longer on its buy list. Look at the list again.'));
  const needs = all.filter((n) => faultOf(n) === undefined);
  const itemIds = needs.flatMap((n) => n.itemId ?? []);
  const items = new Map((await whereIn<ItemRow>(db, 'item', 'id', itemIds)).map((i) => [i.id, i]));
  const parts = await loadParts(db, itemIds);
  const suppliers = await loadSuppliers(
    db,
    needs.flatMap((n) => n.supplierId ?? []),
  );
  const drafts = await loadDrafts(db, joined);
  for (const d of drafts.values()) {
    if (!EDITABLE.includes(d.state))
      refusals.push(refusal('order.state', `Order ${d.number} is no longer being drafted, so nothing can be added.`));
    if ((suppliers.get(d.supplierId)?.currency ?? d.currency) !== d.currency)
      refusals.push(
        refusal('order.currency', `Order ${d.number} is in ${d.currency}, which its supplier sells in no more.`),
      );
  }
  const byId = new Map(needs.map((n) => [n.id, n]));
  const picked = needs.flatMap((n): PickedNeed[] => {
    const supplier = suppliers.get(n.supplierId ?? 0);
    if (supplier === undefined) return [];
    return [
      {
        needId: n.id,
        jobId: n.jobId,
        costCodeId: n.costCodeId,
        supplierId: supplier.id,
        sameAs: n.itemId === null ? `${n.description.trim().toLowerCase()}/${n.unit}/${n.price}` : `item ${n.itemId}`,
        stocked: items.get(n.itemId ?? 0)?.stocked === 1,
        buy: n.buy,
        terms: termsFor(n, parts),
        estimate: estimateFor(n, supplier),
      },
    ];
  });
  const carriageOf = (s: Supplier): Carriage => ({ charge: s.carriage, freeFrom: s.carriageFreeFrom });
  const terms = new Map([...suppliers].map(([id, s]) => [id, { currency: s.currency, carriage: carriageOf(s) }]));
  const orders = bundle(picked, terms).flatMap((b): PlannedOrder[] => {
    const supplier = suppliers.get(b.supplierId);
    if (supplier === undefined) return [];
    const into = drafts.get(supplier.id);
    const goods = goodsOf(b, supplier, { byId, items, parts, company, calendar });
    const value = add(b.goods, ...(into?.lines ?? []).filter((l) => l.kind !== 'charge').map((l) => l.net));
    const before = (into?.lines ?? []).filter((l) => !isEarned(l, value, carriageOf(supplier)));
    const carriage =
      into === undefined && b.carriage > 0 ? [carriageLine(supplier, b.carriage, company.freightCodeId)] : [];
    return [{ supplier, bundle: b, into, goods, lines: [...before, ...goods, ...carriage] }];
  });
  return { orders, needs, refusals };
}

async function loadDrafts(db: Db, ids: readonly number[]): Promise<Map<number, StoredOrder>> {
  const drafts = new Map<number, StoredOrder>();
  for (const id of ids) {
    const order = await findOrder(db, id);
    if (order !== undefined) drafts.set(order.supplierId, order);
  }
  return drafts;
}

type Context = {
  readonly byId: ReadonlyMap<number, NeedRow>;
  readonly items: ReadonlyMap<number, ItemRow>;
  readonly parts: ReadonlyMap<string, Part>;
  readonly company: Company;
  readonly calendar: Calendar;
};

function goodsOf(b: Bundle, supplier: Supplier, { byId, items, parts, company, calendar }: Context): LineToSave[] {
  return b.lines.map((line): LineToSave => {
    const needs = line.splits.flatMap((s) => byId.get(s.needId ?? 0) ?? []);
    const item = items.get(needs[0]?.itemId ?? 0);
    const needed = earliest(needs.map((n) => n.neededOn));
    const splits: Split[] = line.splits.map(({ needId, jobId, costCodeId, quantity: q, covers }) => ({
      needId,
      jobId,
      costCodeId,
      quantity: q,
      covers,
    }));
    return {
      kind: 'goods',
      itemId: item?.id ?? null,
      description: item?.name ?? needs[0]?.description ?? '',
      ourNumber: item?.number ?? '',
      theirNumber: parts.get(partKey(supplier.id, item?.id ?? null))?.theirNumber ?? '',
      quantity: line.amount.quantity,
      unit: line.unit,
      price: line.price,
      priceQuantity: line.priceQuantity,
      taxCodeId: supplier.taxCodeId,
      wantedOn: needed === null ? null : wantedBy(needed, company.receivingDays, calendar),
      chargeCodeId: null,
      splits,
    };
  });
}

/** A charge for carriage; its splits are worked out when the order is saved. */
export function carriageLine(supplier: Supplier, carriage: Minor, freightCodeId: number | null): LineToSave {
  return {
    kind: 'charge',
    itemId: null,
    description: 'Carriage',
    ourNumber: '',
    theirNumber: '',
    quantity: quantity(ONE),
    unit: 'C62',
    price: (carriage * 100) as UnitPrice,
    priceQuantity: 1,
    taxCodeId: supplier.taxCodeId,
    wantedOn: null,
    chargeCodeId: freightCodeId,
    splits: [],
  };
}
