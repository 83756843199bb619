import { type JobKind, type JobState } from '@/core/jobs/states';
import type { Day } from '@/core/calendar/workdays';
import type { Minor, UnitPrice } from '@/core/money/money';
import type { Planning } from '@/core/planning/netting';
import type { Quantity } from '@/core/quantity/quantity';
import type { QuoteLine } from '@/core/quotes/rows';
import type { QuoteState } from '@/core/quotes/winning';

export type Job = {
  readonly id: number;
  readonly number: string;
  readonly name: string;
  readonly shortName: string;
  readonly kind: JobKind;
  readonly state: JobState;
  readonly customerId: number;
  readonly leadId: number;
  readonly site: string;
  readonly planning: Planning;
  readonly startsOn: Day | null;
  readonly dueOn: Day | null;
  readonly dueWords: string;
  /** The customer's own order, and where what is made goes. */
  readonly customerOrder: string;
  readonly customerOrderOn: Day | null;
  readonly deliveryAddress: string;
  /** Who plans it, beside its lead. */
  readonly plannerId: number | null;
  /** Why what is to be looked over before work starts was waived, and by whom. */
  readonly reviewWaived: string | null;
  readonly reviewWaivedBy: number | null;
  /** Why nothing is to be bought for it for now; null while it goes on. */
  readonly onHold: string | null;
  /** What of the customer’s is worked on. */
  readonly assetId: number | null;
  /** Since when all its goods are there, and whether its lead was told; null as long as something is missing. */
  readonly readyOn: Day | null;
  readonly readyTold: number;
  readonly version: number;
};

/** What a customer has that is worked on: a machine, a vehicle, a building. */
export type Asset = {
  readonly id: number;
  readonly customerId: number;
  readonly name: string;
  readonly description: string;
  readonly serial: string;
  readonly notes: string;
  readonly version: number;
};

export type BudgetEntry = {
  readonly id: number;
  readonly jobId: number;
  readonly costCodeId: number;
  readonly kind: 'opening' | 'change';
  readonly amount: Minor;
  readonly reason: string;
  readonly quoteId: number | null;
  /** The change that it is a part of; null where a quote moved it. */
  readonly changeId: number | null;
  readonly personId: number;
  readonly day: Day;
  readonly at: string;
};

export type BudgetChange = {
  readonly id: number;
  readonly jobId: number;
  readonly number: number;
  readonly state: 'pending' | 'agreed' | 'dropped';
  readonly day: Day;
  readonly reason: string;
  readonly customerReference: string;
  /** Who agreed to it, as it was said. */
  readonly agreedBy: string;
  /** What the customer pays more or less for it. */
  readonly quoteChange: Minor | null;
  readonly personId: number;
  readonly at: string;
  readonly decidedBy: number | null;
  readonly decidedOn: Day | null;
  readonly version: number;
};

export type BudgetChangeLine = {
  readonly changeId: number;
  readonly place: number;
  readonly costCodeId: number | null;
  readonly amount: Minor;
};

export type HeldEntry = {
  readonly id: number;
  readonly jobId: number;
  readonly amount: Minor;
  readonly changeId: number;
  readonly personId: number;
  readonly day: Day;
  readonly at: string;
};

/** That a cost code may pass its budget by so much. */
export type LetBe = {
  readonly id: number;
  readonly jobId: number;
  readonly costCodeId: number;
  readonly over: Minor;
  readonly reason: string;
  readonly personId: number;
  readonly day: Day;
  readonly at: string;
};

/** What somebody said of how a cost code ends; the latest holds. */
export type CompletionRow = {
  readonly id: number;
  readonly jobId: number;
  readonly costCodeId: number;
  readonly amount: Minor | null;
  /** Hundredths of a percent. */
  readonly done: number | null;
  readonly reason: string;
  readonly personId: number;
  readonly day: Day;
  readonly at: string;
};

export type Quote = {
  readonly id: number;
  readonly jobId: number;
  readonly number: string;
  readonly state: QuoteState;
  readonly wonBy: string | null;
  readonly wonOn: Day | null;
  readonly markedBy: number | null;
  /** What it says to the customer: how long it takes, until when it holds, and a few words. */
  readonly takes: string;
  readonly validUntil: Day | null;
  readonly words: string;
  /** Who brought it to the state it is in, and when. */
  readonly movedBy: number | null;
  readonly movedOn: Day | null;
  /** The quote that took its place. */
  readonly revisedAs: number | null;
  /** Why it is bought for before the customer said yes, and who took that upon them. */
  readonly earlyReason: string | null;
  readonly earlyBy: number | null;
  /** For how many pieces its lines are written, and for which other numbers it is priced beside that, by commas. */
  readonly pieces: number | null;
  readonly alsoPieces: string;
  readonly version: number;
};

export type QuoteLineRow = Omit<QuoteLine, 'row' | 'optional'> & {
  readonly id: number;
  readonly quoteId: number;
  readonly place: number;
  /** What the line costs and is sold for, in minor units of the company's currency. */
  readonly net: Minor;
  readonly priceNet: Minor | null;
  /** Whether the customer may leave it out. */
  readonly optional: number;
  /** Whether the customer agreed to it; null while that is open. */
  readonly agreed: number | null;
  /** The line of the won quote that this one was copied from. */
  readonly fromLineId: number | null;
  /** How much of it was written for how many pieces; null while the quote is still for those. */
  readonly basisQuantity: Quantity | null;
  readonly basisPieces: number | null;
};

export type QuoteFile = {
  readonly id: number;
  readonly quoteId: number;
  readonly name: string;
  readonly bytes: Buffer;
  readonly personId: number;
  readonly at: string;
  readonly used: number;
};

export type NeedRow = {
  readonly id: number;
  readonly jobId: number;
  readonly quoteLineId: number | null;
  /** The branch of the job's plan that it is bought for. */
  readonly planLineId: number | null;
  readonly itemId: number | null;
  readonly kind: 'goods' | 'service';
  readonly description: string;
  readonly quantity: Quantity;
  readonly unit: string;
  readonly costCodeId: number;
  /** The estimate, in the company's currency, for the need's unit. */
  readonly price: UnitPrice | null;
  readonly priceQuantity: number;
  readonly supplierId: number | null;
  readonly neededOn: Day | null;
  readonly addedOn: Day;
  readonly open: Quantity;
  /** What of it keeps work from starting: neither in, nor there for it in stores, nor issued. */
  readonly missing: Quantity;
  /** The last day to order what is open of it from its supplier; null without a day, a supplier or anything open. */
  readonly orderBy: Day | null;
  readonly version: number;
};

/** What is looked over before work starts on jobs of a kind. */
export type ReviewPoint = {
  readonly id: number;
  readonly jobKind: Job['kind'];
  readonly place: number;
  readonly words: string;
  /** Whether the company looks at it no more. */
  readonly gone: number;
};

export type JobReview = {
  readonly jobId: number;
  readonly pointId: number;
  readonly personId: number;
  readonly day: Day;
};
