import { isCharge } from '@/core/orders/kinds';
import { unitOf } from '@/core/quantity/units';
import { PLACES } from '@/core/quantity/quantity';
import { PRICE_PLACES, ZERO, minor, type UnitPrice } from '@/core/money/money';
import { decimalsOf } from '@/core/money/currencies';
import type { TaxCode } from '@/core/money/tax';
import { isShareOfLines, netOf, orderTotals } from '@/core/orders/order';
import type { Column } from '@/formats/sheet/column';
import type { Attachment } from '@/formats/mail/compose';
import { writeCsv } from '@/formats/sheet/csv';
import { ublOrder, type OrderData } from '@/formats/ubl/order';
import type { Day } from '@/core/calendar/workdays';
import { loadCompany, loadTaxCodes } from '@/store/company';
import type { Db } from '@/store/db';
import { loadItems } from '@/store/gathering';
import { outgoing, type Going } from './paper';
import { placesOf } from './revise';

/** An order as data, as it stands or as a revision has it. */
export async function loadOrderData(db: Db, { order, revision, draft, issuedOn }: Going): Promise<OrderData> {
  const { currency } = order;
  const company = await loadCompany(db);
  const supplier = await db('supplier').where({ id: order.supplierId }).first();
  const buyer = await db('person').where({ id: order.madeBy }).first('name');
  const places = await placesOf(db, order);
  const place = (id: number) => places.get(id) ?? { name: '', address: '' };
  const taxes = await loadTaxCodes(db);
  const items = await loadItems(
    db,
    order.lines.flatMap((l) => l.itemId ?? []),
  );
  const taxOf = (id: number): Pick<TaxCode, 'category' | 'rate'> =>
    taxes.find((t) => t.id === id) ?? { category: 'O', rate: 0 };
  const full = order.lines.map((l) => ({ ...l, splits: [] }));
  const baseOf = (taxCodeId: number) =>
    minor(
      full.filter((l) => !isCharge(l) && l.taxCodeId === taxCodeId).reduce((sum, l) => sum + netOf(l, currency), 0),
    );
  return {
    number: order.number,
    revision,
    draft,
    day: issuedOn,
    currency,
    instructions: order.instructions,
    carrier: order.carrier,
    carrierService: order.carrierService,
    siteContact: order.siteContact,
    buyer: company,
    contact: buyer?.name ?? '',
    seller: {
      name: supplier?.name ?? '',
      address: supplier?.address ?? '',
      email: supplier?.email ?? '',
      taxNumber: '',
      country: '',
    },
    deliverTo: place(order.placeId),
    wantedOn: order.wantedOn,
    latestOn: order.latestOn,
    paymentDays: supplier?.paymentDays ?? 0,
    totals: orderTotals(full, taxes, currency),
    charges: full.flatMap((l) =>
      isCharge(l)
        ? [
            {
              place: l.number,
              reason: l.description,
              note: l.note,
              amount: netOf(l, currency),
              share: isShareOfLines(l) ? { percent: l.discount, base: baseOf(l.taxCodeId) } : null,
              tax: taxOf(l.taxCodeId),
            },
          ]
        : [],
    ),
    lines: full.flatMap((l) =>
      isCharge(l)
        ? []
        : [
            {
              place: l.number,
              description: l.description,
              note: l.note,
              ourNumber: l.ourNumber,
              theirNumber: l.theirNumber,
              gtin: items.get(l.itemId ?? 0)?.gtin ?? null,
              quantity: l.quantity,
              unit: l.unit,
              price: l.price ?? (ZERO as number as UnitPrice),
              grossPrice: l.grossPrice,
              priceQuantity: l.priceQuantity,
              net: netOf(l, currency),
              wantedOn: l.wantedOn,
              deliverTo: l.placeId === null ? null : place(l.placeId),
              tax: taxOf(l.taxCodeId),
            },
          ],
    ),
  };
}

/** A line of an order as a list, or one of its charges, which has no quantity. */
type Row = Pick<OrderData['lines'][number], 'place' | 'description' | 'note' | 'net' | 'tax'> & {
  readonly goods?: OrderData['lines'][number];
};

/** All that an order comes to, line by line: charges and discounts too, so that what stands in it adds up to its total. */
export const orderRows = ({ lines, charges }: OrderData): Row[] =>
  [
    ...lines.map((l) => ({ ...l, goods: l })),
    ...charges.map(({ reason, amount, ...c }) => ({ ...c, description: reason, net: amount })),
  ].sort((a, b) => a.place - b.place);

/** The columns of an order as a list. */
export const orderListColumns = ({ number, draft, currency }: OrderData): Column<Row>[] => [
  { head: 'Order', cell: () => ({ text: draft ? `${number} (draft)` : number }) },
  { head: 'Line', cell: (l) => ({ whole: l.place }) },
  { head: 'Buyer’s item no.', cell: ({ goods }) => goods && { text: goods.ourNumber } },
  { head: 'Supplier’s item no.', cell: ({ goods }) => goods && { text: goods.theirNumber } },
  { head: 'Description', cell: (l) => ({ text: l.description }) },
  { head: 'Quantity', cell: ({ goods }) => goods && { scaled: goods.quantity, places: PLACES } },
  { head: 'Unit', cell: ({ goods }) => goods && { text: unitOf(goods.unit).name } },
  { head: `Unit price ${currency}`, cell: ({ goods }) => goods && { scaled: goods.price, places: PRICE_PLACES } },
  { head: 'Price per', cell: ({ goods }) => goods && { whole: goods.priceQuantity } },
  { head: `Net ${currency}`, cell: (l) => ({ scaled: l.net, places: decimalsOf(currency) }) },
  { head: 'Tax %', cell: (l) => ({ scaled: l.tax.rate, places: 2 }) },
  { head: 'Required by', cell: ({ goods }) => (goods?.wantedOn == null ? undefined : { day: goods.wantedOn }) },
  { head: 'Note', cell: (l) => ({ text: l.note }) },
];

/** The data files that an order's supplier takes with it: UBL, CSV. */
export async function dataFiles(db: Db, orderId: number, today: Day): Promise<Attachment[]> {
  const going = await outgoing(db, orderId, today);
  if (going === undefined) return [];
  const supplier = await db('supplier').where({ id: going.order.supplierId }).first('dataFiles');
  const wanted = (supplier?.dataFiles ?? '').split(',');
  const files: Attachment[] = [];
  for (const kind of ['ubl', 'csv'] as const)
    if (wanted.includes(kind)) files.push(await dataFile(db, { ...going, draft: false, issuedOn: today }, kind));
  return files;
}

/** One order as a file of data; a draft says so in its name as well. */
export async function dataFile(db: Db, going: Going, kind: 'ubl' | 'csv'): Promise<Attachment> {
  const data = await loadOrderData(db, going);
  const name = data.draft ? `${data.number}-draft` : data.number;
  if (kind === 'ubl') return { name: `${name}.xml`, type: 'application/xml', bytes: Buffer.from(ublOrder(data)) };
  const parts: string[] = [];
  for await (const part of writeCsv(orderListColumns(data), once(orderRows(data)))) parts.push(part);
  return { name: `${name}.csv`, type: 'text/csv; charset=utf-8', bytes: Buffer.from(parts.join('')) };
}

async function* once<R>(rows: readonly R[]) {
  yield rows;
}
