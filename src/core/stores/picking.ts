import type { Tracking } from '../items/kinds';
import {
  addQ,
  atLeastNone,
  least,
  NONE,
  ONE,
  quantity,
  subtractQ,
  toSupplierUnit,
  type Factor,
  type Quantity,
} from '../quantity/quantity';
import { takeFrom, type KnownSpot } from './spots';

/** What a job is to be given of a pile, as it is put by for it or belongs to it. Quantities in the item's unit. */
export type ToPick = {
  readonly key: string;
  readonly description: string;
  readonly itemNumber: string;
  /** All that its codes may say. */
  readonly codes: readonly string[];
  readonly tracking: Tracking;
  readonly place: string;
  /** The same for lines that are taken off one pile. */
  readonly pile: string;
  readonly wanted: Quantity;
};

/** A line of a job that wants of the job's own stock. In the item's unit. */
export type OwnWant = { readonly needId: number; readonly itemId: number; readonly wants: Quantity };

/** What a line of a job was not given yet, nor has reserved, in the item's unit. */
export function stillToPick(
  line: { readonly needed: Quantity; readonly given: readonly Quantity[]; readonly factor: Factor },
  reserved: readonly Quantity[],
): Quantity {
  const left = atLeastNone(subtractQ(line.needed, addQ(NONE, ...line.given)));
  return atLeastNone(subtractQ(toSupplierUnit(left, line.factor), addQ(NONE, ...reserved)));
}

/**
 * What a job's own stock goes to: the lines that want it, in the order in which they are needed, each pile in turn.
 *
 * @param piles - each with what nobody has reserved of it
 * @param wants - what each line was not given yet, nor has reserved, the soonest needed first
 */
export function ownToPick<P extends { readonly itemId: number; readonly left: Quantity }>(
  piles: readonly P[],
  wants: readonly OwnWant[],
): { readonly pile: P; readonly needId: number; readonly quantity: Quantity }[] {
  const open = new Map(wants.map((w) => [w.needId, w.wants]));
  return piles.flatMap((pile) => {
    let left = atLeastNone(pile.left);
    return wants.flatMap(({ needId, itemId }) => {
      const part = itemId === pile.itemId ? least(left, open.get(needId) ?? NONE) : NONE;
      if (part <= 0) return [];
      left = subtractQ(left, part);
      open.set(needId, subtractQ(open.get(needId) ?? NONE, part));
      return [{ pile, needId, quantity: part }];
    });
  });
}

/** Where some of it is taken. */
export type PickFrom = { readonly bin: string; readonly lotId: number | null; readonly quantity: Quantity };

/** A line of a picking list: where to go for it, and for serial numbers which pieces are there to choose from. */
export type PickingLine<T extends ToPick> = T & {
  readonly from: readonly PickFrom[];
  readonly pieces: readonly { readonly lotId: number; readonly bin: string }[];
};

/**
 * The order in which one walks by what is to be picked: place by place, bin by bin. Lines that want of one pile do not
 * get the same goods twice; what passes its date first goes first. Pieces with serial numbers are chosen by who picks.
 *
 * @param spots - what is known to lie there, by pile
 */
export function pickingList<T extends ToPick>(
  lines: readonly T[],
  spots: ReadonlyMap<string, readonly KnownSpot[]>,
): PickingLine<T>[] {
  const left = new Map([...spots].map(([pile, own]) => [pile, own.map((s) => ({ ...s }))]));
  const placed = lines.map((line) => {
    const own = left.get(line.pile) ?? [];
    if (line.tracking === 'serial')
      return {
        ...line,
        from: [],
        pieces: own.flatMap((s) => (s.lotId === null ? [] : [{ lotId: s.lotId, bin: s.bin }])),
      };
    const there = addQ(NONE, ...own.map((s) => s.quantity));
    const taken = takeFrom(own, [{ lotId: null, quantity: least(line.wanted, there) }], line.description);
    const from = (taken.ok ? taken.value : []).map((t) => {
      const spot = own.find((s) => s.binId === t.binId && s.lotId === t.lotId);
      if (spot !== undefined) own[own.indexOf(spot)] = { ...spot, quantity: subtractQ(spot.quantity, t.quantity) };
      return { bin: spot?.bin ?? '', lotId: t.lotId, quantity: t.quantity };
    });
    return { ...line, from, pieces: [] };
  });
  const bin = (l: PickingLine<T>) => l.from[0]?.bin ?? l.pieces[0]?.bin ?? '';
  const natural = (a: string, b: string) => a.localeCompare(b, undefined, { numeric: true });
  return placed.sort(
    (a, b) => natural(a.place, b.place) || natural(bin(a), bin(b)) || natural(a.itemNumber, b.itemNumber),
  );
}

/** What was picked of a line so far: how much, and which pieces where they have serial numbers. */
export type Picked = { readonly quantity: Quantity; readonly numbers: readonly string[] };
export type Picks = Readonly<Record<string, Picked>>;

export const NOT_PICKED: Picked = { quantity: NONE, numbers: [] };

/** A line as a person picks it: its pieces by their numbers. */
export type PickTarget = Pick<ToPick, 'key' | 'description' | 'codes' | 'tracking' | 'wanted'> & {
  readonly numbers: readonly string[];
};

export type ScannedPick = { readonly picks: Picks; readonly words: string; readonly took: boolean };

const same = (a: string, b: string) => a.toUpperCase() === b.toUpperCase();

/**
 * Counts what was scanned on the line that wants it: a serial number on the line whose piece it is, any other code on the
 * next line of that part that is not full.
 *
 * @param said - the words a code may be called by, the surest first, with its serial number if it has one
 * @returns the picks with it, or as they were where it does not fit, and what is told
 */
export function pickScanned(
  lines: readonly PickTarget[],
  picks: Picks,
  said: { readonly words: readonly string[]; readonly serial?: string; readonly count: number },
): ScannedPick {
  const stays = (words: string): ScannedPick => ({ picks, words, took: false });
  const of = (line: PickTarget) => picks[line.key] ?? NOT_PICKED;
  const room = (line: PickTarget) => subtractQ(line.wanted, of(line).quantity);
  const put = (line: PickTarget, picked: Picked, words: string): ScannedPick => ({
    picks: { ...picks, [line.key]: picked },
    words,
    took: true,
  });
  const calls = [...(said.serial === undefined ? [] : [said.serial]), ...said.words];
  for (const line of lines.filter((l) => l.tracking === 'serial')) {
    const number = line.numbers.find((n) => calls.some((w) => same(w, n)));
    if (number === undefined) continue;
    const { numbers } = of(line);
    if (lines.some((l) => of(l).numbers.some((n) => same(n, number)))) return stays(`${number} already picked.`);
    if (room(line) < ONE) continue;
    const more = [...numbers, number];
    return put(
      line,
      { quantity: quantity(more.length * ONE), numbers: more },
      `${number} of ${line.description} picked`,
    );
  }
  const called = lines.filter((l) => l.codes.some((c) => said.words.some((w) => same(w, c))));
  const [first] = called;
  if (first === undefined) return stays('No line on this list has this code.');
  const next = called.find((l) => room(l) > 0);
  if (next === undefined) return stays(`All of ${first.description} is picked.`);
  if (next.tracking === 'serial')
    return stays(`${next.description} is tracked by serial or lot number: scan one in stock there.`);
  const more = least(quantity(said.count * ONE), room(next));
  return put(next, { quantity: addQ(of(next).quantity, more), numbers: [] }, `${next.description} picked`);
}
