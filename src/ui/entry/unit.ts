import { UNITS, unitOf } from '@/core/quantity/units';
import { unitsFor } from '../kit/UnitField';
import type { PickEntry } from './column';

type Unit = { readonly unit: string; readonly words: string };

/** The unit of a row, picked as one types; words that are no unit stay, to be mended. */
export const unitEntry = <Row>(
  of: (row: Row) => Unit | undefined,
  put: (row: Row, unit: Unit) => Row,
): PickEntry<Row> => ({
  kind: 'pick',
  of: unitsFor,
  heads: /^(unit|uom|u\/m|units)$|^unit of/i,
  text: (row) => {
    const has = of(row);
    return has && (has.words || unitOf(has.unit).short || unitOf(has.unit).name);
  },
  thing: (row) => {
    const has = of(row);
    if (has === undefined || has.words !== '') return null;
    const { short, name } = unitOf(has.unit);
    return { id: UNITS.findIndex((u) => u.code === has.unit), number: '', name: short || name };
  },
  put: (row, words) => put(row, { unit: of(row)?.unit ?? 'C62', words }),
  take: (row, thing) => put(row, { unit: UNITS[thing?.id ?? -1]?.code ?? 'C62', words: '' }),
});
