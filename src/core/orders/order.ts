import { followsLines, isCharge, isGoodsLine, type LineKind } from './kinds';
import { LIMITS } from '../limits';
import { add, formatMoney, lineNet, minor, priceOf, ZERO, type Minor, type UnitPrice } from '../money/money';
import { convert, type Rate } from '../money/rate';
import { spreadMoney } from '../money/spread';
import { FULL_SHARE, jobCosts, totalsOf, type TaxCode, type TaxedLine, type Totals } from '../money/tax';
import { addQ, formatQuantity, fromSupplierUnit, NONE, ONE, type Factor, type Quantity } from '../quantity/quantity';
import { unitOf } from '../quantity/units';
import { wholeFault } from '../quantity/whole';
import { refusal, type Refusal } from '../result';
import { allowanceOn, spreadCharge, targetKey, type ChargeKind, type Spread } from './charges';

/** A part of an order line for one job and cost code; for stores when there is no job. */
export type Split = {
  /** The line of the tab that it is; undefined for a new one. */
  readonly id?: number;
  readonly jobId: number | null;
  readonly costCodeId: number | null;
  readonly needId: number | null;
  /** In the need's unit. Every split of a charge has the charge's own quantity: they share its money, not its pieces. */
  readonly quantity: Quantity;
  /** Of a charge shared out by amounts: this part, in minor units of the order's currency. */
  readonly amount?: Minor | null;
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
  /** What is paid for the price quantity: after the discount, where there is one. */
  readonly price: UnitPrice | null;
  readonly priceQuantity: number;
  /** Before the discount; null where there is none. */
  readonly grossPrice: UnitPrice | null;
  /** Hundredths of a percent: of the gross price, or, of a discount on the order, of the lines with its tax. */
  readonly discount: number;
  /** A price of nothing is meant. */
  readonly free: boolean;
  readonly taxCodeId: number;
  readonly chargeKind: ChargeKind | null;
  /** For a charge: the cost code that takes it; null lets it follow the lines. */
  readonly chargeCodeId: number | null;
  readonly spread: Spread;
  /** Kilograms of one share unit, in ten-thousandths; null where nobody said. */
  readonly weight: Quantity | null;
  readonly splits: readonly Split[];
};

export type OrderTerms = { readonly currency: string; readonly companyCurrency: string; readonly rate: Rate };

/** Net amount of a line; a line with no price yet comes to nothing. */
export const netOf = (line: Pick<OrderLine, 'price' | 'quantity' | 'priceQuantity'>, currency: string): Minor =>
  line.price === null ? ZERO : lineNet(line.quantity, line.price, line.priceQuantity, currency);

/** Whether a charge is so much of the order's lines, and moves with them. */
export const isShareOfLines = (line: Pick<OrderLine, 'chargeKind' | 'discount'>): boolean =>
  line.chargeKind === 'discount' && line.discount > 0;

/**
 * Lines with every discount on the order worked out: so much of the lines that carry the same tax, as a price below zero.
 * Source: EN 16931-1, BG-20: an allowance on a document is for one category and rate of tax (BT-92 = BT-93 × BT-94).
 */
export function withDiscounts<L extends OrderLine>(lines: readonly L[], currency: string): readonly L[] {
  if (!lines.some(isShareOfLines)) return lines;
  return lines.map((line) => {
    if (!isShareOfLines(line)) return line;
    const of = lines.filter((l) => !isCharge(l) && l.taxCodeId === line.taxCodeId);
    const base = minor(of.reduce((sum, l) => sum + netOf(l, currency), 0));
    return { ...line, price: priceOf(allowanceOn(base, line.discount), currency), priceQuantity: 1 };
  });
}

const taxed = (lines: readonly OrderLine[], currency: string): TaxedLine[] =>
  lines.map((l) => ({ kind: l.kind, taxCodeId: l.taxCodeId, net: netOf(l, currency) }));

export const orderTotals = (lines: readonly OrderLine[], codes: readonly TaxCode[], currency: string): Totals =>
  totalsOf(taxed(withDiscounts(lines, currency), currency), codes);

/** What the splits of a line share out, in the need's unit. */
export const shareOf = (line: Pick<OrderLine, 'quantity' | 'factor'>): Quantity =>
  fromSupplierUnit(line.quantity, line.factor);

export type ValuedSplit = Split & { readonly value: Minor };
export type Valued<L> = Omit<L, 'splits'> & { readonly net: Minor; readonly splits: readonly ValuedSplit[] };

type Carried = ValuedSplit & { readonly weighs: Readonly<Record<Spread, number>> };

/** What a charge weighs a split by. */
const weighed = (s: ValuedSplit, { weight }: Pick<OrderLine, 'weight'>): Carried => {
  const grams = Math.round((s.quantity * (weight ?? 0)) / ONE);
  return { ...s, weighs: { value: s.value, quantity: s.quantity, weight: grams, amounts: 0 } };
};

/**
 * Works out an order's money: each line's net, and each split's order value, which is its share of the line's cost with
 * tax that cannot be recovered, in the company's currency. Charges follow the goods and services, by value, quantity or
 * weight, so their splits are worked out anew with every change; one that is shared out by amounts keeps the parts it has.
 *
 * @returns the lines in order; the splits of each add up to its cost
 */
export function valueOrder<L extends OrderLine>(
  asked: readonly L[],
  codes: readonly TaxCode[],
  { currency, companyCurrency, rate }: OrderTerms,
): Valued<L>[] {
  const lines = withDiscounts(asked, currency);
  const costs = jobCosts(taxed(lines, currency), codes).map((c) => convert(c, currency, companyCurrency, rate));
  const shared = (line: L, k: number): Valued<L> => {
    const weights = line.splits.map((s) => (isCharge(line) ? Math.abs(s.amount ?? 0) : s.quantity));
    const values = weights.length === 0 ? [] : spreadMoney(costs[k] ?? ZERO, weights);
    const splits = line.splits.map((s, j) => ({ ...s, value: values[j] ?? ZERO }));
    return { ...line, net: netOf(line, currency), splits };
  };

  const withGoods = lines.map((line, k): Valued<L> =>
    followsLines(line) ? { ...line, net: netOf(line, currency), splits: [] } : shared(line, k),
  );
  const carrying = withGoods.flatMap((l) => (isCharge(l) ? [] : l.splits.map((s) => weighed(s, l))));
  return withGoods.map((line, k) => {
    if (!followsLines(lines[k] as L)) return line;
    const before = new Map((lines[k]?.splits ?? []).map((s) => [targetKey(s), s.id]));
    const over = carrying.map(({ jobId, costCodeId, weighs }) => ({ jobId, costCodeId, value: weighs[line.spread] }));
    const splits = spreadCharge(costs[k] ?? ZERO, over, line.chargeCodeId).map((t): ValuedSplit => ({
      ...t,
      id: before.get(targetKey(t)),
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
  if (line.description.trim() === '') add('line.words', 'Enter an item or description for this line.', 'description');
  if (line.quantity <= 0) add('line.quantity', `${name}: enter a quantity above zero.`, 'quantity');
  const whole = wholeFault(line.quantity, line.unit, name, `${path}.quantity`);
  if (whole !== undefined) faults.push(whole);
  if (line.price !== null && line.quantity > 0 && isLarge(line, currency))
    add('line.large', `${name} is too large an amount. Check the quantity and price.`, 'price');
  if (line.discount < 0 || line.discount > FULL_SHARE)
    add('line.discount', `${name}: enter a discount between 0 and 100 %.`, 'discount');
  if (isCharge(line)) return line.spread === 'amounts' ? [...faults, ...amountFaults(line, path, currency)] : faults;
  if (line.splits.length === 0) add('line.split', `${name} has no job or cost code. Choose one, or Stores.`, 'splits');
  if (line.splits.some((s) => s.quantity <= 0))
    add('split.quantity', `${name}: enter a quantity above zero in each split.`, 'splits');
  const split = addQ(NONE, ...line.splits.map((s) => s.quantity));
  const share = shareOf(line);
  if (line.splits.length > 0 && line.quantity > 0 && split !== share) {
    const { short } = unitOf(line.shareUnit);
    const said = (q: Quantity) => `${formatQuantity(q)}${short === '' ? '' : ` ${short}`}`;
    add(
      'split.sum',
      `${name}: ${said(share)} ordered, ${said(split)} charged to jobs. Change the splits so they add up.`,
      'splits',
    );
  }
  return faults;
}

/** Parts of a charge that a person shares out have to come to the charge. */
function amountFaults(line: OrderLine, path: string, currency: string): Refusal[] {
  const name = named(line);
  const net = netOf(line, currency);
  if (line.splits.length === 0)
    return [refusal('line.split', `${name} has no splits. Enter how much each job takes.`, `${path}.splits`)];
  if (line.splits.some((s) => Math.sign(s.amount ?? 0) * Math.sign(net) <= 0 && net !== 0))
    return [refusal('split.amount', `${name}: enter an amount in each split.`, `${path}.splits`)];
  const sum = add(ZERO, ...line.splits.map((s) => s.amount ?? ZERO));
  return sum === net
    ? []
    : [
        refusal(
          'split.sum',
          `${name}: ${formatMoney(net, currency)} ordered, ${formatMoney(sum, currency)} charged to jobs. Change the splits so they add up.`,
          `${path}.splits`,
        ),
      ];
}

function isLarge({ quantity, price, priceQuantity }: OrderLine, currency: string): boolean {
  const size = (Math.abs(price ?? 0) / priceQuantity) * quantity;
  // Far beyond the limit the exact amount cannot be worked out, so a close one is looked at first.
  if (size > Number.MAX_SAFE_INTEGER * 1000) return true;
  return Math.abs(netOf({ quantity, price, priceQuantity }, currency)) > LIMITS.line;
}

/** What is wrong with an order's lines before they can be drafted. Empty when they may. */
export function draftFaults(asked: readonly OrderLine[], currency: string): Refusal[] {
  const tooLarge = asked.flatMap((l, k) => (isLarge(l, currency) ? [k] : []));
  // What is too large to be worked out is told of by its line; no discount is worked out over it.
  const lines = tooLarge.length > 0 ? asked : withDiscounts(asked, currency);
  const faults = [...lines.flatMap((l, k) => lineFaults(l, `lines.${k}`, currency)), ...spreadFaults(lines)];
  if (faults.length > 0) return faults;
  const total = lines.reduce((sum, l) => sum + Math.abs(netOf(l, currency)), 0);
  return total > LIMITS.document
    ? [refusal('order.large', 'The order total is too large. Split it into several orders.')]
    : [];
}

/** Charges need something to follow, and weights where they go by weight. */
function spreadFaults(lines: readonly OrderLine[]): Refusal[] {
  const carrying = lines.filter((l) => !isCharge(l));
  return lines.flatMap((line, k): Refusal[] => {
    if (!isCharge(line) || line.spread === 'amounts') return [];
    const name = named(line);
    if (carrying.length === 0) {
      const words = `${name} has no goods or services to be spread over. Add a line, or remove ${name} as well.`;
      return [refusal('order.charge', words, `lines.${k}.description`)];
    }
    const light = line.spread === 'weight' ? carrying.find((l) => isGoodsLine(l) && !((l.weight ?? 0) > 0)) : undefined;
    if (light === undefined) return [];
    const words = `${name} is spread by weight but ${named(light)} has no weight. Enter it on the item, or spread by value.`;
    return [refusal('charge.weight', words, `lines.${k}.spread`)];
  });
}

/** What must be settled before an order can go to its supplier. Empty when it may go. */
export function sendingFaults(asked: readonly OrderLine[], currency: string, supplierEmail: string | null): Refusal[] {
  const faults = draftFaults(asked, currency);
  const lines = faults.length > 0 ? asked : withDiscounts(asked, currency);
  if (lines.length === 0) faults.push(refusal('order.empty', 'The order has no line yet. Add one, then send.'));
  lines.forEach((line, k) => {
    if (line.price === null)
      faults.push(
        refusal('line.price', `${line.description} needs a price before this order can be sent.`, `lines.${k}.price`),
      );
    if (line.price === 0 && !line.free && !isCharge(line))
      faults.push(
        refusal(
          'line.free',
          `${line.description} has a zero price. Tick Free of charge or enter a price.`,
          `lines.${k}.price`,
        ),
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
    faults.push(refusal('order.below', 'Discounts exceed the lines: the order total is below zero.'));
  if (supplierEmail === null) {
    faults.push(
      refusal(
        'supplier.email',
        'The supplier has no email address. Add one under Suppliers, or mark the order as sent by hand.',
      ),
    );
  }
  return faults;
}

const orderSum = (lines: readonly OrderLine[], currency: string): Minor =>
  minor(lines.reduce((sum, l) => sum + netOf(l, currency), 0));
