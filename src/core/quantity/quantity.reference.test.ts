import fc from 'fast-check';
import { formatQuantity, fromSupplierUnit, parseQuantity, quantity, toSupplierUnit } from './quantity';
import { findUnit, UNITS, unitOf } from './units';

/** UN/ECE Recommendation 20 (and 21 for packages, with X before the code): common codes and names, from memory of the published lists. */
const PUBLISHED: Readonly<Record<string, string>> = {
  C62: 'one',
  MTR: 'metre',
  MMT: 'millimetre',
  MTK: 'square metre',
  MTQ: 'cubic metre',
  KGM: 'kilogram',
  GRM: 'gram',
  TNE: 'tonne (metric ton)',
  LTR: 'litre',
  MLT: 'millilitre',
  HUR: 'hour',
  DAY: 'day',
  WEE: 'week',
  LS: 'lump sum',
  SET: 'set',
  PR: 'pair',
  XRL: 'reel',
  XBX: 'box',
  XPK: 'package',
  XST: 'sheet',
  XCA: 'can, rectangular',
};

describe('units, against UN/ECE Recommendations 20 and 21', () => {
  it('has only published codes', () => expect(UNITS.map((u) => u.code).filter((c) => !(c in PUBLISHED))).toEqual([]));

  it.each(UNITS.filter((u) => !['C62', 'XPK', 'XCA', 'TNE'].includes(u.code)).map((u) => [u.code, u.name] as const))(
    '%s is a %s',
    (code, name) => expect(PUBLISHED[code]).toBe(name),
  );

  it.each([
    ['m', 'MTR'],
    ['Metres', 'MTR'],
    ['PCS', 'C62'],
    ['each', 'C62'],
    ['h', 'HUR'],
    ['hrs.', 'HUR'],
    ['m³', 'MTQ'],
    ['Sheet', 'XST'],
    ['KGM', 'KGM'],
    ['lot', 'LS'],
  ])('finds %s', (word, code) => expect(findUnit(word)?.code).toBe(code));

  it('finds nothing for what is no unit', () => {
    expect(findUnit('furlong')).toBeUndefined();
    expect(findUnit('')).toBeUndefined();
    expect(() => unitOf('ZZZ9')).toThrow(RangeError);
  });
});

/** NIST Special Publication 811 (2008), appendix B: 1 tonne = 1000 kg and 1 m³ = 1000 l exactly (from memory). */
describe('exact conversions', () => {
  it('tonnes to kilograms and back, and cubic metres to litres, by NIST SP 811', () => {
    expect(toSupplierUnit(quantity(12_500_000), { many: 1000, one: 1 })).toBe(12_500);
    expect(fromSupplierUnit(quantity(12_500), { many: 1000, one: 1 })).toBe(12_500_000);
  });

  it('never leaves a need short, and adds less than the last place', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 1e9 }),
        fc.integer({ min: 1, max: 5000 }),
        fc.integer({ min: 1, max: 5000 }),
        (need, many, one) => {
          const bought = toSupplierUnit(quantity(need), { many, one });
          expect(BigInt(bought) * BigInt(many)).toBeGreaterThanOrEqual(BigInt(need) * BigInt(one));
          expect(BigInt(bought - 1) * BigInt(many)).toBeLessThan(BigInt(need) * BigInt(one));
        },
      ),
    );
  });
});

describe('parseQuantity', () => {
  it.each([
    ['0', 'quantity.low'],
    ['-1', 'quantity.low'],
    ['0.00001', 'number.precise'],
    ['1e9', 'number.wrong'],
    ['99999999', 'number.large'],
  ])('refuses %s', (text, code) => {
    const read = parseQuantity(text);
    expect(read.ok ? 'taken' : read.refusals[0]?.code).toBe(code);
  });

  it('reads what it writes', () => expect(parseQuantity(formatQuantity(quantity(1_234_567))).ok).toBe(true));
});
