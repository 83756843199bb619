import { columnsOf, folded, type Row } from '../columns';
import { groupBy } from '../group';
import { parseDecimal } from '../money/decimal';
import type { DecimalMark } from '../locale/locale';
import { quantity } from '../quantity/quantity';
import { exactFactor, findUnit, unitOf } from '../quantity/units';
import type { BomLine, GotBy } from './bom';
import { parseOffset } from './typed';

/** What a column of a file of BOMs can hold. */
type Field = 'level' | 'parent' | 'item' | 'description' | 'quantity' | 'unit' | 'gotBy' | 'per' | 'scrap' | 'offset';

const HEADINGS: Readonly<Record<Field, RegExp>> = {
  level: /^(level|lvl|indent|depth)/i,
  parent: /^(parent|assembly|made item|belongs|of item)/i,
  quantity: /^(qty|quantity|quant)|^quantity per|^per assembly/i,
  unit: /^(unit|uom|u\/m)/i,
  gotBy: /^(got|kind|type|make|made|source|procurement)/i,
  per: /^(for|fixed|per batch)/i,
  scrap: /scrap|lost|waste/i,
  offset: /offset|^needed|days/i,
  item: /^(item|part|component|article|number|stock)(\s*(no\.?|number|code|#))?$/i,
  description: /desc|name|^what/i,
};

export type KnownItem = {
  readonly id: number;
  readonly number: string;
  readonly name: string;
  readonly unit: string;
  /** Whether it has a BOM already. */
  readonly made: boolean;
};

export type FileLine = Omit<BomLine, 'id' | 'costCodeId' | 'price'>;

export type FileBom = { readonly item: KnownItem; readonly lines: readonly FileLine[] };

export type FileProblem = {
  /** Counted as a spreadsheet does: the headings are row 1. */
  readonly row: number;
  readonly message: string;
  /** A stop keeps the file out; a care is only worth a look. */
  readonly weight: 'stop' | 'care';
};

export type FileRead = {
  /** By levels, or by the parent that each row names. */
  readonly style: 'levels' | 'parents' | undefined;
  /** One for each item that is made, the one on top first. */
  readonly boms: readonly FileBom[];
  readonly problems: readonly FileProblem[];
};

type Known = { readonly items: readonly KnownItem[]; readonly mark: DecimalMark };

const GOT_WORDS: readonly (readonly [GotBy, RegExp])[] = [
  ['made', /^(m|made|make|made here|manufactured|assembly)$/i],
  ['labour', /^(l|labour|labor|work|hours)$/i],
  ['bought', /^(b|bought|buy|purchased?|material|part|)$/i],
];

/** How deep a row stands: as a number (2), with dots before it (..2), or by its place (1.3.2 is 3 deep). */
export function levelOf(text: string): number | undefined {
  const bare = text.trim();
  if (/^\d{1,3}(\.\d{1,4})+$/.test(bare)) return bare.split('.').length;
  const read = /^[.\s]*(\d{1,3})$/.exec(bare);
  return read === null ? undefined : Number(read[1]);
}

/** A row below a parent; `under` is the row at which that parent stands, as it may stand in several branches. */
type Component = { readonly row: number; readonly parent: string; readonly under: number; readonly line: FileLine };

/**
 * Reads bills of materials from the rows of a sheet, in either of the two ways in which they are written: with the level
 * of each row, below the row that it belongs to, or with the item that each row is a part of.
 *
 * @param top - the item whose BOM the file is; a row of level 0 has to be it
 * @returns a BOM for every item that has parts, and all that is wrong
 */
export function readBoms(headings: readonly string[], rows: readonly Row[], top: KnownItem, known: Known): FileRead {
  const columns = columnsOf(headings, HEADINGS);
  const style = columns.level !== undefined ? 'levels' : columns.parent !== undefined ? 'parents' : undefined;
  const problems: FileProblem[] = [];
  const stop = (row: number, message: string) => void problems.push({ row, message, weight: 'stop' });
  const care = (row: number, message: string) => void problems.push({ row, message, weight: 'care' });
  if (style === undefined || columns.quantity === undefined || (columns.item ?? columns.description) === undefined) {
    stop(
      1,
      'The file needs columns for level or parent, for the item and for the quantity. Add them and choose the file again.',
    );
    return { style, boms: [], problems };
  }
  const items = new Map(known.items.map((i) => [folded(i.number), i]));
  items.set(folded(top.number), top);
  const components: Component[] = [];
  const way: { number: string; row: number }[] = [];
  for (const { row, cells } of rows) {
    const cell = (field: Field) => (columns[field] === undefined ? '' : (cells[columns[field]] ?? '').trim());
    const number = cell('item');
    const level = style === 'levels' ? levelOf(cell('level')) : 1;
    if (level === undefined) {
      stop(row, `“${cell('level')}” isn’t a level. Type it like 0, 1 or 2.`);
      continue;
    }
    if (level === 0) {
      if (folded(number) !== folded(top.number))
        stop(row, `${number || 'The row on top'} isn’t ${top.number}, whose BOM this is. Import it on its own item.`);
      way.splice(0, way.length, { number: top.number, row });
      continue;
    }
    if (style === 'levels' && way.length === 0) way.push({ number: top.number, row: 1 });
    const parent = style === 'parents' ? { number: cell('parent') || top.number, row: 0 } : way[level - 1];
    if (parent === undefined) {
      stop(row, `Level ${level} follows level ${way.length - 1}: the row that it belongs to is missing.`);
      continue;
    }
    if (style === 'levels') way.splice(level, way.length, { number, row });
    const line = readLine(row, cell, items.get(folded(number)), { mark: known.mark, stop, care });
    if (line !== undefined) components.push({ row, parent: parent.number, under: parent.row, line });
  }
  return { style, boms: bomsOf(components, items, top, stop), problems };
}

type Telling = {
  readonly mark: DecimalMark;
  readonly stop: (row: number, message: string) => void;
  readonly care: (row: number, message: string) => void;
};

function readLine(
  row: number,
  cell: (field: Field) => string,
  item: KnownItem | undefined,
  { mark, stop, care }: Telling,
): FileLine | undefined {
  const number = cell('item');
  const description = cell('description') || item?.name || number;
  if (description === '') return void stop(row, 'Enter an item number or a description.');
  if (description.length > 200) return void stop(row, 'The description is longer than 200 characters.');
  if (number !== '' && item === undefined)
    care(row, `Item ${number} isn’t in your items. The line is imported as text.`);
  const amount = parseDecimal(cell('quantity'), { places: 4, mark, most: 10_000_000 });
  if (!amount.ok || amount.value <= 0)
    return void stop(row, amount.ok ? 'Enter a quantity above zero.' : (amount.refusals[0]?.message ?? ''));
  const unit = cell('unit') === '' ? unitOf(item?.unit ?? 'C62') : findUnit(cell('unit'));
  if (unit === undefined)
    return void stop(row, `“${cell('unit')}” isn’t a unit in use. Type one like m, kg, h or piece.`);
  if (item !== undefined && exactFactor(item.unit, unit.code) === undefined)
    return void stop(
      row,
      `${item.number} is held in ${unitOf(item.unit).name}s; ${unit.name}s can’t be converted. Enter it in ${unitOf(item.unit).name}s.`,
    );
  const scrap =
    cell('scrap') === '' ? undefined : parseDecimal(cell('scrap').replace('%', ''), { places: 2, mark, most: 1000 });
  if (scrap !== undefined && (!scrap.ok || scrap.value < 0))
    return void stop(row, `“${cell('scrap')}” isn’t a scrap rate. Type it like 5.`);
  const offset = parseOffset(cell('offset'));
  if (!offset.ok) return void stop(row, offset.refusals[0]?.message ?? '');
  const gotBy = GOT_WORDS.find(([, words]) => words.test(cell('gotBy')))?.[0];
  if (gotBy === undefined) return void stop(row, `“${cell('gotBy')}”: enter bought, made or labour.`);
  return {
    gotBy: cell('gotBy') === '' && item?.made === true ? 'made' : gotBy,
    itemId: item?.id ?? null,
    description,
    quantity: quantity(amount.value),
    unit: unit.code,
    per: /^(batch|the batch|fixed|y|yes|1)$/i.test(cell('per')) ? 'batch' : 'piece',
    scrap: scrap?.ok === true ? scrap.value : 0,
    offset: offset.value,
  };
}

/** Puts the rows of each parent together; a part that has parts of its own is made. */
function bomsOf(
  components: readonly Component[],
  items: ReadonlyMap<string, KnownItem>,
  top: KnownItem,
  stop: Telling['stop'],
): FileBom[] {
  const made = new Set(components.map((c) => items.get(folded(c.parent))?.id));
  const boms: FileBom[] = [];
  for (const [parent, own] of groupBy(components, (c) => folded(c.parent))) {
    const item = items.get(parent);
    const [first] = own;
    if (item === undefined) {
      stop(first?.row ?? 1, `${first?.parent} has components but isn’t in your items. Add it first.`);
      continue;
    }
    const asMade = ({ line }: Component): FileLine =>
      line.itemId !== null && made.has(line.itemId) ? { ...line, gotBy: 'made' } : line;
    // Where an assembly stands in several branches its parts are told again, and have to be the same.
    const told = [...groupBy(own, (c) => c.under).values()];
    const [lines = [], ...others] = told.map((rows) => rows.map(asMade));
    const differs = others.findIndex((o) => JSON.stringify(o) !== JSON.stringify(lines));
    if (differs >= 0)
      stop(
        told[differs + 1]?.[0]?.row ?? 1,
        `${item.number} has different components here than from row ${first?.row}. One item has one BOM.`,
      );
    boms.push({ item, lines });
  }
  return boms.sort((a, b) => Number(b.item.id === top.id) - Number(a.item.id === top.id));
}
