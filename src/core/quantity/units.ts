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
};

export const UNITS: readonly Unit[] = [
  {
    code: 'C62',
    name: 'piece',
    short: '',
    also: ['pc', 'pcs', 'piece', 'pieces', 'each', 'ea', 'off', 'no', 'nr', 'unit', 'units', 'one', 'h87'],
    whole: true,
  },
  { code: 'MTR', name: 'metre', short: 'm', also: ['metre', 'metres', 'meter', 'meters', 'mtr'] },
  { code: 'MMT', name: 'millimetre', short: 'mm', also: ['millimetre', 'millimetres'] },
  { code: 'MTK', name: 'square metre', short: 'm²', also: ['m2', 'sqm', 'square metre', 'square metres'] },
  { code: 'MTQ', name: 'cubic metre', short: 'm³', also: ['m3', 'cbm', 'cubic metre', 'cubic metres'] },
  { code: 'KGM', name: 'kilogram', short: 'kg', also: ['kilogram', 'kilograms', 'kilo', 'kilos', 'kgs'] },
  { code: 'GRM', name: 'gram', short: 'g', also: ['gram', 'grams'] },
  { code: 'TNE', name: 'tonne', short: 't', also: ['tonne', 'tonnes'] },
  { code: 'LTR', name: 'litre', short: 'l', also: ['litre', 'litres', 'liter', 'ltr'] },
  { code: 'MLT', name: 'millilitre', short: 'ml', also: ['millilitre', 'millilitres'] },
  { code: 'HUR', name: 'hour', short: 'h', also: ['hour', 'hours', 'hr', 'hrs'] },
  { code: 'DAY', name: 'day', short: 'day', also: ['day', 'days'] },
  { code: 'WEE', name: 'week', short: 'week', also: ['week', 'weeks', 'wk'] },
  { code: 'LS', name: 'lump sum', short: 'lump sum', also: ['lump sum', 'lot', 'sum', 'ls'] },
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
  if (unit === undefined)
    throw new RangeError(`“${code}” is no unit code of UN/ECE Recommendation 20 that is known here.`);
  return unit;
}

export const isUnit = (code: string): boolean => byCode.has(code);

/** Finds a unit by its code, short form or a word for it; undefined when nothing fits. */
export const findUnit = (word: string): Unit | undefined => byWord.get(word.trim().toLowerCase().replace(/\.$/, ''));
