import { groupBy } from '../group';
import { divideRounded } from './decimal';
import { add, minor, type Minor, type UnitPrice } from './money';
import { spreadSigned } from './spread';

/** Codes of VAT categories that a company may use: UNCL 5305 as EN 16931-1 lists it for BT-118. */
export const TAX_CATEGORIES = ['S', 'Z', 'E', 'AE', 'K', 'G', 'O'] as const;
export type TaxCategory = (typeof TAX_CATEGORIES)[number];

/** A tax code of the company: rates in hundredths of a percent, so 2000 is 20 %. */
export type TaxCode = {
  readonly id: number;
  readonly name: string;
  readonly category: TaxCategory;
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
  readonly name: string;
  readonly category: TaxCategory;
  readonly rate: number;
  readonly base: Minor;
  readonly tax: Minor;
};

export type Totals = {
  /** Sum of rounded line net amounts, charges left out (EN 16931 BT-106). */
  readonly lines: Minor;
  /** Sum of charges (BT-108); allowances are charges below zero. */
  readonly charges: Minor;
  /** Total without tax: lines + charges (BT-109, rule BR-CO-13). */
  readonly net: Minor;
  /** Tax for each category and rate, on the summed base, rounded once (BG-23, rule BR-CO-17). */
  readonly taxes: readonly TaxLine[];
  /** Sum of the tax amounts (BT-110, rule BR-CO-14). */
  readonly tax: Minor;
  /** Total with tax (BT-112, rule BR-CO-15). */
  readonly gross: Minor;
};

const share = (amount: number, hundredths: number): Minor =>
  minor(divideRounded(BigInt(amount) * BigInt(hundredths), BigInt(FULL_SHARE)));

type Coded = { readonly at: number; readonly net: Minor; readonly code: TaxCode };

/** Lines by VAT category and rate: the breakdown of EN 16931 BG-23, which knows nothing of the company's own codes. */
function byRate(lines: readonly TaxedLine[], codes: readonly TaxCode[]): Coded[][] {
  const known = new Map(codes.map((c) => [c.id, c]));
  const coded = lines.map(({ net, taxCodeId }, at): Coded => {
    const code = known.get(taxCodeId);
    if (code === undefined) throw new RangeError('A line carries a tax code that is not known.');
    return { at, net, code };
  });
  return [...groupBy(coded, (l) => `${l.code.category} ${l.code.rate}`).values()];
}

const baseOf = (lines: readonly Coded[]): Minor => add(...lines.map((l) => l.net));

/**
 * Totals of an order or invoice by the calculation rules of EN 16931-1.
 *
 * @param lines - net amounts in minor units of the document's currency
 * @throws RangeError when a line's tax code is not among `codes`
 */
export function totalsOf(lines: readonly TaxedLine[], codes: readonly TaxCode[]): Totals {
  const sum = (of: readonly TaxedLine[]) => add(...of.map((l) => l.net));
  const isCharge = (l: TaxedLine) => l.kind === 'charge';
  const taxes = byRate(lines, codes).map((own): TaxLine => {
    const { name, category, rate } = (own[0] as Coded).code;
    const base = baseOf(own);
    return { name, category, rate, base, tax: share(base, rate) };
  });
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
 * What each line costs the job: its net amount and its part of the tax that cannot be recovered. The tax is worked out
 * once for each category and rate and shared by net amount, discounts taking their part below zero.
 *
 * @returns one amount per line, in order, in the document's currency
 * @example 100.00 and a discount of −50.00, both at 20 % that cannot be recovered: 120.00 and −60.00
 */
export function jobCosts(lines: readonly TaxedLine[], codes: readonly TaxCode[]): Minor[] {
  const costs = lines.map((l) => l.net);
  for (const own of byRate(lines, codes)) {
    const rate = own[0]?.code.rate ?? 0;
    const taxes = spreadSigned(
      share(baseOf(own), rate),
      own.map((l) => BigInt(l.net) * BigInt(rate)),
      BigInt(FULL_SHARE),
    );
    for (const same of groupBy(own, (l) => l.code.id).values()) {
      const lost = FULL_SHARE - (same[0]?.code.recoverable ?? FULL_SHARE);
      const their = same.map((l) => taxes[own.indexOf(l)] ?? 0);
      const whole = share(
        their.reduce((a, b) => a + b, 0),
        lost,
      );
      const parts = spreadSigned(
        whole,
        their.map((t) => BigInt(t) * BigInt(lost)),
        BigInt(FULL_SHARE),
      );
      same.forEach((l, k) => (costs[l.at] = minor(l.net + (parts[k] ?? 0))));
    }
  }
  return costs;
}

/** What of a tax says how much of it cannot be recovered. */
export type LostTax = Pick<TaxCode, 'rate' | 'recoverable'>;

/** The net amount of one thing with its tax that cannot be recovered. */
export const costOf = (net: Minor, code: LostTax | null): Minor =>
  code === null ? net : add(net, share(share(net, code.rate), FULL_SHARE - code.recoverable));

/** A unit price with tax at a rate, in hundredths of a percent; rounded half away from zero to ten-thousandths. */
export const withTax = (price: UnitPrice, rate: number): UnitPrice =>
  divideRounded(BigInt(price) * BigInt(FULL_SHARE + rate), BigInt(FULL_SHARE)) as UnitPrice;

/** The unit price that comes to this one with tax; what is left over in rounding is less than a ten-thousandth. */
export const withoutTax = (price: UnitPrice, rate: number): UnitPrice =>
  divideRounded(BigInt(price) * BigInt(FULL_SHARE), BigInt(FULL_SHARE + rate)) as UnitPrice;
