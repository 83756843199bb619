import { asDay, dayInFigures } from '../calendar/workdays';
import type { Changes } from '../difference';
import { formatMoney, formatPrice, type Minor, type UnitPrice } from '../money/money';
import { formatDecimal } from '../money/decimal';
import { formatQuantity, type Quantity } from '../quantity/quantity';
import { findUnit } from '../quantity/units';

/** One field that changed, in words; `from` is left out for what is new, `to` for what is gone. */
export type ToldChange = { readonly what: string; readonly from?: string; readonly to?: string };

/** What records name by id. */
const NAMED = [
  'person',
  'job',
  'costCode',
  'supplier',
  'item',
  'place',
  'tax',
  'customer',
  'order',
  'quote',
  'invoice',
] as const;
export type NamedKind = (typeof NAMED)[number];

export type Look = {
  /** The company's currency. */
  readonly own: string;
  /** The currency of the document that the record is about. */
  readonly document: string;
  /** What a thing is called, where it is known. */
  readonly name: (kind: NamedKind, id: number) => string | undefined;
  /** What a line of the document is called, by its id. */
  readonly line: (id: number) => string | undefined;
};

type Kind = 'own money' | 'document money' | 'price' | 'quantity' | 'share' | 'yes or no' | 'unit' | NamedKind;

const kinds = (kind: Kind, fields: string): readonly (readonly [string, Kind])[] =>
  fields.split(' ').map((f) => [f, kind] as const);

/** How the value of a field is written; what is not here is written as it stands. */
const KINDS: ReadonlyMap<string, Kind> = new Map([
  ...kinds(
    'own money',
    'budget value valueAbove overAbove over ownLimit ownPassLimit priceToleranceMost signToleranceMost countLimit quoteChange priceNet',
  ),
  ...kinds('document money', 'net gross tax typedTotal amount invoicedAmount carriage carriageFreeFrom minimumOrder'),
  ...kinds('price', 'price grossPrice confirmedPrice cost'),
  ...kinds(
    'quantity',
    'quantity arrives rejected held released givenUp received invoiced keep buy minimum pack weight fromQuantity share',
  ),
  ...kinds('share', 'discount scrap priceToleranceShare signToleranceShare overDelivery markup done recoverable rate'),
  ...kinds(
    'yes or no',
    'active gone free onRule keepOver usual optional ticked stocked bought certificate inspected passed',
  ),
  ...kinds('unit', 'unit shareUnit'),
  ...kinds('person', 'personId leadId deputyId plannerId'),
  ...kinds('job', 'jobId'),
  ...kinds('costCode', 'costCodeId chargeCodeId freightCodeId'),
  ...kinds('supplier', 'supplierId'),
  ...kinds('item', 'itemId'),
  ...kinds('place', 'placeId'),
  ...kinds('tax', 'taxCodeId'),
  ...kinds('customer', 'customerId'),
  ...kinds('order', 'orderId'),
  ...kinds('quote', 'quoteId'),
  ...kinds('invoice', 'invoiceId'),
]);

/** Columns that only the file needs. */
const UNTOLD = new Set(
  'id version once place one many counted madeBy madeAt at lineId fromLineId needId sentFrom priceQuantity'.split(' '),
);

/** Fields that the trade calls otherwise than the columns are named. */
const CALLED: Readonly<Record<string, string>> = {
  net: 'net',
  gross: 'total incl. tax',
  keep: 'minimum stock',
  dueOn: 'due',
  neededOn: 'needed by',
  wantedOn: 'required by',
  promisedOn: 'promised',
  wonBy: 'accepted by',
  offsetDays: 'days after start',
  toDay: 'to',
  fromDay: 'from',
  onRule: 'when a rule asks',
  over: 'accepted overspend',
};

/** @example 'needed on', for the column neededOn; an id is left off: 'tax code' for taxCodeId */
const wordsOf = (field: string): string =>
  CALLED[field] ??
  field
    .replace(/Id$/, '')
    .replace(/[A-Z]/g, (c) => ` ${c.toLowerCase()}`)
    .trim();

/** @example pathInWords('lines.#45.price', look) // 'line 2, Tube 316L, price', where that is what line 45 is called */
function pathInWords(path: string, look: Look): string {
  const steps: string[] = [];
  for (const step of path.split('.').filter(Boolean)) {
    const row = /^(#?)(\d+)$/.exec(step);
    const list = steps.at(-1)?.replace(/s$/, '') ?? 'line';
    if (row === null) steps.push(wordsOf(step));
    else {
      const [, byId, n = ''] = row;
      const called = byId === '' ? `${list} ${Number(n) + 1}` : (look.line(Number(n)) ?? `${list} ${n}`);
      steps.splice(-1, 1, called);
    }
  }
  return steps.join(', ');
}

const isNothing = (value: unknown): boolean =>
  value === null || value === undefined || value === '' || (Array.isArray(value) && value.length === 0);

/** One value as people write it. */
function inWords(field: string, value: unknown, look: Look): string {
  if (isNothing(value)) return '(empty)';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  const kind = KINDS.get(field);
  if (typeof value === 'number')
    switch (kind) {
      case undefined:
        return String(value);
      case 'own money':
        return formatMoney(value as Minor, look.own);
      case 'document money':
        return formatMoney(value as Minor, look.document);
      case 'price':
        return formatPrice(value as UnitPrice, look.document);
      case 'quantity':
        return formatQuantity(value as Quantity);
      case 'share':
        return `${formatDecimal(value, 2, 0)} %`;
      case 'yes or no':
        return value === 0 ? 'no' : 'yes';
      case 'unit':
        return String(value);
      default:
        return look.name(kind, value) ?? `number ${value}`;
    }
  const text = String(value);
  if (kind === 'unit') return findUnit(text)?.name ?? text;
  const day = asDay(text);
  return day === undefined ? text : dayInFigures(day);
}

type Leaf = { readonly path: string; readonly field: string; readonly value: unknown };

/** The single values of what was added or is gone as a whole. */
function leaves(path: string, field: string, value: unknown): Leaf[] {
  if (Array.isArray(value)) {
    if (value.every((v) => typeof v !== 'object' || v === null))
      return value.length === 0 ? [] : [{ path, field, value: value.map(String).join(', ') }];
    return value.flatMap((v, k) => leaves(`${path}.${k}`, field, v));
  }
  if (typeof value === 'object' && value !== null)
    return Object.entries(value).flatMap(([f, v]) => leaves(path === '' ? f : `${path}.${f}`, f, v));
  return [{ path, field, value }];
}

const lastField = (path: string): string =>
  path
    .split('.')
    .filter((s) => !/^#?\d+$/.test(s))
    .at(-1) ?? '';

/**
 * Tells what an audit record says has changed, field by field: amounts with their currency, days, shares and units as
 * people write them, and things by their names.
 *
 * @returns one entry for each field; columns that only the file needs, and what is new and empty or none, are left out
 * @example tellChanges({ keep: { from: 360000, to: 480000 } }, look) // [{ what: 'level to keep', from: '36', to: '48' }]
 */
export function tellChanges(changes: Changes, look: Look): ToldChange[] {
  return Object.entries(changes).flatMap(([path, { from, to }]) => {
    const field = lastField(path);
    const isWhole = (v: unknown): boolean => typeof v === 'object' && v !== null;
    if (isWhole(from) || isWhole(to))
      return [
        ...leaves(path, field, from).map((l) => ({ ...l, side: 'from' as const })),
        ...leaves(path, field, to).map((l) => ({ ...l, side: 'to' as const })),
      ]
        .filter((l) => !UNTOLD.has(l.field) && !isNothing(l.value) && l.value !== 0 && l.value !== false)
        .map((l) => ({ what: pathInWords(l.path, look), [l.side]: inWords(l.field, l.value, look) }));
    if (UNTOLD.has(field) || (isNothing(from) && isNothing(to))) return [];
    return [
      {
        what: pathInWords(path, look),
        ...(from === undefined ? {} : { from: inWords(field, from, look) }),
        ...(to === undefined ? {} : { to: inWords(field, to, look) }),
      },
    ];
  });
}

/** The ids that changes speak of, by what they are ids of. */
export function namedIn(changes: Changes): ReadonlyMap<NamedKind, ReadonlySet<number>> {
  const found = new Map<NamedKind, Set<number>>();
  for (const [path, { from, to }] of Object.entries(changes))
    for (const { field, value } of [...leaves(path, lastField(path), from), ...leaves(path, lastField(path), to)]) {
      const kind = KINDS.get(field);
      if (typeof value === 'number' && kind !== undefined && isNamed(kind))
        found.set(kind, (found.get(kind) ?? new Set()).add(value));
    }
  return found;
}

const isNamed = (kind: Kind): kind is NamedKind => (NAMED as readonly string[]).includes(kind);
