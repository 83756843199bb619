import { columnsOf, folded, type Row, type RowLeft } from '../columns';
import { asDay } from '../calendar/workdays';
import { isGoods, type ItemKind, type Tracking } from '../items/kinds';
import { LIMITS } from '../limits';
import { parseDecimal } from '../money/decimal';
import type { DecimalMark } from '../locale/locale';
import { add, lineNet, type Minor, type UnitPrice } from '../money/money';
import { decimalsOf } from '../money/currencies';
import { addQ, ONE, quantity, type Quantity } from '../quantity/quantity';
import { exactFactor, findUnit, unitOf } from '../quantity/units';
import { wholeFault } from '../quantity/whole';
import { LONGEST_NUMBER, patternFault, type Numbered } from './numbers';
import { done, refusal, refused, type Refusal, type Result } from '../result';

const HEADINGS = {
  serial: /serial|\blot\b|batch|s\/n/i,
  expires: /expir|use by|best before/i,
  bin: /^(bin|shelf|rack)\b/i,
  place: /^(place|store|where|location|bay)/i,
  keep: /^(keep|kept|level|minimum)|level to keep/i,
  each: /(each|unit) (cost|price|value)|^(cost|price)( each)?\b|cost each/i,
  value: /value|worth|amount/i,
  reason: /reason|why|note/i,
  unit: /^(unit|uom|u\/m)$/i,
  quantity: /qty|quantity|count|on hand|stock/i,
  item: /number|^item|^part|code|article/i,
} as const;
type Field = keyof typeof HEADINGS;

export type StockItem = {
  readonly id: number;
  readonly number: string;
  readonly name: string;
  readonly unit: string;
  readonly kind: ItemKind;
  readonly tracking: Tracking;
  readonly numberPattern: string;
};

/** What a row says of an item at a place; null for what it does not say. */
export type CountedRow = {
  readonly row: number;
  readonly itemId: number;
  readonly placeId: number;
  /** What was counted: all that lies at the place, or bin by bin; empty where the row says a level alone. */
  readonly parts: readonly CountedPart[];
  /** What all of it is worth, in minor units of the company's currency. */
  readonly value: Minor | null;
  readonly keep: Quantity | null;
  readonly reason: string;
};

export type CountedPart = {
  /** Undefined for all that lies at the place. */
  readonly binId: number | undefined;
  /** In the item's unit. */
  readonly quantity: Quantity;
  /** Its lots or serial numbers, of what has some. */
  readonly numbers: readonly Numbered[];
  /** What each of them is worth, in their order; empty where the file does not say that of all. */
  readonly values: readonly Minor[];
};

type Named = { readonly id: number; readonly name: string };
type KnownPlace = Named & { readonly bins: readonly Named[] };

export type Known = {
  readonly items: readonly StockItem[];
  /** The first is meant where a row names none. */
  readonly places: readonly KnownPlace[];
  readonly mark: DecimalMark;
  readonly currency: string;
};

const fault = (message: string): Refusal => refusal('stores.row', message);
export const COUNT_REASON = 'opening count from a file';

/**
 * Reads what lies in stores: a row for each item and place or bin, and for each lot or serial number of what has some, with what
 * was counted, what it is worth or cost each, the level to keep, and why it is put right.
 *
 * @returns the rows that can be taken, and those that are left out with the reason; refused without the columns it needs
 */
export function readCounts(
  headings: readonly string[],
  rows: readonly Row[],
  known: Known,
): Result<{ readonly rows: readonly CountedRow[]; readonly left: readonly RowLeft[] }> {
  const columns = columnsOf<Field>(headings, HEADINGS);
  if (columns.item === undefined || (columns.quantity ?? columns.keep) === undefined)
    return refused(
      refusal(
        'stores.columns',
        'The file needs columns for the item number and for the count or minimum stock. Add them and choose the file again.',
      ),
    );
  const items = new Map(known.items.map((i) => [folded(i.number), i]));
  const places = new Map(known.places.map((p) => [folded(p.name), p]));
  const [first] = known.places;
  const seen = new Map<string, number>();
  const left: RowLeft[] = [];
  const read: CountedRow[] = [];
  for (const { row, cells } of rows) {
    const cell = (field: Field) => (columns[field] === undefined ? '' : (cells[columns[field]] ?? '').trim());
    const item = items.get(folded(cell('item')));
    const place = cell('place') === '' ? first : places.get(folded(cell('place')));
    const line = readRow(cell, item, place, known);
    const key = `${item?.id}/${place?.id}`;
    const twin = seen.get(key);
    const before = read.find((r) => r.row === twin);
    if (!line.ok) left.push({ row, message: line.refusals[0]?.message ?? '' });
    else if (before === undefined) {
      seen.set(key, row);
      read.push({ row, ...line.value });
    } else {
      const both = together(before, line.value, item?.tracking ?? 'none');
      if (both === undefined)
        left.push({ row, message: `${item?.number} at that location is already in row ${twin}.` });
      else read[read.indexOf(before)] = both;
    }
  }
  return done({ rows: read, left });
}

/**
 * What lies in several bins, or has numbers, has a row for each of them; undefined where a bin or a number stands there
 * twice, or the whole place beside one of its bins.
 */
function together(first: CountedRow, next: Omit<CountedRow, 'row'>, tracking: Tracking): CountedRow | undefined {
  const [[own], [part]] = [first.parts, next.parts];
  if (own === undefined || part === undefined) return undefined;
  const same = first.parts.find((p) => p.binId === part.binId);
  const wholes = (own.binId === undefined || part.binId === undefined) && same === undefined;
  const known = (tracking === 'serial' ? first.parts : [same]).flatMap((p) => p?.numbers ?? []);
  const twice = part.numbers.some((n) => known.some((k) => k.number.toUpperCase() === n.number.toUpperCase()));
  if (wholes || twice || (same !== undefined && part.numbers.length === 0)) return undefined;
  const more = (p: CountedPart) => {
    const [numbers, values] = [
      [...p.numbers, ...part.numbers],
      [...p.values, ...part.values],
    ];
    const all = values.length === numbers.length;
    return { ...p, quantity: addQ(p.quantity, part.quantity), numbers, values: all ? values : [] };
  };
  return {
    ...first,
    parts: same === undefined ? [...first.parts, part] : first.parts.map((p) => (p === same ? more(p) : p)),
    value: first.value === null || next.value === null ? null : add(first.value, next.value),
    keep: first.keep ?? next.keep,
  };
}

/** The number that a row says, with how many pieces it is of. */
function numbersIn(
  cell: (field: Field) => string,
  item: StockItem,
  many: Quantity | null,
): Result<readonly Numbered[]> {
  if (many === null || (many === 0 && cell('serial') === '')) return done([]);
  const number = cell('serial').slice(0, LONGEST_NUMBER);
  if (item.tracking === 'none')
    return number === ''
      ? done([])
      : refused(fault(`${item.number} isn’t tracked by serial number or lot, but the row gives ${number}.`));
  const words = item.tracking === 'serial' ? 'serial numbers' : 'lots';
  if (number === '') return refused(fault(`${item.number} is tracked by ${words}: give one row per number.`));
  if (item.tracking === 'serial' && many !== ONE)
    return refused(fault(`${number} is one piece of ${item.number}: enter quantity 1.`));
  const odd = patternFault(number, item.numberPattern);
  if (odd !== undefined) return refused(odd);
  const said = cell('expires');
  const expiresOn = said === '' ? null : asDay(said);
  if (expiresOn === undefined) return refused(fault(`“${said}” isn’t a date. Type it like 2027-03-31.`));
  return done([{ number, expiresOn, quantity: many }]);
}

function readRow(
  cell: (field: Field) => string,
  item: StockItem | undefined,
  place: KnownPlace | undefined,
  { mark, currency }: Known,
): Result<Omit<CountedRow, 'row'>> {
  const refuse = (message: string) => refused(fault(message));
  if (item === undefined)
    return refuse(cell('item') === '' ? 'Enter an item number.' : `Item ${cell('item')} isn’t in your items.`);
  if (!isGoods(item.kind)) return refuse(`${item.number} isn’t a material or part, so it isn’t stocked.`);
  if (place === undefined) return refuse(`Location “${cell('place')}” doesn’t exist.`);
  const bin = place.bins.find((b) => folded(b.name) === folded(cell('bin')));
  if (cell('bin') !== '' && bin === undefined) return refuse(`${place.name} has no bin “${cell('bin')}”.`);
  const unit = cell('unit') === '' ? unitOf(item.unit) : findUnit(cell('unit'));
  const factor = unit && exactFactor(item.unit, unit.code);
  if (unit === undefined || factor === undefined)
    return refuse(
      `${item.number} is held in ${unitOf(item.unit).name}s; “${cell('unit')}” can’t be converted. Enter it in ${unitOf(item.unit).name}s.`,
    );
  const number = (field: Field, places: number, most: number): number | null | Refusal => {
    if (cell(field) === '') return null;
    const value = parseDecimal(cell(field), { places, mark, most });
    if (value.ok && value.value >= 0) return value.value;
    return fault(
      `“${cell(field)}” isn’t ${field === 'quantity' || field === 'keep' ? 'a quantity. Type it like 12' : 'an amount. Type it like 12.50'}.`,
    );
  };
  const said = number('quantity', 4, 10_000_000);
  // A row with a serial number is one piece.
  const counted = said === null && item.tracking === 'serial' && cell('serial') !== '' ? (ONE as number) : said;
  const keep = number('keep', 4, 10_000_000);
  const [value, each] = [
    number('value', decimalsOf(currency), LIMITS.line / 100),
    number('each', 4, LIMITS.price / 10_000),
  ];
  for (const read of [counted, keep, value, each]) if (read !== null && typeof read !== 'number') return refused(read);
  if (counted === null && keep === null) return refuse('This row has no count and no minimum.');
  const inUnit = (n: number | null | Refusal): Quantity | null =>
    typeof n === 'number' ? quantity(Math.round((n * factor.one) / factor.many)) : null;
  const [many, kept] = [inUnit(counted), inUnit(keep)];
  for (const q of [many, kept]) {
    const whole = q === null ? undefined : wholeFault(q, item.unit, item.name);
    if (whole !== undefined) return refused(whole);
  }
  const numbers = numbersIn(cell, item, many);
  if (!numbers.ok) return numbers;
  const worth =
    typeof value === 'number'
      ? (value as Minor)
      : typeof each === 'number' && typeof counted === 'number'
        ? lineNet(quantity(counted), each as UnitPrice, 1, currency)
        : null;
  const values = worth === null || numbers.value.length === 0 ? [] : [worth];
  return done({
    itemId: item.id,
    placeId: place.id,
    parts: many === null ? [] : [{ binId: bin?.id, quantity: many, numbers: numbers.value, values }],
    value: many === null ? null : worth,
    keep: kept,
    reason: cell('reason').slice(0, 120) || COUNT_REASON,
  });
}
