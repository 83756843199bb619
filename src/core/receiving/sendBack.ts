import {
  addQ,
  atLeastNone,
  formatQuantity,
  fromSupplierUnit,
  least,
  NONE,
  subtractQ,
  type Factor,
  type Quantity,
} from '../quantity/quantity';
import { wholeFault } from '../quantity/whole';
import { done, refusal, refused, type Refusal, type Result } from '../result';
import type { Allotment, DockedLine } from './receive';

/** What is asked for goods that go back. */
export const WANTS = ['replacement', 'credit'] as const;
export type Wants = (typeof WANTS)[number];

/** What each part of a line gives back of what it had, and of what it still wants; in the need's unit. */
export type Gives = Allotment & { readonly givenUp: Quantity };

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

/**
 * What each split gives up when goods are sent back to their supplier: those that are needed last first.
 *
 * @param line - its splits in the order of their needed dates
 * @param sent - in the line's unit
 */
export function sendBackFrom(line: DockedLine, sent: Quantity): Result<Allotment[]> {
  const { description: name, received, factor, splits } = line;
  const whole = wholeFault(sent, line.unit, name);
  if (whole !== undefined) return refused(whole);
  if (sent <= 0) return refused(refusal('quantity.low', `${name}: enter a quantity above zero.`));
  if (sent > received)
    return refused(refusal('return.more', `You can return at most ${formatQuantity(received)} of ${name}.`));
  const lastFirst = splits.toReversed();
  let left = subtractQ(fromSupplierUnit(received, factor), fromSupplierUnit(subtractQ(received, sent), factor));
  const had = lastFirst.map((s) => {
    const came = least(left, s.received);
    left = subtractQ(left, came);
    return { splitId: s.splitId, received: s.received, came };
  });
  return done(giveBack({ factor, received, came: sent, splits: had }));
}

/**
 * What the parts of a line give up when rejected goods go back to be credited: who needs it last gives up first, and the
 * earliest what is left.
 *
 * @param line - its splits in the order of their needed dates
 * @param sent - in the line's unit
 */
function giveUp({ factor, givenUp, splits }: DockedLine, sent: Quantity): Gives[] {
  let left = subtractQ(fromSupplierUnit(addQ(givenUp, sent), factor), fromSupplierUnit(givenUp, factor));
  return splits
    .map((s, k) => ({ ...s, room: k === 0 ? undefined : atLeastNone(subtractQ(s.ordered, s.received)) }))
    .toReversed()
    .flatMap(({ splitId, room = left }) => {
      const part = least(left, room);
      left = subtractQ(left, part);
      return part > 0 ? [{ splitId, quantity: NONE, givenUp: part }] : [];
    });
}

/** Goods of a line that go back to their supplier, in its unit, and what is asked for them. */
export type GoingBack = { readonly quantity: Quantity; readonly from: 'rejected' | 'accepted'; readonly wants: Wants };

/**
 * What the parts of a line give back, and give up, when goods go back to their supplier: a replacement is awaited again,
 * what is credited is not wanted any more.
 *
 * @param rejected - what of the line lies at the door, rejected
 */
export function returned(line: DockedLine & { readonly rejected: Quantity }, sent: GoingBack): Result<Gives[]> {
  const { description: name, rejected, closedShort } = line;
  const credit = sent.wants === 'credit';
  if (closedShort && !credit)
    return refused(refusal('return.closed', `${name} is closed short: ask for a credit note, or reopen the line.`));
  if (sent.from === 'accepted') {
    const given = sendBackFrom(line, sent.quantity);
    return given.ok ? done(given.value.map((g) => ({ ...g, givenUp: credit ? g.quantity : NONE }))) : given;
  }
  const whole = wholeFault(sent.quantity, line.unit, name);
  if (whole !== undefined) return refused(whole);
  if (sent.quantity > rejected) {
    const here = formatQuantity(rejected);
    return refused(refusal('return.more', `Only ${here} rejected ${name} are here. Enter ${here} or less.`));
  }
  return done(credit ? giveUp(line, sent.quantity) : []);
}

/** What of a line is held, rejected and received: now, or as a receipt brought it. */
export type Stands = { readonly held: Quantity; readonly rejected: Quantity; readonly received: Quantity };

/** Why a receipt cannot be reversed yet: something of what it brought of a line went further since. */
export function wentFurther(name: string, now: Stands, came: Stands, receipt: string): Refusal | undefined {
  const since = [
    ['held', 'was released or rejected'],
    ['rejected', 'was returned'],
    ['received', 'was returned'],
  ] as const;
  const found = since.find(([what]) => now[what] < came[what]);
  return found && refusal('receipt.later', `Some ${name} ${found[1]} since. Reverse that first, then ${receipt}.`);
}
