import Big from 'big.js';
import { XMLParser, XMLValidator } from 'fast-xml-parser';
import type { Day } from '@/core/calendar/workdays';
import { minor, type UnitPrice } from '@/core/money/money';
import { totalsOf, type TaxCode } from '@/core/money/tax';
import { quantity } from '@/core/quantity/quantity';
import { ublOrder, type OrderData } from './order';

/**
 * UBL 2.1 Order, written by us and read by fast-xml-parser, an independent parser. The order of elements is that of the
 * schema UBL-Order-2.1.xsd and its common components (OASIS Standard, 4 November 2013), from memory; the arithmetic is
 * that of EN 16931-1: BR-CO-10, BR-CO-13, BR-CO-14, BR-CO-15 and BR-S-9.
 */
const SEQUENCE: Readonly<Record<string, readonly string[]>> = {
  Order: [
    ...['cbc:UBLVersionID', 'cbc:CustomizationID', 'cbc:ProfileID', 'cbc:ID', 'cbc:CopyIndicator', 'cbc:UUID'],
    ...['cbc:IssueDate', 'cbc:IssueTime', 'cbc:OrderTypeCode', 'cbc:Note', 'cbc:DocumentCurrencyCode'],
    ...['cbc:PricingCurrencyCode', 'cbc:TaxCurrencyCode', 'cbc:LineCountNumeric', 'cac:ValidityPeriod'],
    ...['cac:QuotationDocumentReference', 'cac:OrderDocumentReference', 'cac:AdditionalDocumentReference'],
    ...['cac:BuyerCustomerParty', 'cac:SellerSupplierParty', 'cac:Delivery', 'cac:DeliveryTerms', 'cac:PaymentMeans'],
    ...['cac:PaymentTerms', 'cac:AllowanceCharge', 'cac:TaxTotal', 'cac:AnticipatedMonetaryTotal', 'cac:OrderLine'],
  ],
  'cac:Party': ['cac:PartyName', 'cac:PostalAddress', 'cac:PartyTaxScheme', 'cac:PartyLegalEntity', 'cac:Contact'],
  'cac:PostalAddress': ['cac:AddressLine', 'cac:Country'],
  'cac:DeliveryParty': ['cac:PartyName', 'cac:PostalAddress', 'cac:Contact'],
  'cac:Delivery': [
    ...['cbc:LatestDeliveryDate', 'cac:DeliveryAddress', 'cac:RequestedDeliveryPeriod', 'cac:CarrierParty'],
    ...['cac:DeliveryParty', 'cac:DeliveryTerms'],
  ],
  'cac:AllowanceCharge': [
    ...['cbc:ChargeIndicator', 'cbc:AllowanceChargeReasonCode', 'cbc:AllowanceChargeReason'],
    ...['cbc:MultiplierFactorNumeric', 'cbc:Amount', 'cbc:BaseAmount', 'cac:TaxCategory'],
  ],
  'cac:AnticipatedMonetaryTotal': [
    ...['cbc:LineExtensionAmount', 'cbc:TaxExclusiveAmount', 'cbc:TaxInclusiveAmount', 'cbc:AllowanceTotalAmount'],
    ...['cbc:ChargeTotalAmount', 'cbc:PrepaidAmount', 'cbc:PayableRoundingAmount', 'cbc:PayableAmount'],
  ],
  'cac:OrderLine': ['cbc:Note', 'cac:LineItem'],
  'cac:LineItem': [
    ...['cbc:ID', 'cbc:Note', 'cbc:Quantity', 'cbc:LineExtensionAmount', 'cac:Delivery', 'cac:AllowanceCharge'],
    ...['cac:Price', 'cac:Item'],
  ],
  'cac:Price': ['cbc:PriceAmount', 'cbc:BaseQuantity', 'cac:AllowanceCharge'],
  'cac:Item': [
    ...['cbc:Description', 'cbc:Name', 'cac:BuyersItemIdentification', 'cac:SellersItemIdentification'],
    ...['cac:StandardItemIdentification', 'cac:ClassifiedTaxCategory'],
  ],
  'cac:TaxTotal': ['cbc:TaxAmount', 'cac:TaxSubtotal'],
  'cac:TaxSubtotal': ['cbc:TaxableAmount', 'cbc:TaxAmount', 'cac:TaxCategory'],
};

const vat: TaxCode = { id: 1, name: 'VAT 20 %', category: 'S', rate: 2000, recoverable: 10_000 };
const reduced: TaxCode = { id: 2, name: 'VAT 5 %', category: 'S', rate: 500, recoverable: 10_000 };
const tax = { category: 'S' as const, rate: 2000 };
const line = (change: Partial<OrderData['lines'][number]> = {}): OrderData['lines'][number] => ({
  place: 1,
  description: 'Tube 316L 38 × 2 mm',
  note: 'mill certificate wanted',
  ourNumber: 'TU-316-38',
  theirNumber: '88120',
  gtin: '4006381333931',
  quantity: quantity(480_000),
  unit: 'MTR',
  price: 86_188 as UnitPrice,
  grossPrice: 98_500 as UnitPrice,
  priceQuantity: 1,
  net: minor(41_370),
  wantedOn: '2026-05-19' as Day,
  deliverTo: null,
  tax,
  ...change,
});
const lines = [
  line(),
  line({
    place: 2,
    description: 'Bolt',
    price: 125_000 as UnitPrice,
    grossPrice: null,
    priceQuantity: 100,
    quantity: quantity(2_500_000),
    unit: 'C62',
    net: minor(3125),
    tax: { category: 'S', rate: 500 },
    deliverTo: { name: 'Galvaniser', address: 'Zinc Lane\nTown' },
  }),
];
const charges = [
  { place: 3, note: '', reason: 'Carriage', amount: minor(2500), share: null, tax },
  {
    place: 4,
    note: '',
    reason: 'Trade discount',
    amount: minor(-2069),
    share: { percent: 500, base: minor(41_370) },
    tax,
  },
];
const totals = totalsOf(
  [
    { kind: 'goods', net: minor(41_370), taxCodeId: 1 },
    { kind: 'goods', net: minor(3125), taxCodeId: 2 },
    { kind: 'charge', net: minor(2500), taxCodeId: 1 },
    { kind: 'charge', net: minor(-2069), taxCodeId: 1 },
  ],
  [vat, reduced],
);
const order: OrderData = {
  number: 'K26-0191',
  revision: 0,
  draft: false,
  carrier: 'Fenway Freight',
  carrierService: 'before noon',
  siteContact: 'Joss Fenn',
  day: '2026-05-12' as Day,
  currency: 'GBP',
  instructions: 'Ring at the gate & wait',
  buyer: {
    name: 'Wrackline Boatyard',
    address: 'Staithe Road\nSaltmarsh',
    email: 'buying@wrackline.example',
    taxNumber: 'GB 1',
    country: 'GB',
  },
  contact: 'Mina Rowe',
  seller: { name: 'Eelmoor <Metals>', address: 'Unit 4', email: 'orders@eelmoor.example', taxNumber: '', country: '' },
  deliverTo: { name: 'Bay 3', address: 'Staithe Road' },
  wantedOn: '2026-05-19' as Day,
  latestOn: '2026-05-22' as Day,
  paymentDays: 30,
  totals,
  charges,
  lines,
};

type Node = Record<string, unknown>;
const reader = new XMLParser({ ignoreAttributes: false, parseTagValue: false, preserveOrder: true, trimValues: true });
const read = (xml: string) => reader.parse(xml) as Node[];
const simple = new XMLParser({ ignoreAttributes: false, parseTagValue: false });
const parse = (of: OrderData) =>
  (simple.parse(ublOrder(of)) as { Order: Record<string, never> }).Order as never as Tree;
type Tree = { readonly [k: string]: Tree } & { readonly '#text': string };

const nameOf = (node: Node) => Object.keys(node).find((k) => k !== ':@') ?? '';

function outOfSequence(nodes: readonly Node[], found: string[] = []): string[] {
  for (const node of nodes) {
    const name = nameOf(node);
    const children = Array.isArray(node[name]) ? (node[name] as Node[]) : [];
    const sequence = SEQUENCE[name];
    const names = children.map(nameOf).filter((n) => n !== '#text');
    if (sequence !== undefined) {
      const places = names.map((n) => sequence.indexOf(n));
      if (places.some((p, k) => p < 0 || p < (places[k - 1] ?? 0))) found.push(`${name}: ${names.join(', ')}`);
    }
    outOfSequence(children, found);
  }
  return found;
}

const amount = (node: Tree | undefined) => new Big(node?.['#text'] ?? NaN);

describe('an order as UBL 2.1', () => {
  it('is well formed and stands in the order of its schema', () => {
    const xml = ublOrder(order);
    expect(XMLValidator.validate(xml)).toBe(true);
    expect(outOfSequence(read(xml))).toEqual([]);
    expect(outOfSequence(read(ublOrder({ ...order, revision: 2 })))).toEqual([]);
  });

  it('carries what an order says', () => {
    const told = parse(order);
    expect(told).toMatchObject({
      '@_xmlns': 'urn:oasis:names:specification:ubl:schema:xsd:Order-2',
      'cbc:UBLVersionID': '2.1',
      'cbc:ID': 'K26-0191',
      'cbc:IssueDate': '2026-05-12',
      'cbc:OrderTypeCode': '220',
      'cbc:Note': 'Ring at the gate & wait',
      'cbc:DocumentCurrencyCode': 'GBP',
      'cbc:LineCountNumeric': '2',
      'cac:BuyerCustomerParty': {
        'cac:Party': {
          'cac:PostalAddress': { 'cac:Country': { 'cbc:IdentificationCode': 'GB' } },
          'cac:Contact': { 'cbc:Name': 'Mina Rowe' },
        },
      },
      'cac:Delivery': {
        'cbc:LatestDeliveryDate': '2026-05-22',
        'cac:RequestedDeliveryPeriod': { 'cbc:EndDate': '2026-05-19' },
        'cac:CarrierParty': { 'cac:PartyName': { 'cbc:Name': 'Fenway Freight' } },
        'cac:DeliveryParty': { 'cac:Contact': { 'cbc:Name': 'Joss Fenn' } },
        'cac:DeliveryTerms': { 'cbc:SpecialTerms': 'before noon' },
      },
    });
    expect(parse({ ...order, draft: true })['cbc:Note']).toEqual([
      'Draft: this is not an order yet.',
      'Ring at the gate & wait',
    ]);
    const [first, second] = told['cac:OrderLine'] as unknown as Tree[];
    expect(first).toMatchObject({
      'cbc:Note': 'mill certificate wanted',
      'cac:LineItem': {
        'cbc:Quantity': { '@_unitCode': 'MTR', '#text': '48.0000' },
        'cac:Item': {
          'cac:BuyersItemIdentification': { 'cbc:ID': 'TU-316-38' },
          'cac:SellersItemIdentification': { 'cbc:ID': '88120' },
          'cac:StandardItemIdentification': { 'cbc:ID': { '@_schemeID': '0160', '#text': '4006381333931' } },
        },
      },
    });
    expect(second?.['cac:LineItem']?.['cac:Delivery']).toMatchObject({
      'cac:DeliveryParty': { 'cac:PartyName': { 'cbc:Name': 'Galvaniser' } },
    });
    expect(parse({ ...order, revision: 2 })).toMatchObject({
      'cbc:OrderTypeCode': '230',
      'cac:OrderDocumentReference': { 'cbc:VersionID': '2' },
    });
  });

  it('adds up by the rules of EN 16931', () => {
    const told = parse(order);
    const sums = told['cac:AnticipatedMonetaryTotal'] as Tree;
    const [all, parts] = [told['cac:OrderLine'] as unknown as Tree[], told['cac:AllowanceCharge'] as unknown as Tree[]];
    const nets = all.map((l) => amount(l['cac:LineItem']?.['cbc:LineExtensionAmount']));
    const total = (amounts: Big[]) => amounts.reduce((a, b) => a.plus(b), new Big(0));
    // BR-CO-10: the sum of the lines' net amounts.
    expect(amount(sums['cbc:LineExtensionAmount']).eq(total(nets))).toBe(true);
    const isCharge = (a: Tree) => String(a['cbc:ChargeIndicator']) === 'true';
    const charged = total(parts.filter(isCharge).map((a) => amount(a['cbc:Amount'])));
    const allowed = total(parts.filter((a) => !isCharge(a)).map((a) => amount(a['cbc:Amount'])));
    expect([
      amount(sums['cbc:ChargeTotalAmount']).eq(charged),
      amount(sums['cbc:AllowanceTotalAmount']).eq(allowed),
    ]).toEqual([true, true]);
    // BR-CO-13: lines less allowances plus charges.
    const net = total(nets).minus(allowed).plus(charged);
    expect(amount(sums['cbc:TaxExclusiveAmount']).eq(net)).toBe(true);
    const rates = told['cac:TaxTotal']?.['cac:TaxSubtotal'] as unknown as Tree[];
    for (const r of rates) {
      // BR-S-9: each rate's tax is its base times the rate, rounded once.
      const rate = new Big(String(r['cac:TaxCategory']?.['cbc:Percent']));
      const exact = amount(r['cbc:TaxableAmount']).times(rate).div(100).round(2, Big.roundHalfUp);
      expect(amount(r['cbc:TaxAmount']).eq(exact)).toBe(true);
    }
    // BR-CO-14 and BR-CO-15.
    const taxes = total(rates.map((r) => amount(r['cbc:TaxAmount'])));
    expect(amount(told['cac:TaxTotal']?.['cbc:TaxAmount']).eq(taxes)).toBe(true);
    expect(amount(sums['cbc:TaxInclusiveAmount']).eq(net.plus(taxes))).toBe(true);
    // A line's net is its quantity at the price for the base quantity: BT-131 of BT-129, BT-146 and BT-149.
    for (const l of all) {
      const item = l['cac:LineItem'] as Tree;
      const per = new Big(String(item['cac:Price']?.['cbc:BaseQuantity']?.['#text']));
      const exact = amount(item['cbc:Quantity']).times(amount(item['cac:Price']?.['cbc:PriceAmount'])).div(per);
      expect(amount(item['cbc:LineExtensionAmount']).eq(exact.round(2, Big.roundHalfUp))).toBe(true);
    }
    // The net price is the gross price less its discount: BT-146 = BT-148 − BT-147.
    const off = all[0]?.['cac:LineItem']?.['cac:Price'] as Tree;
    const allowance = off['cac:AllowanceCharge'] as Tree;
    expect(
      amount(off['cbc:PriceAmount']).eq(amount(allowance['cbc:BaseAmount']).minus(amount(allowance['cbc:Amount']))),
    ).toBe(true);
    // A discount that is so much of the lines: BT-92 = BT-93 × BT-94.
    const share = parts.find((a) => !isCharge(a)) as Tree;
    const percent = new Big(String(share['cbc:MultiplierFactorNumeric']));
    expect(
      amount(share['cbc:Amount']).eq(amount(share['cbc:BaseAmount']).times(percent).div(100).round(2, Big.roundHalfUp)),
    ).toBe(true);
  });

  it('writes currencies of 0 and 3 decimals as they are', () => {
    const told = (currency: string) =>
      parse({ ...order, currency })['cac:AnticipatedMonetaryTotal']?.['cbc:PayableAmount'];
    expect(told('JPY')).toEqual({ '@_currencyID': 'JPY', '#text': String(totals.gross) });
    expect(told('KWD')).toEqual({ '@_currencyID': 'KWD', '#text': (totals.gross / 1000).toFixed(3) });
  });

  it.each([']]>', '<!--', '&amp; &', '\u0000\u0008 bell', '"quoted" ‘so’', '\u202eright to left', 'é'.repeat(500)])(
    'stays well formed with %j in its words',
    (words) => {
      const hostile = ublOrder({
        ...order,
        instructions: words,
        seller: { ...order.seller, name: words, address: words },
        lines: [line({ description: words, note: words, ourNumber: words, theirNumber: words })],
      });
      expect(XMLValidator.validate(hostile)).toBe(true);
    },
  );
});
