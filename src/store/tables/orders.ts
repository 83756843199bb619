import { type JobKind } from '@/core/jobs/states';
import type { Day } from '@/core/calendar/workdays';
import type { Minor, UnitPrice } from '@/core/money/money';
import type { Rate } from '@/core/money/rate';
import type { ChargeKind, Spread } from '@/core/orders/charges';
import type { LineKind } from '@/core/orders/kinds';
import type { OrderState } from '@/core/orders/states';
import type { Quantity } from '@/core/quantity/quantity';

export type OrderHead = {
  readonly id: number;
  readonly number: string;
  readonly supplierId: number;
  readonly state: OrderState;
  /** While it is being sent: the state it goes back to when that fails. */
  readonly sentFrom: OrderState | null;
  readonly currency: string;
  readonly rate: Rate;
  readonly placeId: number;
  readonly wantedOn: Day | null;
  /** The first day that goods are to come to a place of ours, and elsewhere; 9999 where none is said. Kept by `refreshDueDays`. */
  readonly dueHereOn: Day | null;
  readonly dueAwayOn: Day | null;
  /** The first day that a need of something promised later was needed by. */
  readonly missedOn: Day | null;
  readonly carrier: string;
  readonly instructions: string;
  readonly net: Minor;
  readonly gross: Minor;
  readonly madeBy: number;
  readonly madeOn: Day;
  readonly madeAt: string;
  readonly sentOn: Day | null;
  /** The last revision that went out; 0 is the order as it was first sent. */
  readonly revision: number;
  /** The highest number of a line that went out, gone since or not; 0 as long as none did. */
  readonly lastLine: number;
  /** The count its number was made of; null where it was set by hand. */
  readonly counted: number | null;
  readonly latestOn: Day | null;
  readonly carrierService: string;
  readonly siteContact: string;
  /** The supplier's own number for it. */
  readonly theirNumber: string;
  /** The day its exchange rate is of. */
  readonly rateOn: Day | null;
  readonly version: number;
};

export type OrderLineRow = {
  readonly id: number;
  readonly orderId: number;
  readonly place: number;
  /** As it stands on paper: once it is sent it is kept. */
  readonly number: number;
  readonly kind: LineKind;
  /** Of a charge only. The supplier's carriage falls away when the order earns it. */
  readonly chargeKind: ChargeKind | null;
  readonly itemId: number | null;
  readonly description: string;
  readonly ourNumber: string;
  readonly theirNumber: string;
  readonly quantity: Quantity;
  readonly unit: string;
  readonly factorMany: number;
  readonly factorOne: number;
  readonly shareUnit: string;
  readonly price: UnitPrice | null;
  readonly priceQuantity: number;
  /** Before the discount; null where there is none. */
  readonly grossPrice: UnitPrice | null;
  /** Hundredths of a percent: of a line's gross price, or, of a discount on the order, of its lines. */
  readonly discount: number;
  /** A price of nothing is meant. */
  readonly free: number;
  readonly note: string;
  readonly taxCodeId: number;
  readonly wantedOn: Day | null;
  /** Where it is delivered, when it is elsewhere than the order. */
  readonly placeId: number | null;
  readonly net: Minor;
  readonly chargeCodeId: number | null;
  /** How a charge is shared out. */
  readonly spread: Spread;
  /** Kilograms of one share unit, in ten-thousandths. */
  readonly weight: Quantity | null;
  /** What the supplier said last: the day at our dock, how many, and the price for the line's price quantity. */
  readonly promisedOn: Day | null;
  readonly confirmed: Quantity | null;
  readonly confirmedPrice: UnitPrice | null;
  /** In the line's unit. */
  readonly received: Quantity;
  readonly invoiced: Quantity;
  /** Here and not released; rejected, and lying here; sent back and not wanted again. */
  readonly held: Quantity;
  readonly rejected: Quantity;
  readonly givenUp: Quantity;
  /** Whether what comes of it waits for an inspection, and for its certificate. */
  readonly inspected: number;
  readonly certificate: number;
  /** The reason, once the line is closed short. */
  readonly closedShort: string | null;
  /** The reason, once no more invoices come. */
  readonly invoicesEnded: string | null;
};

export type SplitRow = {
  readonly id: number;
  readonly lineId: number;
  readonly place: number;
  readonly jobId: number | null;
  readonly costCodeId: number | null;
  readonly needId: number | null;
  /** This and the next three in the need's unit. */
  readonly quantity: Quantity;
  readonly received: Quantity;
  readonly invoiced: Quantity;
  /** Sent back for credit, and not wanted again. */
  readonly givenUp: Quantity;
  readonly value: Minor;
  readonly invoicedAmount: Minor;
  /** Of a charge shared out by amounts, in minor units of the order's currency. */
  readonly amount: Minor | null;
};

export type Confirmation = {
  readonly id: number;
  readonly orderId: number;
  readonly revision: number;
  readonly theirNumber: string;
  readonly note: string;
  readonly personId: number;
  readonly day: Day;
  readonly at: string;
};
export type ConfirmationLine = {
  readonly confirmationId: number;
  readonly lineId: number;
  readonly quantity: Quantity;
  readonly price: UnitPrice | null;
  readonly promisedOn: Day | null;
};

/** An order as it was sent, or as a revision of it is being written; contents are JSON. */
export type OrderRevision = {
  readonly orderId: number;
  readonly number: number;
  readonly reason: string;
  readonly sent: string;
  readonly documentId: number | null;
  readonly personId: number;
  readonly day: Day;
  readonly at: string;
};
export type OrderChange = {
  readonly orderId: number;
  readonly reason: string;
  readonly content: string;
  readonly personId: number;
  readonly at: string;
};

export type OrderFile = { readonly orderId: number; readonly documentId: number; readonly place: number };
export type MessageFile = { readonly messageId: number; readonly documentId: number };

export type TextBlock = {
  readonly id: number;
  readonly place: number;
  readonly words: string;
  readonly supplierId: number | null;
  readonly jobKind: JobKind | null;
};

export type DocumentRow = {
  readonly id: number;
  readonly about: string;
  readonly aboutId: number;
  readonly name: string;
  readonly type: string;
  readonly bytes: Buffer;
  readonly at: string;
  /** A paper that was made here, or a file that was brought in. */
  readonly role: 'paper' | 'file';
  readonly revision: string;
  readonly size: number;
  readonly personId: number | null;
  /** Since when it is taken out; it stays with what it went out with. */
  readonly goneOn: Day | null;
};

export type MessageState = 'sending' | 'taken' | 'failed' | 'unknown';

export type MailKind = 'order' | 'revision' | 'chase';

/** The words of a mail: the company's own where there is no supplier. */
export type MailWords = {
  readonly id: number;
  readonly supplierId: number | null;
  readonly kind: MailKind;
  readonly subject: string;
  readonly body: string;
};

export type Message = {
  readonly id: number;
  readonly about: string;
  readonly aboutId: number;
  readonly documentId: number | null;
  readonly kind: MailKind;
  /** Addresses by commas. */
  readonly recipient: string;
  readonly copyTo: string;
  readonly subject: string;
  readonly body: string;
  readonly state: MessageState;
  readonly answer: string;
  readonly raw: Buffer;
  readonly personId: number;
  readonly at: string;
};
