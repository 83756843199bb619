import { columnsOf, folded, type Row, type RowLeft } from '../columns';
import { groupBy } from '../group';
import { LIMITS } from '../limits';
import { parseDecimal } from '../money/decimal';
import type { DecimalMark } from '../locale/locale';
import type { UnitPrice } from '../money/money';
import { NONE, quantity, type Factor, type Quantity } from '../quantity/quantity';
import { exactFactor, findUnit, unitOf } from '../quantity/units';
import { done, refusal, refused, type Refusal, type Result } from '../result';
import { dearerBreaks, ALWAYS } from './prices';
import { priceFor, type PartTerms, type PriceBreak } from './terms';

const HEADINGS = {
  ours: /^(our|your|customer)\b/i,
  gtin: /gtin|ean|barcode/i,
  per: /^per$|price (unit|per|quantity)|^price basis/i,
  from: /^(from|break|scale)|(qty|quantity) from|from (qty|quantity)/i,
  minimum: /min/i,
  pack: /pack|multiple/i,
  lead: /lead|delivery|days/i,
  unit: /^(unit|uom|u\/m|sold by)/i,
  price: /price|each|net/i,
  theirs: /number|^no\.?$|code|article|item|part|^ref/i,
  name: /desc|name|^what/i,
} as const;
type Field = keyof typeof HEADINGS;

/** A column of prices from a quantity on: “10+”, “from 100”. */
const FROM = /^(?:price\s*)?(?:from\s*)?(\d+)\s*\+?$/i;

/** An item as the reader of a list knows it, and how the supplier sells it now, where it does. */
export type ListedItem = {
  readonly id: number;
  readonly number: string;
  readonly name: string;
  readonly unit: string;
  readonly gtin: string | null;
  readonly sold?: PartTerms & { readonly theirNumber: string; readonly leadDays: number | null };
};

export type ListedPart = {
  readonly item: ListedItem;
  readonly theirNumber: string;
  readonly unit: string;
  readonly factor: Factor;
  /** What the list does not say is left out. */
  readonly minimum?: Quantity;
  readonly pack?: Quantity;
  readonly leadDays?: number;
  readonly prices: readonly PriceBreak[];
};

export type ListRead = {
  readonly parts: readonly ListedPart[];
  /** Rows that are left out, and why. */
  readonly left: readonly RowLeft[];
};

type ReadRow = Omit<ListedPart, 'prices'> & { readonly row: number; readonly prices: readonly PriceBreak[] };

/**
 * Reads a supplier's price list: a row for each part, or for each of its price breaks; prices may also stand side by side
 * in columns that are headed by the quantity they begin at. Parts are known by our number, the supplier's or a GTIN.
 *
 * @returns refused when it has no column for prices, or none that tells the parts apart
 */
export function readPriceList(
  headings: readonly string[],
  rows: readonly Row[],
  items: readonly ListedItem[],
  mark: DecimalMark,
): Result<ListRead> {
  const froms = headings.flatMap((h, column) => {
    const from = FROM.exec(h.trim())?.[1];
    return from === undefined ? [] : [{ column, from: quantity(Number(from) * 10_000) }];
  });
  const side = new Set(froms.map((f) => f.column));
  const columns = columnsOf<Field>(
    headings.map((h, k) => (side.has(k) ? '' : h)),
    HEADINGS,
  );
  if (columns.price === undefined && froms.length === 0)
    return refused(
      refusal(
        'list.price',
        'The file needs a price column, or one per price break like “10+”. Add it and choose the file again.',
      ),
    );
  if ((columns.ours ?? columns.theirs ?? columns.gtin) === undefined)
    return refused(
      refusal(
        'list.number',
        'The file needs a column with item numbers (supplier’s, ours or GTIN). Add it and choose the file again.',
      ),
    );
  const find = finder(items);
  const left: RowLeft[] = [];
  const read: ReadRow[] = [];
  for (const { row, cells } of rows) {
    const at = (column: number | undefined) => (column === undefined ? '' : (cells[column] ?? '').trim());
    const cell = (field: Field) => at(columns[field]);
    const named = [cell('ours'), cell('theirs'), cell('gtin')].find((n) => n !== '');
    const item = find(cell('ours'), cell('theirs'), cell('gtin'));
    const told = froms.map(({ column, from }) => ({ from, text: at(column) }));
    const line =
      item === undefined
        ? refused(
            refusal('list.unknown', named === undefined ? 'Enter an item number.' : `${named} isn’t in your items.`),
          )
        : readRow(item, cell, told, mark);
    if (line.ok) read.push({ row, ...line.value });
    else left.push({ row, message: line.refusals[0]?.message ?? '' });
  }
  return done(together(read, left));
}

function finder(items: readonly ListedItem[]) {
  const by = (key: (i: ListedItem) => string | null | undefined) =>
    new Map(items.flatMap((i) => (key(i) ? [[folded(key(i) ?? ''), i] as const] : [])));
  const [ours, theirs, gtins] = [by((i) => i.number), by((i) => i.sold?.theirNumber), by((i) => i.gtin)];
  // A supplier that knows our numbers may give them in its own column.
  return (our: string, their: string, gtin: string): ListedItem | undefined =>
    ours.get(folded(our)) ?? theirs.get(folded(their)) ?? gtins.get(folded(gtin)) ?? ours.get(folded(their));
}

const fault = (message: string): Refusal => refusal('list.row', message);

function readRow(
  item: ListedItem,
  cell: (field: Field) => string,
  told: readonly { readonly from: Quantity; readonly text: string }[],
  mark: DecimalMark,
): Result<Omit<ReadRow, 'row'>> {
  const number = (text: string, places: number, most: number) => parseDecimal(text, { places, mark, most });
  const faults: Refusal[] = [];
  const many = (field: Field): Quantity | undefined => {
    if (cell(field) === '') return undefined;
    const value = number(cell(field), 4, 10_000_000);
    if (value.ok && value.value >= 0) return quantity(value.value);
    faults.push(fault(`“${cell(field)}” isn’t a quantity. Type it like 10.`));
    return undefined;
  };
  const whole = (field: Field, most: number): number | undefined => {
    if (cell(field) === '') return undefined;
    const value = Number(/^(\d{1,6})(?: ?(?:working )?days?)?$/i.exec(cell(field))?.[1]);
    if (value <= most) return value;
    faults.push(fault(`“${cell(field)}” isn’t a whole number up to ${most}.`));
    return undefined;
  };
  const priceQuantity = whole('per', LIMITS.priceQuantity) ?? 1;
  if (priceQuantity === 0) faults.push(fault('Enter 1 or more.'));
  const priced = [{ from: many('from') ?? NONE, text: cell('price') }, ...told].filter((p) => p.text !== '');
  const prices = priced.flatMap(({ from, text }): PriceBreak[] => {
    const price = number(text.replace(/^[^\d.,-]+/, ''), 4, LIMITS.price / 10_000);
    if (price.ok && price.value >= 0) return [{ from, price: price.value as UnitPrice, priceQuantity }];
    faults.push(fault(`“${text}” isn’t a price. Type it like 12.50.`));
    return [];
  });
  if (priced.length === 0) faults.push(fault('Enter a price.'));
  const unit = cell('unit') === '' ? unitOf(item.sold?.unit ?? item.unit) : findUnit(cell('unit'));
  if (unit === undefined) return refused(fault(`“${cell('unit')}” isn’t a unit in use.`));
  const factor = unit.code === item.sold?.unit ? item.sold.factor : exactFactor(item.unit, unit.code);
  if (factor === undefined)
    return refused(
      fault(
        `Sold by the ${unit.name}, but the ${unitOf(item.unit).name}s in one are unknown. Enter the conversion in the supplier terms first.`,
      ),
    );
  const [minimum, pack, leadDays] = [many('minimum'), many('pack'), whole('lead', 400)];
  if (faults.length > 0) return refused(...faults);
  const isOurs = folded(cell('theirs')) === folded(item.number);
  return done({
    item,
    theirNumber: isOurs || cell('theirs') === '' ? (item.sold?.theirNumber ?? '') : cell('theirs'),
    unit: unit.code,
    factor,
    ...(minimum === undefined ? {} : { minimum }),
    ...(pack === undefined ? {} : { pack }),
    ...(leadDays === undefined ? {} : { leadDays }),
    prices,
  });
}

/** Puts the rows of a part together; one that says a quantity's price again, or another unit, is left out. */
function together(read: readonly ReadRow[], left: RowLeft[]): ListRead {
  const parts = [...groupBy(read, (r) => r.item.id).values()].map(([first, ...more]): ListedPart => {
    const { row: _, ...part } = first as ReadRow;
    const prices = [...part.prices];
    for (const { row, unit, prices: others } of more)
      if (unit !== part.unit) left.push({ row, message: `${part.item.number} appears with two different units.` });
      else if (others.some((o) => prices.some((p) => p.from === o.from)))
        left.push({ row, message: `${part.item.number} already has a price from that quantity.` });
      else prices.push(...others);
    return { ...part, prices: prices.sort((a, b) => a.from - b.from) };
  });
  return { parts, left: left.toSorted((a, b) => a.row - b.row) };
}

/** What becomes of a price: what it was and is for one of the supplier's unit, and by what share that differs. */
export type PriceChange = {
  readonly from: Quantity;
  /** null where there was no price for so many. */
  readonly before: PriceBreak | null;
  readonly after: PriceBreak;
  /** (after − before) / before; null where there was none, or it was free. */
  readonly share: number | null;
};

const each = ({ price, priceQuantity }: PriceBreak): number => price / priceQuantity;

/** What each price of a list changes, compared with what so many cost until now. */
export const changesOf = (known: readonly PriceBreak[], list: readonly PriceBreak[]): PriceChange[] =>
  list.map((after) => {
    const before = priceFor(after.from, known) ?? null;
    const was = before === null ? 0 : each(before);
    return { from: after.from, before, after, share: was === 0 ? null : (each(after) - was) / was };
  });

/** What a list makes of a part. */
export type PartChange = {
  readonly part: ListedPart;
  /** Whether the supplier did not sell it so far; whether nothing of it changes. */
  readonly isNew: boolean;
  readonly same: boolean;
  readonly prices: readonly PriceChange[];
  /** The change that is furthest from none, as a share; 0 where no price changes. */
  readonly furthest: number;
  /** Whether more of it costs more each than fewer do. */
  readonly dearerForMore: boolean;
};

const priceSet = (prices: readonly PriceBreak[]): string =>
  prices
    .map((p) => `${p.from}: ${each(p)}`)
    .sort()
    .join();

const isSame = (part: ListedPart, sold: NonNullable<ListedItem['sold']>): boolean =>
  priceSet(part.prices) === priceSet(sold.prices) &&
  part.unit === sold.unit &&
  part.theirNumber === sold.theirNumber &&
  (part.minimum ?? sold.minimum) === sold.minimum &&
  (part.pack ?? sold.pack) === sold.pack &&
  (part.leadDays ?? sold.leadDays) === sold.leadDays;

/** What a list makes of each of its parts, what changes most first. */
export const compareList = (parts: readonly ListedPart[]): PartChange[] =>
  parts
    .map((part): PartChange => {
      const { sold } = part.item;
      // A price for another unit than before cannot be compared with it.
      const prices = changesOf(sold?.unit === part.unit ? sold.prices : [], part.prices);
      return {
        part,
        isNew: sold === undefined,
        same: sold !== undefined && isSame(part, sold),
        prices,
        furthest: prices.map((p) => p.share ?? 0).reduce((a, b) => (Math.abs(b) > Math.abs(a) ? b : a), 0),
        dearerForMore: dearerBreaks(part.prices.map((p) => ({ ...p, fromDay: ALWAYS, untilDay: null }))).length > 0,
      };
    })
    .sort((a, b) => Math.abs(b.furthest) - Math.abs(a.furthest));

export type ListSummary = {
  /** Parts by what becomes of them, by the change that is furthest from none. */
  readonly dearer: number;
  readonly cheaper: number;
  readonly same: number;
  readonly added: number;
  /** The largest rise and the largest fall of a price, as shares; 0 where there is none. */
  readonly rise: number;
  readonly fall: number;
};

export const summaryOf = (changes: readonly PartChange[]): ListSummary => ({
  dearer: changes.filter((c) => c.furthest > 0).length,
  cheaper: changes.filter((c) => c.furthest < 0).length,
  same: changes.filter((c) => c.same).length,
  added: changes.filter((c) => c.isNew).length,
  rise: changes.reduce((most, c) => Math.max(most, c.furthest), 0),
  fall: changes.reduce((most, c) => Math.min(most, c.furthest), 0),
});
