import { isValid, parse } from 'date-fns';
import { asDay, plusDays, type Day } from '../calendar/workdays';
import { parseDecimal } from '../money/decimal';
import type { DecimalMark } from '../locale/locale';
import { PRICE_PLACES, type UnitPrice } from '../money/money';
import { MOST, type Quantity } from '../quantity/quantity';
import { findUnit, unitOf } from '../quantity/units';
import { wholeFault } from '../quantity/whole';
import type { Refusal, Result } from '../result';
import { folded, QUOTE_FIELD_NAMES, type Mapping, type QuoteField } from './fields';
import { MARKUP, priceWith } from './margin';
import type { Per } from '../boms/bom';

/** An allowance opens budget, such as for carriage, but puts nothing on the buy list. */
export const QUOTE_LINE_KINDS = ['bought', 'allowance', 'made', 'labour', 'customer'] as const;
export type QuoteLineKind = (typeof QUOTE_LINE_KINDS)[number];

export const QUOTE_LINE_KIND_NAMES: Readonly<Record<QuoteLineKind, string>> = {
  bought: 'Bought',
  allowance: 'Allowance',
  made: 'Made',
  labour: 'Labour',
  customer: 'Free issue',
};

export type QuoteLine = {
  readonly row: number;
  readonly kind: QuoteLineKind;
  readonly itemId: number | null;
  readonly description: string;
  readonly quantity: Quantity;
  readonly unit: string;
  readonly cost: UnitPrice;
  readonly price: UnitPrice | null;
  readonly costCodeId: number;
  readonly supplierId: number | null;
  readonly neededOn: Day | null;
  /** What is put on the cost, in hundredths of a percent; null where the price stands for itself. */
  readonly markup: number | null;
  readonly optional: boolean;
  readonly per: Per;
};

export type Problem = {
  /** Line of the file, counted as a spreadsheet does: the headings are row 1. */
  readonly row: number;
  readonly field: QuoteField;
  readonly message: string;
  /** A stop keeps the row out until it is mended; a care is only worth a look. */
  readonly weight: 'stop' | 'care';
};

export type Named = { readonly id: number; readonly name: string };
export type KnownItem = Named & {
  readonly number: string;
  readonly unit: string;
  readonly costCodeId: number | null;
  readonly supplierId: number | null;
};

export type Knowledge = {
  readonly costCodes: readonly (Named & { readonly code: string })[];
  readonly suppliers: readonly Named[];
  readonly items: readonly KnownItem[];
  readonly mark: DecimalMark;
  readonly today: Day;
  /** What the person chose for names the company does not know: the id, or null to leave the supplier open. */
  readonly chosen: {
    readonly costCode: Readonly<Record<string, number>>;
    readonly supplier: Readonly<Record<string, number | null>>;
    /** The code of a unit for a word that is none here. */
    readonly unit: Readonly<Record<string, string>>;
  };
};

export type Row = { readonly row: number; readonly cells: readonly string[] };
export type Checked = { readonly lines: readonly QuoteLine[]; readonly problems: readonly Problem[] };

const DATE_FORMS = ['d/M/yyyy', 'd.M.yyyy', 'd-M-yyyy', 'd/M/yy', 'd MMM yyyy', 'd MMMM yyyy'];

function readDay(text: string, today: Day): Day | undefined {
  const iso = asDay(text);
  if (iso !== undefined) return iso;
  for (const form of DATE_FORMS) {
    const date = parse(text, form, new Date(`${today}T00:00:00`));
    if (isValid(date) && date.getFullYear() > 1990) {
      return asDay(
        `${date.getFullYear()}-${String(date.getMonth() + 1).padStart(2, '0')}-${String(date.getDate()).padStart(2, '0')}`,
      );
    }
  }
  return undefined;
}

const KINDS: readonly (readonly [QuoteLineKind, RegExp])[] = [
  ['bought', /^(b|bought|buy|purchased?|material|part|subcontract|)$/i],
  ['allowance', /^(a|allowance|allowed|provisional( sum)?|contingency)$/i],
  ['made', /^(m|made|make|manufactured)$/i],
  ['labour', /^(l|labour|labor|time|hours)$/i],
  ['customer', /^(customer.*|from the customer|free issue)$/i],
];

/**
 * Reads the rows of a quote file. Every row is checked whole, so that all its problems are told at once; a row with
 * a stop gives no line.
 *
 * @param rows - data rows, without the headings
 * @param tell - told now and then how many rows are read
 */
export function readRows(
  rows: readonly Row[],
  mapping: Mapping,
  known: Knowledge,
  tell: (read: number) => void = () => undefined,
): Checked {
  const lines: QuoteLine[] = [];
  const problems: Problem[] = [];
  const seen = new Map<string, number>();
  const reader = rowReader(mapping, known);
  for (const [k, row] of rows.entries()) {
    if (k % 100 === 0) tell(k);
    const read = reader(row);
    problems.push(...read.problems);
    if (read.line === undefined) continue;
    lines.push(read.line);
    const key = [
      read.line.itemId ?? folded(read.line.description),
      read.line.quantity,
      read.line.costCodeId,
      read.line.neededOn,
      read.line.cost,
    ].join('|');
    const twin = seen.get(key);
    if (twin === undefined) seen.set(key, row.row);
    else
      problems.push({
        row: row.row,
        field: 'description',
        weight: 'care',
        message: `The same as row ${twin}. Skip it if it was entered twice by mistake.`,
      });
  }
  return { lines, problems };
}

function rowReader(mapping: Mapping, known: Knowledge) {
  const codes = new Map(
    known.costCodes.flatMap(
      (c) =>
        [
          [folded(c.code), c.id],
          [folded(c.name), c.id],
          [folded(`${c.code} ${c.name}`), c.id],
        ] as const,
    ),
  );
  const bareCodes = new Map(known.costCodes.map((c) => [c.code.replace(/^0+/, ''), c.id]));
  const suppliers = new Map(known.suppliers.map((s) => [folded(s.name), s.id]));
  const chosenCodes = new Map(Object.entries(known.chosen.costCode));
  const chosenSuppliers = new Map(Object.entries(known.chosen.supplier));
  const chosenUnits = new Map(Object.entries(known.chosen.unit).map(([word, unit]) => [folded(word), unit]));
  const items = new Map(known.items.map((i) => [folded(i.number), i]));

  const unitCalled = (word: string) => {
    const chosen = chosenUnits.get(folded(word));
    return findUnit(word) ?? (chosen === undefined ? undefined : unitOf(chosen));
  };

  return ({ row, cells }: Row): { line: QuoteLine | undefined; problems: Problem[] } => {
    const problems: Problem[] = [];
    const cell = (field: QuoteField) => (mapping[field] === undefined ? '' : (cells[mapping[field]] ?? '').trim());
    const stop = (field: QuoteField, message: string) => void problems.push({ row, field, message, weight: 'stop' });
    const care = (field: QuoteField, message: string) => void problems.push({ row, field, message, weight: 'care' });
    const need = <T>(field: QuoteField, read: Result<T>): T | undefined => {
      if (read.ok) return read.value;
      stop(field, told(field, cell(field), read.refusals[0]));
      return undefined;
    };

    const item = items.get(folded(cell('item')));
    const description = cell('description') || item?.name || cell('item');
    if (description === '') stop('description', 'Enter an item number or a description.');
    if (description.length > 200) stop('description', 'The description is longer than 200 characters.');
    if (cell('item') !== '' && item === undefined)
      care('item', `Item ${cell('item')} isn’t in your items. The line is imported as text.`);

    const amount = need('quantity', parseMarked(cell('quantity'), known.mark));
    const unit =
      cell('unit') === '' ? (item === undefined ? unitOf('C62') : unitOf(item.unit)) : unitCalled(cell('unit'));
    if (unit === undefined)
      stop('unit', `“${cell('unit')}” isn’t a unit in use. Type one like m, kg, h, piece or sheet.`);
    else if (item !== undefined && unit.code !== item.unit)
      stop(
        'unit',
        `${item.number} is held in ${unitOf(item.unit).name}s; ${unit.name}s can’t be converted. Enter it in ${unitOf(item.unit).name}s.`,
      );
    const divided = unit === undefined || amount === undefined ? undefined : wholeFault(amount, unit.code, description);
    if (divided !== undefined) stop('quantity', divided.message);

    const cost = need('cost', parseAmount(cell('cost'), known.mark));
    const price = cell('price') === '' ? null : need('price', parseAmount(cell('price'), known.mark));
    const markup = cell('markup') === '' ? null : need('markup', parseShare(cell('markup'), known.mark));
    const optional = need('optional', oneOf(cell('optional'), YES_OR_NO));
    const per = need('per', oneOf(cell('per'), PER_WORDS));

    const code = cell('costCode');
    const costCodeId =
      (code === ''
        ? item?.costCodeId
        : (codes.get(folded(code)) ?? bareCodes.get(code.replace(/^0+/, '')) ?? chosenCodes.get(code))) ?? undefined;
    if (costCodeId === undefined)
      stop(
        'costCode',
        code === '' ? 'Enter a cost code.' : `Cost code “${code}” doesn’t exist. Choose one of the company’s codes.`,
      );

    const named = cell('supplier');
    const supplierId =
      named === '' ? (item?.supplierId ?? null) : (suppliers.get(folded(named)) ?? chosenSuppliers.get(named));
    if (supplierId === undefined) stop('supplier', `Supplier “${named}” doesn’t exist. Choose one, or leave it empty.`);

    const date = cell('neededOn');
    const neededOn = date === '' ? null : readDay(date, known.today);
    if (neededOn === undefined) stop('neededOn', `“${date}” isn’t a date. Type it like 2026-03-31 or 31/03/2026.`);
    else if (neededOn !== null && neededOn < known.today) care('neededOn', 'The needed-by date has passed.');
    else if (neededOn !== null && neededOn > plusDays(known.today, 3653))
      stop('neededOn', `“${date}” is more than ten years away.`);

    const kind = KINDS.find(([, words]) => words.test(cell('kind')))?.[0];
    if (kind === undefined)
      stop('kind', `“${cell('kind')}” isn’t a line type. Enter bought, allowance, made, labour or free issue.`);

    const complete = problems.every((p) => p.weight !== 'stop');
    if (
      !complete ||
      amount === undefined ||
      unit === undefined ||
      cost === undefined ||
      price === undefined ||
      costCodeId === undefined ||
      supplierId === undefined ||
      neededOn === undefined ||
      kind === undefined ||
      markup === undefined ||
      optional === undefined ||
      per === undefined
    ) {
      return { line: undefined, problems };
    }
    return {
      problems,
      line: {
        row,
        kind,
        itemId: item?.id ?? null,
        description,
        quantity: amount,
        unit: unit.code,
        cost,
        price,
        costCodeId,
        supplierId,
        neededOn,
        // A price that is not what its mark-up gives stands for itself.
        markup: markup !== null && (price === null || price === priceWith(cost, markup)) ? markup : null,
        optional,
        per,
      },
    };
  };
}

function parseMarked(text: string, mark: DecimalMark): Result<Quantity> {
  const read = parseDecimal(text, { places: 4, mark, most: MOST });
  if (read.ok && read.value <= 0)
    return { ok: false, refusals: [{ code: 'quantity.low', message: 'Enter a quantity above zero.' }] };
  return read as Result<Quantity>;
}

function parseAmount(text: string, mark: DecimalMark): Result<UnitPrice> {
  const read = parseDecimal(text.replace(/^[£€$]\s*/, ''), { places: PRICE_PLACES, mark, most: MOST });
  if (read.ok && read.value < 0) return { ok: false, refusals: [{ code: 'price.low', message: 'Enter 0 or more.' }] };
  return read as Result<UnitPrice>;
}

function parseShare(text: string, mark: DecimalMark): Result<number> {
  const read = parseDecimal(text.replace('%', '').trim(), { places: 2, mark, most: MARKUP.most / 100 });
  return read.ok && read.value < MARKUP.least
    ? { ok: false, refusals: [{ code: 'markup.low', message: 'Enter 0 or more.' }] }
    : read;
}

/** The first meaning whose words fit. */
function oneOf<T>(text: string, meanings: readonly (readonly [T, RegExp])[]): Result<T> {
  const found = meanings.find(([, words]) => words.test(text));
  return found === undefined
    ? { ok: false, refusals: [{ code: 'word', message: 'it isn’t one of the allowed words.' }] }
    : { ok: true, value: found[0] };
}

const YES_OR_NO = [
  [true, /^(y|yes|1|true|x|optional)$/i],
  [false, /^(n|no|0|false|)$/i],
] as const;

const PER_WORDS = [
  ['batch', /^(once|batch|fixed|set.?up)$/i],
  ['piece', /^(each|piece|per piece|)$/i],
] as const;

function told(field: QuoteField, text: string, why: Refusal | undefined): string {
  if (text === '') return `${QUOTE_FIELD_NAMES[field]} is missing.`;
  return `${QUOTE_FIELD_NAMES[field]} “${text}”: ${why?.message ?? 'it can’t be read.'}`;
}
