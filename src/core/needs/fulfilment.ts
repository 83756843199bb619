import { addQ, atLeastNone, NONE, subtractQ, type Quantity } from '../quantity/quantity';
import type { SplitState } from '../tab/stages';
import { givenTo, missingOf, type Arrived, type Coverage, type FromStock } from './coverage';

/** How far a line of a buy list has come, from not at all to in use. */
export const FULFILMENTS = [
  'notNeeded',
  'nothing',
  'drafted',
  'ordered',
  'partIn',
  'held',
  'uncertified',
  'reserved',
  'in',
  'invoiced',
  'issued',
] as const;
export type Fulfilment = (typeof FULFILMENTS)[number];

export const FULFILMENT_NAMES: Readonly<Record<Fulfilment, string>> = {
  notNeeded: 'not needed',
  nothing: 'not ordered',
  drafted: 'drafted',
  ordered: 'ordered',
  partIn: 'part received',
  held: 'awaiting inspection',
  uncertified: 'certificate missing',
  reserved: 'reserved',
  in: 'received',
  invoiced: 'invoiced',
  issued: 'issued',
};

export type FulfilmentFacts = {
  readonly kind: 'goods' | 'service';
  readonly quantity: Quantity;
  readonly coverage: Coverage;
  readonly fromStock: FromStock;
  readonly splits: readonly (Arrived & Pick<SplitState, 'invoiced'>)[];
  /** What is here for it and waits for its inspection, in the need's unit. */
  readonly atDoor: Quantity;
};

/**
 * How far a line has come, in one word: what is complete says how it is complete, all else how near the first of it is.
 * Part of a line that is on its way or to buy is told by quantities beside it.
 *
 * @example 4 of 10 received, 6 on order: partIn
 */
export function fulfilmentOf(facts: FulfilmentFacts): Fulfilment {
  const { kind, quantity, coverage, fromStock, splits, atDoor } = facts;
  if (quantity <= 0) return 'notNeeded';
  const sum = (of: 'received' | 'invoiced') => addQ(NONE, ...splits.map((s) => s[of]));
  const onItsWay =
    addQ(coverage.ordered, fromStock.coming) > 0 ? 'ordered' : coverage.drafted > 0 ? 'drafted' : 'nothing';
  if (kind === 'service') return sum('invoiced') >= quantity ? 'invoiced' : onItsWay;
  if (addQ(fromStock.issued, fromStock.ownIssued) >= quantity) return 'issued';
  const came = addQ(givenTo(fromStock, splits), sum('received'));
  const missing = missingOf(facts, splits, fromStock);
  if (missing === 0) return came > 0 ? 'in' : 'reserved';
  const bare = splits.map((s) => ({ ...s, uncertified: false }));
  const lacking = missingOf(facts, bare, fromStock);
  if (lacking === 0) return 'uncertified';
  if (atLeastNone(subtractQ(lacking, atDoor)) === 0) return 'held';
  return addQ(came, fromStock.inStores, atDoor) > 0 ? 'partIn' : onItsWay;
}
