import type { TaxCode } from '@/core/money/tax';
import type { Day } from '@/core/calendar/workdays';
import type { ItemKind, Tracking } from '@/core/items/kinds';
import type { Language, Paper } from '@/core/locale/locale';
import type { DecimalMark } from '@/core/locale/locale';
import type { Minor, UnitPrice } from '@/core/money/money';
import type { Rate } from '@/core/money/rate';
import type { Quantity } from '@/core/quantity/quantity';

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
  readonly language: Language;
  readonly decimalMark: DecimalMark;
  readonly firstDay: 1 | 7;
  readonly paper: Paper;
  readonly receivingDays: number;
  readonly orderPattern: string;
  readonly jobPattern: string;
  readonly orderTerms: string;
  /** What becomes of a count whose order is given a number by hand. */
  readonly orderGaps: 'leave' | 'fill';
  readonly freightCodeId: number | null;
  readonly priceToleranceShare: number;
  readonly priceToleranceMost: Minor;
  /** How large the differences may be that a person passes on an invoice of their own. */
  readonly ownPassLimit: Minor;
  /** How much more than was signed an order may come to without asking again: hundredths of a percent, and at most this. */
  readonly signToleranceShare: number;
  readonly signToleranceMost: Minor;
  /** How much more than was ordered is taken in without a question: hundredths of a percent. */
  readonly overDelivery: number;
  /** What a counting difference may come to before it takes a manager. */
  readonly countLimit: Minor;
  readonly version: number;
};

export type DayOff = { readonly day: Day; readonly name: string };
export type CostCode = {
  readonly id: number;
  readonly code: string;
  readonly name: string;
  /** Not offered any more; what is charged to it stays. */
  readonly gone: 0 | 1;
  readonly version: number;
};
export type TaxCodeRow = TaxCode & { readonly gone: 0 | 1; readonly version: number };
export type ExchangeRate = { readonly currency: string; readonly day: Day; readonly rate: Rate };

export type PersonRow = {
  readonly id: number;
  readonly name: string;
  readonly email: string;
  readonly passwordHash: string;
  readonly theme: 'day' | 'evening';
  /** Whether they get a copy of what they send. */
  readonly copies: number;
  /** Whether they are mailed when the material of a job of theirs is complete. */
  readonly mailReady: number;
  readonly feedHash: string | null;
  /** Up to what they may sign for an order that they wrote on. */
  readonly ownLimit: Minor;
  readonly active: number;
  readonly version: number;
};

export type SessionRow = {
  readonly id: number;
  readonly tokenHash: string;
  readonly personId: number;
  readonly begunAt: string;
  readonly seenAt: string;
  readonly endedAt: string | null;
  readonly browser: string;
  readonly place: string;
};

/** A try to sign in, under an account and from a place; good when the password was right. */
export type SignInAttempt = {
  readonly id: number;
  readonly email: string;
  readonly place: string;
  readonly at: string;
  readonly good: number;
};

export type PasswordReset = {
  readonly id: number;
  readonly tokenHash: string;
  readonly personId: number;
  readonly startedBy: number;
  readonly at: string;
  readonly usedAt: string | null;
};

export type DeliveryPlace = {
  readonly id: number;
  readonly name: string;
  readonly address: string;
  readonly instructions: string;
  readonly kind: 'own' | 'site' | 'customer' | 'supplier' | 'once';
  readonly jobId: number | null;
  readonly customerId: number | null;
  readonly supplierId: number | null;
  /** Which of a customer's or supplier's addresses it is. */
  readonly whatFor: string;
  readonly closed: number;
  readonly version: number;
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
  /** What was agreed with it, in words. */
  readonly terms: string;
  readonly minimumOrder: Minor | null;
  /** ISO weekdays by commas, where they are not the company's. */
  readonly week: string | null;
  readonly delivers: string;
  /** Which data files go with an order, by commas: ubl, csv. */
  readonly dataFiles: string;
  /** As the company's, where it is another one. */
  readonly overDelivery: number | null;
  readonly version: number;
};

export type SupplierContact = {
  readonly supplierId: number;
  readonly place: number;
  readonly name: string;
  readonly whatFor: string;
  readonly email: string;
  readonly phone: string;
  readonly getsOrders: number;
};

export type SupplierAddress = {
  readonly supplierId: number;
  readonly place: number;
  readonly whatFor: string;
  readonly address: string;
};

/** Days on which a supplier is closed, both with it. */
export type SupplierClosed = {
  readonly supplierId: number;
  readonly fromDay: Day;
  readonly untilDay: Day;
  readonly words: string;
};

export type Item = {
  readonly id: number;
  readonly number: string;
  readonly name: string;
  readonly unit: string;
  readonly kind: ItemKind;
  /** Whether it may be bought at all. */
  readonly bought: number;
  readonly stocked: number;
  readonly tracking: Tracking;
  /** Whether a certificate has to come with it. */
  readonly certificate: number;
  /** How the numbers of its pieces read; empty for any. */
  readonly numberPattern: string;
  /** Whether what comes of it waits for an inspection. */
  readonly inspected: number;
  /** Kilograms of one of its unit, in ten-thousandths. */
  readonly weight: Quantity | null;
  readonly gtin: string | null;
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
  readonly version: number;
};

export type PriceBreakRow = {
  readonly partId: number;
  readonly fromQuantity: Quantity;
  readonly fromDay: Day;
  /** The last day it holds; null until further notice. */
  readonly untilDay: Day | null;
  readonly price: UnitPrice;
  readonly priceQuantity: number;
};

export type FileMemory = {
  readonly kind: string;
  readonly what: string;
  readonly word: string;
  readonly meaning: string;
};

export type ListColumns = {
  readonly personId: number;
  readonly list: string;
  readonly shown: string;
  readonly hidden: string;
};

export type ListView = {
  readonly id: number;
  readonly personId: number;
  readonly list: string;
  readonly name: string;
  readonly query: string;
};

export type LastUsed = {
  readonly personId: number;
  readonly kind: string;
  readonly thingId: number;
  readonly at: string;
};
