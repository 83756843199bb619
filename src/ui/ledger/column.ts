import type { ReactNode } from 'react';

export type Column<Row> = {
  readonly key: string;
  readonly head: ReactNode;
  readonly cell: (row: Row) => ReactNode;
  /** What the column sorts by; without it the column does not sort. */
  readonly by?: (row: Row) => string | number;
  readonly num?: boolean;
  readonly className?: string;
  /** Of one cell, beside the column’s. */
  readonly tone?: (row: Row) => string;
  /** Left out until a person chooses it. */
  readonly extra?: true;
  /** Left out on a phone, where the first column tells it in its second line. */
  readonly wide?: boolean;
  /** Its cells say what their row is. */
  readonly leads?: true;
};

export type Key = string | number;

export type Picks<Row> = {
  readonly picked: ReadonlySet<Key>;
  readonly onPick: (keys: ReadonlySet<Key>) => void;
  readonly may: (row: Row) => boolean;
  /** What a row’s box is called. */
  readonly words: (row: Row) => string;
};

/** Rows that stand together under a heading. */
export type Groups<Row> = {
  readonly of: (row: Row) => Key;
  readonly head: (rows: readonly Row[]) => ReactNode;
  /** What the box is called that picks them all. */
  readonly words: (rows: readonly Row[]) => string;
};

/** Classes of a cell of a column. */
export const cellClass = ({ num, wide, className }: Pick<Column<never>, 'num' | 'wide' | 'className'>): string =>
  [num === true ? 'num' : '', wide === true ? 'max-phone:hidden' : '', className ?? ''].filter(Boolean).join(' ');

/**
 * What a value is called where it stands without its column above it: figures are named, and with `whole` all but what fills
 * a line of its own.
 */
export const nameOf = <Row>({ head, num, className = '' }: Column<Row>, whole = false): string | undefined =>
  typeof head === 'string' && (num === true || (whole && !className.includes('row-whole'))) ? head : undefined;
