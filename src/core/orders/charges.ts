import { divideRounded } from '../money/decimal';
import { minor, ZERO, type Minor, type UnitPrice } from '../money/money';
import { spreadMoney } from '../money/spread';
import { FULL_SHARE } from '../money/tax';

/** What a charge is for. A discount is a charge below zero. */
export const CHARGE_NAMES = {
  carriage: 'Carriage',
  handling: 'Handling',
  certificate: 'Certificate',
  smallOrder: 'Small-order fee',
  tooling: 'Tooling',
  discount: 'Discount',
  other: 'Charge',
} as const;
export type ChargeKind = keyof typeof CHARGE_NAMES;
export const CHARGE_KINDS = Object.keys(CHARGE_NAMES) as [ChargeKind, ...ChargeKind[]];

/** By what a charge is shared out over what it belongs to; by amounts, a person says each part. */
export const SPREAD_NAMES = {
  value: 'by value',
  quantity: 'by quantity',
  weight: 'by weight',
  amounts: 'by typed amounts',
} as const;
export type Spread = keyof typeof SPREAD_NAMES;
export const SPREADS = Object.keys(SPREAD_NAMES) as [Spread, ...Spread[]];

/** Where money goes: a job's cost code, or stores. */
export type Target = { readonly jobId: number | null; readonly costCodeId: number | null };

export const targetKey = (t: Target): string => `${t.jobId}/${t.costCodeId}`;

/**
 * Spreads money that belongs to no goods over the places that some cost goes to.
 *
 * @param amount - in minor units
 * @param over - the cost that it follows, with what it weighs: minor units, a quantity, or kilograms
 * @param costCodeId - where it goes on each job; null lets it follow the cost's own codes
 * @returns one part for each place; they add up to the amount
 * @example 9,000.00 over three equal jobs: 3,000.00 each
 */
export function spreadCharge(
  amount: Minor,
  over: readonly (Target & { readonly value: number })[],
  costCodeId: number | null,
): (Target & { readonly value: Minor })[] {
  const places = new Map<string, Target & { value: number }>();
  for (const { value, jobId, costCodeId: own } of over) {
    const target = jobId === null ? { jobId, costCodeId: own } : { jobId, costCodeId: costCodeId ?? own };
    places.set(targetKey(target), { ...target, value: (places.get(targetKey(target))?.value ?? 0) + value });
  }
  const targets = [...places.values()];
  if (targets.length === 0) return [];
  const weights = targets.map((t) => Math.max(t.value, 0));
  const parts = spreadMoney(amount, weights);
  return targets
    .map(({ jobId, costCodeId: code }, k) => ({ jobId, costCodeId: code, value: parts[k] ?? ZERO }))
    .filter((_, k) => (weights[k] ?? 0) > 0 || weights.every((w) => w === 0));
}

/**
 * The price of one thing after its discount, to four decimals, half away from zero.
 * Source: EN 16931-1, BT-146 (item net price) is BT-148 (item gross price) less BT-147 (item price discount).
 *
 * @param discount - hundredths of a percent, 0 to 10,000
 * @example 9.85 less 12.5 %: 8.6188
 */
export const lessDiscount = (gross: UnitPrice, discount: number): UnitPrice =>
  divideRounded(BigInt(gross) * BigInt(FULL_SHARE - discount), BigInt(FULL_SHARE)) as UnitPrice;

/** What is paid for a line by its typed price, and that price where a discount lies between; a charge has none of its own. */
export function pricesOf(line: { readonly kind: string; readonly price: UnitPrice | null; readonly discount: number }) {
  const { kind, price, discount } = line;
  if (kind === 'charge' || discount === 0 || price === null) return { price, grossPrice: null };
  return { price: lessDiscount(price, discount), grossPrice: price };
}

/** What a discount on a sum takes off it, below zero. @param discount - hundredths of a percent */
export const allowanceOn = (sum: Minor, discount: number): Minor =>
  minor(-divideRounded(BigInt(sum) * BigInt(discount), BigInt(FULL_SHARE)));
