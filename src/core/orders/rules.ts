import { counted } from '../words';
import { formatQuantity } from '../quantity/quantity';
import { refusal, type Refusal } from '../result';
import {
  BILLABLE,
  cameOf,
  EDITABLE,
  isBilled,
  isIn,
  leftOf,
  move,
  OPEN_AT_SUPPLIER,
  type LineProgress,
  type OrderState,
} from './states';

/** What the rules need to know of an order. */
export type Facts = {
  readonly number: string;
  readonly state: OrderState;
  readonly lines: readonly (LineProgress & { readonly description: string })[];
  /** Bills that are entered and not matched. */
  readonly waitingBills: number;
};

type Order = Pick<Facts, 'number' | 'state'>;

export const changeFault = ({ number, state }: Order): Refusal | undefined =>
  EDITABLE.includes(state)
    ? undefined
    : refusal(
        'order.state',
        state === 'withSignOff'
          ? `Order ${number} is with sign-off, so it stays as those who sign see it. Take it back to change it.`
          : `Order ${number} is no longer being drafted, so its lines stay as they are.`,
      );

export const receiveFault = ({ number, state }: Order): Refusal | undefined =>
  OPEN_AT_SUPPLIER.includes(state)
    ? undefined
    : refusal('order.state', `Order ${number} is not with its supplier, so nothing can be taken in against it.`);

/** A bill can be entered and matched on an order that was sent, also when its goods are billed in full. */
export const billFault = ({ number, state }: Order): Refusal | undefined =>
  BILLABLE.includes(state)
    ? undefined
    : refusal(
        'order.state',
        state === 'calledOff'
          ? `Order ${number} was called off, so nothing is owed on it.`
          : `Order ${number} was not sent, so it cannot be billed.`,
      );

/** An order can be called off while nothing of it came and nobody asks money for it. */
export function callOffFault(facts: Facts): Refusal | undefined {
  const { number, lines, waitingBills } = facts;
  const next = move(facts.state, 'callOff');
  if (lines.some((l) => l.received > 0 || l.held > 0 || l.billed > 0))
    return refusal(
      'order.begun',
      `Something of ${number} was received or billed already. Close its lines short instead.`,
    );
  if (waitingBills > 0)
    return refusal(
      'order.billed',
      `${counted(waitingBills, 'bill')} of ${number} ${waitingBills === 1 ? 'waits' : 'wait'} to be matched. Match or take out what is billed, then call off.`,
    );
  return typeof next === 'string' ? undefined : next;
}

/** A line that was ended can be opened again while its order can still be billed. */
export function openAgainFault(order: Order, line: Line): Refusal | undefined {
  if (!BILLABLE.includes(order.state))
    return refusal(
      'order.state',
      `Order ${order.number} is not with its supplier, so no line of it can be opened again.`,
    );
  return line.closedShort || line.billsEnded
    ? undefined
    : refusal('line.open', `${line.description} is not closed, so there is nothing to open again.`);
}

/** An order that was called off can be drafted again as long as its supplier never had it. */
export const draftAgainFault = (order: Order & { readonly sentOn: unknown }): Refusal | undefined =>
  order.state === 'calledOff' && order.sentOn !== null
    ? refusal(
        'order.sent',
        `${order.number} was with its supplier when it was called off. Raise the same order again as a new one.`,
      )
    : undefined;

/** A part of an order that was sent can be charged to another job, unless it is in stores or goes with other lines. */
export function rechargeFault(
  order: Order,
  line: {
    readonly kind: string;
    readonly description: string;
    readonly spread: string;
    readonly splits: readonly { readonly id: number; readonly jobId: number | null; readonly received: number }[];
  },
  splitId: number,
): Refusal | undefined {
  const { number, state } = order;
  if (!BILLABLE.includes(state))
    return refusal(
      'order.state',
      EDITABLE.includes(state)
        ? `Order ${number} is still being drafted: say on its line what it is charged to.`
        : `Order ${number} is not with its supplier, so nothing of it is charged elsewhere.`,
    );
  if (line.kind === 'charge' && line.spread !== 'amounts')
    return refusal('line.follows', `${line.description} follows the other lines. Charge those elsewhere.`);
  const split = line.splits.find((s) => s.id === splitId);
  return split?.jobId === null && split.received > 0
    ? refusal('split.stores', `${line.description} is in stores. Issue it to the job from there.`)
    : undefined;
}

type Line = LineProgress & { readonly description: string };

/** A line of a sent order can be ended while something of it is still to come. */
export function closeShortFault(order: Order, line: Line): Refusal | undefined {
  if (!OPEN_AT_SUPPLIER.includes(order.state))
    return refusal(
      'order.state',
      `Order ${order.number} is not with its supplier, so no line of it can be closed short.`,
    );
  if (line.closedShort) return refusal('line.closed', `${line.description} is closed short already.`);
  if (line.held > 0)
    return refusal(
      'line.held',
      `Some of ${line.description} is in and waits to be inspected. Release or reject it first.`,
    );
  if (leftOf(line) > 0) return undefined;
  const came = line.kind === 'goods' ? 'in' : 'billed';
  return refusal('line.in', `All of ${line.description} is ${came}, so there is nothing to close short.`);
}

/** That no more bills come can be said of goods that are in and were billed for less than came, while no bill waits. */
export function endBillsFault({ number, state, waitingBills }: Facts, line: Line): Refusal | undefined {
  if (!OPEN_AT_SUPPLIER.includes(state)) return refusal('order.state', `Order ${number} waits for no bill.`);
  if (line.kind !== 'goods' || !isIn(line))
    return refusal('line.open', `Something of ${line.description} is still to come. Close it short instead.`);
  if (isBilled(line)) return refusal('line.ended', `${line.description} waits for no bill.`);
  if (waitingBills > 0)
    return refusal('order.billed', `A bill of ${number} waits to be matched. Match it or take it out first.`);
  return undefined;
}

/**
 * A receipt can be taken back unless one of its own lines has ended since. Once something of it is billed and matched,
 * that is for somebody who may match invoices, because money that was owed is asked back.
 */
export function takeBackFault(
  receipt: { readonly number: string; readonly back: boolean },
  lines: readonly Line[],
  mayMatch: boolean,
): Refusal | undefined {
  const billed = lines.find((l) => l.billed > 0);
  if (billed !== undefined && !mayMatch && !receipt.back)
    return refusal(
      'receipt.billed',
      `${billed.description} is billed already, so receipt ${receipt.number} stays. Ask somebody who matches invoices.`,
    );
  if (receipt.back) return refusal('receipt.back', `Receipt ${receipt.number} was taken back already.`);
  const ended = lines.find((l) => l.closedShort || l.billsEnded);
  return ended === undefined
    ? undefined
    : refusal('receipt.closed', `${ended.description} was closed short since, so receipt ${receipt.number} stays.`);
}

/** How a line stands when it is ended: “17 of 18”. */
export const endedAt = (line: Line): string => `${formatQuantity(cameOf(line))} of ${formatQuantity(line.ordered)}`;
