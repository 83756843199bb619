import type { Minor } from '@/core/money/money';
import type { Role } from '@/core/people/rights';
import type {
  Company,
  DayOff,
  CostCode,
  TaxCodeRow,
  ExchangeRate,
  PersonRow,
  SessionRow,
  PasswordReset,
  SignInAttempt,
  DeliveryPlace,
  Supplier,
  SupplierContact,
  SupplierAddress,
  SupplierClosed,
  Item,
  SupplierPart,
  PriceBreakRow,
  LastUsed,
  ListColumns,
  ListView,
  FileMemory,
} from './company';
import type {
  Asset,
  BudgetChange,
  BudgetChangeLine,
  CompletionRow,
  HeldEntry,
  LetBe,
  Job,
  BudgetEntry,
  Quote,
  QuoteLineRow,
  QuoteFile,
  NeedRow,
  ReviewPoint,
  JobReview,
} from './jobs';
import type {
  OrderHead,
  OrderLineRow,
  SplitRow,
  Confirmation,
  ConfirmationLine,
  OrderRevision,
  OrderChange,
  OrderFile,
  DocumentRow,
  Message,
  MessageFile,
  MailWords,
  TextBlock,
} from './orders';
import type { Invoice, InvoiceLine, InvoiceSplit, InvoiceCost } from './invoices';
import type { AuditRow, AuditSubject, JobSum, NeedDay, PostingRow, SplitDay, Seal, TabLine, TabSum } from './ledger';
import type { BomRow, BomLineRow, PlanLineRow } from './planning';
import type {
  Bin,
  IssueRow,
  Lot,
  ReasonRow,
  Receipt,
  ReceiptLine,
  ReceiptLot,
  ReceiptSplit,
  Reservation,
  Rest,
  StockChangeRow,
  StockLevel,
  StockMove,
  StockCount,
  StockCountLine,
  StockSpot,
  StockSum,
} from './stock';
import type {
  BuyingRuleRow,
  DeputyRow,
  LadderSignerRow,
  LadderStepRow,
  Notice,
  SignOffRow,
  SignRound,
} from './signoff';

/** The rows of the company's file, as code sees them: columns in camelCase. */
export type * from './company';
export type * from './jobs';
export type * from './orders';
export type * from './invoices';
export type * from './ledger';
export type * from './planning';
export type * from './signoff';
export type * from './stock';

declare module 'knex/types/tables.js' {
  interface Tables {
    company: Company;
    audit: AuditRow;
    auditSubject: AuditSubject;
    seal: Seal;
    dayOff: DayOff;
    counter: { readonly name: string; readonly last: number };
    person: PersonRow;
    session: SessionRow;
    passwordReset: PasswordReset;
    signInAttempt: SignInAttempt;
    personRole: { readonly personId: number; readonly role: Role };
    openJob: { readonly personId: number; readonly jobId: number; readonly place: number };
    costCode: CostCode;
    taxCode: TaxCodeRow;
    unitUnused: { readonly code: string };
    exchangeRate: ExchangeRate;
    customer: { readonly id: number; readonly name: string };
    deliveryPlace: DeliveryPlace;
    supplier: Supplier;
    supplierContact: SupplierContact;
    supplierAddress: SupplierAddress;
    supplierClosed: SupplierClosed;
    item: Item;
    supplierPart: SupplierPart;
    priceBreak: PriceBreakRow;
    lastUsed: LastUsed;
    listColumns: ListColumns;
    listView: ListView;
    fileMemory: FileMemory;
    job: Job;
    asset: Asset;
    budgetEntry: BudgetEntry;
    budgetChange: BudgetChange;
    budgetChangeLine: BudgetChangeLine;
    heldEntry: HeldEntry;
    completion: CompletionRow;
    letBe: LetBe;
    budgetNote: { readonly jobId: number; readonly costCodeId: number; readonly words: string };
    quote: Quote;
    quoteLine: QuoteLineRow;
    quoteFile: QuoteFile;
    reviewPoint: ReviewPoint;
    jobReview: JobReview;
    tabLine: TabLine;
    splitDay: SplitDay;
    needDay: NeedDay;
    need: NeedRow;
    bom: BomRow;
    bomLine: BomLineRow;
    planLine: PlanLineRow;
    bin: Bin;
    lot: Lot;
    stockMove: StockMove;
    stockChange: StockChangeRow;
    stockSum: StockSum;
    stockSpot: StockSpot;
    stockCount: StockCount;
    stockCountLine: StockCountLine;
    stockLevel: StockLevel;
    reservation: Reservation;
    issue: IssueRow;
    purchaseOrder: OrderHead;
    orderLine: OrderLineRow;
    split: SplitRow;
    buyingRule: BuyingRuleRow;
    ladderStep: LadderStepRow;
    ladderSigner: LadderSignerRow;
    deputy: DeputyRow;
    orderWriter: { readonly orderId: number; readonly personId: number };
    signRound: SignRound;
    signOff: SignOffRow;
    notice: Notice;
    confirmation: Confirmation;
    confirmationLine: ConfirmationLine;
    orderRevision: OrderRevision;
    orderChange: OrderChange;
    orderFile: OrderFile;
    freeNumber: { readonly series: string; readonly count: number };
    receipt: Receipt;
    receiptLine: ReceiptLine;
    receiptSplit: ReceiptSplit;
    receiptLot: ReceiptLot;
    reason: ReasonRow;
    rest: Rest;
    invoice: Invoice;
    invoiceLine: InvoiceLine;
    invoiceSplit: InvoiceSplit;
    invoiceCost: InvoiceCost;
    document: DocumentRow;
    message: Message;
    messageFile: MessageFile;
    mailWords: MailWords;
    textBlock: TextBlock;
    posting: PostingRow;
    tabSum: TabSum;
    jobSum: JobSum;
    codeSum: { readonly jobId: number; readonly costCodeId: number; readonly budget: Minor; readonly forecast: Minor };
  }
}
