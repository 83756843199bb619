import type { GotBy, Offset, Per } from '@/core/boms/bom';
import type { Day } from '@/core/calendar/workdays';
import type { Minor, UnitPrice } from '@/core/money/money';
import type { PlannedWork } from '@/core/planning/plan';
import type { Quantity } from '@/core/quantity/quantity';

export type BomRow = {
  readonly id: number;
  readonly itemId: number;
  readonly fromDay: Day;
  readonly note: string;
  readonly makingDays: number;
  readonly madeBy: number;
  readonly version: number;
};

export type BomLineRow = {
  readonly id: number;
  readonly bomId: number;
  readonly place: number;
  readonly gotBy: GotBy;
  readonly itemId: number | null;
  readonly description: string;
  readonly quantity: Quantity;
  readonly unit: string;
  readonly per: Per;
  readonly scrap: number;
  readonly offsetDays: number;
  readonly offsetFrom: Offset['from'];
  readonly costCodeId: number | null;
  readonly price: UnitPrice | null;
};

export type PlanLineRow = {
  readonly id: number;
  readonly jobId: number;
  readonly parentId: number | null;
  readonly place: number;
  /** The bill that a part is made by. */
  readonly bomId: number | null;
  readonly bomLineId: number | null;
  readonly gotBy: GotBy;
  readonly itemId: number | null;
  readonly description: string;
  readonly quantity: Quantity;
  readonly unit: string;
  readonly startsOn: Day | null;
  readonly neededOn: Day | null;
  readonly work: PlannedWork;
  /** Why it is left out; null for a line that is in. */
  readonly leftOut: string | null;
  readonly version: number;
};

export type StockMoveKind = 'counted' | 'received' | 'issued' | 'returned' | 'revalued';

export type StockMove = {
  readonly id: number;
  readonly itemId: number;
  readonly placeId: number;
  /** Whose it is; null for the company's own. */
  readonly jobId: number | null;
  readonly kind: StockMoveKind;
  /** In the item's unit. */
  readonly quantity: Quantity;
  readonly value: Minor;
  readonly reason: string;
  readonly splitId: number | null;
  readonly issueId: number | null;
  readonly personId: number;
  readonly day: Day;
  readonly at: string;
};

export type StockSum = {
  readonly itemId: number;
  readonly placeId: number;
  /** 0 for the company's own. */
  readonly jobId: number;
  readonly quantity: Quantity;
  readonly value: Minor;
};

export type StockLevel = { readonly itemId: number; readonly placeId: number; readonly keep: Quantity };

export type Reservation = {
  readonly id: number;
  readonly needId: number;
  readonly itemId: number;
  readonly placeId: number | null;
  readonly jobId: number | null;
  readonly splitId: number | null;
  /** In the item's unit, and in the need's. */
  readonly quantity: Quantity;
  readonly share: Quantity;
  readonly firm: number;
};

export type IssueRow = {
  readonly id: number;
  readonly needId: number | null;
  readonly jobId: number;
  readonly costCodeId: number;
  readonly itemId: number;
  readonly placeId: number;
  /** In the item's unit, and in the need's, less what came back. */
  readonly quantity: Quantity;
  readonly share: Quantity;
  readonly value: Minor;
  readonly day: Day;
  readonly version: number;
};
