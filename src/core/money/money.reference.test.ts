import cc from 'currency-codes';
import { dinero, multiply, toDecimal, transformScale, halfAwayFromZero, add as addDinero } from 'dinero.js';
import { GBP } from 'dinero.js/currencies';
import fc from 'fast-check';
import { quantity } from '../quantity/quantity';
import { convert, decimalsOf, formatMoney, lineNet, minor, PAR, type Rate, type UnitPrice } from './money';
import { jobCosts, totalsOf, type TaxCode } from './tax';

/** ISO 4217, list one (as the package currency-codes holds it): decimals of a currency's minor unit. */
describe('decimals of currencies, against ISO 4217 (package currency-codes)', () => {
  it.each(['GBP', 'EUR', 'USD', 'SEK', 'NOK', 'DKK', 'CHF', 'PLN', 'JPY', 'KWD', 'ISK', 'CZK', 'HUF'])('%s', (code) => {
    expect(decimalsOf(code)).toBe(cc.code(code)?.digits);
  });

  it('knows no currency that ISO 4217 has not', () => expect(() => decimalsOf('XQQ')).toThrow(RangeError));
});

/**
 * EN 16931-1:2017, semantic model of the core elements of an electronic invoice, calculation rules:
 * BR-CO-10 (sum of line net amounts), BR-CO-13 (total without VAT), BR-CO-14 (total VAT), BR-CO-15 (total with VAT),
 * BR-CO-17 (VAT category amount = base × rate ÷ 100, rounded to two decimals), and BT-131 with BT-146 and BT-149
 * (line net = quantity × item net price ÷ price base quantity). Rule numbers from memory of the published standard.
 */
describe('EN 16931 totals', () => {
  const standard: TaxCode = { id: 1, name: '20 %', rate: 2000, recoverable: 10_000 };
  const reduced: TaxCode = { id: 2, name: '5 %', rate: 500, recoverable: 10_000 };
  const lost: TaxCode = { id: 3, name: '20 %, not recoverable', rate: 2000, recoverable: 0 };
  const codes = [standard, reduced, lost];
  const line = (net: number, taxCodeId = 1, kind: 'goods' | 'charge' = 'goods') => ({
    net: minor(net),
    taxCodeId,
    kind,
  });

  it('BT-131: quantity × price ÷ price base quantity, rounded half away from zero', () => {
    expect(lineNet(quantity(480_000), 98_500 as UnitPrice, 1, 'GBP')).toBe(47_280);
    expect(lineNet(quantity(2_500_000), 123_400 as UnitPrice, 100, 'GBP')).toBe(3085);
    expect(lineNet(quantity(10_000), 50 as UnitPrice, 1, 'GBP')).toBe(1);
    expect(lineNet(quantity(10_000), -50 as UnitPrice, 1, 'GBP')).toBe(-1);
    expect(lineNet(quantity(10_000), 15_000 as UnitPrice, 1, 'JPY')).toBe(2);
  });

  it('BR-CO-10 and BR-CO-13: the total is the sum of rounded lines and charges', () => {
    const totals = totalsOf([line(10_005), line(333), line(2500, 1, 'charge')], codes);
    expect(totals).toMatchObject({ lines: 10_338, charges: 2500, net: 12_838 });
  });

  it('BR-CO-17: tax is worked out once on the base of its rate, not line by line', () => {
    const thirds = [line(3), line(3), line(3)];
    expect(totalsOf(thirds, codes).tax).toBe(2); // 9 × 20 % = 1.8; line by line it would be 3 × 1 = 3
  });

  it('BR-CO-14 and BR-CO-15: taxes of all rates, and the total with tax', () => {
    const totals = totalsOf([line(10_000, 1), line(9999, 2)], codes);
    expect(totals.taxes.map((t) => [t.base, t.tax])).toEqual([
      [10_000, 2000],
      [9999, 500],
    ]);
    expect(totals.gross).toBe(10_000 + 9999 + 2000 + 500);
  });

  it('refuses a tax code that is not known', () => expect(() => totalsOf([line(1, 99)], codes)).toThrow(RangeError));

  it('puts the tax that cannot be recovered on the lines, to the penny', () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ net: fc.integer({ min: 0, max: 1_000_000 }), taxCodeId: fc.constantFrom(1, 2, 3) }), {
          minLength: 1,
          maxLength: 9,
        }),
        (nets) => {
          const lines = nets.map((n) => line(n.net, n.taxCodeId));
          const { net, taxes } = totalsOf(lines, codes);
          expect(jobCosts(lines, codes).reduce((a, b) => a + b, 0)).toBe(
            net + (taxes.find((t) => t.code.id === 3)?.tax ?? 0),
          );
        },
      ),
    );
  });
});

describe('amounts, with dinero.js as second opinion', () => {
  it('multiplies and rounds line nets alike', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 10_000_000 }), fc.integer({ min: 0, max: 10_000_000 }), (q, p) => {
        const exact = multiply(dinero({ amount: p, currency: GBP, scale: 4 }), { amount: q, scale: 4 });
        const rounded = transformScale(exact, 2, halfAwayFromZero);
        expect(lineNet(quantity(q), p as UnitPrice, 1, 'GBP')).toBe(Math.round(Number(toDecimal(rounded)) * 100));
      }),
    );
  });

  it('adds alike', () => {
    const [a, b] = [minor(12_345), minor(-999)];
    const sum = addDinero(dinero({ amount: a, currency: GBP }), dinero({ amount: b, currency: GBP }));
    expect(toDecimal(sum)).toBe(((a + b) / 100).toFixed(2));
  });
});

describe('other currencies', () => {
  it('converts at the order’s rate, rounding once', () => {
    expect(convert(minor(173_700), 'EUR', 'GBP', 862_400 as Rate)).toBe(149_799);
    expect(convert(minor(1500), 'JPY', 'GBP', 5_300 as Rate)).toBe(795);
    expect(convert(minor(77), 'GBP', 'GBP', PAR)).toBe(77);
  });

  it('writes an amount with its sign', () => expect(formatMoney(minor(-4020), 'GBP')).toBe('−£\u202f40.20'));
});
