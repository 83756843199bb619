import type { Day } from '@/core/calendar/workdays';
import { minor, type Minor, type Rate } from '@/core/money/money';
import type { TaxCode } from '@/core/money/tax';
import { netOf, orderTotals, splitValues, withCharges, type OrderLine, type Split } from '@/core/orders/order';
import { progressState, type LineProgress, type OrderState } from '@/core/orders/states';
import { addQ, type Quantity } from '@/core/quantity/quantity';
import { groupBy } from '@/core/group';
import { loadCompany, loadTaxCodes } from './company';
import type { Db } from './connection';
import { insertOne, whereIn } from './rows';

export type StoredSplit = Split & {
  readonly id: number;
  readonly value: Minor;
  readonly received: Quantity;
  readonly billed: Quantity;
  readonly billedAmount: Minor;
};

export type StoredLine = Omit<OrderLine, 'splits'> & {
  readonly id: number;
  readonly itemId: number | null;
  readonly ourNumber: string;
  readonly theirNumber: string;
  readonly wantedOn: Day | null;
  /** For a charge: the cost code that takes it; null lets it follow the lines. */
  readonly chargeCodeId: number | null;
  /** The reason, once the line is closed short. */
  readonly closedShort: string | null;
  readonly net: Minor;
  readonly splits: readonly StoredSplit[];
};

export type OrderHead = {
  readonly id: number;
  readonly number: string;
  readonly supplierId: number;
  readonly state: OrderState;
  readonly currency: string;
  readonly rate: Rate;
  readonly placeId: number;
  readonly wantedOn: Day | null;
  readonly carrier: string;
  readonly instructions: string;
  readonly net: Minor;
  readonly gross: Minor;
  readonly madeBy: number;
  readonly madeAt: string;
  readonly sentOn: Day | null;
  readonly version: number;
};

export type StoredOrder = OrderHead & { readonly lines: readonly StoredLine[] };

/** A line as it is to be written: without id for a new one, splits replaced as a whole. */
export type LineToSave = Omit<StoredLine, 'id' | 'net' | 'splits' | 'closedShort'> & {
  readonly id?: number;
  readonly splits: readonly Split[];
};

type SplitRow = StoredSplit & { readonly lineId: number };

export async function loadLines(db: Db, orderIds: readonly number[]): Promise<Map<number, StoredLine[]>> {
  const rows = await whereIn<StoredLine & { orderId: number; place: number }>(db, 'orderLine', 'orderId', orderIds);
  const splits = groupBy(
    await whereIn<SplitRow>(
      db,
      'split',
      'lineId',
      rows.map((r) => r.id),
    ),
    (s) => s.lineId,
  );
  const lines = rows
    .sort((a, b) => a.place - b.place)
    .map((r) => ({ ...r, splits: (splits.get(r.id) ?? []).sort((a, b) => a.id - b.id) }));
  return groupBy(lines, (l) => l.orderId);
}

export async function findOrder(db: Db, id: number): Promise<StoredOrder | undefined> {
  const head = (await db('purchaseOrder').where({ id }).first()) as OrderHead | undefined;
  if (head === undefined) return undefined;
  return { ...head, lines: (await loadLines(db, [id])).get(id) ?? [] };
}

type Money = { readonly codes: readonly TaxCode[]; readonly companyCurrency: string };

/**
 * Writes the lines of an unsent order: keeps, changes, adds and removes lines, works out charges, net amounts,
 * split values and totals.
 *
 * @returns the ids of needs that a removed or changed split covered, whose coverage is to be looked at again
 */
export async function saveLines(
  trx: Db,
  head: OrderHead,
  toSave: readonly LineToSave[],
  money: Money,
): Promise<number[]> {
  const before = (await loadLines(trx, [head.id])).get(head.id) ?? [];
  const terms = { currency: head.currency, companyCurrency: money.companyCurrency, rate: head.rate };
  const lines = withCharges(toSave, money.codes, terms);
  const values = splitValues(lines, money.codes, terms);
  const kept = new Set(lines.flatMap((l) => (l.id === undefined ? [] : [l.id])));
  await trx('orderLine')
    .where({ orderId: head.id })
    .whereNotIn('id', [...kept])
    .delete();
  for (const [k, line] of lines.entries()) {
    const { splits, id } = line;
    const row = { ...pickLine(line), orderId: head.id, place: k + 1, net: netOf(line, head.currency) };
    const lineId = id ?? (await insertOne(trx, 'orderLine', row));
    if (id !== undefined) await trx('orderLine').where({ id, orderId: head.id }).update(row);
    const stored = before.find((l) => l.id === id)?.splits ?? [];
    await saveSplits(
      trx,
      lineId,
      stored,
      splits.map((s, j) => ({ ...s, value: values[k]?.[j] ?? minor(0) })),
    );
  }
  const totals = orderTotals(lines, money.codes, head.currency);
  await trx('purchaseOrder').where({ id: head.id }).update({ net: totals.net, gross: totals.gross });
  return before.flatMap((l) => l.splits.flatMap((s) => (s.needId === null ? [] : [s.needId])));
}

const targetOf = (s: Split) => `${s.jobId}/${s.costCodeId}/${s.needId}`;

/** A split that is still charged to the same job, cost code and need stays the same line of the ledger. */
async function saveSplits(
  trx: Db,
  lineId: number,
  stored: readonly StoredSplit[],
  splits: readonly (Split & { value: Minor })[],
): Promise<void> {
  const left = new Map(stored.map((s) => [targetOf(s), s.id]));
  for (const split of splits) {
    const { jobId, costCodeId, needId, quantity, covers, value } = split;
    const id = left.get(targetOf(split));
    if (id === undefined) await trx('split').insert({ jobId, costCodeId, needId, quantity, covers, lineId, value });
    else await trx('split').where({ id }).update({ quantity, covers, value });
    left.delete(targetOf(split));
  }
  await trx('split')
    .whereIn('id', [...left.values()])
    .delete();
}

const LINE_COLUMNS = [
  'kind',
  'itemId',
  'description',
  'ourNumber',
  'theirNumber',
  'quantity',
  'unit',
  'price',
  'priceQuantity',
  'taxCodeId',
  'wantedOn',
  'chargeCodeId',
] as const satisfies readonly (keyof LineToSave)[];

/** What of a line is written, whatever else comes with it. */
const pickLine = (line: LineToSave) => Object.fromEntries(LINE_COLUMNS.map((c) => [c, line[c]]));

/** Moves an order on; the caller has checked that it may. */
export async function setState(
  trx: Db,
  order: OrderHead,
  changes: Partial<Pick<OrderHead, 'state' | 'sentOn'>>,
): Promise<void> {
  await trx('purchaseOrder')
    .where({ id: order.id })
    .update({ ...changes, version: order.version + 1 });
}

export const progressOf = (line: StoredLine): LineProgress => ({
  kind: line.kind,
  closedShort: line.closedShort !== null,
  ordered: line.quantity,
  received: addQ(...line.splits.map((s) => s.received)),
  billed: addQ(...line.splits.map((s) => s.billed)),
});

/** Reads the order again and sets its state by what came of its lines. */
export async function refreshProgress(trx: Db, orderId: number): Promise<OrderState> {
  const order = await findOrder(trx, orderId);
  if (order === undefined) throw new Error(`Order ${orderId} is gone.`);
  const state = progressState(order.state, order.lines.map(progressOf));
  await setState(trx, order, { state });
  return state;
}

/** What working out an order's money needs of the company. */
export async function loadTaxed(db: Db): Promise<Money> {
  return { codes: await loadTaxCodes(db), companyCurrency: (await loadCompany(db)).currency };
}
