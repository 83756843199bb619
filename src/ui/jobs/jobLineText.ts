import { ungrouped } from '@/core/locale/locale';
import { formatPrice, parsePrice, type UnitPrice } from '@/core/money/money';
import { formatQuantity, parseQuantity, quantity, type Quantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import type { ItemChoice, Choice } from '@/queries/frame/choices';
import { named } from '../entry/column';
import { beginReading, chosen, faultsIn, NOT_CHOSEN, wordsOfChoice, type PickedText } from '../entry/reading';

/** A line of a quote or of a buy list, as a person types it. */
export type JobLineText = {
  readonly key: string;
  readonly id?: number;
  readonly itemId: number | null;
  readonly number: string;
  readonly description: string;
  readonly quantity: string;
  readonly unit: string;
  /** What was given as a unit and is none. */
  readonly unitWords: string;
  /** What one costs us, in the company's currency. */
  readonly cost: string;
  readonly code: PickedText;
  readonly supplier: PickedText;
  readonly neededOn: string;
};

type Stored = {
  readonly id: number;
  readonly itemId: number | null;
  readonly number: string | null;
  readonly description: string;
  readonly quantity: number;
  readonly unit: string;
  readonly costCodeId: number;
  readonly code: string;
  readonly codeName: string;
  readonly supplierId: number | null;
  readonly supplier: string | null;
  readonly neededOn: string | null;
};

export const priceText = (price: UnitPrice | null, currency: string): string =>
  price === null ? '' : ungrouped(formatPrice(price, currency));

export const jobLineText = (line: Stored, cost: UnitPrice | null, currency: string): JobLineText => ({
  key: `line ${line.id}`,
  id: line.id,
  itemId: line.itemId,
  number: line.number ?? '',
  description: line.description,
  quantity: ungrouped(formatQuantity(line.quantity as Quantity)),
  unit: line.unit,
  unitWords: '',
  cost: priceText(cost, currency),
  code: chosen({ id: line.costCodeId, number: line.code, name: line.codeName }),
  supplier:
    line.supplierId === null ? NOT_CHOSEN : chosen({ id: line.supplierId, number: '', name: line.supplier ?? '' }),
  neededOn: line.neededOn ?? '',
});

/** A new line is under the cost code, from the supplier and for the day of the one above it. */
export const newJobLine = (count: number, above: JobLineText | undefined): JobLineText => ({
  key: `new ${count}`,
  itemId: null,
  number: '',
  description: '',
  quantity: '1',
  unit: 'C62',
  unitWords: '',
  cost: '',
  code: above?.code ?? NOT_CHOSEN,
  supplier: NOT_CHOSEN,
  neededOn: above?.neededOn ?? '',
});

/** A line of a part that was taken for it: what the company knows of the part stands in its cells. */
export function withItem<L extends JobLineText>(line: L, item: ItemChoice | Choice | null, currency: string): L {
  if (item === null) return { ...line, itemId: null, number: '', description: '' };
  const next = { ...line, itemId: item.id, number: item.number, description: item.name };
  if (!('unit' in item)) return next;
  return {
    ...next,
    unit: item.unit,
    unitWords: '',
    cost: item.price === null ? '' : priceText(item.price, currency),
    ...(item.costCode === null ? {} : { code: chosen(named(item.costCode)) }),
    ...(item.supplier === null ? {} : { supplier: chosen(named(item.supplier)) }),
  };
}

type Reading = ReturnType<typeof beginReading>;

/** Reads a typed line; what cannot be read is told by field, as `lines.2.quantity`. */
export function readJobLine(reading: Reading, line: JobLineText, at: (field: string) => string) {
  const { take, idOf, unit } = reading;
  unit(at('unit'), line.unitWords);
  return {
    itemId: line.itemId,
    description: line.description,
    quantity:
      line.quantity.trim() === '0' ? quantity(0) : take(at('quantity'), parseQuantity(line.quantity), quantity(0)),
    unit: line.unit,
    cost: line.cost.trim() === '' ? null : take(at('cost'), parsePrice(line.cost), 0 as UnitPrice),
    costCodeId: idOf(at('costCodeId'), line.code, 'Choose a cost code.') ?? 0,
    supplierId: idOf(at('supplierId'), line.supplier),
    neededOn: line.neededOn,
  };
}

/** The columns in which what is wrong with a line is told. */
const CELLS = {
  description: 'description',
  quantity: 'quantity',
  unit: 'unit',
  cost: 'cost',
  costCodeId: 'code',
  supplierId: 'supplier',
  neededOn: 'neededOn',
} as const;

/** What is wrong with a line, by column; nothing where its place among those that are sent is not known. */
export function lineFaults(faults: Parameters<typeof faultsIn>[0], at: number, more: Readonly<Record<string, string>>) {
  const found = at < 0 ? {} : faultsIn(faults, `lines.${at}`, { ...CELLS, ...more });
  return Object.keys(found).length === 0 ? undefined : found;
}

/** A line as it is told where two versions stand side by side. */
export const toldLine = (line: JobLineText, beside: readonly string[]): string =>
  [
    `${line.quantity} ${unitOf(line.unit).short} ${line.description}`.replace(/\s+/g, ' ').trim(),
    line.cost === '' ? 'no cost' : `at ${line.cost}`,
    ...beside,
    wordsOfChoice(line.code),
    wordsOfChoice(line.supplier),
    line.neededOn === '' ? '' : `needed by ${line.neededOn}`,
  ]
    .filter(Boolean)
    .join(', ');
