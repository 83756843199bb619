import { type JobKind } from '../jobs/states';
import type { Minor } from '../money/money';
import type { Level } from '../tab/sums';

/** What an order puts on one account: a cost code of a job, or stores where there is no job. */
export type Charged = {
  readonly jobId: number | null;
  readonly costCodeId: number | null;
  /** What of the order is charged to it, in the company's currency, without tax that is recovered. */
  readonly value: Minor;
};

export type Reckoned = Charged & {
  /** How the code's budget stands once the order is sent; undefined for stores. */
  readonly level: Level | undefined;
  /** What its forecast passes its budget by then; 0 where it does not. */
  readonly over: Minor;
};

export type JobFacts = {
  readonly id: number;
  readonly number: string;
  readonly kind: JobKind;
  readonly leadId: number;
  /** Why nothing is to be bought for it for now; null while it goes on. */
  readonly onHold: string | null;
  /** The whole job's budget once the order is sent. */
  readonly level: Level;
};

/** What signing an order is reckoned by. Amounts are in minor units of the company's currency. */
export type SigningFacts = {
  readonly number: string;
  readonly supplierId: number;
  readonly currency: string;
  readonly companyCurrency: string;
  readonly value: Minor;
  readonly accounts: readonly Reckoned[];
  readonly jobs: readonly JobFacts[];
  readonly lines: readonly PricedLine[];
};

/** A line with its price against what the quote has for it, both for one of the need's unit. */
export type PricedLine = {
  readonly description: string;
  readonly jobId: number;
  readonly costCodeId: number;
  /** What the order pays for this part of it, and what the quote has for as much of it. */
  readonly pays: Minor;
  readonly quoted: Minor;
};
