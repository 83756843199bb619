import cc from 'currency-codes';
import { dinero, multiply, toDecimal, transformScale, halfAwayFromZero, add as addDinero } from 'dinero.js';
import { GBP } from 'dinero.js/currencies';
import fc from 'fast-check';
import { quantity } from '../quantity/quantity';
import Big from 'big.js';
import { CURRENCIES, decimalsOf } from './currencies';
import { formatMoney, lineNet, minor, priceOf, type UnitPrice } from './money';
import { convert, convertBack, PAR, parseRate, type Rate } from './rate';
import { jobCosts, totalsOf, type TaxCode } from './tax';

/** ISO 4217, list one, as the package currency-codes holds it; funds codes, metals and test codes are left out. */
const NO_MONEY =
  /^(X(AG|AU|BA|BB|BC|BD|CD|DR|PD|PT|SU|TS|UA|XX)|BOV|CHE|CHW|COU|MXV|USN|UYI|ANG|BGN|CUC|CLF|UYW|ZWG|VED|SLE)$/;
describe('decimals of currencies, against ISO 4217 (package currency-codes)', () => {
  it.each([...CURRENCIES])('%s', (code) => expect(decimalsOf(code)).toBe(cc.code(code)?.digits));

  it('knows every currency of the list', () =>
    expect(cc.codes().filter((code) => !NO_MONEY.test(code) && !CURRENCIES.includes(code))).toEqual([]));

  // Both are divided in fifths, and ISO 4217 gives both two decimals all the same.
  it.each(['MGA', 'MRU'])('%s has two', (code) => expect(decimalsOf(code)).toBe(2));

  it('knows no currency that ISO 4217 has not', () => expect(() => decimalsOf('XQQ')).toThrow(RangeError));
});

/**
 * EN 16931-1:2017, semantic model of the core elements of an electronic invoice, calculation rules:
 * BR-CO-10 (sum of line net amounts), BR-CO-13 (total without VAT), BR-CO-14 (total VAT), BR-CO-15 (total with VAT),
 * BR-CO-17 (VAT category amount = base × rate ÷ 100, rounded to two decimals), and BT-131 with BT-146 and BT-149
 * (line net = quantity × item net price ÷ price base quantity). Rule numbers from memory of the published standard.
 */
describe('EN 16931 totals', () => {
  const standard: TaxCode = { id: 1, name: '20 %', category: 'S', rate: 2000, recoverable: 10_000 };
  const reduced: TaxCode = { id: 2, name: '5 %', category: 'S', rate: 500, recoverable: 10_000 };
  const lost: TaxCode = { id: 3, name: '20 %, not recoverable', category: 'S', rate: 2000, recoverable: 0 };
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

  it('BG-23: groups by category and rate, whatever codes of our own stand behind', () => {
    const { taxes } = totalsOf([line(3, 1), line(3, 3), line(3, 3)], codes);
    expect(taxes.map((t) => [t.category, t.rate, t.base, t.tax])).toEqual([['S', 2000, 9, 2]]);
    const zero: TaxCode = { id: 4, name: '0 %', category: 'Z', rate: 0, recoverable: 10_000 };
    const exempt: TaxCode = { ...zero, id: 5, category: 'E' };
    expect(totalsOf([line(100, 4), line(100, 5)], [zero, exempt]).taxes.map((t) => t.category)).toEqual(['Z', 'E']);
  });

  it('shares tax that cannot be recovered between goods and a discount: 100 − 50 at 20 %', () =>
    expect(jobCosts([line(10_000, 3), line(-5000, 3, 'charge')], codes)).toEqual([12_000, -6000]));

  it('shares it when the discount takes everything', () =>
    expect(jobCosts([line(10_000, 3), line(-10_000, 3)], codes)).toEqual([12_000, -12_000]));

  it('puts the tax that cannot be recovered on the lines, each within a unit of its exact share', () => {
    const nets = fc.array(
      fc.record({ net: fc.integer({ min: -1_000_000, max: 1_000_000 }), taxCodeId: fc.constantFrom(1, 2, 3) }),
      { minLength: 1, maxLength: 9 },
    );
    fc.assert(
      fc.property(nets, (all) => {
        const lines = all.map((n) => line(n.net, n.taxCodeId));
        const costs = jobCosts(lines, codes);
        costs.forEach((cost, k) => {
          const exact = new Big(all[k]?.net ?? 0).times(all[k]?.taxCodeId === 3 ? '1.2' : '1');
          expect(exact.minus(cost).abs().toNumber()).toBeLessThan(2);
        });
        if (all.every((n) => n.taxCodeId === 3))
          expect(costs.reduce((a, b) => a + b, 0)).toBe(totalsOf(lines, codes).gross);
      }),
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
    expect(convert(minor(173_700), 'EUR', 'GBP', '0.8624' as Rate)).toBe(149_799);
    expect(convert(minor(1500), 'JPY', 'GBP', '0.0053' as Rate)).toBe(795);
    expect(convert(minor(77), 'GBP', 'GBP', PAR)).toBe(77);
  });

  it('keeps enough places for any pair, as big.js does', () => {
    const rate = fc.tuple(fc.integer({ min: 1, max: 999_999 }), fc.integer({ min: 0, max: 11 }));
    const code = fc.constantFrom('JPY', 'GBP', 'KWD', 'IRR', 'UYW');
    fc.assert(
      fc.property(fc.integer({ min: -1e9, max: 1e9 }), rate, code, code, (amount, [digits, places], from, to) => {
        const text = new Big(digits).div(new Big(10).pow(places)).toFixed();
        const read = parseRate(text);
        if (!read.ok) throw new Error(text);
        const exact = new Big(amount).times(text).times(new Big(10).pow(decimalsOf(to) - decimalsOf(from)));
        const rounded = Number(exact.round(0, Big.roundHalfUp).toString()) + 0;
        if (Number.isSafeInteger(rounded)) expect(convert(minor(amount), from, to, read.value)).toBe(rounded);
      }),
    );
  });

  it('converts back', () => expect(convertBack(minor(860), 'EUR', 'GBP', '0.86' as Rate)).toBe(1000));

  it.each([
    ['0.862400', '0.8624'],
    ['007', '7'],
    ['0', 'rate.low'],
    ['-1', 'rate.wrong'],
    ['1,5', 'rate.wrong'],
    ['', 'rate.missing'],
    ['0.0000000000001', 'rate.wrong'],
  ])('reads the rate “%s”', (text, expected) => {
    const read = parseRate(text);
    expect(read.ok ? read.value : read.refusals[0]?.code).toBe(expected);
  });

  // ISO 4217: the yen has no decimals, the Kuwaiti dinar three.
  it('prices one charge with the currency’s own decimals', () => {
    expect(priceOf(minor(900), 'JPY')).toBe(9_000_000);
    expect(lineNet(quantity(10_000), priceOf(minor(900), 'JPY'), 1, 'JPY')).toBe(900);
    expect(lineNet(quantity(10_000), priceOf(minor(2500), 'KWD'), 1, 'KWD')).toBe(2500);
  });

  it('writes an amount with its sign', () => expect(formatMoney(minor(-4020), 'GBP')).toBe('−£\u202f40.20'));
});
