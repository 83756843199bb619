import type { Day } from '@/core/calendar/workdays';
import type { Minor, UnitPrice } from '@/core/money/money';
import type { Rate } from '@/core/money/rate';
import type { LineKind } from '@/core/orders/order';
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
  readonly carrier: string;
  readonly instructions: string;
  readonly net: Minor;
  readonly gross: Minor;
  readonly madeBy: number;
  readonly madeOn: Day;
  readonly madeAt: string;
  readonly sentOn: Day | null;
  readonly version: number;
};

export type OrderLineRow = {
  readonly id: number;
  readonly orderId: number;
  readonly place: number;
  readonly kind: LineKind;
  /** Whether a charge is the supplier's carriage, which falls away when the order earns it. */
  readonly carriage: number;
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
  readonly taxCodeId: number;
  readonly wantedOn: Day | null;
  readonly net: Minor;
  readonly chargeCodeId: number | null;
  /** In the line's unit. */
  readonly received: Quantity;
  readonly billed: Quantity;
  /** The reason, once the line is closed short. */
  readonly closedShort: string | null;
  /** The reason, once no more bills come. */
  readonly billsEnded: string | null;
};

export type SplitRow = {
  readonly id: number;
  readonly lineId: number;
  readonly place: number;
  readonly jobId: number | null;
  readonly costCodeId: number | null;
  readonly needId: number | null;
  /** This and the next two in the need's unit. */
  readonly quantity: Quantity;
  readonly received: Quantity;
  readonly billed: Quantity;
  readonly value: Minor;
  readonly billedAmount: Minor;
};

export type Receipt = {
  readonly id: number;
  readonly orderId: number;
  readonly number: string;
  /** The receipt that this one takes back. */
  readonly reversesId: number | null;
  readonly note: string;
  readonly personId: number;
  readonly day: Day;
  readonly at: string;
};
/** In the line's unit. */
export type ReceiptLine = { readonly receiptId: number; readonly lineId: number; readonly accepted: Quantity };
/** In the need's unit. */
export type ReceiptSplit = { readonly receiptId: number; readonly splitId: number; readonly quantity: Quantity };

export type DocumentRow = {
  readonly id: number;
  readonly about: string;
  readonly aboutId: number;
  readonly name: string;
  readonly type: string;
  readonly bytes: Buffer;
  readonly at: string;
};

export type MessageState = 'sending' | 'taken' | 'failed' | 'unknown';

export type Message = {
  readonly id: number;
  readonly about: string;
  readonly aboutId: number;
  readonly documentId: number | null;
  readonly recipient: string;
  readonly subject: string;
  readonly body: string;
  readonly state: MessageState;
  readonly answer: string;
  readonly raw: Buffer;
  readonly personId: number;
  readonly at: string;
};
