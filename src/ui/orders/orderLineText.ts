import { isGoodsLine } from '@/core/orders/kinds';
import { ungrouped } from '@/core/locale/locale';
import { formatPrice, parsePrice } from '@/core/money/money';
import { CHARGE_NAMES, type ChargeKind, type Spread } from '@/core/orders/charges';
import type { LineKind } from '@/core/orders/kinds';
import {
  addQ,
  formatQuantity,
  fromSupplierUnit,
  NONE,
  ONE,
  parseQuantity,
  quantity,
  SAME_UNIT,
  type Factor,
  type Quantity,
} from '@/core/quantity/quantity';
import { exactFactor } from '@/core/quantity/units';
import { sourceOf } from '@/core/sourcing/source';
import { priceFor, type PriceBreak } from '@/core/sourcing/terms';
import type { OrderedBefore } from '@/queries/orders/orderedBefore';
import type { ItemTerms } from '@/queries/orders/terms';
import { named, type Named } from '../entry/column';
import { chosen, NOT_CHOSEN, type PickedText } from '../entry/reading';

/** Stands for stores where a job is chosen. */
export const STORES: Named = { id: 0, number: '', name: 'Stores' };

/** An order as a person types it. */
export type SplitText = {
  /** Its line of the tab; undefined for a new part. */
  readonly id?: number;
  readonly job: PickedText;
  readonly code: PickedText;
  readonly needId: number | null;
  /** In the unit of the line's parts. */
  readonly quantity: string;
  /** Of a charge shared out by amounts. */
  readonly amount: string;
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
  /** What was given as a unit and is none. */
  readonly unitWords: string;
  /** Before the discount. */
  readonly price: string;
  readonly priceQuantity: string;
  /** In percent. */
  readonly discount: string;
  readonly free: boolean;
  readonly note: string;
  readonly taxCodeId: string;
  readonly wantedOn: string;
  /** Where it goes, when it is elsewhere than the order. */
  readonly place: Named | null;
  readonly chargeKind: ChargeKind;
  readonly spread: Spread;
  /** Of a charge: the cost code that takes it; nothing lets it follow the lines. */
  readonly chargeCode: PickedText;
  /** The unit it was bought in, and that of its parts, with how many of these are in how many of that. */
  readonly bought: { readonly unit: string; readonly shareUnit: string; readonly factor: Factor };
  /** A part was taken for it, whose unit, price and number at the supplier are still to be filled in. */
  readonly asks?: true;
  readonly splits: readonly SplitText[];
};

export const quantityText = (q: Quantity) => ungrouped(formatQuantity(q));

/** Where a new line goes until it is said: to what the line above is for. */
export type Towards = Pick<SplitText, 'job' | 'code'>;

/** Where a new line goes: to what the line above it is for, else to the job one came from. */
export function towardsOf(lines: readonly LineText[], lastJob: Named | null): Towards {
  const last = lines.findLast((l) => l.splits.length > 0)?.splits.at(-1);
  return last === undefined
    ? { job: lastJob === null ? NOT_CHOSEN : chosen(named(lastJob)), code: NOT_CHOSEN }
    : { job: last.job, code: last.code };
}

export const newLine = (
  kind: LineKind,
  taxCodeId: number,
  count: number,
  towards: Towards,
  chargeKind: ChargeKind = 'other',
): LineText => ({
  key: `new ${count}`,
  kind,
  itemId: null,
  ourNumber: '',
  description: kind === 'charge' && chargeKind !== 'other' ? CHARGE_NAMES[chargeKind] : '',
  theirNumber: '',
  quantity: '1',
  unit: 'C62',
  unitWords: '',
  price: '',
  priceQuantity: '1',
  discount: '',
  free: false,
  note: '',
  taxCodeId: String(taxCodeId),
  wantedOn: '',
  place: null,
  chargeKind,
  spread: 'value',
  chargeCode: NOT_CHOSEN,
  bought: { unit: 'C62', shareUnit: 'C62', factor: SAME_UNIT },
  splits: kind === 'charge' ? [] : [{ ...towards, needId: null, quantity: '1', amount: '' }],
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

/** Whether the line's price is what the supplier lists for its quantity. */
function followsList(line: LineText, prices: readonly PriceBreak[]): boolean {
  const [price, q] = [parsePrice(line.price), parseQuantity(line.quantity)];
  if (!price.ok || !q.ok) return line.price.trim() === '';
  return sourceOf({ price: price.value, priceQuantity: Number(line.priceQuantity) }, q.value, prices).from !== 'typed';
}

const listedPrice = (prices: readonly PriceBreak[], text: string, currency: string) => {
  const q = parseQuantity(text);
  const listed = q.ok ? priceFor(q.value, prices) : undefined;
  return (
    listed && { price: ungrouped(formatPrice(listed.price, currency)), priceQuantity: String(listed.priceQuantity) }
  );
};

/**
 * A line with another quantity: its only split goes with it, and a price that came from the supplier's list goes to the
 * break that holds for so many.
 */
export function withQuantity(
  line: LineText,
  text: string,
  prices: readonly PriceBreak[] = [],
  currency = '',
): LineText {
  const [only] = line.splits;
  const listed =
    line.unit === line.bought.unit && followsList(line, prices) ? listedPrice(prices, text, currency) : undefined;
  return {
    ...line,
    ...listed,
    quantity: text,
    splits:
      line.splits.length === 1 && only !== undefined ? [{ ...only, quantity: shareText(line, text) }] : line.splits,
  };
}

/** A line of another part, whose unit, price and number at the supplier are to be filled in. */
export function withItem(line: LineText, item: Named & { readonly costCode?: Named | null }): LineText {
  const { id, number, name, costCode } = item;
  const code = costCode == null || line.id !== undefined ? undefined : chosen(named(costCode));
  const towards = (s: SplitText) => (code === undefined || s.job.thing?.id === STORES.id ? s : { ...s, code });
  return {
    ...line,
    ...{ itemId: id, ourNumber: number, description: name, theirNumber: '', price: '', priceQuantity: '1', asks: true },
    splits: line.splits.length === 1 ? line.splits.map(towards) : line.splits,
  };
}

/** Lines with so many more of a part: on the line that it stands on, else on a new one. */
export function withMore(
  lines: readonly LineText[],
  item: Parameters<typeof withItem>[1],
  count: number,
  fresh: LineText,
  terms: ItemTerms | undefined,
  currency: string,
): readonly LineText[] {
  const known = lines.find((l) => isGoodsLine(l) && l.itemId === item.id && l.splits.length === 1);
  if (known === undefined) return [...lines, withQuantity(withItem(fresh, item), String(count))];
  const before = parseQuantity(known.quantity);
  const whole = addQ(before.ok ? before.value : NONE, quantity(count * ONE));
  return lines.map((l) => (l === known ? withQuantity(l, quantityText(whole), terms?.prices, currency) : l));
}

/** A new line like one that was ordered before: a part at today's price, anything else at the price it had. */
export function againText(fresh: LineText, before: OrderedBefore): LineText {
  const { itemId, unit, description, theirNumber, price, priceQuantity, currency, quantity: many } = before;
  const own = { ...fresh, description, unit, bought: { unit, shareUnit: unit, factor: SAME_UNIT } };
  if (itemId !== null)
    return withQuantity(withItem(own, { id: itemId, number: before.number, name: description }), quantityText(many));
  const paid = price === null ? '' : ungrouped(formatPrice(price, currency));
  return withQuantity({ ...own, theirNumber, price: paid, priceQuantity: String(priceQuantity) }, quantityText(many));
}

/** What was paid last, where the supplier lists no price. */
const paidPrice = ({ paid, unit }: ItemTerms, currency: string) =>
  paid?.unit === unit
    ? { price: ungrouped(formatPrice(paid.price, currency)), priceQuantity: String(paid.priceQuantity) }
    : {};

/** A line of a part that was taken for it, with what its supplier says of that: unit, number, and price for so many. */
export function withTerms(line: LineText, terms: ItemTerms, currency: string): LineText {
  const { asks: _, ...rest } = line;
  const same = rest.unit === terms.unit;
  const bought = same ? rest.bought : { unit: terms.unit, shareUnit: terms.unit, factor: SAME_UNIT };
  const price =
    rest.price.trim() === '' ? (listedPrice(terms.prices, rest.quantity, currency) ?? paidPrice(terms, currency)) : {};
  return { ...rest, unit: terms.unit, bought, theirNumber: rest.theirNumber || terms.theirNumber, ...price };
}
