import type { ReactNode } from 'react';
import type { Named } from '@/core/records/typed';
import type { Choice, ChoiceKind } from '@/queries/frame/choices';
import type { Known } from '../kit/PickField';

export type { Named };

export const named = ({ id, number, name }: Named): Named => ({ id, number, name });

/** How the cells of a column are filled in. A cell holds text as it is typed; nothing typed is lost. */
type Filled<Row> = {
  /** What stands in the row's cell; undefined where the row has none to fill in. */
  readonly text: (row: Row) => string | undefined;
  readonly put: (row: Row, text: string) => Row;
  /** Headings of a spreadsheet under which its values stand. */
  readonly heads: RegExp;
};

export type PickEntry<Row> = Filled<Row> & {
  readonly kind: 'pick';
  readonly of: ChoiceKind | Known;
  readonly thing: (row: Row) => Named | null;
  readonly take: (row: Row, thing: Choice | null) => Row;
  /** Words that stand for nothing of the company may stay. */
  readonly free?: true;
  readonly also?: readonly Choice[];
  readonly make?: { readonly words: string; readonly onMake: (row: Row, typed: string) => void } | undefined;
};

export type Entry<Row> = (Filled<Row> & { readonly kind: 'text' | 'number' | 'day' }) | PickEntry<Row>;

export type EntryColumn<Row> = {
  readonly key: string;
  readonly title: string;
  /** A track of a CSS grid. */
  readonly width: string;
  readonly num?: boolean;
  /** Without it the column is only looked at. */
  readonly entry?: Entry<Row>;
  /** How the cell looks while it is not filled in; else its text. */
  readonly show?: (row: Row) => ReactNode;
  /** A note below what stands in the cell. */
  readonly note?: (row: Row) => ReactNode;
  /** Over the whole width of a phone. */
  readonly wide?: boolean;
};

export const fills = <Row>(column: EntryColumn<Row> | undefined, row: Row): boolean =>
  column?.entry?.text(row) !== undefined;

/** A row with the same as another has in a column. */
export function copied<Row>({ entry }: EntryColumn<Row>, from: Row, to: Row): Row {
  if (entry === undefined) return to;
  const thing = entry.kind === 'pick' ? entry.thing(from) : null;
  if (entry.kind === 'pick' && thing !== null) return entry.take(to, { detail: '', ...thing });
  return entry.put(to, entry.text(from) ?? '');
}
