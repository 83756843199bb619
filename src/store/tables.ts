import type { Day } from '@/core/calendar/workdays';
import type { InvoiceState } from '@/core/invoices/states';
import type { Minor, UnitPrice } from '@/core/money/money';
import type { Rate } from '@/core/money/rate';
import type { TaxCode } from '@/core/money/tax';
import type { LineKind } from '@/core/orders/order';
import type { OrderState } from '@/core/orders/states';
import type { Role } from '@/core/people/rights';
import type { Quantity } from '@/core/quantity/quantity';
import type { QuoteLineKind } from '@/core/quotes/rows';
import type { QuoteState } from '@/core/quotes/winning';
import type { Stage } from '@/core/tab/stages';

/** The rows of the company's file, as code sees them: columns in camelCase. */

export type Company = {
  readonly id: number;
  readonly name: string;
  readonly address: string;
  readonly email: string;
  readonly taxNumber: string;
  readonly currency: string;
  /** ISO 3166-1 code, with the region after a dash where holidays differ: GB-ENG. */
  readonly country: string;
  readonly week: string;
  readonly receivingDays: number;
  readonly orderPattern: string;
  readonly orderTerms: string;
  readonly freightCodeId: number | null;
  readonly priceToleranceShare: number;
  readonly priceToleranceMost: Minor;
  /** How large the differences may be that a person passes on a bill of their own. */
  readonly ownPassLimit: Minor;
  readonly version: number;
};

export type DayOff = { readonly day: Day; readonly name: string };
export type CostCode = { readonly id: number; readonly code: string; readonly name: string };
export type ExchangeRate = { readonly currency: string; readonly day: Day; readonly rate: Rate };

export type PersonRow = {
  readonly id: number;
  readonly name: string;
  readonly email: string;
  readonly passwordHash: string;
  readonly theme: 'day' | 'evening';
  readonly active: number;
  readonly version: number;
};

export type DeliveryPlace = {
  readonly id: number;
  readonly name: string;
  readonly address: string;
  readonly instructions: string;
  readonly jobId: number | null;
};

export type Supplier = {
  readonly id: number;
  readonly name: string;
  readonly contact: string;
  readonly email: string | null;
  readonly address: string;
  readonly currency: string;
  readonly paymentDays: number;
  readonly leadDays: number;
  readonly carriage: Minor;
  readonly carriageFreeFrom: Minor | null;
  readonly taxCodeId: number;
  readonly carrier: string;
  readonly version: number;
};

export type Item = {
  readonly id: number;
  readonly number: string;
  readonly name: string;
  readonly unit: string;
  readonly kind: 'goods' | 'service';
  readonly stocked: number;
  readonly costCodeId: number | null;
  readonly supplierId: number | null;
  readonly version: number;
};

export type SupplierPart = {
  readonly id: number;
  readonly supplierId: number;
  readonly itemId: number;
  readonly theirNumber: string;
  readonly unit: string;
  readonly factorMany: number;
  readonly factorOne: number;
  readonly minimum: Quantity;
  readonly pack: Quantity;
  readonly leadDays: number | null;
};

type PriceBreakRow = {
  readonly partId: number;
  readonly fromQuantity: Quantity;
  readonly price: UnitPrice;
  readonly priceQuantity: number;
};

export type JobState = 'quoted' | 'live' | 'complete' | 'lost';

type Job = {
  readonly id: number;
  readonly number: string;
  readonly name: string;
  readonly shortName: string;
  readonly kind: 'contract' | 'repair' | 'make';
  readonly state: JobState;
  readonly customerId: number;
  readonly leadId: number;
  readonly site: string;
  readonly planning: 'inFull' | 'shortfall';
  readonly startsOn: Day | null;
  readonly dueOn: Day | null;
  readonly dueWords: string;
  readonly version: number;
};

type BudgetEntry = {
  readonly id: number;
  readonly jobId: number;
  readonly costCodeId: number;
  readonly kind: 'opening' | 'change';
  readonly amount: Minor;
  readonly reason: string;
  readonly quoteId: number | null;
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
  readonly version: number;
};

type QuoteLineRow = {
  readonly id: number;
  readonly quoteId: number;
  readonly place: number;
  readonly kind: QuoteLineKind;
  readonly itemId: number | null;
  readonly description: string;
  readonly quantity: Quantity;
  readonly unit: string;
  readonly cost: UnitPrice;
  readonly price: UnitPrice | null;
  readonly costCodeId: number;
  readonly supplierId: number | null;
  readonly neededOn: Day | null;
};

type QuoteFile = {
  readonly id: number;
  readonly quoteId: number;
  readonly name: string;
  readonly bytes: Buffer;
  readonly personId: number;
  readonly at: string;
  readonly used: number;
};

export type TabLineKind = 'need' | 'split' | 'invoiceCost';
type TabLine = { readonly id: number; readonly kind: TabLineKind; readonly words: string };

export type NeedRow = {
  readonly id: number;
  readonly jobId: number;
  readonly quoteLineId: number | null;
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
  readonly version: number;
};

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

type Receipt = {
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
type ReceiptLine = { readonly receiptId: number; readonly lineId: number; readonly accepted: Quantity };
/** In the need's unit. */
type ReceiptSplit = { readonly receiptId: number; readonly splitId: number; readonly quantity: Quantity };

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

type InvoiceSplit = {
  readonly invoiceLineId: number;
  readonly splitId: number;
  readonly quantity: Quantity;
  readonly amount: Minor;
};

/** What a matched bill costs beside its order lines: a line that was not ordered, or a difference passed on the whole. */
export type InvoiceCost = {
  readonly id: number;
  readonly invoiceId: number;
  readonly invoiceLineId: number | null;
  readonly jobId: number | null;
  readonly costCodeId: number | null;
  readonly amount: Minor;
};

export type DocumentRow = {
  readonly id: number;
  readonly about: string;
  readonly aboutId: number;
  readonly name: string;
  readonly type: string;
  readonly bytes: Buffer;
  readonly at: string;
};

export type MessageState = 'sending' | 'taken' | 'failed';

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

type TabSum = {
  readonly jobId: number;
  readonly costCodeId: number;
  readonly stage: Stage;
  readonly amount: Minor;
};

declare module 'knex/types/tables.js' {
  interface Tables {
    company: Company;
    dayOff: DayOff;
    counter: { readonly name: string; readonly last: number };
    person: PersonRow;
    personRole: { readonly personId: number; readonly role: Role };
    openJob: { readonly personId: number; readonly jobId: number; readonly place: number };
    costCode: CostCode;
    taxCode: TaxCode;
    exchangeRate: ExchangeRate;
    customer: { readonly id: number; readonly name: string };
    deliveryPlace: DeliveryPlace;
    supplier: Supplier;
    item: Item;
    supplierPart: SupplierPart;
    priceBreak: PriceBreakRow;
    job: Job;
    budgetEntry: BudgetEntry;
    quote: Quote;
    quoteLine: QuoteLineRow;
    quoteFile: QuoteFile;
    tabLine: TabLine;
    need: NeedRow;
    purchaseOrder: OrderHead;
    orderLine: OrderLineRow;
    split: SplitRow;
    receipt: Receipt;
    receiptLine: ReceiptLine;
    receiptSplit: ReceiptSplit;
    invoice: Invoice;
    invoiceLine: InvoiceLine;
    invoiceSplit: InvoiceSplit;
    invoiceCost: InvoiceCost;
    document: DocumentRow;
    message: Message;
    posting: PostingRow;
    tabSum: TabSum;
  }
}
