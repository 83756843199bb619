import { followsLines, isGoodsLine, type LineKind } from './kinds';
import { counted } from '../words';
import { formatQuantity } from '../quantity/quantity';
import { refusal, type Refusal } from '../result';
import {
  BILLABLE,
  cameOf,
  EDITABLE,
  isInvoiced,
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
  /** Invoices that are entered and not matched. */
  readonly waitingInvoices: number;
};

type Order = Pick<Facts, 'number' | 'state'>;

export const changeFault = ({ number, state }: Order): Refusal | undefined =>
  EDITABLE.includes(state)
    ? undefined
    : refusal(
        'order.state',
        state === 'withSignOff'
          ? `Order ${number} is awaiting sign-off and can’t be changed. Withdraw it first.`
          : `Order ${number} is no longer a draft. Revise it to change its lines.`,
      );

export const receiveFault = ({ number, state }: Order): Refusal | undefined =>
  OPEN_AT_SUPPLIER.includes(state)
    ? undefined
    : refusal('order.state', `Order ${number} hasn’t been sent, so you can’t receive against it. Send it first.`);

/** An invoice can be entered and matched on an order that was sent, also when its goods are invoiced in full. */
export const invoiceFault = ({ number, state }: Order): Refusal | undefined =>
  BILLABLE.includes(state)
    ? undefined
    : refusal(
        'order.state',
        state === 'cancelled'
          ? `Order ${number} was cancelled, so it can’t be invoiced.`
          : `Order ${number} hasn’t been sent, so it can’t be invoiced yet.`,
      );

/** An order can be cancelled while nothing of it came and nobody asks money for it. */
export function cancelFault(facts: Facts): Refusal | undefined {
  const { number, lines, waitingInvoices } = facts;
  const next = move(facts.state, 'cancel');
  if (lines.some((l) => l.received > 0 || l.held > 0 || l.invoiced > 0))
    return refusal(
      'order.begun',
      `Order ${number} is part received or invoiced, so it can’t be cancelled. Close its lines short instead.`,
    );
  if (waitingInvoices > 0)
    return refusal(
      'order.invoiced',
      `${counted(waitingInvoices, 'invoice')} for order ${number} ${waitingInvoices === 1 ? 'is' : 'are'} waiting. Match or void ${waitingInvoices === 1 ? 'it' : 'them'}, then cancel the order.`,
    );
  return typeof next === 'string' ? undefined : next;
}

/** A line that was ended can be opened again while its order can still be invoiced. */
export function openAgainFault(order: Order, line: Line): Refusal | undefined {
  if (!BILLABLE.includes(order.state))
    return refusal('order.state', `Order ${order.number} hasn’t been sent, so its lines can’t be reopened.`);
  return line.closedShort || line.invoicesEnded
    ? undefined
    : refusal('line.open', `${line.description} isn’t closed, so there is nothing to reopen.`);
}

/** An order that was cancelled can be drafted again as long as its supplier never had it. */
export function draftAgainFault(order: Order & { readonly sentOn: unknown }): Refusal | undefined {
  const next = move(order.state, 'draftAgain');
  if (typeof next !== 'string') return next;
  return order.sentOn === null
    ? undefined
    : refusal(
        'order.sent',
        `Order ${order.number} had been sent when it was cancelled. Use Repeat order to raise it again.`,
      );
}

/** A part of an order that was sent can be charged to another job, unless it is in stores or goes with other lines. */
export function rechargeFault(
  order: Order,
  line: {
    readonly kind: LineKind;
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
        ? `Order ${number} is still a draft: change the job on its line instead.`
        : `Order ${number} hasn’t been sent: change the job on its line instead.`,
    );
  if (followsLines(line))
    return refusal('line.follows', `${line.description} is spread over other lines. Move those lines instead.`);
  const split = line.splits.find((s) => s.id === splitId);
  return split?.jobId === null && split.received > 0
    ? refusal('split.stores', `${line.description} is in stores. Issue it to the job from there.`)
    : undefined;
}

type Line = LineProgress & { readonly description: string };

/** A line of a sent order can be ended while something of it is still to come. */
export function closeShortFault(order: Order, line: Line): Refusal | undefined {
  if (!OPEN_AT_SUPPLIER.includes(order.state))
    return refusal('order.state', `Order ${order.number} hasn’t been sent, so its lines can’t be closed short.`);
  if (line.closedShort) return refusal('line.closed', `${line.description} is already closed short.`);
  if (line.held > 0)
    return refusal('line.held', `Some ${line.description} is awaiting inspection. Release or reject it first.`);
  if (leftOf(line) > 0) return undefined;
  const came = isGoodsLine(line) ? 'in' : 'invoiced';
  return refusal('line.in', `${line.description} is fully ${came}: nothing to close short.`);
}

/** That no more invoices come can be said of goods that are in and were invoiced for less than came, while no invoice waits. */
export function endInvoicesFault({ number, state, waitingInvoices }: Facts, line: Line): Refusal | undefined {
  if (!OPEN_AT_SUPPLIER.includes(state))
    return refusal('order.state', `Order ${number} is not waiting for an invoice.`);
  if (!isGoodsLine(line) || !isIn(line))
    return refusal('line.open', `${line.description} is still outstanding. Close it short instead.`);
  if (isInvoiced(line)) return refusal('line.ended', `${line.description} is not waiting for an invoice.`);
  if (waitingInvoices > 0)
    return refusal('order.invoiced', `An invoice for order ${number} is waiting. Match or void it first.`);
  return undefined;
}

/**
 * A receipt can be taken back unless one of its own lines has ended since. Once something of it is invoiced and matched,
 * that is for somebody who may match invoices, because money that was owed is asked back.
 */
export function takeBackFault(
  receipt: { readonly number: string; readonly back: boolean },
  lines: readonly Line[],
  mayMatch: boolean,
): Refusal | undefined {
  const invoiced = lines.find((l) => l.invoiced > 0);
  if (invoiced !== undefined && !mayMatch && !receipt.back)
    return refusal(
      'receipt.invoiced',
      `${invoiced.description} is already invoiced, so receipt ${receipt.number} can’t be reversed. Ask Accounts.`,
    );
  if (receipt.back) return refusal('receipt.back', `Receipt ${receipt.number} is already reversed.`);
  const ended = lines.find((l) => l.closedShort || l.invoicesEnded);
  return ended === undefined
    ? undefined
    : refusal(
        'receipt.closed',
        `${ended.description} was closed short since, so receipt ${receipt.number} can’t be reversed. Reopen the line first.`,
      );
}

/** How a line stands when it is ended: “17 of 18”. */
export const endedAt = (line: Line): string => `${formatQuantity(cameOf(line))} of ${formatQuantity(line.ordered)}`;
