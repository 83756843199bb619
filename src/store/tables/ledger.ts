import type { Day } from '@/core/calendar/workdays';
import type { Minor, UnitPrice } from '@/core/money/money';
import type { FromStock } from '@/core/needs/coverage';
import type { Quantity } from '@/core/quantity/quantity';
import type { Account } from '@/core/tab/postings';
import type { Amounts, SplitState, Stage } from '@/core/tab/stages';

export type TabLineKind = 'need' | 'split' | 'invoiceCost' | 'issue' | 'stockChange';
export type TabLine = { readonly id: number; readonly kind: TabLineKind; readonly words: string };

export type PostingRow = {
  readonly id: number;
  readonly tabLineId: number;
  readonly jobId: number | null;
  readonly costCodeId: number | null;
  readonly stage: Stage;
  readonly amount: Minor;
  readonly event: string;
  readonly document: string;
  readonly documentId: number;
  readonly personId: number;
  readonly day: Day;
  readonly at: string;
};

/** Where a part of an order stood at the end of a day, and until the next day that is kept of it. */
export type SplitDay = Account &
  SplitState & {
    readonly id: number;
    readonly day: Day;
    readonly needId: number | null;
    /** Goods of an item for stores, whose cost lies there. */
    readonly stored: 0 | 1;
  };

/** The same of a line of a buy list that something sent covers; its tax is null where it has no supplier. */
export type NeedDay = FromStock & {
  readonly id: number;
  readonly day: Day;
  readonly jobId: number;
  readonly costCodeId: number;
  readonly quantity: Quantity;
  /** What drafts covered of it, which are not kept by day. */
  readonly drafted: Quantity;
  readonly price: UnitPrice | null;
  readonly priceQuantity: number;
  readonly taxRate: number | null;
  readonly recoverable: number | null;
};

export type TabSum = {
  readonly jobId: number;
  readonly costCodeId: number;
  readonly stage: Stage;
  readonly amount: Minor;
};

/** What a job comes to, kept beside its postings; and how many of its lines are to buy, are missing, and are goods. */
export type JobSum = Amounts & {
  readonly jobId: number;
  readonly budget: Minor;
  readonly toBuy: number;
  readonly missing: number;
  readonly goods: number;
};

/** What somebody did: `changes` is the JSON text of what differs. */
export type AuditRow = {
  readonly id: number;
  readonly at: string;
  readonly day: Day;
  readonly personId: number;
  readonly action: string;
  readonly words: string;
  readonly changes: string | null;
};

/** What an audit record is about. */
export type AuditSubject = { readonly auditId: number; readonly kind: string; readonly subjectId: number };

/** The tables whose rows are sealed. */
export type Sealed = 'posting' | 'budgetEntry' | 'heldEntry' | 'audit';

/** The hash that a row of the record is sealed with; see `store/seals`. */
export type Seal = { readonly id: number; readonly source: Sealed; readonly rowId: number; readonly hash: string };
