import { isCharge } from '@/core/orders/kinds';
import { groupBy } from '@/core/group';
import {
  heldSize,
  matchLine,
  matchTotal,
  matchUnordered,
  type InvoicedLine,
  type Difference,
  type Tolerance,
} from '@/core/invoices/match';
import { shareInvoice, type InvoicedSplit } from '@/core/invoices/share';
import { STANDING, WAITING } from '@/core/invoices/states';
import { add, subtract, ZERO, type Minor, type UnitPrice } from '@/core/money/money';
import { convert, convertBack, type Rate } from '@/core/money/rate';
import { jobCosts, type TaxedLine } from '@/core/money/tax';
import { spreadCharge, type Target } from '@/core/orders/charges';
import { addedInNeedUnit, addQ, atLeastNone, least, NONE, subtractQ, type Quantity } from '@/core/quantity/quantity';
import { loadCompany, loadTaxCodes } from './company';
import type { Db } from './db';
import { lastRests } from './docked';
import { findOrder, valuesOf, type StoredLine, type StoredOrder } from './orders';
import { whereIn } from './rows';
import type { Invoice, InvoiceLine } from './tables';

export type ComparedLine = {
  readonly line: InvoiceLine;
  /** Undefined for what was not ordered. */
  readonly order: StoredLine | undefined;
  readonly invoiced: InvoicedLine | undefined;
  readonly differences: readonly Difference[];
};

export type Comparison = {
  readonly invoice: Invoice;
  readonly order: StoredOrder;
  readonly lines: readonly ComparedLine[];
  readonly total: readonly Difference[];
  readonly differs: boolean;
};

/** What other invoices that stand took of each order line, whenever they came, matched or not. */
async function invoicedElsewhere(
  db: Db,
  lineIds: readonly number[],
  invoiceId?: number,
): Promise<Map<number, Quantity>> {
  const lines = (await whereIn(db, 'invoiceLine', 'lineId', lineIds)).filter((l) => l.invoiceId !== invoiceId);
  const standing = new Set(
    (
      await whereIn(
        db,
        'invoice',
        'id',
        lines.map((l) => l.invoiceId),
      )
    )
      .filter((i) => STANDING.includes(i.state))
      .map((i) => i.id),
  );
  const others = groupBy(
    lines.filter((l) => standing.has(l.invoiceId)),
    (l) => l.lineId ?? 0,
  );
  return new Map([...others].map(([id, own]) => [id, addQ(NONE, ...own.map((l) => l.quantity))]));
}

/** What the matching of an invoice knows of a line beside the order: its other invoices, and what was missing from the parcel. */
export type LineElsewhere = { readonly elsewhere: Quantity; readonly missing: Quantity };

/** The same of many lines, whatever an invoice of their own says. */
export async function linesElsewhere(
  db: Db,
  lineIds: readonly number[],
  invoiceId?: number,
): Promise<(lineId: number) => LineElsewhere> {
  const others = await invoicedElsewhere(db, lineIds, invoiceId);
  const rests = await lastRests(db, lineIds);
  return (id) => {
    const rest = rests.get(id);
    return { elsewhere: others.get(id) ?? NONE, missing: rest?.does === 'missing' ? rest.quantity : NONE };
  };
}

export const invoicedLine = (
  order: StoredLine,
  invoice: Pick<InvoiceLine, 'quantity' | 'price' | 'priceQuantity'>,
  { elsewhere, missing }: LineElsewhere,
): InvoicedLine => ({
  description: order.description,
  kind: order.kind,
  ordered: order.quantity,
  received: order.received,
  missing: atLeastNone(least(missing, subtractQ(order.quantity, order.received))),
  invoicedElsewhere: elsewhere,
  orderPrice: order.price ?? (0 as UnitPrice),
  orderPriceQuantity: order.priceQuantity,
  quantity: invoice.quantity,
  price: invoice.price,
  priceQuantity: invoice.priceQuantity,
});

/** Compares an invoice with what was ordered and received, and with all other invoices of its order, as things stand now. */
export async function compareInvoice(db: Db, invoice: Invoice): Promise<Comparison> {
  const company = await loadCompany(db);
  const order = await findOrder(db, invoice.orderId);
  if (order === undefined) throw new Error(`Order ${invoice.orderId} is gone.`);
  const { currency, rate } = invoice;
  const most = convertBack(company.priceToleranceMost, currency, company.currency, rate);
  const tolerance: Tolerance = { priceShare: company.priceToleranceShare, priceMost: most };
  const stored = await db('invoiceLine').where({ invoiceId: invoice.id }).orderBy('place');
  const orderLines = new Map(order.lines.map((l) => [l.id, l]));
  const besideOf = await linesElsewhere(
    db,
    stored.flatMap((l) => l.lineId ?? []),
    invoice.id,
  );
  const lines = stored.map((line): ComparedLine => {
    const own = orderLines.get(line.lineId ?? 0);
    if (own === undefined) {
      const differences = matchUnordered(line.description, line.net, tolerance, currency);
      return { line, order: undefined, invoiced: undefined, differences };
    }
    const invoiced = invoicedLine(own, line, besideOf(own.id));
    return { line, order: own, invoiced, differences: matchLine(invoiced, tolerance, currency) };
  });
  const total = matchTotal(invoice.typedTotal, invoice.gross, currency);
  return {
    invoice,
    order,
    lines,
    total,
    differs: [...total, ...lines.flatMap((l) => l.differences)].some((d) => d.beyond),
  };
}

export const differencesOf = ({ lines, total }: Comparison): Difference[] => [
  ...lines.flatMap((l) => l.differences),
  ...total,
];

/** What the held differences come to, each for itself, in the company's currency. */
export const heldInCompany = (comparison: Comparison, companyCurrency: string): Minor =>
  convert(heldSize(differencesOf(comparison)), comparison.invoice.currency, companyCurrency, comparison.invoice.rate);

/** A cost of an invoice beside its order lines, in the company's currency. */
export type ExtraCost = Target & {
  readonly invoiceLineId: number | null;
  readonly amount: Minor;
  readonly words: string;
};

export type Invoicing = {
  /** What the invoice claims of splits, in the need's unit and the company's currency. */
  readonly parts: readonly (InvoicedSplit & { readonly invoiceLineId: number })[];
  /** What it costs beside them: lines that were not ordered, and the difference passed on the whole invoice. */
  readonly extras: readonly ExtraCost[];
};

const taxedLines = ({ lines }: Comparison): TaxedLine[] =>
  lines.map((l) => ({ net: l.line.net, kind: l.order?.kind ?? 'charge', taxCodeId: l.line.taxCodeId }));

/** What matching invoices: every minor unit of it goes to a split, or to a job or stores beside them. */
export async function invoicingOf(db: Db, comparison: Comparison): Promise<Invoicing> {
  const { invoice, order, lines, total } = comparison;
  const { currency } = await loadCompany(db);
  const costs = jobCosts(taxedLines(comparison), await loadTaxCodes(db)).map((c) =>
    convert(c, invoice.currency, currency, invoice.rate),
  );
  const values = valuesOf(order);
  const parts = lines.flatMap(({ line, order: own }, k) => {
    if (own === undefined) return [];
    const splits = own.splits.map(({ id, quantity: ordered, received, invoiced, value }) => ({
      splitId: id,
      ordered,
      received,
      invoiced,
      value,
    }));
    const share = addedInNeedUnit(own.invoiced, line.quantity, own.factor);
    const invoiced = isCharge(own) ? line.quantity : share;
    return shareInvoice(own.kind, splits, invoiced, costs[k] ?? ZERO).map((p) => ({ invoiceLineId: line.id, ...p }));
  });
  const unordered = lines.flatMap(({ line, order: own }, k): ExtraCost[] => {
    const cost = costs[k] ?? ZERO;
    if (own !== undefined || cost === 0) return [];
    const of = { invoiceLineId: line.id, words: line.description };
    if (line.spread === 0) return [{ ...of, jobId: line.jobId, costCodeId: line.costCodeId, amount: cost }];
    return spreadExtra(cost, values, line.costCodeId).map((t) => ({ ...of, ...t }));
  });
  const passed = total.flatMap((d): ExtraCost[] => {
    const amount = convert(d.amount, invoice.currency, currency, invoice.rate);
    const words = `Difference on the total of invoice ${invoice.number}`;
    return spreadExtra(amount, values, null).map((t) => ({ invoiceLineId: null, words, ...t }));
  });
  return { parts, extras: [...unordered, ...passed] };
}

const spreadExtra = (amount: Minor, over: ReturnType<typeof valuesOf>, costCodeId: number | null) =>
  spreadCharge(amount, over, costCodeId)
    .filter((t) => t.value !== 0)
    .map(({ jobId, costCodeId: code, value }) => ({ jobId, costCodeId: code, amount: value }));

/** How much an invoice costs more because the exchange rate moved since the order, in the company's currency. */
export async function rateDifference(db: Db, comparison: Comparison): Promise<Minor> {
  const { invoice, order } = comparison;
  const { currency } = await loadCompany(db);
  const cost = add(ZERO, ...jobCosts(taxedLines(comparison), await loadTaxCodes(db)));
  const at = (rate: Rate) => convert(cost, invoice.currency, currency, rate);
  return subtract(at(invoice.rate), at(order.rate));
}

/** Looks again at an order's invoices that wait: a delivery or another invoice may have changed what they are held for. */
export async function refreshHeld(trx: Db, orderId: number): Promise<void> {
  const waiting = await trx('invoice').where({ orderId }).whereIn('state', WAITING);
  for (const invoice of waiting) {
    const { differs } = await compareInvoice(trx, invoice);
    await trx('invoice')
      .where({ id: invoice.id })
      .update({ state: differs ? 'held' : 'entered' });
  }
}
