import type { Day } from '@/core/calendar/workdays';
import { groupBy } from '@/core/group';
import {
  matchLine,
  matchTotal,
  shareBill,
  type BilledLine,
  type BilledPart,
  type Difference,
  type Tolerance,
} from '@/core/invoices/match';
import { convert, minor, ZERO, type Minor, type Rate, type UnitPrice } from '@/core/money/money';
import { jobCosts, type TaxedLine } from '@/core/money/tax';
import { addQ, NONE, type Quantity } from '@/core/quantity/quantity';
import { loadCompany, loadTaxCodes } from './company';
import type { Db } from './connection';
import { loadLines, type StoredLine } from './orders';
import { whereIn } from './rows';

export type InvoiceState = 'entered' | 'held' | 'matched';

export type StoredInvoice = {
  readonly id: number;
  readonly orderId: number;
  readonly supplierId: number;
  readonly number: string;
  readonly day: Day;
  readonly dueOn: Day;
  readonly state: InvoiceState;
  readonly currency: string;
  readonly rate: Rate;
  readonly net: Minor;
  readonly tax: Minor;
  readonly gross: Minor;
  /** The total that stands on the paper. */
  readonly typedTotal: Minor;
  readonly passedReason: string;
  readonly enteredBy: number;
  readonly enteredAt: string;
  readonly matchedBy: number | null;
  readonly matchedOn: Day | null;
  readonly version: number;
};

export type StoredInvoiceLine = {
  readonly id: number;
  readonly invoiceId: number;
  readonly lineId: number;
  readonly quantity: Quantity;
  readonly price: UnitPrice;
  readonly priceQuantity: number;
  readonly taxCodeId: number;
  readonly net: Minor;
};

export type ComparedLine = {
  readonly line: StoredInvoiceLine;
  readonly order: StoredLine;
  readonly billed: BilledLine;
  readonly differences: readonly Difference[];
};

export type Comparison = {
  readonly invoice: StoredInvoice;
  readonly lines: readonly ComparedLine[];
  readonly total: readonly Difference[];
  readonly held: boolean;
};

/** What earlier bills took of each order line, matched or not, up to (not with) this invoice. */
export async function billedBefore(
  db: Db,
  lineIds: readonly number[],
  invoiceId = Number.MAX_SAFE_INTEGER,
): Promise<Map<number, Quantity>> {
  const lines = await whereIn<StoredInvoiceLine>(db, 'invoiceLine', 'lineId', lineIds);
  const earlier = groupBy(
    lines.filter((l) => l.invoiceId < invoiceId),
    (l) => l.lineId,
  );
  return new Map([...earlier].map(([id, own]) => [id, addQ(...own.map((l) => l.quantity))]));
}

/** Compares an invoice with what was ordered and received, as things stand now. */
export async function compareInvoice(db: Db, invoice: StoredInvoice): Promise<Comparison> {
  const company = await loadCompany(db);
  const tolerance: Tolerance = { priceShare: company.priceToleranceShare, priceMost: company.priceToleranceMost };
  const stored = (await db('invoiceLine').where({ invoiceId: invoice.id }).orderBy('id')) as StoredInvoiceLine[];
  const orderLines = new Map((await loadLines(db, [invoice.orderId])).get(invoice.orderId)?.map((l) => [l.id, l]));
  const before = await billedBefore(
    db,
    stored.map((l) => l.lineId),
    invoice.id,
  );
  const lines = stored.flatMap((line): ComparedLine[] => {
    const order = orderLines.get(line.lineId);
    if (order === undefined) return [];
    const billed = billedLine(order, line, before.get(line.lineId) ?? NONE);
    return [{ line, order, billed, differences: matchLine(billed, tolerance, invoice.currency) }];
  });
  const total = matchTotal(invoice.typedTotal, invoice.gross, invoice.currency);
  return { invoice, lines, total, held: [...total, ...lines.flatMap((l) => l.differences)].some((d) => d.held) };
}

/** What matching bills to each split, in the company's currency with the tax that cannot be recovered. */
export async function billedParts(
  db: Db,
  { invoice, lines }: Comparison,
): Promise<(BilledPart & { readonly invoiceLineId: number })[]> {
  const { currency } = await loadCompany(db);
  const taxed = lines.map((l): TaxedLine => ({ net: l.line.net, kind: l.order.kind, taxCodeId: l.line.taxCodeId }));
  const costs = jobCosts(taxed, await loadTaxCodes(db));
  return lines.flatMap(({ line, order }, k) => {
    const amount = convert(costs[k] ?? ZERO, invoice.currency, currency, invoice.rate);
    const splits = order.splits.map(({ id, quantity: ordered, received, billed }) => ({
      splitId: id,
      ordered,
      received,
      billed,
    }));
    return shareBill(splits, line.quantity, amount).map((part) => ({ invoiceLineId: line.id, ...part }));
  });
}

export const billedLine = (
  order: StoredLine,
  bill: Pick<StoredInvoiceLine, 'quantity' | 'price' | 'priceQuantity'>,
  before: Quantity,
): BilledLine => ({
  description: order.description,
  kind: order.kind,
  ordered: order.quantity,
  received: addQ(NONE, ...order.splits.map((s) => s.received)),
  billedBefore: before,
  orderPrice: order.price ?? (0 as UnitPrice),
  orderPriceQuantity: order.priceQuantity,
  quantity: bill.quantity,
  price: bill.price,
  priceQuantity: bill.priceQuantity,
});

/** Looks again at an order's invoices that wait: a delivery may have settled what they were held for. */
export async function refreshHeld(trx: Db, orderId: number): Promise<void> {
  const waiting = (await trx('invoice').where({ orderId }).whereNot({ state: 'matched' })) as StoredInvoice[];
  for (const invoice of waiting) {
    const { held } = await compareInvoice(trx, invoice);
    await trx('invoice')
      .where({ id: invoice.id })
      .update({ state: held ? 'held' : 'entered' });
  }
}

export const heldAmount = ({ lines, total }: Comparison): Minor =>
  minor([...total, ...lines.flatMap((l) => l.differences)].filter((d) => d.held).reduce((sum, d) => sum + d.amount, 0));
