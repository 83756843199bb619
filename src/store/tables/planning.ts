import type { GotBy, Offset, Per } from '@/core/boms/bom';
import type { Day } from '@/core/calendar/workdays';
import type { UnitPrice } from '@/core/money/money';
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
  /** The BOM that a part is made by. */
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
