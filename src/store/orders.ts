import type { Day } from '@/core/calendar/workdays';
import { groupBy } from '@/core/group';
import { WAITING } from '@/core/invoices/states';
import { minor } from '@/core/money/money';
import type { TaxCode } from '@/core/money/tax';
import type { Target } from '@/core/orders/charges';
import { numbersOf } from '@/core/orders/numbering';
import { orderTotals, valueOrder, type OrderLine, type ValuedSplit } from '@/core/orders/order';
import type { Facts } from '@/core/orders/rules';
import { progressOf, progressState, type OrderState } from '@/core/orders/states';
import { loadCompany, loadTaxCodes } from './company';
import type { Db } from './db';
import { openTabLines } from './tabLines';
import { insertOne, whereIn, rowsOf } from './rows';
import type { OrderHead, OrderLineRow, SplitRow } from './tables';

export type StoredLine = Omit<OrderLineRow, 'factorMany' | 'factorOne' | 'free'> &
  Omit<OrderLine, 'splits'> & { readonly splits: readonly SplitRow[] };

export type StoredOrder = OrderHead & { readonly lines: readonly StoredLine[] };

/** A line as it is to be written: lines and splits without an id are new, those that are left out are taken off. */
export type LineToSave = OrderLine & {
  readonly id?: number;
  readonly itemId: number | null;
  readonly ourNumber: string;
  readonly theirNumber: string;
  readonly note: string;
  readonly wantedOn: Day | null;
  readonly placeId: number | null;
};

export async function loadLines(db: Db, orderIds: readonly number[]): Promise<Map<number, StoredLine[]>> {
  const rows = await whereIn(db, 'orderLine', 'orderId', orderIds);
  const splits = groupBy(
    await whereIn(
      db,
      'split',
      'lineId',
      rows.map((r) => r.id),
    ),
    (s) => s.lineId,
  );
  const lines = rows
    .sort((a, b) => a.place - b.place)
    .map(({ factorMany, factorOne, free, ...row }): StoredLine => ({
      free: free === 1,
      factor: { many: factorMany, one: factorOne },
      splits: (splits.get(row.id) ?? []).sort((a, b) => a.place - b.place),
      ...row,
    }));
  return groupBy(lines, (l) => l.orderId);
}

export async function findOrder(db: Db, id: number): Promise<StoredOrder | undefined> {
  const head = await db('purchaseOrder').where({ id }).first();
  if (head === undefined) return undefined;
  return { ...head, lines: (await loadLines(db, [id])).get(id) ?? [] };
}

export async function findOrderNumbered(db: Db, number: string): Promise<StoredOrder | undefined> {
  const head = await db('purchaseOrder').where({ number }).first('id');
  return head && findOrder(db, head.id);
}

export type Money = { readonly codes: readonly TaxCode[]; readonly companyCurrency: string };

/** What working out an order's money needs of the company. */
export async function loadMoney(db: Db): Promise<Money> {
  return { codes: await loadTaxCodes(db), companyCurrency: (await loadCompany(db)).currency };
}

/** Every line of the tab that an order's splits are, and every need that they cover. */
export const tabLinesOf = (order: Pick<StoredOrder, 'lines'>): number[] =>
  order.lines.flatMap((l) => l.splits.flatMap((s) => (s.needId === null ? [s.id] : [s.id, s.needId])));

/**
 * Writes the lines of an order: keeps, changes, adds and removes lines and splits by their ids, with numbers, charges, net
 * amounts, split values and totals worked out.
 */
export async function saveLines(
  trx: Db,
  head: OrderHead,
  toSave: readonly LineToSave[],
  { codes, companyCurrency }: Money,
): Promise<void> {
  const before = (await loadLines(trx, [head.id])).get(head.id) ?? [];
  const lines = valueOrder(toSave, codes, { currency: head.currency, companyCurrency, rate: head.rate });
  const keptLines = lines.flatMap((l) => l.id ?? []);
  const keptSplits = new Set(lines.flatMap((l) => l.splits.flatMap((s) => s.id ?? [])));
  const gone = before.flatMap((l) => l.splits.map((s) => s.id)).filter((id) => !keptSplits.has(id));
  await trx('split').whereIn('id', gone).delete();
  await trx('orderLine').where({ orderId: head.id }).whereNotIn('id', keptLines).delete();
  const numbers = numbersOf(lines, { lastLine: head.lastLine, lines: before });
  for (const [k, line] of lines.entries()) {
    const row = { ...columnsOf(line), orderId: head.id, place: k + 1, number: numbers[k] ?? k + 1, net: line.net };
    const lineId = line.id ?? (await insertOne(trx, 'orderLine', row));
    if (line.id !== undefined) await trx('orderLine').where({ id: line.id, orderId: head.id }).update(row);
    await saveSplits(trx, lineId, line.description, line.splits);
  }
  const { net, gross } = orderTotals(toSave, codes, head.currency);
  await trx('purchaseOrder').where({ id: head.id }).update({ net, gross });
}

/** Writes the splits of one line anew; those that are left out are taken off. */
export async function rewriteSplits(
  trx: Db,
  lineId: number,
  words: string,
  splits: readonly ValuedSplit[],
): Promise<void> {
  await trx('split')
    .where({ lineId })
    .whereNotIn(
      'id',
      splits.flatMap((s) => s.id ?? []),
    )
    .delete();
  await saveSplits(trx, lineId, words, splits);
}

async function saveSplits(trx: Db, lineId: number, words: string, splits: readonly ValuedSplit[]): Promise<void> {
  const fresh = await openTabLines(
    trx,
    'split',
    splits.filter((s) => s.id === undefined).map(() => words),
  );
  for (const [k, { id, jobId, costCodeId, needId, quantity, value, amount = null }] of splits.entries()) {
    const row = { jobId, costCodeId, needId, quantity, value, amount, lineId, place: k + 1 };
    if (id === undefined) await trx('split').insert({ ...row, id: fresh.shift() });
    else await trx('split').where({ id }).update(row);
  }
  await trx('tabLine')
    .whereIn(
      'id',
      splits.flatMap((s) => s.id ?? []),
    )
    .update({ words });
}

const columnsOf = (l: Omit<LineToSave, 'splits'>) => ({
  kind: l.kind,
  chargeKind: l.chargeKind,
  itemId: l.itemId,
  description: l.description,
  ourNumber: l.ourNumber,
  theirNumber: l.theirNumber,
  quantity: l.quantity,
  unit: l.unit,
  factorMany: l.factor.many,
  factorOne: l.factor.one,
  shareUnit: l.shareUnit,
  price: l.price,
  priceQuantity: l.priceQuantity,
  grossPrice: l.grossPrice,
  discount: l.discount,
  free: l.free ? 1 : 0,
  note: l.note,
  taxCodeId: l.taxCodeId,
  wantedOn: l.wantedOn,
  placeId: l.placeId,
  chargeCodeId: l.chargeCodeId,
  spread: l.spread,
  weight: l.weight,
});

/** Moves an order on; the caller has checked that it may. */
export async function setState(
  trx: Db,
  order: OrderHead,
  changes: Partial<Pick<OrderHead, 'state' | 'sentOn' | 'sentFrom'>>,
): Promise<void> {
  await trx('purchaseOrder')
    .where({ id: order.id })
    .update({ ...changes, version: order.version + 1 });
}

/** What the rules of an order ask about it. */
export async function factsOf(db: Db, order: StoredOrder): Promise<Facts> {
  const waiting = await rowsOf<{
    n: number;
  }>(db('invoice').where({ orderId: order.id }).whereIn('state', WAITING).count({ n: '*' }));
  return {
    number: order.number,
    state: order.state,
    lines: order.lines.map((l) => ({ ...progressOf(l), description: l.description })),
    waitingInvoices: waiting[0]?.n ?? 0,
  };
}

/** Reads the order again and sets its state by what came of its lines. */
export async function refreshProgress(trx: Db, orderId: number): Promise<OrderState> {
  const order = await findOrder(trx, orderId);
  if (order === undefined) throw new Error(`Order ${orderId} is gone.`);
  const state = progressState(order.state, order.lines.map(progressOf));
  await setState(trx, order, { state });
  return state;
}

/** What an order's splits are to cost, by where it goes. */
export const valuesOf = (order: {
  readonly lines: readonly { readonly splits: readonly (Target & { readonly value: number })[] }[];
}) =>
  order.lines.flatMap((l) =>
    l.splits.map(({ jobId, costCodeId, value }) => ({ jobId, costCodeId, value: minor(value) })),
  );
