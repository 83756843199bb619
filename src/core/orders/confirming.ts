import { workdaysBetween, formatDay, type Calendar, type Day } from '../calendar/workdays';
import { formatMoney, lineNet, minor, subtract, type Minor, type UnitPrice } from '../money/money';
import {
  addQ,
  formatQuantity,
  fromSupplierUnit,
  least,
  NONE,
  subtractQ,
  type Factor,
  type Quantity,
} from '../quantity/quantity';
import { unitOf } from '../quantity/units';
import { refusal, type Refusal } from '../result';
import { counted } from '../words';
import { leftOf, OPEN_AT_SUPPLIER, type LineProgress, type OrderState } from './states';

/** Whether a supplier's answer to an order can be written down. */
export const confirmFault = (order: { readonly number: string; readonly state: OrderState }): Refusal | undefined =>
  OPEN_AT_SUPPLIER.includes(order.state)
    ? undefined
    : refusal('order.state', `Order ${order.number} hasn’t been sent, so there’s nothing to confirm. Send it first.`);

/** An order line beside what the supplier says of it, in the line's unit and the order's currency. */
export type Answered = LineProgress & {
  readonly description: string;
  readonly unit: string;
  readonly price: UnitPrice | null;
  readonly priceQuantity: number;
  /** The day it is wanted at the dock, and the earliest day that a job needs what it covers. */
  readonly wantedOn: Day | null;
  readonly neededOn: Day | null;
  readonly confirmed: Quantity | null;
  readonly confirmedPrice: UnitPrice | null;
  readonly promisedOn: Day | null;
};

export type AnswerDifference = { readonly kind: 'quantity' | 'price' | 'late'; readonly words: string };

/** What its price would cost more than ours, on what is confirmed; below zero for less. */
export const confirmedMore = (line: Answered, currency: string): Minor =>
  line.confirmed === null || line.confirmedPrice === null || line.price === null
    ? minor(0)
    : subtract(
        lineNet(line.confirmed, line.confirmedPrice, line.priceQuantity, currency),
        lineNet(line.confirmed, line.price, line.priceQuantity, currency),
      );

/**
 * How a supplier's answer differs from the order, and from the day the job needs it. A promise for later than it is
 * wanted is told by the working days it is late.
 */
export function answerDifferences(
  line: Answered,
  currency: string,
  today: Day,
  calendar: Calendar,
): AnswerDifference[] {
  const found: AnswerDifference[] = [];
  const said = (q: Quantity) => `${formatQuantity(q)} ${unitOf(line.unit).short}`.trim();
  if (line.confirmed !== null && line.confirmed !== line.ordered && leftOf(line) > 0)
    found.push({ kind: 'quantity', words: `${said(line.confirmed)} confirmed, ${said(line.ordered)} ordered` });
  const more = confirmedMore(line, currency);
  if (more !== 0)
    found.push({
      kind: 'price',
      words: `${formatMoney(minor(Math.abs(more)), currency)} ${more > 0 ? 'more' : 'less'} than ordered`,
    });
  const due = line.neededOn ?? line.wantedOn;
  if (line.promisedOn !== null && due !== null && line.promisedOn > due && leftOf(line) > 0) {
    const late = workdaysBetween(due, line.promisedOn, calendar);
    const from = line.neededOn === null ? 'wanted' : 'needed';
    found.push({
      kind: 'late',
      words: `promised ${formatDay(line.promisedOn, today)}, ${counted(late, 'working day')} after the ${from} date`,
    });
  }
  return found;
}

type Confirmed = {
  readonly quantity: Quantity;
  readonly factor: Factor;
  readonly price: UnitPrice | null;
  readonly wantedOn: Day | null;
  readonly confirmed: Quantity | null;
  readonly confirmedPrice: UnitPrice | null;
  readonly promisedOn: Day | null;
  readonly splits: readonly { readonly quantity: Quantity }[];
};

/** Whether a line is what its supplier confirmed of it: so many, at that price, for that day. */
export const isAsConfirmed = (
  line: Pick<Confirmed, 'quantity' | 'price' | 'wantedOn'>,
  said: Pick<Confirmed, 'confirmed' | 'confirmedPrice' | 'promisedOn'>,
): boolean =>
  line.quantity === said.confirmed &&
  (said.confirmedPrice === null || line.price === said.confirmedPrice) &&
  (said.promisedOn === null || line.wantedOn === said.promisedOn);

/**
 * What a line has to say to be what its supplier confirmed. What it brings less is taken from its last parts, what it
 * brings more goes to its first; a line that is confirmed with nothing, or not at all, stays as it is.
 * @returns its quantity, price where another is confirmed, day, and the quantities of its parts in their order
 */
export function asConfirmed(line: Confirmed) {
  const { quantity: ordered, factor, confirmed, confirmedPrice, promisedOn, splits } = line;
  const whole = confirmed === null || confirmed === NONE ? ordered : confirmed;
  let left = fromSupplierUnit(whole, factor);
  const parts = splits.map((s) => {
    const own = least(s.quantity, left);
    left = subtractQ(left, own);
    return own;
  });
  return {
    quantity: whole,
    price: confirmedPrice !== null && confirmedPrice !== line.price ? confirmedPrice : undefined,
    wantedOn: promisedOn ?? line.wantedOn,
    // A part of which nothing is left is gone.
    parts: parts.map((q, k) => (k === 0 ? addQ(q, left) : q)),
  };
}
