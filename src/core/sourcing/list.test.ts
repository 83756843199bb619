import { NONE, quantity, SAME_UNIT } from '../quantity/quantity';
import { changesOf, compareList, readPriceList, summaryOf, type ListedItem } from './list';

const at = (from: number, price: number, priceQuantity = 1) => ({
  from: quantity(from * 10_000),
  price: Math.round(price * 10_000) as never,
  priceQuantity,
});
const SOLD = { unit: 'MTR', factor: SAME_UNIT, minimum: NONE, pack: NONE, leadDays: null, prices: [] };
const ITEMS: readonly ListedItem[] = [
  {
    ...{ id: 1, number: 'TU-38', name: 'Tube', unit: 'MTR', gtin: null },
    sold: { ...SOLD, theirNumber: 'E/38', prices: [at(0, 8), at(50, 7)] },
  },
  {
    ...{ id: 2, number: 'CA-9', name: 'Cable', unit: 'MTR', gtin: '5012345678900' },
    sold: { ...SOLD, theirNumber: '88', unit: 'XRL', factor: { many: 60, one: 1 }, prices: [at(0, 180)] },
  },
  { id: 3, number: 'BO-M8', name: 'Bolt', unit: 'C62', gtin: null },
];
const rows = (...lines: string[]) => lines.map((l, k) => ({ row: k + 2, cells: l.split(';') }));
const read = (headings: string, ...lines: string[]) => {
  const result = readPriceList(headings.split(';'), rows(...lines), ITEMS, '.');
  if (!result.ok) throw new Error(result.refusals[0]?.message);
  return result.value;
};
const told = (headings: string, ...lines: string[]) =>
  read(headings, ...lines).parts.map((p) => [
    p.item.number,
    p.unit,
    ...p.prices.map((b) => `${b.from / 10_000}: ${b.price / 10_000} per ${b.priceQuantity}`),
  ]);
const left = (headings: string, ...lines: string[]) =>
  read(headings, ...lines).left.map((l) => `${l.row} ${l.message}`);

describe('a price list', () => {
  it('knows parts by our number, the supplier’s or a GTIN', () =>
    expect(
      told('Our number;Article no.;EAN;Price', ';e/38;;7.40', 'BO-M8;;;0.18', ';;5012345678900;180', ';tu-38;;7.5'),
    ).toEqual([
      ['TU-38', 'MTR', '0: 7.4 per 1'],
      ['BO-M8', 'C62', '0: 0.18 per 1'],
      ['CA-9', 'XRL', '0: 180 per 1'],
    ]));

  it('takes a row for each break, or breaks side by side', () => {
    const expected = [['TU-38', 'MTR', '0: 7.4 per 1', '50: 6.9 per 1']];
    expect(told('Number;From quantity;Price', 'E/38;50;6.90', 'E/38;;7.40')).toEqual(expected);
    expect(told('Number;Price;50+;100+', 'E/38;£7.40;6.90;')).toEqual(expected);
    expect(told('Number;Price from 1;From 50', 'E/38;7.40;6.90')).toEqual([
      ['TU-38', 'MTR', '1: 7.4 per 1', '50: 6.9 per 1'],
    ]);
  });

  it('takes what it says of a part beside its price, and leaves the rest', () => {
    const { parts } = read(
      'Number;Price;Per;Unit;Minimum;Pack;Lead time',
      'BO-M8;18;100;pcs;50;25;3 days',
      'E/38;7;;;;;',
    );
    expect(parts[0]).toMatchObject({ minimum: quantity(500_000), pack: quantity(250_000), leadDays: 3, unit: 'C62' });
    expect(parts[0]?.prices).toEqual([{ from: 0, price: 180_000, priceQuantity: 100 }]);
    expect(Object.keys(parts[1] ?? {})).not.toContain('minimum');
  });

  it('says of each row that it leaves out why', () =>
    expect(
      left(
        'Number;From quantity;Price;Per;Unit;Lead time',
        'NO-1;;5;;;',
        ';;5;;;',
        'E/38;;cheap;;;',
        'E/38;;;;;',
        'E/38;-1;5;;;',
        'E/38;;5;0;;',
        'BO-M8;;5;;box;',
        'BO-M8;;5;;barrel;',
        'E/38;;5;;;soon',
        '88;;180;;reel;',
        '88;;3;;m;',
        '88;0;181;;reel;',
      ),
    ).toEqual([
      '2 NO-1 isn’t in your items.',
      '3 Enter an item number.',
      '4 “cheap” isn’t a price. Type it like 12.50.',
      '5 Enter a price.',
      '6 “-1” isn’t a quantity. Type it like 10.',
      '7 Enter 1 or more.',
      '8 Sold by the box, but the pieces in one are unknown. Enter the conversion in the supplier terms first.',
      '9 “barrel” isn’t a unit in use.',
      '10 “soon” isn’t a whole number up to 400.',
      '12 CA-9 appears with two different units.',
      '13 CA-9 already has a price from that quantity.',
    ]));

  it.each([
    ['no price', 'Number;Words', 'price'],
    ['nothing that tells its parts apart', 'Price;Words', 'numbers'],
  ])('with %s is refused', (_, headings, words) => expect(() => read(headings, 'a;b')).toThrow(words));
});

describe('what a list changes', () => {
  it('is compared with what so many cost until now', () =>
    expect(
      changesOf([at(0, 10), at(50, 8)], [at(0, 11), at(20, 10), at(50, 80, 10), at(100, 6)]).map((c) => [
        c.from / 10_000,
        c.share,
      ]),
    ).toEqual([
      [0, 0.1],
      [20, 0],
      [50, 0],
      [100, -0.25],
    ]));
  it('has no share where nothing was, or what was was free', () =>
    expect(
      [...changesOf([], [at(0, 5)]), ...changesOf([at(10, 5)], [at(0, 5)]), ...changesOf([at(0, 0)], [at(0, 5)])].map(
        (c) => c.share,
      ),
    ).toEqual([null, null, null]));

  const compare = (headings: string, ...lines: string[]) => compareList(read(headings, ...lines).parts);

  it('is told part by part, what changes most first', () =>
    expect(
      compare('Number;From;Price', 'CA-9;;180', 'BO-M8;;0.2', 'E/38;;8.40', 'E/38;50;8.50').map((c) => [
        c.part.item.number,
        c.isNew,
        c.same,
        Math.round(c.furthest * 1000) / 1000,
        c.dearerForMore,
      ]),
    ).toEqual([
      ['TU-38', false, false, 0.214, true],
      ['CA-9', false, true, 0, false],
      ['BO-M8', true, false, 0, false],
    ]));

  it('is summed up', () =>
    expect(summaryOf(compare('Number;Price', 'CA-9;171', 'BO-M8;0.2', 'E/38;8.40'))).toEqual({
      dearer: 1,
      cheaper: 1,
      same: 0,
      added: 1,
      rise: expect.closeTo(0.05),
      fall: expect.closeTo(-0.05),
    }));

  it('counts a break that goes, a pack, a number or a lead time as a change', () =>
    expect(
      ['E/38;8;;', 'E/38;8;20;', 'E/38;8;;4', 'TU-38;8;;'].map(
        (line) => compare('Number;Price;Pack;Lead', line)[0]?.same,
      ),
    ).toEqual([false, false, false, false]));

  it('compares no price for a metre with one for a reel', () =>
    expect(compare('Number;Price;Unit', '88;3;m').map((c) => [c.same, c.prices[0]?.before, c.furthest])).toEqual([
      [false, null, 0],
    ]));
});
