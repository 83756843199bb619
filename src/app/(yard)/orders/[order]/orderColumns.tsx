import { followsLines, isCharge, isGoodsLine } from '@/core/orders/kinds';
import { asDay, monthOf, type Day } from '@/core/calendar/workdays';
import { parseDecimal } from '@/core/money/decimal';
import { formatAmount, formatPrice, parsePrice, signOf, type Minor } from '@/core/money/money';
import { lessDiscount, SPREAD_NAMES } from '@/core/orders/charges';
import { formatQuantity, parseQuantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import { sourceOf } from '@/core/sourcing/source';
import type { ItemTerms } from '@/queries/orders/terms';
import type { ItemChoice, Choice } from '@/queries/frame/choices';
import { named, type EntryColumn } from '@/ui/entry/column';
import { unitEntry } from '@/ui/entry/unit';
import { Dash } from '@/ui/kit/Sheet';
import { chosen, wordsOfChoice as textOf, type PickedText } from '@/ui/entry/reading';
import { partsOf, STORES, withItem, withQuantity, type LineText, type SplitText } from '@/ui/orders/orderLineText';

/** A row of the order's sheet: a line, or a part of the line above it. */
export type OrderRow = {
  readonly line: LineText;
  /** The line's place from 1, and the part's from 0. */
  readonly n: number;
  readonly part: number | undefined;
  /** In the order's currency for a line, in the company's for a part. */
  readonly net: Minor | undefined;
};

const STORES_THING: Choice = { ...STORES, detail: 'goods for stores' };
const FOLLOWS: Choice = { id: 0, number: '', name: 'as the lines’ codes', detail: 'by value' };

/** The part that a row speaks of: its own, or the only one of its line. */
const partOf = ({ line, part }: OrderRow): SplitText | undefined =>
  part !== undefined ? line.splits[part] : line.splits.length === 1 ? line.splits[0] : undefined;

/** A discount on the order, as a share of its lines. */
const isShare = (line: LineText): boolean => line.chargeKind === 'discount' && isCharge(line) && line.discount !== '';

/** A price with its discount as it is typed: “9.85 −5%”, or “5%” for a discount on the order. */
const asWritten = (line: LineText): string =>
  line.discount === '' ? line.price : isShare(line) ? `${line.discount}%` : `${line.price} −${line.discount}%`;

function priceTyped(text: string, before: LineText): Pick<LineText, 'price' | 'discount' | 'free'> {
  const typed = text.trim();
  if (!typed.endsWith('%')) return { price: typed, discount: '', free: false };
  const said = typed.slice(0, -1).trim();
  const at = Math.max(...[' ', '-', '−'].map((sign) => said.lastIndexOf(sign)));
  const price = said.slice(0, Math.max(at, 0)).replace(/[-−]$/, '').trim();
  // A share alone is taken off the price that stands there; a discount on the order has none.
  const kept = price === '' && !isCharge(before) ? before.price : price;
  return { price: kept, discount: said.slice(at + 1).trim(), free: false };
}

const withLine = (row: OrderRow, change: Partial<LineText>): OrderRow => ({ ...row, line: { ...row.line, ...change } });

const withPart = (row: OrderRow, change: Partial<SplitText>): OrderRow => {
  const at = row.part ?? 0;
  return withLine(row, { splits: row.line.splits.map((s, k) => (k === at ? { ...s, ...change } : s)) });
};

/** For another job it no longer covers this job's need. */
const forJob = (row: OrderRow, job: PickedText): OrderRow =>
  withPart(row, job.thing?.id === partOf(row)?.job.thing?.id ? { job } : { job, needId: null });

function taken(row: OrderRow, item: ItemChoice | Choice | null): OrderRow {
  const { line } = row;
  if (item === null) return withLine(row, { itemId: null, ourNumber: '', description: '' });
  if (isCharge(line)) return withLine(row, { description: item.name });
  return { ...row, line: withItem(line, item) };
}

/** What a line says beside its part: a note, and where it goes when it is elsewhere. */
function besides({ note, place }: LineText) {
  const words = [note, place && `to ${place.name}`].filter(Boolean).join(' · ');
  return words === '' ? null : <span className="block font-text text-amber">{words}</span>;
}

type Setting = {
  readonly currency: string;
  readonly companyCurrency: string;
  readonly terms: ReadonlyMap<number, ItemTerms>;
  readonly today: Day;
  readonly day: (day: Day) => string;
  readonly onOpen: (row: OrderRow) => void;
  readonly make: { readonly words: string; readonly onMake: (row: OrderRow, typed: string) => void } | undefined;
};

/** Where a line's price comes from, and what was paid for it last. */
function priceWords(row: OrderRow, { terms, currency, today }: Setting): string {
  const { line } = row;
  const known = terms.get(line.itemId ?? 0);
  if (known === undefined || isCharge(line)) return '';
  const [price, q] = [parsePrice(line.price), parseQuantity(line.quantity)];
  const words: string[] = [];
  const discount = parseDecimal(row.line.discount, { places: 2, most: 100 });
  if (price.ok && discount.ok)
    words.push(`less ${row.line.discount} % = ${formatPrice(lessDiscount(price.value, discount.value), currency)}`);
  if (price.ok && q.ok && line.unit === known.unit) {
    const source = sourceOf({ price: price.value, priceQuantity: Number(line.priceQuantity) }, q.value, known.prices);
    if (source.from === 'list') words.push('list price');
    if (source.from === 'break') words.push(`price break at ${formatQuantity(source.at)}`);
    if (source.from === 'typed' && source.listed !== undefined)
      words.push(`list ${formatPrice(source.listed.price, currency)}`);
  }
  const { paid } = known;
  const asPaid =
    price.ok &&
    paid?.unit === line.unit &&
    paid.price * Number(line.priceQuantity) === price.value * paid.priceQuantity;
  // What was paid is told where it was something else, or where the price comes from nowhere else.
  if (paid !== null && asPaid && words.length === 0) words.push(`as paid in ${monthOf(paid.on, today)}`);
  if (paid !== null && !asPaid) {
    const unit = paid.unit === line.unit ? '' : ` a ${unitOf(paid.unit).name}`;
    words.push(`paid ${formatPrice(paid.price, currency)}${unit} in ${monthOf(paid.on, today)}`);
  }
  return words.join(' · ');
}

const ofLine = (row: OrderRow) => row.part === undefined;
const goods = (row: OrderRow) => ofLine(row) && !isCharge(row.line);
const isPartOfGoods = (row: OrderRow) => !ofLine(row) && !isCharge(row.line);
const isPartOfCharge = (row: OrderRow) => !ofLine(row) && isCharge(row.line);

const descriptionColumn = ({ make }: Setting): EntryColumn<OrderRow> => ({
  key: 'description',
  title: 'Item',
  width: 'minmax(150px, 2.4fr)',
  wide: true,
  entry: {
    kind: 'pick',
    of: 'item',
    free: true,
    heads: /desc|item|part|article|^line$|^what/i,
    text: (row) => (ofLine(row) ? row.line.description : undefined),
    put: (row, description) =>
      withLine(row, { description, ...(description === '' ? { itemId: null, ourNumber: '' } : {}) }),
    thing: ({ line }) =>
      line.itemId === null ? null : { id: line.itemId, number: line.ourNumber, name: line.description },
    take: taken,
    make,
  },
  show: (row) => {
    const { line } = row;
    if (!ofLine(row))
      return partOf(row)?.needId == null ? (
        <span className="text-ink-2">
          {partOf(row)?.job.thing?.id === STORES.id ? 'for stores' : 'not on a buy list'}
        </span>
      ) : (
        <span className="text-ink-2">from buy list</span>
      );
    if (line.description === '')
      return <span className="text-ink-2">Item, service or charge: type, or paste rows</span>;
    return <b className="font-semibold">{line.description}</b>;
  },
  note: (row) =>
    ofLine(row) && (
      <span className="mono">
        {[row.line.ourNumber, row.line.theirNumber && `supplier’s no. ${row.line.theirNumber}`]
          .filter(Boolean)
          .join(' · ') || (isGoodsLine(row.line) ? '' : isCharge(row.line) ? '' : row.line.kind)}
        {besides(row.line)}
      </span>
    ),
});

const quantityColumn = ({ currency, terms }: Setting): EntryColumn<OrderRow> => ({
  key: 'quantity',
  title: 'Quantity',
  width: '72px',
  num: true,
  entry: {
    kind: 'number',
    heads: /^(qty|quantity|quant)\b/i,
    text: (row) => (goods(row) ? row.line.quantity : isPartOfGoods(row) ? partOf(row)?.quantity : undefined),
    put: (row, text) =>
      ofLine(row)
        ? { ...row, line: withQuantity(row.line, text, terms.get(row.line.itemId ?? 0)?.prices, currency) }
        : withPart(row, { quantity: text }),
  },
});

const unitColumn = (): EntryColumn<OrderRow> => ({
  key: 'unit',
  title: 'Unit',
  width: '58px',
  entry: unitEntry<OrderRow>(
    (row) => (goods(row) ? { unit: row.line.unit, words: row.line.unitWords } : undefined),
    (row, { unit, words }) =>
      withLine(row, {
        unit,
        unitWords: words,
        ...(row.line.id === undefined && row.line.itemId === null
          ? { bought: { ...row.line.bought, unit, shareUnit: unit } }
          : {}),
      }),
  ),
  show: (row) => {
    if (goods(row)) return row.line.unitWords || unitOf(row.line.unit).short;
    const { unit } = partsOf(row.line);
    return row.part !== undefined && unit !== row.line.unit ? unitOf(unit).short : '';
  },
});

const priceColumn = (setting: Setting): EntryColumn<OrderRow> => {
  const { currency } = setting;
  return {
    key: 'price',
    title: `Price ${signOf(currency)}`,
    width: '128px',
    num: true,
    entry: {
      kind: 'number',
      heads: /price|cost(?!\s*(code|head|centre))|^each|amount/i,
      text: (row) => (ofLine(row) ? asWritten(row.line) : isPartOfCharge(row) ? partOf(row)?.amount : undefined),
      put: (row, text) => (ofLine(row) ? withLine(row, priceTyped(text, row.line)) : withPart(row, { amount: text })),
    },
    show: (row) =>
      isPartOfCharge(row) ? (
        (partOf(row)?.amount ?? '')
      ) : !ofLine(row) || row.line.description === '' ? null : isShare(row.line) ? (
        `${row.line.discount} %`
      ) : row.line.free ? (
        <span className="tag tag-good">free</span>
      ) : row.line.price === '' ? (
        <span className="tag tag-care">No price</span>
      ) : (
        <>
          {row.line.price}
          {Number(row.line.priceQuantity) > 1 && (
            <span className="text-[12px] text-ink-2"> per {row.line.priceQuantity}</span>
          )}
        </>
      ),
    note: (row) => (ofLine(row) ? priceWords(row, setting) : null),
  };
};

const jobColumn = ({ onOpen }: Setting): EntryColumn<OrderRow> => ({
  key: 'job',
  title: 'Job',
  width: '78px',
  entry: {
    kind: 'pick',
    of: 'job',
    heads: /^(job|contract|project|order for)\b/i,
    also: [STORES_THING],
    text: (row) => (partOf(row) === undefined ? undefined : textOf(partOf(row)?.job ?? chosen(null))),
    put: (row, words) => forJob(row, chosen(null, words)),
    thing: (row) => partOf(row)?.job.thing ?? null,
    take: (row, thing) => {
      const next = forJob(row, chosen(thing && named(thing)));
      return thing?.id === STORES.id ? withPart(next, { code: chosen(null) }) : next;
    },
  },
  show: (row) => {
    const { line } = row;
    if (ofLine(row) && followsLines(line)) return <span className="text-ink-2">{SPREAD_NAMES[line.spread]}</span>;
    const own = partOf(row);
    if (own === undefined)
      return (
        <button type="button" tabIndex={-1} className="step" onClick={() => onOpen(row)}>
          {line.splits.length} splits
        </button>
      );
    const { thing, words } = own.job;
    if (thing === null)
      return words || (row.line.description === '' ? '' : <span className="tag tag-stop">choose job</span>);
    return thing.number === '' ? <b>{thing.name}</b> : <b className="mono">{thing.number}</b>;
  },
});

const codeColumn = (): EntryColumn<OrderRow> => ({
  key: 'code',
  title: 'Cost code',
  width: 'minmax(84px, 1fr)',
  entry: {
    kind: 'pick',
    of: 'costCode',
    also: [FOLLOWS],
    heads: /cost\s*(code|head|centre)|^code$|budget/i,
    text: (row) => {
      if (followsLines(row.line)) return textOf(row.line.chargeCode);
      const own = partOf(row);
      return own === undefined || own.job.thing?.id === STORES.id ? undefined : textOf(own.code);
    },
    put: (row, words) =>
      followsLines(row.line)
        ? withLine(row, { chargeCode: chosen(null, words) })
        : withPart(row, { code: chosen(null, words) }),
    thing: (row) => (followsLines(row.line) ? row.line.chargeCode.thing : (partOf(row)?.code.thing ?? null)),
    take: (row, thing) => {
      const choice = chosen(thing === null || thing.id === FOLLOWS.id ? null : named(thing));
      return followsLines(row.line) ? withLine(row, { chargeCode: choice }) : withPart(row, { code: choice });
    },
  },
  show: (row) => {
    const charge = followsLines(row.line);
    const code = charge ? row.line.chargeCode : partOf(row)?.code;
    if (code === undefined) return null;
    if (code.thing !== null)
      return (
        <>
          {code.thing.number} <span className="text-ink-2">{code.thing.name}</span>
        </>
      );
    if (charge) return <span className="text-ink-2">{code.words || FOLLOWS.name}</span>;
    return partOf(row)?.job.thing?.id === STORES.id ? (
      <Dash />
    ) : (
      code.words || (row.line.description === '' ? '' : <span className="tag tag-stop">choose code</span>)
    );
  },
});

const wantedOnColumn = (setting: Setting): EntryColumn<OrderRow> => ({
  key: 'wantedOn',
  title: 'Required by',
  width: '92px',
  entry: {
    kind: 'day',
    heads: /want|need|date|due|required/i,
    text: (row) => (goods(row) ? row.line.wantedOn : undefined),
    put: (row, wantedOn) => withLine(row, { wantedOn }),
  },
  show: (row) => {
    const day = asDay(row.line.wantedOn);
    if (!goods(row)) return null;
    return day === undefined ? row.line.wantedOn || <Dash /> : setting.day(day);
  },
});

const netColumn = ({ currency, companyCurrency }: Setting): EntryColumn<OrderRow> => ({
  key: 'net',
  title: `Net ${signOf(currency)}`,
  width: '84px',
  num: true,
  show: (row) =>
    row.net === undefined || (ofLine(row) && row.line.description === '') ? null : ofLine(row) ? (
      <b>{formatAmount(row.net, currency)}</b>
    ) : (
      <span className="text-ink-2">{formatAmount(row.net, companyCurrency)}</span>
    ),
});

/** The columns of an order's sheet. */
export const orderColumns = (setting: Setting): EntryColumn<OrderRow>[] => [
  descriptionColumn(setting),
  quantityColumn(setting),
  unitColumn(),
  priceColumn(setting),
  jobColumn(setting),
  codeColumn(),
  wantedOnColumn(setting),
  netColumn(setting),
];
