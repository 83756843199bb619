import { z } from 'zod';
import { add, formatMoney, minor, subtract, ZERO, type Minor } from '@/core/money/money';
import { spreadMoney } from '@/core/money/spread';
import { may } from '@/core/people/rights';
import { addQ, formatQuantity, NONE, quantity } from '@/core/quantity/quantity';
import { quantitySchema } from '@/core/quantity/schema';
import { binField, countFields, keptQuantity, numbersField } from '@/core/records/stock';
import { countedMoves } from '@/core/stores/counting';
import { MOST_NUMBERS, numbersFault } from '@/core/stores/numbers';
import { count, worth, type Pile } from '@/core/stores/pile';
import type { KnownSpot, Spot } from '@/core/stores/spots';
import { counted } from '@/core/words';
import { settleClaims } from '@/store/stock/claims';
import { knownLots, lotIds, whereAre } from '@/store/stock/lots';
import { addMoves, pileOf, spotsOf, worthOfLots, type PileKey } from '@/store/stock/piles';
import { openTabLines } from '@/store/tabLines';
import type { Item } from '@/store/tables';
import { defineAction, grant, once, Refused, refuse, type Work } from '../action';
import { binOf, goodsItem, movedNow, pileFields, placeOf, saidOf, writeLevel } from './stores';
import { takenOff } from './owners';

/** What was counted of a pile: all that lies at its place, or in one bin. */
const partFields = {
  /** The bin that was counted; undefined for all that lies at the place. */
  binId: binField.optional(),
  /** What the book said when they counted. */
  seen: quantitySchema,
  quantity: countFields.shape.quantity,
  numbers: numbersField,
  /** What each of them is worth, in their order; empty where only all of it is. */
  values: z.array(countFields.shape.value.unwrap()).max(MOST_NUMBERS).default([]),
};
type CountedLot = z.output<z.ZodObject<typeof partFields>>;

/** What was counted, what all of it is worth, and why the pile is put right. */
type Count = { readonly parts: readonly CountedLot[]; readonly value: Minor | null; readonly reason: string };

/** Puts a pile right: to what was counted, or to what was there when the company began. */
export const countStock = defineAction({
  name: 'countStock',
  right: 'keep stores',
  input: z.object({
    once,
    ...pileFields,
    ...partFields,
    value: countFields.shape.value,
    reason: countFields.shape.reason,
  }),
  run: async (work, { once: _, itemId, placeId, jobId, value, reason, ...said }) => {
    const { trx, audit } = work;
    const key = { itemId, placeId, jobId };
    const item = await goodsItem(trx, itemId);
    const place = await placeOf(trx, placeId);
    const pile = await pileOf(trx, key);
    const moved = await putRight(work, key, item, { parts: [said], value, reason });
    if (moved === undefined) refuse('stores.same', 'The count equals the book quantity: nothing to post.', 'quantity');
    await audit({
      words: `Counted ${saidOf(said.quantity, item)} at ${place.name} (${formatQuantity(said.seen)} before): ${reason}`,
      subjects: [['item', item.id], ...(jobId === null ? [] : [['job', jobId] as const])],
      before: pile,
      after: await pileOf(trx, key),
    });
  },
});

/**
 * Moves a pile, or a bin of it, to what was counted, and posts what that changes.
 * @returns what it comes to; undefined where that is what is there already
 */
async function putRight(work: Work, key: PileKey, item: Item, said: Count): Promise<Minor | undefined> {
  const { trx } = work;
  const pile = await pileOf(trx, key);
  const spots = await spotsOf(trx, key);
  const moves: Spot[] = [];
  const each = new Map<number, Minor>();
  let rest: readonly KnownSpot[] = spots;
  for (const part of said.parts) {
    const own = part.binId === undefined ? spots : spots.filter((s) => s.binId === part.binId);
    const there = addQ(NONE, ...own.map((s) => s.quantity));
    if (own.some((s) => !rest.includes(s)))
      refuse('stores.twice', `${item.name} is counted in two rows. Combine them.`);
    if (there !== part.seen)
      refuse(
        'stores.moved',
        `Stock has moved since you opened this: now ${saidOf(there, item)}. Count again.`,
        'quantity',
      );
    await binOf(trx, key.placeId, part.binId ?? null);
    const fault = numbersFault(item, part.quantity, part.numbers);
    if (fault !== undefined) throw new Refused([fault]);
    const lots = await countedLots(work, own, item, part);
    const twice = item.tracking === 'serial' && lots.some((l) => moves.some((m) => m.lotId === l.lotId));
    if (twice) refuse('numbers.twice', `A number of ${item.name} is entered twice. Remove one.`, 'numbers');
    part.values.forEach((v, k) => each.set(lots[k]?.lotId ?? 0, v));
    moves.push(...grant(countedMoves(own, lots, part.binId ?? null, item.name)));
    rest = rest.filter((s) => !own.includes(s));
  }
  const opens = pile.quantity === 0 && !(await hasMoved(trx, key));
  // What lies in bins that were not counted is worth what it was.
  const all = said.value === null ? null : add(said.value, await worthOfSpots(work, item, rest, pile));
  const value = await bookCount(work, key, item, moves, { value: all, each, reason: said.reason });
  if (value !== undefined && !opens) checkLimit(work, minor(Math.abs(value)), item.name);
  return value;
}

/** What some spots of a pile are worth: pieces with serial numbers their own cost, all else by the average. */
async function worthOfSpots({ trx }: Work, item: Item, spots: readonly Spot[], pile: Pile): Promise<Minor> {
  if (item.tracking !== 'serial') return worth(addQ(NONE, ...spots.map((s) => s.quantity)), pile);
  const lots = spots.flatMap((s) => s.lotId ?? []);
  return add(ZERO, ...(await worthOfLots(trx, lots)).values());
}

/**
 * Moves a pile by what was found and missed at its spots, and posts what that changes.
 * @returns what it comes to; undefined where nothing changes
 */
export async function bookCount(
  work: Work,
  key: PileKey,
  item: Item,
  moves: readonly Spot[],
  said: { readonly value: Minor | null; readonly each?: ReadonlyMap<number, Minor>; readonly reason: string },
): Promise<Minor | undefined> {
  const { trx, touch, today } = work;
  const pile = await pileOf(trx, key);
  const all = addQ(pile.quantity, ...moves.map((m) => m.quantity));
  const whole = grant(count({ name: item.name, unit: item.unit, quantity: all, value: said.value }, pile));
  const priced = (await pricedMoves(work, key, item, moves, whole.value, said)).filter((m) => m.quantity || m.value);
  if (priced.length === 0) return undefined;
  const value = minor(priced.reduce((sum, m) => sum + m.value, 0));
  const lost = await takenOff(trx, key, item, quantity(-whole.quantity));
  const [id = 0] = await openTabLines(trx, 'stockChange', [`count of ${item.name}`]);
  const row = { id, kind: 'counted', itemId: key.itemId, placeId: key.placeId, jobId: key.jobId, day: today };
  await trx('stockChange').insert({ ...row, ...lost, quantity: whole.quantity, value, reason: said.reason } as never);
  await addMoves(
    trx,
    movedNow(work),
    priced.map((m) => ({
      ...{ ...key, ...m, kind: m.quantity === 0 ? ('revalued' as const) : ('counted' as const) },
      ...{ reason: said.reason, changeId: id },
    })),
  );
  touch('Counted', 'item', item.id, [id, ...(await settleClaims(trx, [item.id]))]);
  return value;
}

/** The lots that were counted; a serial number that lies elsewhere by the book says where. */
async function countedLots({ trx }: Work, spots: readonly Spot[], item: Item, { numbers, quantity: q }: CountedLot) {
  if (item.tracking === 'none') return [{ lotId: null, quantity: q }];
  if (item.tracking === 'serial') {
    const known = await knownLots(
      trx,
      item.id,
      numbers.map((n) => n.number),
    );
    const own = new Set(spots.map((s) => s.lotId));
    const strange = known.filter((l) => !own.has(l.id));
    for (const where of (
      await whereAre(
        trx,
        strange.map((l) => l.id),
      )
    ).values())
      if (where.is !== 'away') refuse('numbers.elsewhere', `${where.number} ${where.words}.`, 'numbers');
  }
  const ids = await lotIds(trx, item.id, numbers);
  return numbers.map((n, k) => ({ lotId: ids[k] ?? 0, quantity: n.quantity }));
}

type Priced = Spot & { readonly value: Minor };

/**
 * What each of a count's moves is worth: pieces with serial numbers their own cost, all else together what the pile comes
 * to. A value that is said of each piece is its own; of one that is said of all, those that were found bear what the others
 * do not, else all are worth the same.
 *
 * @param all - what the pile gains in value
 */
async function pricedMoves(
  { trx }: Work,
  key: PileKey,
  item: Item,
  moves: readonly Spot[],
  all: Minor,
  { value: said, each }: { readonly value: Minor | null; readonly each?: ReadonlyMap<number, Minor> },
): Promise<Priced[]> {
  const first = moves[0] ?? { binId: null, lotId: null, quantity: NONE };
  if (item.tracking !== 'serial')
    return [{ ...first, value: all }, ...moves.slice(1).map((m) => ({ ...m, value: ZERO }))];
  const pile = await pileOf(trx, key);
  const spots = await spotsOf(trx, key);
  const own = await worthOfLots(
    trx,
    [...spots, ...moves].flatMap((m) => m.lotId ?? []),
  );
  // Pieces that lay here before their numbers were followed share what those with numbers leave.
  const bare = {
    quantity: addQ(NONE, ...spots.filter((m) => m.lotId === null).map((m) => m.quantity)),
    value: subtract(pile.value, add(ZERO, ...spots.map((m) => own.get(m.lotId ?? 0) ?? ZERO))),
  };
  const costOf = (m: Spot) =>
    m.lotId === null ? worth(quantity(Math.abs(m.quantity)), bare) : (own.get(m.lotId) ?? ZERO);
  const [found, missed] = [moves.filter((m) => m.quantity > 0), moves.filter((m) => m.quantity < 0)];
  const gone = missed.map((m) => ({ ...m, value: minor(-costOf(m)) }));
  if (said === null) return [...gone, ...found.map((m) => ({ ...m, value: worth(m.quantity, pile) }))];
  const kept = spots.filter((s) => !missed.some((m) => m.lotId === s.lotId && m.binId === s.binId));
  const ofEach = (m: Spot) => each?.get(m.lotId ?? 0);
  if (found.every((m) => ofEach(m) !== undefined) && each?.size)
    return [
      ...gone,
      ...found.map((m) => ({ ...m, value: ofEach(m) ?? ZERO })),
      ...kept.map((s) => revalued(s, subtract(ofEach(s) ?? costOf(s), costOf(s)))),
    ];
  const rest = subtract(said, add(ZERO, ...kept.map(costOf)));
  const even = (to: readonly Spot[], sum: Minor) =>
    spreadMoney(
      sum,
      to.map(() => 1),
    );
  if (found.length > 0 && rest >= 0) {
    const shares = even(found, rest);
    return [...gone, ...found.map((m, k) => ({ ...m, value: shares[k] ?? ZERO }))];
  }
  const shares = even([...found, ...kept], said);
  return [
    ...gone,
    ...found.map((m, k) => ({ ...m, value: shares[k] ?? ZERO })),
    ...kept.map((s, k) => revalued(s, subtract(shares[found.length + k] ?? ZERO, costOf(s)))),
  ];
}

const revalued = ({ binId, lotId }: Spot, value: Minor): Priced => ({ binId, lotId, quantity: NONE, value });

/** A pile that never was there opens with what is counted: that is no difference. */
const hasMoved = async (trx: Work['trx'], key: PileKey): Promise<boolean> =>
  (await trx('stockMove').where(key).first('id')) !== undefined;

/** A difference that comes to much takes somebody who may agree to it. */
export function checkLimit({ actor, company }: Work, value: Minor, name: string): void {
  if (value <= company.countLimit || may(actor, 'agree counts')) return;
  const words = may(actor, 'see money') ? formatMoney(value, company.currency) : 'more than you may post';
  refuse('stores.limit', `${name}: the difference is ${words}, more than you may post. Ask a manager.`, 'quantity');
}

/** The most rows that a file of counts may bring at once, and the most bins that one item may be counted in. */
const MOST_COUNTED = 20_000;
const MOST_BINS = 500;

/** Takes counts and levels from a file, of the company's own stock: all of them or none. */
export const takeCounts = defineAction({
  name: 'takeCounts',
  internal: true,
  right: 'keep stores',
  input: z.object({
    once,
    rows: z
      .array(
        z.object({
          itemId: z.number().int(),
          placeId: z.number().int(),
          /** None where the file says a level alone. */
          parts: z.array(z.object(partFields)).max(MOST_BINS),
          value: countFields.shape.value,
          keep: keptQuantity.nullable(),
          reason: countFields.shape.reason,
        }),
      )
      .max(MOST_COUNTED),
  }),
  run: async (work, { rows }) => {
    const { trx, audit } = work;
    if (rows.length === 0) refuse('stores.none', 'The file has nothing to import. Choose another file.');
    for (const { itemId, placeId, keep, ...said } of rows) {
      const item = await goodsItem(trx, itemId);
      if (said.parts.length > 0) await putRight(work, { itemId, placeId, jobId: null }, item, said);
      if (keep !== null) await writeLevel(trx, item, placeId, keep);
    }
    await audit({
      words: `Imported ${counted(rows.length, 'count')}`,
      subjects: rows.map((r) => ['item', r.itemId] as const),
      after: rows,
    });
    return { rows: rows.length };
  },
});
