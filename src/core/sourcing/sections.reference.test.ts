import Big from 'big.js';
import { unit } from 'mathjs';
import type { UnitPrice } from '../money/money';
import { fromSupplierUnit, quantity, toSupplierUnit, type Factor } from '../quantity/quantity';
import { exactFactor, UNITS, unitOf } from '../quantity/units';
import { shareWeight } from '../quantity/weight';
import { priceInUnit, pricePerNeedUnit, quantityToOrder } from './terms';

/**
 * What a section weighs: its area × 7850 kg/m³, the density that EN 10025 and the section tables of EN 10056 (angles),
 * EN 10058 (flats), EN 10060 (rounds) and EN 10219 (tubes) are worked out with. The masses are those of the tables, from
 * memory.
 */
const DENSITY = 7850;
const SECTIONS: readonly (readonly [name: string, squareMillimetres: number, kgPerMetre: number])[] = [
  ['flat 40 × 6', 40 * 6, 1.88],
  ['flat 100 × 10', 100 * 10, 7.85],
  ['round 12', (Math.PI / 4) * 12 ** 2, 0.888],
  ['round 20', (Math.PI / 4) * 20 ** 2, 2.47],
  ['tube 48.3 × 3.2', Math.PI * (48.3 - 3.2) * 3.2, 3.56],
  ['tube 114.3 × 5', Math.PI * (114.3 - 5) * 5, 13.5],
  // The toe and the root of an angle are rounded: EN 10056-1 gives 5.69 cm² for 50 × 50 × 6.
  ['angle 50 × 50 × 6', 569, 4.47],
];

/** How many metres are in how many kilograms, for what weighs so much a metre, to a gram. */
const metresPerKilogram = (kgPerMetre: number): Factor => ({ many: 1000, one: Math.round(kgPerMetre * 1000) });

describe('sections bought by the kilogram and used by the metre', () => {
  it.each(SECTIONS)('%s, given by its table, weighs what its cross-section does', (_, area, table) => {
    const bar = { unit: 'MTR', weight: quantity(Math.round(table * 10_000)) };
    const exact = (area / 1e6) * DENSITY;
    const weighs = (unit: string): number => (shareWeight(bar, unit) ?? 0) / 10_000;
    expect(Number(weighs('MTR').toPrecision(3))).toBe(Number(exact.toPrecision(3)));
    // By the millimetre, to a tenth of a gram.
    expect(Math.abs(weighs('MMT') - exact / 1000)).toBeLessThan(0.0001);
    expect(shareWeight(bar, 'KGM')).toBeNull();
  });

  it.each(SECTIONS)('%s: twelve metres are ordered by their weight, and come back as twelve', (_, __, table) => {
    const factor = metresPerKilogram(table);
    const kilograms = toSupplierUnit(quantity(120_000), factor);
    const exact = new Big(12).times(table).times(10_000);
    expect(Math.abs(new Big(kilograms).minus(exact).toNumber())).toBeLessThan(1);
    expect(Math.abs(fromSupplierUnit(kilograms, factor) - 120_000)).toBeLessThanOrEqual(Math.ceil(1 / table));
  });

  it('2.40 a kilogram is 4.51 a metre of flat 40 × 6, and back', () => {
    const factor = metresPerKilogram(1.88);
    const price = { price: 24_000 as UnitPrice, priceQuantity: 1, from: quantity(0) };
    expect(pricePerNeedUnit(price, factor)).toBe(45_120);
    const metre = { price: 45_120 as UnitPrice, priceQuantity: 1, unit: 'MTR' };
    expect(priceInUnit(metre, 'KGM', factor)?.price).toBe(24_000);
  });

  it('plate of 6 mm weighs 47.1 kg a square metre, and 12 m² come as two sheets of 2.5 × 1.25 m and two more', () => {
    expect(new Big('0.006').times(DENSITY).toFixed(1)).toBe('47.1');
    // A sheet of 2500 × 1250 mm has 3.125 m² (a common size; no source): 12 m² are 3.84 sheets.
    const sheets = { unit: 'XST', factor: { many: 25, one: 8 }, minimum: quantity(0), pack: quantity(0), prices: [] };
    expect(quantityToOrder(quantity(120_000), sheets).quantity / 10_000).toBe(4);
    expect(fromSupplierUnit(quantity(40_000), sheets.factor) / 10_000).toBe(12.5);
  });

  it('ten planks of 50 × 150 mm and 3.6 m are 0.27 m³', () => {
    const plank = new Big('0.05').times('0.15').times('3.6');
    const factor: Factor = { many: 10_000, one: plank.times(10_000).toNumber() };
    expect(toSupplierUnit(quantity(100_000), factor) / 10_000).toBe(0.27);
  });
});

/** What mathjs calls our units; it takes its factors from the SI, as NIST SP 811, appendix B, does. */
const CALLED: Readonly<Record<string, string>> = {
  MTR: 'm',
  MMT: 'mm',
  MTQ: 'm3',
  LTR: 'litre',
  MLT: 'ml',
  KGM: 'kg',
  GRM: 'g',
  TNE: 'tonne',
};

describe('every exact conversion', () => {
  const pairs = Object.keys(CALLED).flatMap((from) => Object.keys(CALLED).map((to) => [from, to] as const));

  it.each(pairs)('%s to %s is that of mathjs', (from, to) => {
    const factor = exactFactor(from, to);
    const one = unit(1, CALLED[from] ?? '');
    const fits = one.equalBase(unit(1, CALLED[to] ?? ''));
    expect(factor !== undefined).toBe(fits);
    if (factor !== undefined) expect(factor.many / factor.one).toBeCloseTo(one.toNumber(CALLED[to] ?? ''), 9);
  });

  it('is between units that are named here, and no others', () => {
    const based = UNITS.filter((u) => u.base !== undefined).flatMap((u) => [u.code, u.base?.code ?? '']);
    expect([...new Set(based)].sort()).toEqual(Object.keys(CALLED).sort());
    expect(unitOf('C62').base).toBeUndefined();
  });
});
