import type { Day } from '@/core/calendar/workdays';
import type { InvoiceState } from '@/core/invoices/states';
import type { Minor, UnitPrice } from '@/core/money/money';
import type { Rate } from '@/core/money/rate';
import type { Quantity } from '@/core/quantity/quantity';

export type Invoice = {
  readonly id: number;
  readonly orderId: number;
  readonly supplierId: number;
  readonly number: string;
  readonly day: Day;
  readonly dueOn: Day;
  readonly state: InvoiceState;
  readonly currency: string;
  readonly rate: Rate;
  readonly net: Minor;
  readonly tax: Minor;
  readonly gross: Minor;
  /** The total that stands on the paper. */
  readonly typedTotal: Minor;
  readonly passedReason: string;
  readonly enteredBy: number;
  readonly enteredAt: string;
  readonly matchedBy: number | null;
  readonly matchedOn: Day | null;
  readonly version: number;
};

export type InvoiceLine = {
  readonly id: number;
  readonly invoiceId: number;
  readonly place: number;
  /** null for what was not ordered. */
  readonly lineId: number | null;
  readonly description: string;
  /** For what was not ordered: where it goes. With neither job nor spread it goes to stores. */
  readonly jobId: number | null;
  readonly costCodeId: number | null;
  readonly spread: number;
  readonly quantity: Quantity;
  readonly price: UnitPrice;
  readonly priceQuantity: number;
  readonly taxCodeId: number;
  readonly net: Minor;
};

export type InvoiceSplit = {
  readonly invoiceLineId: number;
  readonly splitId: number;
  readonly quantity: Quantity;
  readonly amount: Minor;
};

/** What a matched invoice costs beside its order lines: a line that was not ordered, or a difference passed on the whole. */
export type InvoiceCost = {
  readonly id: number;
  readonly invoiceId: number;
  readonly invoiceLineId: number | null;
  readonly jobId: number | null;
  readonly costCodeId: number | null;
  readonly amount: Minor;
};
