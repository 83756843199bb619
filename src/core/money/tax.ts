import { divideRounded } from './decimal';
import { add, minor, ZERO, type Minor } from './money';
import { spreadMoney } from './spread';

/** A tax code of the company: rates in hundredths of a percent, so 2000 is 20 %. */
export type TaxCode = {
  readonly id: number;
  readonly name: string;
  readonly rate: number;
  /** The share of the tax that the company gets back, in hundredths of a percent. */
  readonly recoverable: number;
};

export const FULL_SHARE = 10_000;

export type TaxedLine = {
  readonly net: Minor;
  readonly kind: 'goods' | 'service' | 'charge';
  readonly taxCodeId: number;
};

export type TaxLine = {
  readonly code: TaxCode;
  readonly base: Minor;
  readonly tax: Minor;
  readonly unrecoverable: Minor;
};

export type Totals = {
  /** Sum of rounded line net amounts, charges left out (EN 16931 BT-106). */
  readonly lines: Minor;
  /** Sum of charges (BT-108). */
  readonly charges: Minor;
  /** Total without tax: lines + charges (BT-109, rule BR-CO-13; allowances are charges below zero). */
  readonly net: Minor;
  /** Tax for each rate, on the summed base, rounded once (BG-23, rule BR-CO-17). */
  readonly taxes: readonly TaxLine[];
  /** Sum of the tax amounts (BT-110, rule BR-CO-14). */
  readonly tax: Minor;
  /** Total with tax (BT-112, rule BR-CO-15). */
  readonly gross: Minor;
};

const share = (amount: Minor, hundredths: number): Minor =>
  minor(divideRounded(BigInt(amount) * BigInt(hundredths), BigInt(FULL_SHARE)));

/**
 * Totals of an order or invoice by the calculation rules of EN 16931-1.
 *
 * @param lines - net amounts in minor units of the document's currency
 * @throws RangeError when a line's tax code is not among `codes`
 */
export function totalsOf(lines: readonly TaxedLine[], codes: readonly TaxCode[]): Totals {
  const sum = (of: readonly TaxedLine[]) => add(...of.map((l) => l.net));
  const isCharge = (l: TaxedLine) => l.kind === 'charge';
  const taxes = codes.flatMap((code) => {
    const own = lines.filter((l) => l.taxCodeId === code.id);
    if (own.length === 0) return [];
    const base = sum(own);
    const tax = share(base, code.rate);
    return [{ code, base, tax, unrecoverable: share(tax, FULL_SHARE - code.recoverable) }];
  });
  if (taxes.reduce((n, t) => n + lines.filter((l) => l.taxCodeId === t.code.id).length, 0) !== lines.length) {
    throw new RangeError('A line carries a tax code that is not known.');
  }
  const net = sum(lines);
  const tax = add(...taxes.map((t) => t.tax));
  return {
    lines: sum(lines.filter((l) => !isCharge(l))),
    charges: sum(lines.filter(isCharge)),
    net,
    taxes,
    tax,
    gross: add(net, tax),
  };
}

/**
 * What each line costs the job: its net amount and its part of the tax that cannot be recovered,
 * which is worked out once per rate and spread over that rate's lines by net amount.
 *
 * @returns one amount per line, in order, in the document's currency
 */
export function jobCosts(lines: readonly TaxedLine[], codes: readonly TaxCode[]): Minor[] {
  const costs = lines.map((l) => l.net);
  for (const { code, unrecoverable } of totalsOf(lines, codes).taxes) {
    if (unrecoverable === ZERO) continue;
    const own = lines.flatMap((l, index) => (l.taxCodeId === code.id ? [index] : []));
    const parts = spreadMoney(
      unrecoverable,
      own.map((index) => Math.abs(costs[index] ?? 0)),
    );
    own.forEach((index, k) => (costs[index] = add(costs[index] ?? ZERO, parts[k] ?? ZERO)));
  }
  return costs;
}
