import type { ReactNode } from 'react';
import type { EntryColumn } from './column';
import type { Steps } from './useSteps';

export type EntryChange<Row> = { readonly key: string; readonly change: (row: Row) => Row };

/** A cell, by the key of its row and that of its column. */
export type Mark = { readonly row: string; readonly col: string };

/** The column of what stands at the head of a row, before its first. */
export const HEAD = '#';

export type SheetProps<Row> = {
  readonly label: string;
  readonly columns: readonly EntryColumn<Row>[];
  readonly rows: readonly Row[];
  /** The row that is filled in next: the n-th new one from here, from 0. The first stands at the foot of the sheet. */
  readonly blank: ((n: number) => Row) | undefined;
  /** A row that was added beside the sheet: its first cell is filled in next. */
  readonly begin?: { readonly key: string; readonly col?: string } | undefined;
  readonly keyOf: (row: Row) => string;
  /** What a screen reader calls a row, such as “Line 3”. */
  readonly nameOf: (row: Row) => string;
  /** What stands at the head of a row: its number, mostly. */
  readonly headOf: (row: Row) => ReactNode;
  /** 1 for a row, 2 for a part of the one above it. */
  readonly levelOf?: (row: Row) => number;
  /** Whether what belongs to the row stands open below it; undefined where nothing can. */
  readonly openOf?: (row: Row) => boolean | undefined;
  /** What is wrong in a row, by column. */
  readonly faultsOf: (row: Row) => Readonly<Record<string, string>> | undefined;
  /** Whether a row is drawn as another was; by default the very same one is. */
  readonly sameRow?: (one: Row, other: Row) => boolean;
  /** Puts changes into rows, in this order. A key of a blank row makes it a row. */
  readonly onApply: (changes: readonly EntryChange<Row>[]) => void;
  readonly steps: Steps;
  readonly onOpen?: (row: Row) => void;
  readonly onTakeOff?: (row: Row) => void;
  readonly onMove?: (key: string, to: string) => void;
  /** Adds a part to a row, and says where that is filled in. */
  readonly onPart?: (row: Row) => Mark | undefined;
  /** What stands below a row; undefined for nothing. */
  readonly detail?: (row: Row) => ReactNode;
};
