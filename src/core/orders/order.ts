import { LIMITS } from '../limits';
import { lineNet, minor, ZERO, type Minor, type UnitPrice } from '../money/money';
import { convert, type Rate } from '../money/rate';
import { spreadMoney } from '../money/spread';
import { jobCosts, totalsOf, type TaxCode, type TaxedLine, type Totals } from '../money/tax';
import { addQ, formatQuantity, fromSupplierUnit, NONE, type Factor, type Quantity } from '../quantity/quantity';
import { unitOf } from '../quantity/units';
import { wholeFault } from '../quantity/whole';
import { refusal, type Refusal } from '../result';

export type LineKind = 'goods' | 'service' | 'charge';

/** A part of an order line for one job and cost code; for stores when there is no job. */
export type Split = {
  /** The line of the tab that it is; undefined for a new one. */
  readonly id?: number;
  readonly jobId: number | null;
  readonly costCodeId: number | null;
  readonly needId: number | null;
  /** In the need's unit. Every split of a charge has the charge's own quantity: they share its money, not its pieces. */
  readonly quantity: Quantity;
};

export type OrderLine = {
  readonly kind: LineKind;
  readonly description: string;
  readonly quantity: Quantity;
  readonly unit: string;
  /** How many of the share unit are in how many of the line's unit. */
  readonly factor: Factor;
  /** The unit of the splits: the need's. */
  readonly shareUnit: string;
  readonly price: UnitPrice | null;
  readonly priceQuantity: number;
  readonly taxCodeId: number;
  /** For a charge: the cost code that takes it; null lets it follow the lines. */
  readonly chargeCodeId: number | null;
  readonly splits: readonly Split[];
};

export type OrderTerms = { readonly currency: string; readonly companyCurrency: string; readonly rate: Rate };

/** Net amount of a line; a line with no price yet comes to nothing. */
export const netOf = (line: Pick<OrderLine, 'price' | 'quantity' | 'priceQuantity'>, currency: string): Minor =>
  line.price === null ? ZERO : lineNet(line.quantity, line.price, line.priceQuantity, currency);

const taxed = (lines: readonly OrderLine[], currency: string): TaxedLine[] =>
  lines.map((l) => ({ kind: l.kind, taxCodeId: l.taxCodeId, net: netOf(l, currency) }));

export const orderTotals = (lines: readonly OrderLine[], codes: readonly TaxCode[], currency: string): Totals =>
  totalsOf(taxed(lines, currency), codes);

/** What the splits of a line share out, in the need's unit. */
export const shareOf = (line: Pick<OrderLine, 'quantity' | 'factor'>): Quantity =>
  fromSupplierUnit(line.quantity, line.factor);

/** Where money goes: a job's cost code, or stores. */
export type Target = { readonly jobId: number | null; readonly costCodeId: number | null };

const keyOf = (t: Target) => `${t.jobId}/${t.costCodeId}`;

/**
 * Spreads money that belongs to no goods over the places that some cost goes to, by value.
 *
 * @param amount - in minor units
 * @param over - the cost that it follows, in minor units
 * @param costCodeId - where it goes on each job; null lets it follow the cost's own codes
 * @returns one part for each place; they add up to the amount
 * @example 9,000.00 over three equal jobs: 3,000.00 each
 */
export function spreadCharge(
  amount: Minor,
  over: readonly (Target & { readonly value: Minor })[],
  costCodeId: number | null,
): (Target & { readonly value: Minor })[] {
  const places = new Map<string, Target & { value: number }>();
  for (const { value, ...own } of over) {
    const target = own.jobId === null ? own : { jobId: own.jobId, costCodeId: costCodeId ?? own.costCodeId };
    places.set(keyOf(target), { ...target, value: (places.get(keyOf(target))?.value ?? 0) + value });
  }
  const targets = [...places.values()];
  if (targets.length === 0) return [];
  const weights = targets.map((t) => Math.max(t.value, 0));
  const parts = spreadMoney(amount, weights);
  return targets
    .map(({ jobId, costCodeId: code }, k) => ({ jobId, costCodeId: code, value: parts[k] ?? ZERO }))
    .filter((_, k) => (weights[k] ?? 0) > 0 || weights.every((w) => w === 0));
}

export type ValuedSplit = Split & { readonly value: Minor };
export type Valued<L> = Omit<L, 'splits'> & { readonly net: Minor; readonly splits: readonly ValuedSplit[] };

/**
 * Works out an order's money: each line's net, and each split's order value, which is its share of the line's cost with
 * tax that cannot be recovered, in the company's currency. Charges follow what goods and services cost each job, so
 * their splits are worked out anew with every change.
 *
 * @returns the lines in order; the splits of each add up to its cost
 */
export function valueOrder<L extends OrderLine>(
  lines: readonly L[],
  codes: readonly TaxCode[],
  { currency, companyCurrency, rate }: OrderTerms,
): Valued<L>[] {
  const costs = jobCosts(taxed(lines, currency), codes).map((c) => convert(c, currency, companyCurrency, rate));
  const withGoods = lines.map((line, k): Valued<L> => {
    if (line.kind === 'charge') return { ...line, net: netOf(line, currency), splits: [] };
    const values =
      line.splits.length === 0
        ? []
        : spreadMoney(
            costs[k] ?? ZERO,
            line.splits.map((s) => s.quantity),
          );
    return {
      ...line,
      net: netOf(line, currency),
      splits: line.splits.map((s, j) => ({ ...s, value: values[j] ?? ZERO })),
    };
  });
  const carrying = withGoods.flatMap((l) => l.splits);
  return withGoods.map((line, k) => {
    if (line.kind !== 'charge') return line;
    const before = new Map((lines[k]?.splits ?? []).map((s) => [keyOf(s), s.id]));
    const splits = spreadCharge(costs[k] ?? ZERO, carrying, line.chargeCodeId).map((t): ValuedSplit => ({
      ...t,
      id: before.get(keyOf(t)),
      needId: null,
      quantity: line.quantity,
    }));
    return { ...line, splits };
  });
}

const named = (line: Pick<OrderLine, 'description'>): string => line.description.trim() || 'This line';

/**
 * What is wrong with a line before it can be drafted, in words that name the line.
 * @param path - where the line stands in the form, for the refusals' fields
 */
function lineFaults(line: OrderLine, path: string, currency: string): Refusal[] {
  const faults: Refusal[] = [];
  const add = (code: string, message: string, field: string) => faults.push(refusal(code, message, `${path}.${field}`));
  const name = named(line);
  if (line.description.trim() === '')
    add('line.words', 'Say what is ordered: this line has no description.', 'description');
  if (line.quantity <= 0) add('line.quantity', `${name} needs a quantity above zero.`, 'quantity');
  const whole = wholeFault(line.quantity, line.unit, name, `${path}.quantity`);
  if (whole !== undefined) faults.push(whole);
  if (line.price !== null && line.quantity > 0 && isLarge(line, currency))
    add('line.large', `${name} comes to more than can be ordered here.`, 'price');
  if (line.kind === 'charge') return faults;
  if (line.splits.length === 0)
    add('line.split', `${name} is charged to nothing. Say which job and cost code it is for, or stores.`, 'splits');
  if (line.splits.some((s) => s.quantity <= 0))
    add('split.quantity', `Each part of ${name} needs a quantity above zero.`, 'splits');
  const split = addQ(NONE, ...line.splits.map((s) => s.quantity));
  const share = shareOf(line);
  if (line.splits.length > 0 && line.quantity > 0 && split !== share) {
    const { short } = unitOf(line.shareUnit);
    const said = (q: Quantity) => `${formatQuantity(q)}${short === '' ? '' : ` ${short}`}`;
    add('split.sum', `${name}: ${said(split)} is charged to jobs, but ${said(share)} is ordered.`, 'splits');
  }
  return faults;
}

function isLarge({ quantity, price, priceQuantity }: OrderLine, currency: string): boolean {
  const size = (Math.abs(price ?? 0) / priceQuantity) * quantity;
  // Far beyond the limit the exact amount cannot be worked out, so a close one is looked at first.
  if (size > Number.MAX_SAFE_INTEGER * 1000) return true;
  return Math.abs(netOf({ quantity, price, priceQuantity }, currency)) > LIMITS.line;
}

/** What is wrong with an order's lines before they can be drafted. Empty when they may. */
export function draftFaults(lines: readonly OrderLine[], currency: string): Refusal[] {
  const faults = lines.flatMap((l, k) => lineFaults(l, `lines.${k}`, currency));
  const charges = lines.findIndex((l) => l.kind === 'charge');
  if (charges >= 0 && lines.every((l) => l.kind === 'charge')) {
    const name = named(lines[charges] as OrderLine);
    const words = `${name} has no goods or services left to follow. Add a line, or take ${name} off as well.`;
    faults.push(refusal('order.charge', words, `lines.${charges}.description`));
  }
  if (faults.length > 0) return faults;
  const total = lines.reduce((sum, l) => sum + Math.abs(netOf(l, currency)), 0);
  return total > LIMITS.document
    ? [refusal('order.large', 'The order comes to more than can be ordered here. Part it into several.')]
    : [];
}

/** What must be settled before an order can go to its supplier. Empty when it may go. */
export function sendingFaults(lines: readonly OrderLine[], currency: string, supplierEmail: string | null): Refusal[] {
  const faults = draftFaults(lines, currency);
  if (lines.every((l) => l.kind === 'charge'))
    faults.push(refusal('order.empty', 'The order has no line yet. Add one, then send.'));
  lines.forEach((line, k) => {
    if (line.price === null)
      faults.push(
        refusal('line.price', `${line.description} needs a price before this order can be sent.`, `lines.${k}.price`),
      );
    if (line.splits.some((s) => s.jobId !== null && s.costCodeId === null)) {
      faults.push(
        refusal(
          'line.split',
          `${line.description} needs a job and cost code before this order can be sent.`,
          `lines.${k}.splits`,
        ),
      );
    }
  });
  if (faults.length === 0 && orderSum(lines, currency) < 0)
    faults.push(
      refusal('order.below', 'The order comes to less than nothing. Its discounts are larger than its lines.'),
    );
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

const orderSum = (lines: readonly OrderLine[], currency: string): Minor =>
  minor(lines.reduce((sum, l) => sum + netOf(l, currency), 0));
