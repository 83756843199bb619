import { isCharge } from '@/core/orders/kinds';
import { taxNameOf } from '@/formats/taxes';
import { measured } from '@/core/quantity/units';
import type { Day } from '@/core/calendar/workdays';
import { nameOfFile } from '@/core/files/kinds';
import { add, formatAmount, formatMoney, type Minor } from '@/core/money/money';
import { orderTotals } from '@/core/orders/order';
import type { OrderChange, ToldOrder } from '@/core/orders/revising';
import { isUnsent } from '@/core/orders/states';
import { wantsCertificate } from '@/core/receiving/certificates';
import { counted } from '@/core/words';
import type { OrderPaper, PaperLine } from '@/formats/pdf/purchaseOrder';
import { loadCompany, loadTaxCodes } from '@/store/company';
import type { Db } from '@/store/db';
import { goesWith } from '@/store/files';
import { loadItems } from '@/store/gathering';
import { findOrder, type LineToSave, type StoredOrder } from '@/store/orders';
import { cancelledFrom, changesBetween, findRevision, placesOf, revise } from './revise';
import { blocksFor } from '@/store/textBlocks';
import { dayOnPaper, priceOnPaper } from './orderInWords';

/** An order as it goes out next: as it stands, or as the revision has it that is being written. */
export type Outgoing = Omit<StoredOrder, 'lines'> & {
  readonly lines: readonly (Omit<LineToSave, 'splits'> & {
    readonly net: Minor;
    readonly number: number;
    readonly splits: readonly { readonly jobId: number | null }[];
  })[];
};

export type Going = {
  readonly order: Outgoing;
  readonly revision: number;
  readonly changes: readonly OrderChange[];
  /** It has not gone out yet as it stands here. */
  readonly draft: boolean;
  /** The day it went out, or today. */
  readonly issuedOn: Day;
};

/** What of an order goes out next; undefined for an order that is not there. */
export async function outgoing(db: Db, orderId: number, today: Day): Promise<Going | undefined> {
  const order = await findOrder(db, orderId);
  if (order === undefined) return undefined;
  const revision = await findRevision(db, orderId);
  const draft = isUnsent(order.state, order.sentFrom);
  const as: Going = {
    ...{ order: await askingForCertificates(db, order, order), revision: order.revision, changes: [] },
    ...{ draft, issuedOn: draft ? today : await sentLastOn(db, order, today) },
  };
  if (revision === undefined) return as;
  const revised = await revise(db, order, revision.content, today);
  // One that cannot go as it is written is told of where it is written.
  if (!revised.ok) return as;
  const changes = await changesBetween(db, order, revised.value, today);
  const next = { order: await askingForCertificates(db, order, revised.value), revision: order.revision + 1, changes };
  return { ...next, draft: true, issuedOn: today };
}

/** The day an order went out as it is in force now. */
async function sentLastOn(db: Db, { id: orderId, revision, sentOn }: StoredOrder, today: Day): Promise<Day> {
  const sent = await db('orderRevision').where({ orderId, number: revision }).first('day');
  return sent?.day ?? sentOn ?? today;
}

/** What goes out, with a word in the notes of what has to come with a certificate; the stored order knows which lines are marked. */
async function askingForCertificates(db: Db, stored: StoredOrder, going: Outgoing): Promise<Outgoing> {
  const marked = new Map(stored.lines.map((l) => [l.id, l]));
  const items = await loadItems(
    db,
    going.lines.flatMap((l) => l.itemId ?? []),
  );
  const lines = going.lines.map((l) =>
    wantsCertificate(l.kind, marked.get(l.id ?? 0), items.get(l.itemId ?? 0))
      ? { ...l, note: [l.note, 'Certificate required'].filter(Boolean).join(' · ') }
      : l,
  );
  return { ...going, lines };
}

/** In words, what a revision changes in one thing. */
const changed = ({ changes }: OrderChange): string =>
  changes
    .filter((c) => c.what !== 'Description')
    .map((c) => `${c.what.toLowerCase()} ${c.was || 'none'} → ${c.is || 'none'}`)
    .join(', ');

/** In words, line by line, what a revision changes. */
export const revisedWords = (changes: readonly OrderChange[]): string[] =>
  changes.map((c) => {
    if (c.how === 'term') return `${c.name}: ${c.changes[0]?.was || 'none'} → ${c.changes[0]?.is || 'none'}`;
    if (c.how === 'gone') return `Line ${c.number}, ${c.name}: cancelled`;
    return c.how === 'new' ? `Line ${c.number}, ${c.name}: added` : `Line ${c.number}, ${c.name}: ${changed(c)}`;
  });

/** Gathers all that stands on an order's paper as it goes out next; undefined for an order that is not there. */
export async function loadPaper(db: Db, orderId: number, today: Day, sending = false): Promise<OrderPaper | undefined> {
  const going = await outgoing(db, orderId, today);
  if (going === undefined) return undefined;
  const { order, revision, changes, draft, issuedOn } = going;
  const company = await loadCompany(db);
  const supplier = await db('supplier').where({ id: order.supplierId }).first();
  const buyer = await db('person').where({ id: order.madeBy }).first('name');
  const places = await placesOf(db, order);
  const place = places.get(order.placeId);
  if (supplier === undefined || place === undefined) return undefined;
  const { currency } = order;
  const lines = order.lines.map((l) => ({ ...l, splits: [] }));
  const taxName = await taxNameOf(company.country);
  const totals = orderTotals(lines, await loadTaxCodes(db), currency);
  const day = (d: Day | null) => dayOnPaper(d, today);
  const money = (a: Minor) => formatAmount(a, currency);
  const inLines = new Map(changes.filter((c) => c.how === 'new' || c.how === 'changed').map((c) => [c.number, c]));
  const mark = (number: number) => {
    const own = inLines.get(number);
    return own === undefined ? '' : own.how === 'new' ? 'New in this revision' : `Revised: ${changed(own)}`;
  };
  return {
    number: order.number,
    draft: draft && !sending,
    revision,
    size: company.paper,
    date: day(issuedOn),
    company,
    taxName,
    supplier,
    deliverTo: place,
    wanted: day(order.wantedOn),
    latest: order.latestOn === null ? '' : day(order.latestOn),
    carrier: [order.carrier, order.carrierService].filter(Boolean).join(', '),
    siteContact: order.siteContact,
    payment: `${counted(supplier.paymentDays, 'day')} from date of invoice`,
    buyer: buyer?.name ?? '',
    instructions: order.instructions,
    currency,
    lines: byNumber([
      ...order.lines.map((l) => ({
        number: l.number,
        struck: false,
        description: l.description,
        ourNumber: l.ourNumber,
        theirNumber: l.theirNumber,
        notes: [
          l.note,
          l.placeId === null ? '' : `Deliver to ${placeWords(places.get(l.placeId))}`,
          mark(l.number),
        ].filter(Boolean),
        quantity: isCharge(l) ? '' : measured(l.quantity, l.unit),
        price: priceOnPaper(l, currency),
        wanted: isCharge(l) ? '' : day(l.wantedOn),
        net: money(l.net),
      })),
      ...(await cancelledFrom(db, order)).map(struck),
    ]),
    totals: [
      ...(totals.charges === 0
        ? []
        : [
            { label: 'Goods and services', amount: money(totals.lines) },
            { label: 'Charges', amount: money(totals.charges) },
          ]),
      { label: `Total excl. ${taxName}`, amount: money(totals.net) },
      ...totals.taxes.map((t) => ({ label: `${t.name} on ${money(t.base)}`, amount: money(t.tax) })),
      { label: `Total incl. ${taxName}`, amount: formatMoney(add(totals.net, totals.tax), currency), strong: true },
    ],
    goesWith: (await goesWith(db, orderId)).map(nameOfFile),
    revised: revisedWords(changes.filter((c) => c.how === 'term')),
    terms: [...(await blocksFor(db, order)), company.orderTerms].filter(Boolean).join('\n\n'),
  };
}

const byNumber = (lines: readonly PaperLine[]): PaperLine[] => lines.toSorted((a, b) => a.number - b.number);

/** A line that was sent and is cancelled: it stands struck, with its number and what it said. */
const struck = ({ number, name, says }: ToldOrder['lines'][number]): PaperLine => ({
  ...{ number, struck: true, description: name, ourNumber: '', theirNumber: says['Supplier’s item no.'] ?? '' },
  ...{ notes: ['Cancelled'], quantity: says.Quantity ?? '', price: says.Price ?? '', wanted: '', net: '' },
});

const placeWords = (place: { name: string; address: string } | undefined): string =>
  place === undefined ? '' : `${place.name}, ${place.address.replaceAll('\n', ', ')}`;
