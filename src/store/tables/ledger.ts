import type { Day } from '@/core/calendar/workdays';
import type { Minor } from '@/core/money/money';
import type { Stage } from '@/core/tab/stages';

export type TabLineKind = 'need' | 'split' | 'invoiceCost' | 'issue';
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

export type TabSum = {
  readonly jobId: number;
  readonly costCodeId: number;
  readonly stage: Stage;
  readonly amount: Minor;
};
