import { convert, lineNet, ZERO, type Minor, type Rate, type UnitPrice } from '../money/money';
import { spreadMoney } from '../money/spread';
import { jobCosts, totalsOf, type TaxCode, type Totals } from '../money/tax';
import { addQ, formatQuantity, ONE, quantity, type Quantity } from '../quantity/quantity';
import { unitOf } from '../quantity/units';
import { refusal, type Refusal } from '../result';

export type LineKind = 'goods' | 'service' | 'charge';

/** A part of an order line for one job and cost code; for stores when there is no job. */
export type Split = {
  readonly jobId: number | null;
  readonly costCodeId: number | null;
  readonly needId: number | null;
  /** In the line's unit. */
  readonly quantity: Quantity;
  /** In the need's unit. */
  readonly covers: Quantity;
};

export type OrderLine = {
  readonly kind: LineKind;
  readonly description: string;
  readonly quantity: Quantity;
  readonly unit: string;
  readonly price: UnitPrice | null;
  readonly priceQuantity: number;
  readonly taxCodeId: number;
  readonly splits: readonly Split[];
};

export type OrderTerms = { readonly currency: string; readonly companyCurrency: string; readonly rate: Rate };

/** Net amount of a line; a line with no price yet comes to nothing. */
export const netOf = (line: OrderLine, currency: string): Minor =>
  line.price === null ? ZERO : lineNet(line.quantity, line.price, line.priceQuantity, currency);

export const orderTotals = (lines: readonly OrderLine[], codes: readonly TaxCode[], currency: string): Totals =>
  totalsOf(
    lines.map((l) => ({ kind: l.kind, taxCodeId: l.taxCodeId, net: netOf(l, currency) })),
    codes,
  );

/**
 * The order value of every split: its line's cost with tax that cannot be recovered, in the company's currency,
 * spread by quantity.
 *
 * @returns for each line, one amount for each of its splits; they add up to the line's cost
 */
export function splitValues(lines: readonly OrderLine[], codes: readonly TaxCode[], terms: OrderTerms): Minor[][] {
  const costs = jobCosts(
    lines.map((l) => ({ kind: l.kind, taxCodeId: l.taxCodeId, net: netOf(l, terms.currency) })),
    codes,
  );
  return lines.map((line, k) => {
    const cost = convert(costs[k] ?? ZERO, terms.currency, terms.companyCurrency, terms.rate);
    return spreadMoney(
      cost,
      line.splits.map((s) => s.quantity),
    );
  });
}

/**
 * Splits a charge over the jobs an order is for, by the value that each has on its lines.
 *
 * @param lines - goods and services, each with its splits' values
 * @param costCodeId - where the charge goes; undefined lets it follow each line's own job and cost code
 * @returns splits whose quantities add up to exactly one charge
 */
export function splitCharge(
  lines: readonly { readonly splits: readonly (Split & { readonly value: Minor })[] }[],
  costCodeId: number | undefined,
): Split[] {
  const shares = new Map<string, { jobId: number | null; costCodeId: number | null; value: number }>();
  for (const s of lines.flatMap((l) => l.splits)) {
    const target = { jobId: s.jobId, costCodeId: s.jobId === null ? null : (costCodeId ?? s.costCodeId) };
    const key = `${target.jobId}/${target.costCodeId}`;
    shares.set(key, { ...target, value: (shares.get(key)?.value ?? 0) + Math.max(s.value, 0) });
  }
  const targets = [...shares.values()];
  if (targets.length === 0) return [];
  const parts = spreadMoney(
    ONE as number as Minor,
    targets.map((t) => t.value),
  );
  return targets
    .map((t, k) => ({
      jobId: t.jobId,
      costCodeId: t.costCodeId,
      needId: null,
      covers: quantity(0),
      quantity: quantity(parts[k] ?? 0),
    }))
    .filter((s) => s.quantity > 0);
}

/**
 * Charges follow what the goods and services cost each job, so their splits are worked out anew with every change.
 * @returns the lines in order, charges with new splits and the rest as they were
 */
export function withCharges<L extends OrderLine & { readonly chargeCodeId: number | null }>(
  lines: readonly L[],
  codes: readonly TaxCode[],
  terms: OrderTerms,
): L[] {
  const carrying = lines.filter((l) => l.kind !== 'charge');
  const values = splitValues(carrying, codes, terms);
  const valued = carrying.map((l, k) => ({
    splits: l.splits.map((s, j) => ({ ...s, value: values[k]?.[j] ?? ZERO })),
  }));
  return lines.map((l) =>
    l.kind === 'charge' ? { ...l, splits: splitCharge(valued, l.chargeCodeId ?? undefined) } : l,
  );
}

/**
 * What is wrong with a line before it can be ordered, in words that name the line.
 * @param path - where the line stands in the form, for the refusals' fields
 */
export function lineFaults(line: OrderLine, path: string): Refusal[] {
  const faults: Refusal[] = [];
  const add = (code: string, message: string, field: string) => faults.push(refusal(code, message, `${path}.${field}`));
  const name = line.description.trim() || 'This line';
  if (line.description.trim() === '')
    add('line.words', 'Say what is ordered: this line has no description.', 'description');
  if (line.quantity <= 0) add('line.quantity', `${name} needs a quantity above zero.`, 'quantity');
  if (unitOf(line.unit).whole === true && line.quantity % ONE !== 0) {
    const what = unitOf(line.unit).short === '' ? 'pieces' : `the unit ${unitOf(line.unit).short}`;
    add(
      'line.whole',
      `${name} is counted in ${what}, so ${formatQuantity(line.quantity)} has to be a whole number.`,
      'quantity',
    );
  }
  if (line.price !== null && line.price < 0 && line.kind !== 'charge')
    add('line.price', `${name} has a price below zero.`, 'price');
  if (line.splits.some((s) => s.quantity <= 0))
    add('split.quantity', `Each part of ${name} needs a quantity above zero.`, 'splits');
  const split = addQ(...line.splits.map((s) => s.quantity));
  if (line.splits.length > 0 && split !== line.quantity) {
    add(
      'split.sum',
      `${name}: ${formatQuantity(split)} is charged to jobs, but ${formatQuantity(line.quantity)} is ordered.`,
      'splits',
    );
  }
  return faults;
}

/** What must be settled before an order can go to its supplier. Empty when it may go. */
export function sendingFaults(lines: readonly OrderLine[], supplierEmail: string | null): Refusal[] {
  const faults = lines.flatMap((l, k) => lineFaults(l, `lines.${k}`));
  if (lines.every((l) => l.kind === 'charge'))
    faults.push(refusal('order.empty', 'The order has no line yet. Add one, then send.'));
  lines.forEach((line, k) => {
    if (line.price === null)
      faults.push(
        refusal('line.price', `${line.description} needs a price before this order can be sent.`, `lines.${k}.price`),
      );
    if (line.splits.length === 0 || line.splits.some((s) => s.jobId !== null && s.costCodeId === null)) {
      faults.push(
        refusal(
          'line.split',
          `${line.description} needs a job and cost code before this order can be sent.`,
          `lines.${k}.splits`,
        ),
      );
    }
  });
  if (supplierEmail === null) {
    faults.push(
      refusal(
        'supplier.email',
        'The supplier has no e-mail address. Add one under Suppliers, or mark the order as sent by hand.',
      ),
    );
  }
  return faults;
}
