import { create } from 'xmlbuilder2';
import type { Day } from '@/core/calendar/workdays';
import { decimalsOf } from '@/core/money/currencies';
import { PRICE_PLACES, type Minor, type UnitPrice } from '@/core/money/money';
import type { TaxCategory, Totals } from '@/core/money/tax';
import { PLACES, type Quantity } from '@/core/quantity/quantity';

type Party = {
  readonly name: string;
  readonly address: string;
  readonly email: string;
  readonly taxNumber: string;
  /** ISO 3166-1 code of two letters; empty where it is not known. */
  readonly country: string;
};
type Tax = { readonly category: TaxCategory; readonly rate: number };

/** An order as data: amounts in minor units of its currency. */
export type OrderData = {
  readonly number: string;
  readonly revision: number;
  /** It is not ordered yet as it stands here. */
  readonly draft: boolean;
  /** The day it was sent; of a draft, the day it is taken out. */
  readonly day: Day;
  readonly currency: string;
  readonly instructions: string;
  readonly carrier: string;
  readonly carrierService: string;
  readonly siteContact: string;
  readonly buyer: Party;
  readonly contact: string;
  readonly seller: Party;
  readonly deliverTo: { readonly name: string; readonly address: string };
  readonly wantedOn: Day | null;
  readonly latestOn: Day | null;
  readonly paymentDays: number;
  readonly totals: Totals;
  readonly charges: readonly {
    readonly place: number;
    readonly reason: string;
    readonly note: string;
    readonly amount: Minor;
    /** Of a discount that is so much of the lines with its tax: hundredths of a percent, and what it is of. */
    readonly share: { readonly percent: number; readonly base: Minor } | null;
    readonly tax: Tax;
  }[];
  readonly lines: readonly {
    readonly place: number;
    readonly description: string;
    readonly note: string;
    readonly ourNumber: string;
    readonly theirNumber: string;
    readonly gtin: string | null;
    readonly quantity: Quantity;
    readonly unit: string;
    readonly price: UnitPrice;
    readonly grossPrice: UnitPrice | null;
    readonly priceQuantity: number;
    readonly net: Minor;
    readonly wantedOn: Day | null;
    readonly deliverTo: { readonly name: string; readonly address: string } | null;
    readonly tax: Tax;
  }[];
};

/** A scaled integer as a plain decimal, whatever the company's language. */
function plain(scaled: number, places: number): string {
  const digits = Math.abs(scaled)
    .toString()
    .padStart(places + 1, '0');
  const text = places === 0 ? digits : `${digits.slice(0, -places)}.${digits.slice(-places)}`;
  return scaled < 0 ? `-${text}` : text;
}

const NAMESPACES = {
  '@xmlns': 'urn:oasis:names:specification:ubl:schema:xsd:Order-2',
  '@xmlns:cac': 'urn:oasis:names:specification:ubl:schema:xsd:CommonAggregateComponents-2',
  '@xmlns:cbc': 'urn:oasis:names:specification:ubl:schema:xsd:CommonBasicComponents-2',
};

/** Signs that XML 1.0 has no way to write, such as a line's end of another machine, are left out. */

const UNWRITABLE = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g;
const words = (text: string): string => text.replace(UNWRITABLE, '');

const address = (text: string, country = '') => ({
  'cac:AddressLine': words(text)
    .split('\n')
    .filter((l) => l.trim() !== '')
    .map((l) => ({ 'cbc:Line': l.trim() })),
  ...(country === '' ? {} : { 'cac:Country': { 'cbc:IdentificationCode': country } }),
});

const party = ({ name, address: at, email, taxNumber, country }: Party, contact = '') => ({
  'cac:Party': {
    'cac:PartyName': { 'cbc:Name': words(name) },
    ...(at.trim() === '' ? {} : { 'cac:PostalAddress': address(at, country) }),
    ...(taxNumber === ''
      ? {}
      : { 'cac:PartyTaxScheme': { 'cbc:CompanyID': words(taxNumber), 'cac:TaxScheme': { 'cbc:ID': 'VAT' } } }),
    'cac:Contact': {
      ...(contact === '' ? {} : { 'cbc:Name': words(contact) }),
      ...(email === '' ? {} : { 'cbc:ElectronicMail': words(email) }),
    },
  },
});

const taxOf = ({ category, rate }: Tax) => ({
  'cbc:ID': category,
  // A category that bears no tax has no rate (EN 16931, BR-O-5).
  ...(category === 'O' ? {} : { 'cbc:Percent': plain(rate, 2) }),
  'cac:TaxScheme': { 'cbc:ID': 'VAT' },
});

type Going = Pick<OrderData, 'wantedOn' | 'latestOn' | 'carrier' | 'carrierService' | 'siteContact'>;

const named = (name: string) => ({ 'cac:PartyName': { 'cbc:Name': words(name) } });

const delivery = (to: { name: string; address: string } | null, going: Going) => ({
  ...(going.latestOn === null ? {} : { 'cbc:LatestDeliveryDate': going.latestOn }),
  ...(to === null || to.address.trim() === '' ? {} : { 'cac:DeliveryAddress': address(to.address) }),
  ...(going.wantedOn === null ? {} : { 'cac:RequestedDeliveryPeriod': { 'cbc:EndDate': going.wantedOn } }),
  ...(going.carrier === '' ? {} : { 'cac:CarrierParty': named(going.carrier) }),
  ...(to === null
    ? {}
    : {
        'cac:DeliveryParty': {
          ...named(to.name),
          ...(going.siteContact === '' ? {} : { 'cac:Contact': { 'cbc:Name': words(going.siteContact) } }),
        },
      }),
  ...(going.carrierService === '' ? {} : { 'cac:DeliveryTerms': { 'cbc:SpecialTerms': words(going.carrierService) } }),
});

const NOTHING_ELSE = { latestOn: null, carrier: '', carrierService: '', siteContact: '' };

/**
 * Writes an order as UBL 2.1 Order (OASIS, urn:oasis:names:specification:ubl:schema:xsd:Order-2), in the order of its
 * schema's elements, with the amounts of EN 16931-1.
 */
export function ublOrder(order: OrderData): string {
  const { currency, totals } = order;
  const money = (amount: Minor) => ({ '@currencyID': currency, '#': plain(amount, decimalsOf(currency)) });
  const price = (p: UnitPrice) => ({ '@currencyID': currency, '#': plain(p, PRICE_PLACES) });
  const below = order.charges.filter((c) => c.amount < 0);
  const sum = (all: typeof order.charges) => all.reduce((s, c) => s + c.amount, 0) as Minor;
  const above = order.charges.filter((c) => c.amount >= 0);
  const notes = [order.draft ? 'Draft: this is not an order yet.' : '', words(order.instructions)].filter(Boolean);
  const document = {
    Order: {
      ...NAMESPACES,
      'cbc:UBLVersionID': '2.1',
      'cbc:ID': order.number,
      'cbc:IssueDate': order.day,
      // UNCL 1001: 220 is an order, 230 a change of one.
      'cbc:OrderTypeCode': order.revision === 0 ? '220' : '230',
      ...(notes.length === 0 ? {} : { 'cbc:Note': notes }),
      'cbc:DocumentCurrencyCode': currency,
      'cbc:LineCountNumeric': order.lines.length,
      ...(order.revision === 0
        ? {}
        : { 'cac:OrderDocumentReference': { 'cbc:ID': order.number, 'cbc:VersionID': String(order.revision) } }),
      'cac:BuyerCustomerParty': party(order.buyer, order.contact),
      'cac:SellerSupplierParty': party(order.seller),
      'cac:Delivery': delivery(order.deliverTo, order),
      'cac:PaymentTerms': { 'cbc:Note': `${order.paymentDays} days from invoice` },
      ...(order.charges.length === 0
        ? {}
        : {
            'cac:AllowanceCharge': order.charges.map((c) => ({
              'cbc:ChargeIndicator': c.amount >= 0,
              'cbc:AllowanceChargeReason': words(c.reason),
              ...(c.share === null ? {} : { 'cbc:MultiplierFactorNumeric': plain(c.share.percent, 2) }),
              'cbc:Amount': money(Math.abs(c.amount) as Minor),
              ...(c.share === null ? {} : { 'cbc:BaseAmount': money(c.share.base) }),
              'cac:TaxCategory': taxOf(c.tax),
            })),
          }),
      'cac:TaxTotal': {
        'cbc:TaxAmount': money(totals.tax),
        'cac:TaxSubtotal': totals.taxes.map((t) => ({
          'cbc:TaxableAmount': money(t.base),
          'cbc:TaxAmount': money(t.tax),
          'cac:TaxCategory': taxOf(t),
        })),
      },
      'cac:AnticipatedMonetaryTotal': {
        'cbc:LineExtensionAmount': money(totals.lines),
        'cbc:TaxExclusiveAmount': money(totals.net),
        'cbc:TaxInclusiveAmount': money(totals.gross),
        'cbc:AllowanceTotalAmount': money(Math.abs(sum(below)) as Minor),
        'cbc:ChargeTotalAmount': money(sum(above)),
        'cbc:PayableAmount': money(totals.gross),
      },
      'cac:OrderLine': order.lines.map((l) => ({
        ...(l.note === '' ? {} : { 'cbc:Note': words(l.note) }),
        'cac:LineItem': {
          'cbc:ID': String(l.place),
          'cbc:Quantity': { '@unitCode': l.unit, '#': plain(l.quantity, PLACES) },
          'cbc:LineExtensionAmount': money(l.net),
          ...(l.wantedOn === null && l.deliverTo === null
            ? {}
            : { 'cac:Delivery': delivery(l.deliverTo, { ...NOTHING_ELSE, wantedOn: l.wantedOn }) }),
          'cac:Price': {
            'cbc:PriceAmount': price(l.price),
            'cbc:BaseQuantity': { '@unitCode': l.unit, '#': String(l.priceQuantity) },
            ...(l.grossPrice === null
              ? {}
              : {
                  'cac:AllowanceCharge': {
                    'cbc:ChargeIndicator': false,
                    'cbc:Amount': price((l.grossPrice - l.price) as UnitPrice),
                    'cbc:BaseAmount': price(l.grossPrice),
                  },
                }),
          },
          'cac:Item': {
            'cbc:Name': words(l.description),
            ...(l.ourNumber === '' ? {} : { 'cac:BuyersItemIdentification': { 'cbc:ID': words(l.ourNumber) } }),
            ...(l.theirNumber === '' ? {} : { 'cac:SellersItemIdentification': { 'cbc:ID': words(l.theirNumber) } }),
            ...(l.gtin === null
              ? {}
              : { 'cac:StandardItemIdentification': { 'cbc:ID': { '@schemeID': '0160', '#': l.gtin } } }),
            'cac:ClassifiedTaxCategory': taxOf(l.tax),
          },
        },
      })),
    },
  };
  return create({ version: '1.0', encoding: 'UTF-8' }, document).end({ prettyPrint: true });
}
