import type { GotBy, Offset, Per } from '@/core/boms/bom';
import { offsetText, parseOffset } from '@/core/boms/typed';
import { ungrouped } from '@/core/locale/locale';
import { formatDecimal, parseDecimal } from '@/core/money/decimal';
import { parsePrice, type UnitPrice } from '@/core/money/money';
import { formatQuantity, NONE, parseQuantity } from '@/core/quantity/quantity';
import type { BomLineView } from '@/queries/items/boms';
import { beginReading, chosen, NOT_CHOSEN, type PickedText } from '../entry/reading';
import { priceText } from '../jobs/jobLineText';

/** A line of a bill of materials, as a person types it. */
export type BomLineText = {
  readonly key: string;
  readonly id?: number;
  readonly itemId: number | null;
  readonly number: string;
  readonly description: string;
  readonly gotBy: GotBy;
  readonly quantity: string;
  readonly unit: string;
  readonly unitWords: string;
  readonly per: Per;
  /** In percent. */
  readonly scrap: string;
  readonly offset: string;
  readonly cost: string;
  readonly code: PickedText;
};

const SHARE_PLACES = 2;
const MOST_PERCENT = 1000;

export const bomLineText = (line: BomLineView, currency: string): BomLineText => ({
  key: `line ${line.id}`,
  id: line.id,
  itemId: line.itemId,
  number: line.number ?? '',
  description: line.description,
  gotBy: line.gotBy,
  quantity: ungrouped(formatQuantity(line.quantity)),
  unit: line.unit,
  unitWords: '',
  per: line.per,
  scrap: line.scrap === 0 ? '' : ungrouped(formatDecimal(line.scrap, SHARE_PLACES, 0)),
  offset: offsetText(line.offset),
  cost: priceText(line.price, currency),
  code:
    line.costCodeId === null
      ? NOT_CHOSEN
      : chosen({ id: line.costCodeId, number: line.code ?? '', name: line.codeName ?? '' }),
});

export const newBomLine = (count: number): BomLineText => ({
  key: `new ${count}`,
  itemId: null,
  number: '',
  description: '',
  gotBy: 'bought',
  quantity: '1',
  unit: 'C62',
  unitWords: '',
  per: 'piece',
  scrap: '',
  offset: '',
  cost: '',
  code: NOT_CHOSEN,
});

/** Reads typed lines; what cannot be read is told by field, as `lines.2.quantity`. */
export function readBomLines(lines: readonly BomLineText[]) {
  const reading = beginReading();
  const value = lines.map((l, k) => {
    const at = (field: string) => `lines.${k}.${field}`;
    const { take, idOf, unit } = reading;
    unit(at('unit'), l.unitWords);
    const offset = take<Offset>(at('offsetDays'), parseOffset(l.offset), { days: 0, from: 'start' });
    const share = { places: SHARE_PLACES, most: MOST_PERCENT };
    return {
      ...(l.id === undefined ? {} : { id: l.id }),
      itemId: l.itemId,
      description: l.description,
      gotBy: l.gotBy,
      quantity: take(at('quantity'), parseQuantity(l.quantity), NONE),
      unit: l.unit,
      per: l.per,
      scrap: l.scrap.trim() === '' ? 0 : take(at('scrap'), parseDecimal(l.scrap.replace('%', ''), share), 0),
      offsetDays: offset.days,
      offsetFrom: offset.from,
      costCodeId: idOf(at('costCodeId'), l.code),
      price: l.cost.trim() === '' ? null : take(at('price'), parsePrice(l.cost), 0 as UnitPrice),
    };
  });
  return { faults: reading.faults, value };
}
