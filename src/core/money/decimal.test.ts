import Big from 'big.js';
import fc from 'fast-check';
import { divideRounded, formatDecimal, isUndecided, parseDecimal } from './decimal';

const value = (text: string, mark: '.' | ',' = '.') => {
  const read = parseDecimal(text, { places: 4, mark });
  return read.ok ? read.value : read.refusals[0]?.code;
};

describe('parseDecimal', () => {
  it.each([
    ['12', 120_000],
    ['1,234.5', 12_345_000],
    ['1 234.50', 12_345_000],
    ["1'234.5", 12_345_000],
    ['.5', 5000],
    ['-3.25', -32_500],
    ['−3', -30_000],
    ['7.10000000', 71_000],
    ['+2', 20_000],
    ['0', 0],
    ['-0', 0],
  ])('reads %s', (text, expected) => expect(value(text)).toBe(expected));

  it.each([
    ['1.234,5', 12_345_000],
    ['12,5', 125_000],
    ['1 000,25', 10_002_500],
  ])('reads %s with a decimal comma', (text, expected) => expect(value(text, ',')).toBe(expected));

  it.each([
    ['', 'number.missing'],
    ['twelve', 'number.wrong'],
    ['12,5', 'number.unclear'],
    ['0,125', 'number.unclear'],
    ['0,125.5', 'number.wrong'],
    ['1.23456', 'number.precise'],
    ['99999999999', 'number.large'],
    ['1e5', 'number.wrong'],
    ['1,23,456', 'number.wrong'],
    ['0x10', 'number.wrong'],
    ['NaN', 'number.wrong'],
    ['=1+1', 'number.wrong'],
  ])('refuses “%s”', (text, code) => expect(value(text)).toBe(code));

  it.each([
    ['1,250', true],
    ['1.250', true],
    ['-12,345', true],
    ['1,250.0', false],
    ['0,125', false],
    ['12,50', false],
    ['1,250,000', false],
    ['1250', false],
  ])('%s can be read in two ways: %s', (text, expected) => expect(isUndecided(text)).toBe(expected));

  it('never takes a comma for a point', () => expect(value('12.5', ',')).toBe('number.unclear'));
});

describe('formatDecimal', () => {
  it.each([
    [123_456_000, 4, 2, '12,345.60'],
    [-500, 4, 0, '−0.05'],
    [0, 2, 2, '0.00'],
    [5, 0, 0, '5'],
    [1_000_000, 0, 0, '1,000,000'],
    [120_000, 4, 0, '12'],
  ])('writes %d', (scaled, places, least, text) => expect(formatDecimal(scaled, places, least)).toBe(text));

  it('is read back as it was written', () => {
    fc.assert(fc.property(fc.integer({ min: -1e12, max: 1e12 }), (n) => expect(value(formatDecimal(n, 4, 0))).toBe(n)));
  });
});

describe('divideRounded', () => {
  it('agrees with big.js on rounding half away from zero', () => {
    Big.DP = 40;
    fc.assert(
      fc.property(
        fc.bigInt({ min: -(10n ** 15n), max: 10n ** 15n }),
        fc.bigInt({ min: 1n, max: 10n ** 9n }),
        (n, d) => {
          const expected = Number(new Big(n.toString()).div(d.toString()).round(0, Big.roundHalfUp).toString());
          expect(divideRounded(n, d)).toBe(expected === 0 ? 0 : expected);
        },
      ),
    );
  });

  it('refuses what it cannot keep exactly', () => {
    expect(() => divideRounded(1n, 0n)).toThrow(RangeError);
    expect(() => divideRounded(10n ** 20n, 1n)).toThrow(RangeError);
  });
});
