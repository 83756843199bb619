import { divideRounded } from '../money/decimal';
import { add, minor, ZERO, type Minor } from '../money/money';
import { NONE, quantity, type Quantity } from '../quantity/quantity';

/** Where an amount stands on a job's tab, from the least to the most certain. */
export const STAGES = ['planned', 'drafted', 'onOrder', 'received', 'actual'] as const;
export type Stage = (typeof STAGES)[number];
export type Amounts = Readonly<Record<Stage, Minor>>;

/** What the company is bound to pay. */
export const COMMITTED: readonly Stage[] = ['onOrder', 'received', 'actual'];

export const NOTHING: Amounts = { planned: ZERO, drafted: ZERO, onOrder: ZERO, received: ZERO, actual: ZERO };

export const STAGE_NAMES: Readonly<Record<Stage, string>> = {
  planned: 'Planned',
  drafted: 'Drafted',
  onOrder: 'On order',
  received: 'Received',
  actual: 'Actual',
};

/**
 * How far an order line has gone. A cancelled line never had a receipt or an invoice; a settled one has had its last invoice,
 * whatever came beside it.
 */
export type Commitment = 'drafted' | 'sent' | 'closedShort' | 'settled' | 'cancelled';

/** The present state of one split of an order line; quantities are shares in the need's unit. */
export type SplitState = {
  readonly commitment: Commitment;
  readonly ordered: Quantity;
  /** Order value in minor units of the company's currency, with tax that cannot be recovered. */
  readonly value: Minor;
  /** Received and accepted, less what went back. */
  readonly received: Quantity;
  /** Sent back for credit, and not wanted again. */
  readonly givenUp: Quantity;
  readonly invoiced: Quantity;
  /** What invoices that are not matched yet claim of it, beyond what is invoiced. */
  readonly claimed: Quantity;
  /** Invoiced net in the company's currency, with tax that cannot be recovered. */
  readonly invoicedAmount: Minor;
};

/**
 * Order value of part of a split: round(V · x / q), and beyond q the excess at the same price.
 * @throws RangeError when nothing was ordered
 */
export function valueOf(x: Quantity, split: Pick<SplitState, 'ordered' | 'value'>): Minor {
  if (split.ordered <= 0) throw new RangeError('A split must order something.');
  const proRata = (q: number) => divideRounded(BigInt(split.value) * BigInt(q), BigInt(split.ordered));
  return x <= split.ordered ? minor(proRata(x)) : minor(split.value + proRata(x - split.ordered));
}

/** The quantity whose money is still on order: what is wanted, or what a waiting invoice claims of a line that has ended. */
function expectedOf({ commitment, ordered, received, invoiced, claimed, givenUp }: SplitState): number {
  if (commitment === 'sent') return ordered - givenUp;
  return commitment === 'closedShort' ? Math.min(Math.max(received, invoiced + claimed), ordered) : 0;
}

/**
 * The heart of the ledger: from the state of an order split to its amounts by stage.
 *
 * @returns minor units of the company's currency; the stages add up to what the split costs its job
 * @example 12 m at 7.50, sent, 5 m in: { onOrder: 5250, received: 3750, … }
 */
export function splitStages(split: SplitState): Amounts {
  if (split.commitment === 'cancelled') return NOTHING;
  if (split.commitment === 'drafted') return { ...NOTHING, drafted: split.value };
  const { received: r, invoiced: i } = split;
  const reached = Math.min(Math.max(r, i), split.ordered) as Quantity;
  const expected = Math.max(expectedOf(split), reached) as Quantity;
  return {
    ...NOTHING,
    onOrder: split.commitment === 'settled' ? ZERO : minor(valueOf(expected, split) - valueOf(reached, split)),
    received: r > i && split.commitment !== 'settled' ? minor(valueOf(r, split) - valueOf(i, split)) : ZERO,
    actual: split.invoicedAmount,
  };
}

/**
 * What of a split's cost lies with the goods that are in: what is received and not invoiced, and of what is invoiced its
 * share for what came. Goods in stores are worth that, so that stores hold no money for goods that are not there.
 *
 * @example 10 for 100.00, 4 in, 5 invoiced at 55.00: 44.00
 */
export function inHand(split: SplitState): Minor {
  const { received, actual } = splitStages(split);
  return split.received >= split.invoiced
    ? add(received, actual)
    : minor(divideRounded(BigInt(actual) * BigInt(split.received), BigInt(split.invoiced)));
}

/** The stages of goods for stores: what is invoiced and not in is money for what is still to come. */
export function storesStages(split: SplitState): Amounts {
  const stages = splitStages(split);
  if (split.received >= split.invoiced) return stages;
  const actual = inHand(split);
  return { ...stages, onOrder: minor(stages.onOrder + stages.actual - actual), actual };
}

/** Where a part of an order stands, for stores or for a job. */
export const stagesOf = (split: SplitState, stored: boolean): Amounts =>
  stored ? storesStages(split) : splitStages(split);

/**
 * What of a split is not available yet, though its supplier has the order: what is held at the door counts until it is
 * released.
 */
export const awaitedOf = ({ commitment, ordered, received, givenUp }: SplitState): Quantity =>
  commitment === 'sent' ? quantity(Math.max(ordered - givenUp - received, 0)) : NONE;

/**
 * The quantity of a split that covers its need: what is wanted, or more when more came and was kept; of a line that has
 * ended, what came of it.
 */
export function coverOf(split: SplitState): Quantity {
  const { commitment, ordered, received, invoiced, claimed, givenUp } = split;
  if (commitment === 'cancelled') return NONE;
  const wanted =
    commitment === 'closedShort' || commitment === 'settled' ? invoiced + claimed - givenUp : ordered - givenUp;
  return quantity(Math.max(wanted, received));
}

export const sumOf = (amounts: Amounts, stages: readonly Stage[] = STAGES): Minor =>
  add(...stages.map((s) => amounts[s]));

export const plus = (a: Amounts, b: Amounts): Amounts => byStage((s) => add(a[s], b[s]));

export const byStage = (of: (stage: Stage) => Minor): Amounts => ({
  planned: of('planned'),
  drafted: of('drafted'),
  onOrder: of('onOrder'),
  received: of('received'),
  actual: of('actual'),
});
