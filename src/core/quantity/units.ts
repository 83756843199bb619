import { formatQuantity, type Factor, type Quantity } from './quantity';

/**
 * Units a buyer meets, by their code in UN/ECE Recommendation 20 (and 21 for packages, with the prefix X).
 * `short` is what people write beside a number; a piece has none.
 */
export type Unit = {
  readonly code: string;
  readonly name: string;
  readonly short: string;
  /** Other ways it is written in files. */
  readonly also: readonly string[];
  /** Only whole numbers make sense. */
  readonly whole?: boolean;
  /** A measure of work: what is bought by it is a service. */
  readonly work?: boolean;
  /** What it is an exact multiple of: `many` of the base are in `one` of this unit. */
  readonly base?: { readonly code: string; readonly many: number };
};

export const UNITS: readonly Unit[] = [
  {
    code: 'C62',
    name: 'piece',
    short: '',
    also: ['pc', 'pcs', 'piece', 'pieces', 'each', 'ea', 'off', 'no', 'nr', 'unit', 'units', 'one', 'h87'],
    whole: true,
  },
  {
    code: 'MTR',
    name: 'metre',
    short: 'm',
    also: ['metre', 'metres', 'meter', 'meters', 'mtr'],
    base: { code: 'MMT', many: 1000 },
  },
  { code: 'MMT', name: 'millimetre', short: 'mm', also: ['millimetre', 'millimetres'] },
  { code: 'MTK', name: 'square metre', short: 'm²', also: ['m2', 'sqm', 'square metre', 'square metres'] },
  {
    code: 'MTQ',
    name: 'cubic metre',
    short: 'm³',
    also: ['m3', 'cbm', 'cubic metre', 'cubic metres'],
    base: { code: 'MLT', many: 1_000_000 },
  },
  {
    code: 'KGM',
    name: 'kilogram',
    short: 'kg',
    also: ['kilogram', 'kilograms', 'kilo', 'kilos', 'kgs'],
    base: { code: 'GRM', many: 1000 },
  },
  { code: 'GRM', name: 'gram', short: 'g', also: ['gram', 'grams'] },
  { code: 'TNE', name: 'tonne', short: 't', also: ['tonne', 'tonnes'], base: { code: 'GRM', many: 1_000_000 } },
  {
    code: 'LTR',
    name: 'litre',
    short: 'l',
    also: ['litre', 'litres', 'liter', 'ltr'],
    base: { code: 'MLT', many: 1000 },
  },
  { code: 'MLT', name: 'millilitre', short: 'ml', also: ['millilitre', 'millilitres'] },
  { code: 'HUR', name: 'hour', short: 'h', also: ['hour', 'hours', 'hr', 'hrs'], work: true },
  { code: 'DAY', name: 'day', short: 'day', also: ['day', 'days'], work: true },
  { code: 'WEE', name: 'week', short: 'week', also: ['week', 'weeks', 'wk'], work: true },
  { code: 'LS', name: 'lump sum', short: 'lump sum', also: ['lump sum', 'lot', 'sum', 'ls'], work: true },
  { code: 'SET', name: 'set', short: 'set', also: ['set', 'sets', 'kit', 'kits'], whole: true },
  { code: 'PR', name: 'pair', short: 'pair', also: ['pair', 'pairs', 'pr'], whole: true },
  { code: 'XRL', name: 'reel', short: 'reel', also: ['reel', 'reels'], whole: true },
  { code: 'XBX', name: 'box', short: 'box', also: ['box', 'boxes'], whole: true },
  { code: 'XPK', name: 'pack', short: 'pack', also: ['pack', 'packs', 'pkt', 'packet'], whole: true },
  { code: 'XST', name: 'sheet', short: 'sheet', also: ['sheet', 'sheets'], whole: true },
  { code: 'XCA', name: 'can', short: 'can', also: ['can', 'cans', 'tin', 'tins'], whole: true },
];

const byCode = new Map(UNITS.map((u) => [u.code, u]));
const byWord = new Map(
  UNITS.flatMap((u) => [u.code, u.short, u.name, ...u.also].map((w) => [w.toLowerCase(), u] as const)),
);
byWord.delete('');

/** @throws RangeError for a code that is not in the list */
export function unitOf(code: string): Unit {
  const unit = byCode.get(code);
  if (unit === undefined) throw new RangeError(`“${code}” isn’t a unit code in use (UN/ECE Recommendation 20).`);
  return unit;
}

export const isUnit = (code: string): boolean => byCode.has(code);

/** Finds a unit by its code, short form or a word for it; undefined when nothing fits. */
export const findUnit = (word: string): Unit | undefined => byWord.get(word.trim().toLowerCase().replace(/\.$/, ''));

/** What is bought by a unit of work is a service: it is invoiced, never taken in at the dock. */
export const isWork = (code: string): boolean => unitOf(code).work === true;

/**
 * The exact conversion between two units of the same measure, undefined when there is none. By the decimal prefixes of
 * the SI and 1 l = 1 dm³ (NIST SP 811, appendix B).
 *
 * @returns how many of `to` are in how many of `from`
 * @example exactFactor('KGM', 'TNE') // { many: 1, one: 1000 }
 */
export function exactFactor(from: string, to: string): Factor | undefined {
  if (from === to) return { many: 1, one: 1 };
  const baseOf = (code: string) => unitOf(code).base ?? { code, many: 1 };
  const [a, b] = [baseOf(from), baseOf(to)];
  if (a.code !== b.code) return undefined;
  return a.many >= b.many ? { many: a.many / b.many, one: 1 } : { many: 1, one: b.many / a.many };
}

/** Every two different units of one measure, as "from to". */
export const CONVERTIBLE: readonly string[] = UNITS.flatMap(({ code: from }) =>
  UNITS.flatMap(({ code: to }) => (from !== to && exactFactor(from, to) !== undefined ? [`${from} ${to}`] : [])),
);

/**
 * A quantity with its unit, in short.
 * @example measured(quantity(25_000), 'MTR') // '2.5 m'
 */
export const measured = (q: Quantity, unit: string): string => `${formatQuantity(q)} ${unitOf(unit).short}`.trim();
