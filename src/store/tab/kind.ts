import type { Day } from '@/core/calendar/workdays';
import type { Balance } from '@/core/tab/postings';
import type { Db } from '../db';
import type { TabLineKind } from '../tables';

/** A line whose own figures do not agree with the documents that they come from. */
export type Disagreement = { readonly line: number; readonly what: string };

/** The day that something is written, and the one that it holds from. */
export type Since = { readonly from: Day; readonly today: Day };

export type Moved = { readonly by: number; readonly id: number };

/** One kind of line of the tab: how its state is loaded, and where the stage function puts it. */
export type TabKind = {
  readonly kind: TabLineKind;
  /** Where these lines stand by the stage function of their present state; one that is gone is left out. */
  readonly load: (db: Db, ids: readonly number[]) => Promise<Map<number, readonly Balance[]>>;
  /** Lines of other kinds that these move, each with the line that moves it: a split covers a need. */
  readonly moves?: (db: Db, ids: readonly number[]) => Promise<readonly Moved[]>;
  /** What is kept of it by day, so that what is dated back is posted on each of them. */
  readonly datedBack?: true;
  /** Keeps what lists look for by index beside the lines, and how they stood by day. */
  readonly refresh?: (trx: Db, ids: readonly number[], since: Since) => Promise<void>;
  /** Every line of this kind in the file that does not agree with its documents. */
  readonly disagreements: (db: Db) => Promise<Disagreement[]>;
};
