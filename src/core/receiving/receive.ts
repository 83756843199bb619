import { isGoodsLine } from '../orders/kinds';
import {
  addedInNeedUnit,
  addQ,
  atLeastNone,
  formatQuantity,
  least,
  NONE,
  quantity,
  subtractQ,
  type Factor,
  type Quantity,
} from '../quantity/quantity';
import { dueOf } from '../orders/states';
import { unitOf } from '../quantity/units';
import { wholeFault } from '../quantity/whole';
import { done, refusal, refused, type Refusal, type Result } from '../result';

/** A split that goods can arrive for, in the need's unit. */
export type ReceivingSplit = { readonly splitId: number; readonly ordered: Quantity; readonly received: Quantity };

/** A line of an order as the dock sees it; quantities in the line's unit. */
export type DockedLine = {
  readonly description: string;
  readonly kind: 'goods' | 'service' | 'charge';
  readonly closedShort: boolean;
  readonly invoicesEnded: boolean;
  readonly unit: string;
  readonly factor: Factor;
  readonly ordered: Quantity;
  readonly received: Quantity;
  readonly invoiced: Quantity;
  /** Here and not released. */
  readonly held: Quantity;
  /** Sent back for credit, and not wanted again. */
  readonly givenUp: Quantity;
  /** In the order of their needed dates: the earliest is filled first. */
  readonly splits: readonly ReceivingSplit[];
};

/** What comes of a line, in its unit. */
export type Arrival = DockedLine & {
  /** All that came, good or not. */
  readonly arrives: Quantity;
  /** What of it is not taken. */
  readonly rejected: Quantity;
  /** Whether it waits for an inspection before it is released. */
  readonly inspected: boolean;
  /** The storekeeper has said that what is over stays here. */
  readonly keepOver: boolean;
  /** How much more than was ordered is taken without a question, in hundredths of a percent. */
  readonly overDelivery: number;
};

export type Allotment = { readonly splitId: number; readonly quantity: Quantity };

/** What becomes of what came, in the line's unit, and what of it each split gets, in the need's. */
export type Taken = {
  readonly accepted: Quantity;
  readonly held: Quantity;
  readonly rejected: Quantity;
  readonly allotted: readonly Allotment[];
};

/** How much more than was ordered comes without a question: a share of the order, and only whole pieces of what is counted. */
export function overAllowed(ordered: Quantity, share: number, unit: string): Quantity {
  const exact = Number((BigInt(ordered) * BigInt(share)) / 10_000n);
  return quantity(unitOf(unit).whole === true ? exact - (exact % 10_000) : exact);
}

function fault(arrival: Arrival): Refusal | undefined {
  const { description: name, arrives, rejected } = arrival;
  if (!isGoodsLine(arrival)) return refusal('receive.kind', `${name} isn’t received here: its invoice completes it.`);
  if (arrival.closedShort || arrival.invoicesEnded)
    return refusal('receive.closed', `${name} was closed short. Reopen the line to receive more.`);
  if (arrives <= 0 || rejected < 0) return refusal('quantity.low', `${name}: enter a quantity above zero.`);
  if (rejected > arrives)
    return refusal(
      'receive.rejected',
      `You can reject at most ${formatQuantity(arrives)} of ${name}: that’s all that was received.`,
    );
  for (const q of [arrives, rejected]) {
    const whole = wholeFault(q, arrival.unit, name);
    if (whole !== undefined) return whole;
  }
  const due = dueOf(arrival);
  const over = atLeastNone(quantity(arrives - rejected - due));
  const inAll = quantity(arrival.received + arrival.held + arrival.givenUp + arrives - rejected - arrival.ordered);
  const within = inAll <= overAllowed(arrival.ordered, arrival.overDelivery, arrival.unit);
  if (over > 0 && !within && !arrival.keepOver) {
    const instead =
      due > 0
        ? `Receive ${formatQuantity(due)}, or tick Keep the excess for the other ${formatQuantity(over)}.`
        : 'Tick Keep the excess, or leave them out.';
    return refusal(
      'receive.over',
      `${formatQuantity(arrives)} of ${name} entered, ${formatQuantity(due)} outstanding. ${instead}`,
    );
  }
  return arrival.splits.length === 0
    ? refusal(
        'receive.split',
        `${name} has no job or stores to be charged to, so it can’t be received. Revise the order first.`,
      )
    : undefined;
}

/**
 * Takes in what comes of one line: what is good is released at once, or held for its inspection, and shared among the jobs
 * it is for, the earliest first. What is over the order by more than the tolerance needs the storekeeper's word, and goes
 * to the last split. What is rejected is awaited still.
 *
 * @returns what becomes of it; or why it cannot be taken in like this
 * @example the first of two reels of 60 m for a need of 110 m: 60 m
 */
export function receive(arrival: Arrival): Result<Taken> {
  const wrong = fault(arrival);
  if (wrong !== undefined) return refused(wrong);
  const good = subtractQ(arrival.arrives, arrival.rejected);
  const accepted = arrival.inspected ? NONE : good;
  return done({
    accepted,
    held: arrival.inspected ? good : NONE,
    rejected: arrival.rejected,
    allotted: allot(arrival, accepted),
  });
}

/** Shares what is released among a line's splits: each is filled up in turn, and the last has what is over. */
export function allot({ factor, received, splits }: DockedLine, released: Quantity): Allotment[] {
  let left = addedInNeedUnit(received, released, factor);
  const filled = splits.map((s) => {
    const part = least(left, atLeastNone(subtractQ(s.ordered, s.received)));
    left = subtractQ(left, part);
    return { splitId: s.splitId, quantity: part };
  });
  const last = filled.length - 1;
  return filled
    .map((a, k) => (k === last ? { ...a, quantity: addQ(a.quantity, left) } : a))
    .filter((a) => a.quantity > 0);
}

/**
 * What an inspection says of what is held: so much is released, so much rejected; the rest waits on.
 * @returns what becomes of it; refused where that is more than is held
 */
export function release(line: DockedLine, released: Quantity, rejected: Quantity): Result<Taken> {
  const said = addQ(released, rejected);
  const { description: name, held } = line;
  if (released < 0 || rejected < 0 || said <= 0)
    return refused(refusal('inspect.none', `Enter how much ${name} to release or reject.`));
  for (const q of [released, rejected]) {
    const whole = wholeFault(q, line.unit, name);
    if (whole !== undefined) return refused(whole);
  }
  if (said > held)
    return refused(
      refusal(
        'inspect.held',
        `Only ${formatQuantity(held)} of ${name} are awaiting inspection. Enter ${formatQuantity(held)} or less.`,
      ),
    );
  return done({ accepted: released, held: quantity(-said), rejected, allotted: allot(line, released) });
}
