import { isGoodsLine } from './kinds';
import type { Day } from '../calendar/workdays';
import { atLeastNone, NONE, subtractQ, type Quantity } from '../quantity/quantity';
import { refusal, type Refusal } from '../result';
import type { Commitment } from '../tab/stages';

export const ORDER_STATES = [
  'drafting',
  'heldOpen',
  'withSignOff',
  'readyToSend',
  'sending',
  'sent',
  'confirmed',
  'partIn',
  'allIn',
  'settled',
  'cancelled',
] as const;
export type OrderState = (typeof ORDER_STATES)[number];

export const ORDER_STATE_NAMES: Readonly<Record<OrderState, string>> = {
  drafting: 'Draft',
  heldOpen: 'Held open',
  withSignOff: 'Awaiting sign-off',
  readyToSend: 'Ready to send',
  sending: 'Sending',
  sent: 'Sent',
  confirmed: 'Confirmed',
  partIn: 'Part received',
  allIn: 'Received',
  settled: 'Complete',
  cancelled: 'Cancelled',
};

/** States before the order is with its supplier; its money is drafted. */
export const UNSENT: readonly OrderState[] = ['drafting', 'heldOpen', 'withSignOff', 'readyToSend', 'sending'];
/** Whether an order was never sent; one whose revision is being sent was. */
export const isUnsent = (state: OrderState, sentFrom: OrderState | null): boolean =>
  UNSENT.includes(state === 'sending' ? (sentFrom ?? state) : state);
/** States in which a delivery is expected. */
export const AWAITED: readonly OrderState[] = ['sent', 'confirmed', 'partIn'];
/** States in which a delivery or an invoice is expected. */
export const OPEN_AT_SUPPLIER: readonly OrderState[] = [...AWAITED, 'allIn'];
/** States of an order that is not done with yet: what lists call open. */
export const OPEN: readonly OrderState[] = [...UNSENT, ...OPEN_AT_SUPPLIER];
/** States in which an invoice may come: a carriage invoice may follow one that settled the goods. */
export const BILLABLE: readonly OrderState[] = [...OPEN_AT_SUPPLIER, 'settled'];
/** States in which further lines join an order by themselves. */
export const JOINABLE: readonly OrderState[] = ['drafting', 'heldOpen'];
/** States in which an order can be changed; one that was signed off may have to be signed again then. */
export const EDITABLE: readonly OrderState[] = [...JOINABLE, 'readyToSend'];

export type OrderEvent =
  | 'holdOpen'
  | 'takeUp'
  | 'askSignOff'
  | 'signOff'
  | 'sendBack'
  | 'changeSigned'
  | 'beginSending'
  | 'beginRevised'
  | 'send'
  | 'confirm'
  | 'cancel'
  | 'draftAgain';

const MOVES: Readonly<Record<OrderEvent, Partial<Record<OrderState, OrderState>>>> = {
  holdOpen: { drafting: 'heldOpen' },
  takeUp: { heldOpen: 'drafting' },
  askSignOff: { drafting: 'withSignOff', heldOpen: 'withSignOff', readyToSend: 'withSignOff' },
  signOff: { withSignOff: 'readyToSend' },
  sendBack: { withSignOff: 'drafting' },
  changeSigned: { readyToSend: 'drafting' },
  beginSending: { drafting: 'sending', heldOpen: 'sending', readyToSend: 'sending' },
  beginRevised: { sent: 'sending', confirmed: 'sending', partIn: 'sending', allIn: 'sending' },
  send: { sending: 'sent' },
  confirm: { sent: 'confirmed' },
  cancel: {
    drafting: 'cancelled',
    heldOpen: 'cancelled',
    readyToSend: 'cancelled',
    sent: 'cancelled',
    confirmed: 'cancelled',
  },
  draftAgain: { cancelled: 'drafting' },
};

const VERBS: Readonly<Record<OrderEvent, string>> = {
  holdOpen: 'held open',
  takeUp: 'resumed',
  askSignOff: 'sent for sign-off',
  signOff: 'signed',
  sendBack: 'withdrawn',
  changeSigned: 'changed',
  beginSending: 'sent',
  beginRevised: 'sent',
  send: 'sent',
  confirm: 'confirmed',
  cancel: 'cancelled',
  draftAgain: 'reopened as draft',
};

/** The state an event leads to, or why it cannot happen now. */
export function move(state: OrderState, event: OrderEvent): OrderState | Refusal {
  return (
    MOVES[event][state] ??
    refusal('order.state', `This order is ${ORDER_STATE_NAMES[state].toLowerCase()}, so it can’t be ${VERBS[event]}.`)
  );
}

export const canMove = (state: OrderState, event: OrderEvent): boolean => typeof move(state, event) === 'string';

/** States from which an order can be sent. */
export const SENDABLE: readonly OrderState[] = ORDER_STATES.filter((s) => canMove(s, 'beginSending'));

/** Whether an order's goods should have come before today. */
export const isOverdue = (order: { readonly state: OrderState; readonly wantedOn: Day | null }, today: Day): boolean =>
  AWAITED.includes(order.state) && order.wantedOn !== null && order.wantedOn < today;

/** How far one line of a sent order has come; quantities in the line's unit. */
export type LineProgress = {
  readonly kind: 'goods' | 'service' | 'charge';
  readonly closedShort: boolean;
  /** Nothing more will be invoiced. */
  readonly invoicesEnded: boolean;
  readonly ordered: Quantity;
  readonly received: Quantity;
  readonly invoiced: Quantity;
  /** Here and not released. */
  readonly held: Quantity;
  /** Sent back for credit: of what was ordered, so much is not wanted any more. */
  readonly givenUp: Quantity;
};

/** How far a line has come, from its record. */
export const progressOf = (line: {
  readonly kind: LineProgress['kind'];
  readonly quantity: Quantity;
  readonly received: Quantity;
  readonly invoiced: Quantity;
  readonly held: Quantity;
  readonly givenUp: Quantity;
  readonly closedShort: string | null;
  readonly invoicesEnded: string | null;
}): LineProgress => ({
  kind: line.kind,
  closedShort: line.closedShort !== null,
  invoicesEnded: line.invoicesEnded !== null,
  ordered: line.quantity,
  received: line.received,
  invoiced: line.invoiced,
  held: line.held,
  givenUp: line.givenUp,
});

/** What is wanted of a line in all: what was ordered, less what went back for credit. */
export const wantedOf = (l: Pick<LineProgress, 'ordered' | 'givenUp'>): Quantity => subtractQ(l.ordered, l.givenUp);

/** What came of a line: goods come in, services and charges are invoiced. */
export const cameOf = (l: Pick<LineProgress, 'kind' | 'received' | 'invoiced'>): Quantity =>
  isGoodsLine(l) ? l.received : l.invoiced;

/** What is still to come of a line: goods to arrive, hours to be invoiced. */
export const leftOf = (l: LineProgress): Quantity =>
  l.closedShort || l.invoicesEnded ? NONE : atLeastNone(subtractQ(wantedOf(l), cameOf(l)));

/**
 * What is still to come from the supplier: what is here and not released is no longer waited for. The dock, the list of
 * late orders, chasing and the calendar of deliveries all mean this.
 * @example of 12 ordered, 4 released, 3 held at the door and 2 sent back for credit: 3
 */
export const dueOf = (l: LineProgress): Quantity => atLeastNone(subtractQ(leftOf(l), l.held));

export const isIn = (l: LineProgress): boolean => !isGoodsLine(l) || l.closedShort || l.received >= wantedOf(l);

export const isInvoiced = (l: LineProgress): boolean =>
  l.invoicesEnded || l.invoiced >= (l.closedShort ? l.received : Math.max(wantedOf(l), l.received));

/**
 * The state of an order at its supplier, from what came of its lines. Charges and services are not received.
 * Settled is an order whose every line is in and invoiced.
 */
export function progressState(current: OrderState, lines: readonly LineProgress[]): OrderState {
  if (!BILLABLE.includes(current)) return current;
  if (lines.every(isIn) && lines.every(isInvoiced)) return 'settled';
  const goods = lines.filter((l) => isGoodsLine(l));
  if (goods.length > 0 && goods.every(isIn)) return 'allIn';
  if (goods.some((l) => l.received > 0 || l.held > 0 || l.closedShort)) return 'partIn';
  return current === 'confirmed' ? 'confirmed' : 'sent';
}

/** What the ledger makes of a line, from its order's state and its own end. */
export function commitmentOf(
  { state, sentFrom }: { readonly state: OrderState; readonly sentFrom: OrderState | null },
  line: { readonly closedShort: boolean; readonly invoicesEnded: boolean },
): Commitment {
  if (state === 'cancelled') return 'cancelled';
  if (isUnsent(state, sentFrom)) return 'drafted';
  if (line.invoicesEnded) return 'settled';
  return line.closedShort ? 'closedShort' : 'sent';
}

/** What became of the mail that an order goes out with. */
export const MESSAGE_STATE_NAMES = {
  taken: 'accepted by the mail server',
  failed: 'failed',
  unknown: 'unknown',
  sending: 'sending',
} as const;
