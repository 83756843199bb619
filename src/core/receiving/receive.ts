import {
  addedInNeedUnit,
  addQ,
  atLeastNone,
  formatQuantity,
  fromSupplierUnit,
  least,
  subtractQ,
  type Factor,
  type Quantity,
} from '../quantity/quantity';
import { wholeFault } from '../quantity/whole';
import { done, refusal, refused, type Result } from '../result';

/** A split that goods can arrive for, in the need's unit. */
export type ReceivingSplit = { readonly splitId: number; readonly ordered: Quantity; readonly received: Quantity };

export type Arrival = {
  readonly description: string;
  readonly kind: 'goods' | 'service' | 'charge';
  readonly closedShort: boolean;
  readonly unit: string;
  readonly factor: Factor;
  /** In the line's unit. */
  readonly ordered: Quantity;
  readonly received: Quantity;
  /** In the order of their needed dates: the earliest is filled first. */
  readonly splits: readonly ReceivingSplit[];
  /** In the line's unit. */
  readonly arrives: Quantity;
  /** The storekeeper has said that what is over stays here. */
  readonly keepOver: boolean;
};

export type Allotment = { readonly splitId: number; readonly quantity: Quantity };

/**
 * Shares what arrives of one line among the jobs it is for: each split is filled up in turn, the earliest first.
 * What is over the order needs the storekeeper's word, and goes to the last split.
 *
 * @returns what each split gets, in the need's unit; or why the delivery cannot be taken in like this
 * @example the first of two reels of 60 m for a need of 110 m: 60 m
 */
export function receive(arrival: Arrival): Result<Allotment[]> {
  const { description: name, arrives } = arrival;
  if (arrival.kind !== 'goods')
    return refused(refusal('receive.kind', `${name} is not delivered: it is settled by its bill.`));
  if (arrival.closedShort)
    return refused(refusal('receive.closed', `${name} was closed short. Nothing more is expected.`));
  if (arrives <= 0) return refused(refusal('quantity.low', `What arrives of ${name} must be above zero.`));
  const whole = wholeFault(arrives, arrival.unit, name);
  if (whole !== undefined) return refused(whole);
  const due = atLeastNone(subtractQ(arrival.ordered, arrival.received));
  const over = atLeastNone(subtractQ(arrives, due));
  if (over > 0 && !arrival.keepOver) {
    const instead =
      due > 0
        ? `Take in ${formatQuantity(due)}, or say that the ${formatQuantity(over)} over stay here.`
        : 'Say that they stay here, or leave them out.';
    return refused(
      refusal(
        'receive.over',
        `${formatQuantity(arrives)} of ${name} arrive, but only ${formatQuantity(due)} are still due. ${instead}`,
      ),
    );
  }
  if (arrival.splits.length === 0)
    return refused(refusal('receive.split', `${name} is charged to no job, so it cannot be taken in.`));
  let left = addedInNeedUnit(arrival.received, arrives, arrival.factor);
  const filled = arrival.splits.map((s) => {
    const part = least(left, atLeastNone(subtractQ(s.ordered, s.received)));
    left = subtractQ(left, part);
    return { splitId: s.splitId, quantity: part };
  });
  const last = filled.length - 1;
  return done(
    filled.map((a, k) => (k === last ? { ...a, quantity: addQ(a.quantity, left) } : a)).filter((a) => a.quantity > 0),
  );
}

/** What a receipt brought of one line, and how the line stands now. */
export type Return = {
  readonly factor: Factor;
  /** In the line's unit: what the line has had in all, and what of it came with this receipt. */
  readonly received: Quantity;
  readonly came: Quantity;
  /** In the need's unit, in the order of the line: what each split has had, and what of it came with this receipt. */
  readonly splits: readonly { readonly splitId: number; readonly received: Quantity; readonly came: Quantity }[];
};

/**
 * What each split gives back when a receipt is taken back: what it had of it. The last step of a converted unit
 * follows the running total, as it does on arrival, so that after any receipts and any of them taken back, in any
 * order, the splits hold together what the line holds; no split goes below zero.
 *
 * @returns what each split gives back, in the need's unit
 */
export function giveBack({ factor, received, came, splits }: Return): Allotment[] {
  const stay = fromSupplierUnit(subtractQ(received, came), factor);
  let left = subtractQ(addQ(...splits.map((s) => s.received)), stay);
  const take = (had: Quantity): Quantity => {
    const part = least(left, had);
    left = subtractQ(left, part);
    return part;
  };
  const own = splits.map((s) => take(least(s.came, s.received)));
  return splits
    .map((s, k) => {
      const first = own[k] ?? s.received;
      return { splitId: s.splitId, quantity: addQ(first, take(subtractQ(s.received, first))) };
    })
    .filter((a) => a.quantity > 0);
}
