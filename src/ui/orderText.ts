import { ungrouped } from '@/core/locale/locale';
import { formatPrice, parsePrice, type UnitPrice } from '@/core/money/money';
import {
  formatQuantity,
  fromSupplierUnit,
  ONE,
  parseQuantity,
  quantity,
  SAME_UNIT,
  type Factor,
  type Quantity,
} from '@/core/quantity/quantity';
import { exactFactor, unitOf } from '@/core/quantity/units';
import type { LineKind } from '@/core/orders/order';
import type { StoredLine, StoredOrder } from '@/store/orders';
import { counted } from '@/core/words';

/** An order as a person types it. */
export type SplitText = {
  /** Its line of the tab; undefined for a new part. */
  readonly id?: number;
  readonly jobId: string;
  readonly costCodeId: string;
  readonly needId: number | null;
  /** In the unit of the line's parts. */
  readonly quantity: string;
};

export type LineText = {
  readonly key: string;
  readonly id?: number;
  readonly kind: LineKind;
  readonly itemId: number | null;
  readonly ourNumber: string;
  readonly description: string;
  readonly theirNumber: string;
  readonly quantity: string;
  readonly unit: string;
  readonly price: string;
  readonly priceQuantity: string;
  readonly taxCodeId: string;
  readonly wantedOn: string;
  readonly chargeCodeId: string;
  /** The unit it was bought in, and that of its parts, with how many of these are in how many of that. */
  readonly bought: { readonly unit: string; readonly shareUnit: string; readonly factor: Factor };
  readonly splits: readonly SplitText[];
};

export type OrderText = {
  readonly placeId: string;
  readonly wantedOn: string;
  readonly carrier: string;
  readonly instructions: string;
  readonly lines: readonly LineText[];
};

const quantityText = (q: Quantity) => ungrouped(formatQuantity(q));
const idText = (id: number | null) => (id === null ? '' : String(id));
const asId = (text: string) => (text === '' ? null : Number(text));

const lineText = (l: StoredLine, currency: string): LineText => ({
  key: `line ${l.id}`,
  id: l.id,
  kind: l.kind,
  itemId: l.itemId,
  ourNumber: l.ourNumber,
  description: l.description,
  theirNumber: l.theirNumber,
  quantity: quantityText(l.quantity),
  unit: l.unit,
  price: l.price === null ? '' : ungrouped(formatPrice(l.price, currency)),
  priceQuantity: String(l.priceQuantity),
  taxCodeId: String(l.taxCodeId),
  wantedOn: l.wantedOn ?? '',
  chargeCodeId: idText(l.chargeCodeId),
  bought: { unit: l.unit, shareUnit: l.shareUnit, factor: l.factor },
  splits:
    l.kind === 'charge'
      ? []
      : l.splits.map((s) => ({
          id: s.id,
          jobId: idText(s.jobId),
          costCodeId: idText(s.costCodeId),
          needId: s.needId,
          quantity: quantityText(s.quantity),
        })),
});

export const orderText = (order: StoredOrder): OrderText => ({
  placeId: String(order.placeId),
  wantedOn: order.wantedOn ?? '',
  carrier: order.carrier,
  instructions: order.instructions,
  lines: order.lines.map((l) => lineText(l, order.currency)),
});

export const newLine = (kind: LineKind, taxCodeId: number, count: number): LineText => ({
  key: `new ${count}`,
  kind,
  itemId: null,
  ourNumber: '',
  description: '',
  theirNumber: '',
  quantity: '1',
  unit: 'C62',
  price: '',
  priceQuantity: '1',
  taxCodeId: String(taxCodeId),
  wantedOn: '',
  chargeCodeId: '',
  bought: { unit: 'C62', shareUnit: 'C62', factor: SAME_UNIT },
  splits: kind === 'charge' ? [] : [{ jobId: '', costCodeId: '', needId: null, quantity: '1' }],
});

/** The unit that a line's parts are in, and how many of it are in how many of the line's. */
export function partsOf({ unit, bought }: LineText): { readonly unit: string; readonly factor: Factor } {
  if (unit === bought.unit) return { unit: bought.shareUnit, factor: bought.factor };
  const exact = exactFactor(unit, bought.shareUnit);
  return exact === undefined ? { unit, factor: SAME_UNIT } : { unit: bought.shareUnit, factor: exact };
}

function shareText(line: LineText, text: string): string {
  const { factor } = partsOf(line);
  const read = parseQuantity(text);
  return factor.many === factor.one || !read.ok ? text : quantityText(fromSupplierUnit(read.value, factor));
}

/** A line with another quantity; its only split goes with it. */
export function withQuantity(line: LineText, text: string): LineText {
  const [only] = line.splits;
  return {
    ...line,
    quantity: text,
    splits:
      line.splits.length === 1 && only !== undefined ? [{ ...only, quantity: shareText(line, text) }] : line.splits,
  };
}

type Fault = { readonly field: string; readonly message: string };

/** Reads a typed order; what cannot be read is told by field, as `lines.2.price`. */
export function readOrder(text: OrderText) {
  const faults: Fault[] = [];
  const take = <T>(
    field: string,
    read: { ok: true; value: T } | { ok: false; refusals: readonly { message: string }[] },
    instead: T,
  ): T => {
    if (read.ok) return read.value;
    faults.push({ field, message: read.refusals[0]?.message ?? '' });
    return instead;
  };
  const lines = text.lines.map((l, k) => {
    const at = (field: string) => `lines.${k}.${field}`;
    const per = Number(l.priceQuantity);
    if (!Number.isInteger(per) || per < 1)
      faults.push({ field: at('priceQuantity'), message: 'A price is for a whole number from 1.' });
    l.splits.forEach(
      (s) =>
        s.jobId !== '' &&
        s.costCodeId === '' &&
        faults.push({ field: at('splits'), message: 'Choose a cost code for the job.' }),
    );
    return {
      ...(l.id === undefined ? {} : { id: l.id }),
      kind: l.kind,
      itemId: l.itemId,
      ourNumber: l.ourNumber,
      description: l.description,
      theirNumber: l.theirNumber,
      quantity: l.kind === 'charge' ? ONE : take(at('quantity'), parseQuantity(l.quantity), quantity(0)),
      unit: l.kind === 'charge' ? 'C62' : l.unit,
      price: l.price.trim() === '' ? null : take(at('price'), parsePrice(l.price), 0 as UnitPrice),
      priceQuantity: per,
      taxCodeId: Number(l.taxCodeId),
      wantedOn: l.wantedOn,
      chargeCodeId: asId(l.chargeCodeId),
      splits: l.splits.map((s) => ({
        ...(s.id === undefined ? {} : { id: s.id }),
        jobId: asId(s.jobId),
        costCodeId: s.jobId === '' ? null : asId(s.costCodeId),
        quantity: take(at('splits'), parseQuantity(s.quantity), quantity(0)),
      })),
    };
  });
  return {
    faults,
    value: {
      placeId: Number(text.placeId),
      wantedOn: text.wantedOn,
      carrier: text.carrier,
      instructions: text.instructions,
      lines,
    },
  };
}

export type Difference = {
  readonly key: string;
  readonly label: string;
  readonly mine: string;
  readonly theirs: string;
};

const HEAD = { placeId: 'Deliver to', wantedOn: 'Wanted', carrier: 'Carrier', instructions: 'Instructions' } as const;

const said = (l: LineText) =>
  (l.kind === 'charge'
    ? `${l.description}, ${l.price}`
    : `${l.quantity} ${unitOf(l.unit).short} ${l.description} at ${l.price === '' ? 'no price' : l.price}${l.wantedOn === '' ? '' : `, wanted ${l.wantedOn}`}`
  )
    .replace(/\s+/g, ' ')
    .trim();
const same = (a: LineText, b: LineText) => JSON.stringify({ ...a, key: '' }) === JSON.stringify({ ...b, key: '' });

/** Where two people's versions of one order differ: fields of its head, and lines as a whole. */
export function differences(mine: OrderText, theirs: OrderText): Difference[] {
  const head = (Object.keys(HEAD) as (keyof typeof HEAD)[])
    .filter((k) => mine[k] !== theirs[k])
    .map((k) => ({ key: k, label: HEAD[k], mine: mine[k] || 'nothing', theirs: theirs[k] || 'nothing' }));
  const keys = [...new Set([...theirs.lines, ...mine.lines.filter((l) => l.id !== undefined)].map((l) => l.key))];
  const lines = keys.flatMap((key): Difference[] => {
    const [m, t] = [mine.lines.find((l) => l.key === key), theirs.lines.find((l) => l.key === key)];
    if (m !== undefined && t !== undefined && same(m, t)) return [];
    const charged = m !== undefined && t !== undefined && said(m) === said(t);
    const words = (l: LineText | undefined) =>
      l === undefined ? 'taken off' : charged ? `${said(l)}, charged in ${counted(l.splits.length, 'part')}` : said(l);
    return [{ key, label: 'Line', mine: words(m), theirs: words(t) }];
  });
  return [...head, ...lines];
}

/** One version from two: for each difference the side that was chosen; lines I added stay. */
export function settle(
  mine: OrderText,
  theirs: OrderText,
  chosen: Readonly<Record<string, 'mine' | 'theirs'>>,
): OrderText {
  const of = (key: string) => (chosen[key] === 'theirs' ? theirs : mine);
  const keys = [...new Set([...theirs.lines, ...mine.lines].map((l) => l.key))];
  const lines = keys.flatMap((key) => {
    const added = key.startsWith('new');
    const line = (added ? mine : of(key)).lines.find((l) => l.key === key);
    if (line === undefined) return [];
    // A line that the other person took off is a new one when it is kept.
    return [
      theirs.lines.some((l) => l.key === key) || added
        ? line
        : { ...line, id: undefined, splits: line.splits.map((s) => ({ ...s, id: undefined, needId: null })) },
    ];
  });
  return {
    placeId: of('placeId').placeId,
    wantedOn: of('wantedOn').wantedOn,
    carrier: of('carrier').carrier,
    instructions: of('instructions').instructions,
    lines,
  };
}
