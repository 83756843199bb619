import { divideRounded } from '../money/decimal';
import { add, minor, ZERO, type Minor } from '../money/money';
import { NONE, type Quantity } from '../quantity/quantity';

/** Where an amount stands on a job's tab, from the least to the most certain. */
export const STAGES = ['planned', 'drafted', 'onOrder', 'received', 'actual'] as const;
export type Stage = (typeof STAGES)[number];
export type Amounts = Readonly<Record<Stage, Minor>>;

export const NOTHING: Amounts = { planned: ZERO, drafted: ZERO, onOrder: ZERO, received: ZERO, actual: ZERO };

export const STAGE_NAMES: Readonly<Record<Stage, string>> = {
  planned: 'Planned',
  drafted: 'Drafted',
  onOrder: 'On order',
  received: 'Received',
  actual: 'Actual',
};

/** How far an order line has gone; a called-off line never had a receipt or a bill. */
export type Commitment = 'drafted' | 'sent' | 'closedShort' | 'calledOff';

/** The present state of one split of an order line; a charge or a lump sum has quantity 1. */
export type SplitState = {
  readonly commitment: Commitment;
  readonly ordered: Quantity;
  /** Order value in minor units of the company's currency, with tax that cannot be recovered. */
  readonly value: Minor;
  /** Received and accepted. */
  readonly received: Quantity;
  readonly billed: Quantity;
  /** Billed net in the company's currency, with tax that cannot be recovered. */
  readonly billedAmount: Minor;
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

/**
 * The heart of the ledger: from the state of an order split to its amounts by stage.
 *
 * @returns minor units of the company's currency; the stages add up to what the split costs its job
 * @example 12 m at 7.50, sent, 5 m in: { onOrder: 5250, received: 3750, … }
 */
export function splitStages(split: SplitState): Amounts {
  if (split.commitment === 'calledOff') return NOTHING;
  if (split.commitment === 'drafted') return { ...NOTHING, drafted: split.value };
  const { received: r, billed: i } = split;
  const reached = Math.min(Math.max(r, i), split.ordered) as Quantity;
  return {
    ...NOTHING,
    onOrder: split.commitment === 'sent' ? minor(split.value - valueOf(reached, split)) : ZERO,
    received: r > i ? minor(valueOf(r, split) - valueOf(i, split)) : ZERO,
    actual: split.billedAmount,
  };
}

/** The quantity of a split that covers its need: all of it, or what came of it once it was ended. */
export function coverOf(split: SplitState): Quantity {
  if (split.commitment === 'calledOff') return NONE;
  if (split.commitment === 'closedShort') return Math.max(split.received, split.billed) as Quantity;
  return split.ordered;
}

export const sumOf = (amounts: Amounts, stages: readonly Stage[] = STAGES): Minor =>
  add(...stages.map((s) => amounts[s]));

export const plus = (a: Amounts, b: Amounts): Amounts => byStage((s) => add(a[s], b[s]));

export const byStage = (of: (stage: Stage) => Minor): Amounts =>
  Object.fromEntries(STAGES.map((s) => [s, of(s)])) as Record<Stage, Minor>;
