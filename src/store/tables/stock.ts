import type { Day } from '@/core/calendar/workdays';
import type { Minor } from '@/core/money/money';
import type { Quantity } from '@/core/quantity/quantity';
import type { ReasonDoes } from '@/core/receiving/reasons';
import type { CountState } from '@/core/stores/sheet';

export type StockMoveKind =
  'counted' | 'received' | 'issued' | 'returned' | 'revalued' | 'moved' | 'scrapped' | 'transferred' | 'sentBack';

export type StockMove = {
  readonly id: number;
  readonly itemId: number;
  readonly placeId: number;
  /** Whose it is; null for the company's own. */
  readonly jobId: number | null;
  /** null where it lies in no bin. */
  readonly binId: number | null;
  /** The lot, or the serial number of one piece; null for what has no numbers. */
  readonly lotId: number | null;
  readonly kind: StockMoveKind;
  /** In the item's unit. */
  readonly quantity: Quantity;
  readonly value: Minor;
  readonly reason: string;
  readonly splitId: number | null;
  readonly issueId: number | null;
  readonly changeId: number | null;
  readonly receiptId: number | null;
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

/** How much lies where; 0 for no job, no bin and no number. */
export type StockSpot = Omit<StockSum, 'value'> & { readonly binId: number; readonly lotId: number };

export type Bin = {
  readonly id: number;
  readonly placeId: number;
  readonly name: string;
  readonly closed: number;
  readonly version: number;
};

export type Lot = {
  readonly id: number;
  readonly itemId: number;
  readonly number: string;
  readonly expiresOn: Day | null;
};

export type StockChangeKind = 'counted' | 'scrapped' | 'transferred' | 'difference';

/** What changed stock beside orders and issues. */
export type StockChangeRow = {
  readonly id: number;
  readonly kind: StockChangeKind;
  readonly itemId: number;
  readonly placeId: number;
  /** The part of an order whose invoice or return made a difference. */
  readonly splitId: number | null;
  /** Whose stock it was; null for the company's. */
  readonly jobId: number | null;
  readonly costCodeId: number | null;
  /** The line of the job's buy list that loses it, and how much in that line's unit. */
  readonly needId: number | null;
  readonly share: Quantity;
  /** Whose a transfer makes it. */
  readonly toJobId: number | null;
  readonly toCodeId: number | null;
  readonly toNeedId: number | null;
  readonly toShare: Quantity;
  /** In the item's unit. */
  readonly quantity: Quantity;
  readonly value: Minor;
  readonly reason: string;
  readonly day: Day;
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
  /** Whose stock it came from: null for the company's, else the job's own. */
  readonly ownerId: number | null;
  readonly itemId: number;
  readonly placeId: number;
  /** In the item's unit, and in the need's, less what came back. */
  readonly quantity: Quantity;
  readonly share: Quantity;
  readonly value: Minor;
  readonly day: Day;
  readonly version: number;
};

/** What may be the matter with a delivery, and what it does to the line. */
export type ReasonRow = {
  readonly id: number;
  readonly does: ReasonDoes;
  readonly name: string;
  readonly gone: 0 | 1;
  readonly version: number;
};

export type ReceiptKind = 'delivery' | 'inspection' | 'sentBack' | 'takenBack';
export type Receipt = {
  readonly id: number;
  readonly orderId: number;
  readonly number: string;
  readonly kind: ReceiptKind;
  /** The receipt that this one takes back. */
  readonly reversesId: number | null;
  readonly note: string;
  readonly carrier: string;
  readonly packages: number | null;
  /** Where it came to, when that is none of our own places. */
  readonly placeId: number | null;
  readonly personId: number;
  readonly day: Day;
  readonly at: string;
};
/** In the line's unit; below zero where it went away again. */
export type ReceiptLine = {
  readonly receiptId: number;
  readonly lineId: number;
  readonly accepted: Quantity;
  /** Here and not released. */
  readonly held: Quantity;
  /** Rejected, and lying here. */
  readonly rejected: Quantity;
  /** Sent back and not wanted again. */
  readonly givenUp: Quantity;
  readonly reasonId: number | null;
};
/** In the need's unit. */
export type ReceiptSplit = {
  readonly receiptId: number;
  readonly splitId: number;
  readonly quantity: Quantity;
  readonly givenUp: Quantity;
  /** What of it lies in our own places. */
  readonly here: Quantity;
};
export type ReceiptLot = {
  readonly receiptId: number;
  readonly lineId: number;
  readonly lotId: number;
  readonly held: Quantity;
  readonly rejected: Quantity;
};
export type Rest = {
  readonly id: number;
  readonly receiptId: number;
  readonly lineId: number;
  readonly reasonId: number;
  readonly quantity: Quantity;
  readonly promisedOn: Day | null;
  readonly note: string;
};

/** A count of a place, or of one bin of it. */
export type StockCount = {
  readonly id: number;
  readonly number: string;
  readonly placeId: number;
  readonly binId: number | null;
  readonly blind: number;
  readonly state: CountState;
  readonly begunBy: number;
  readonly begunOn: Day;
  readonly endedBy: number | null;
  readonly endedOn: Day | null;
  readonly version: number;
};

/** One spot of a count. In the item's unit. */
export type StockCountLine = {
  readonly id: number;
  readonly countId: number;
  readonly itemId: number;
  readonly jobId: number | null;
  readonly binId: number | null;
  readonly lotId: number | null;
  /** What lay there as the count began; what was counted, and what the book said then. */
  readonly begun: Quantity;
  readonly counted: Quantity | null;
  readonly book: Quantity | null;
  readonly reason: string;
};
