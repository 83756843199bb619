import { z } from 'zod';
import { add, formatMoney, minor, subtract, ZERO, type Minor } from '@/core/money/money';
import { spreadMoney } from '@/core/money/spread';
import { may } from '@/core/people/rights';
import { addQ, formatQuantity, NONE, quantity, type Quantity } from '@/core/quantity/quantity';
import { quantitySchema } from '@/core/quantity/schema';
import { binField, countFields, keptQuantity, numbersField } from '@/core/records/stock';
import { countedMoves } from '@/core/stores/counting';
import { numbersFault, type Numbered } from '@/core/stores/numbers';
import { count, worth } from '@/core/stores/pile';
import type { Spot } from '@/core/stores/spots';
import { counted } from '@/core/words';
import { settleClaims } from '@/store/stock/claims';
import { knownLots, lotIds, whereAre } from '@/store/stock/lots';
import { addMoves, pileOf, spotsOf, worthOfLots, type PileKey } from '@/store/stock/piles';
import { openTabLines } from '@/store/tabLines';
import type { Item } from '@/store/tables';
import { defineAction, grant, once, Refused, refuse, type Work } from './action';
import { binOf, goodsItem, movedNow, pileFields, placeOf, saidOf, writeLevel } from './stores';
import { takenOff } from './stockOwners';

type Count = z.output<z.ZodObject<typeof countFields.shape>> & {
  /** What the person saw on the screen when they counted. */
  readonly seen: Quantity;
  /** The bin that was counted; undefined for all that lies at the place. */
  readonly binId?: number | null | undefined;
  readonly numbers: readonly Numbered[];
};

/** Puts a pile right: to what was counted, or to what was there when the company began. */
export const countStock = defineAction({
  name: 'countStock',
  right: 'keep stores',
  input: z.object({
    once,
    ...pileFields,
    seen: quantitySchema,
    ...countFields.shape,
    binId: binField.optional(),
    numbers: numbersField,
  }),
  run: async (work, { once: _, itemId, placeId, jobId, ...said }) => {
    const { trx, audit } = work;
    const key = { itemId, placeId, jobId };
    const item = await goodsItem(trx, itemId);
    const place = await placeOf(trx, placeId);
    const pile = await pileOf(trx, key);
    const moved = await putRight(work, key, item, said);
    if (moved === undefined) refuse('stores.same', 'That is what is there already.', 'quantity');
    await audit({
      words: `Counted ${saidOf(said.quantity, item)} at ${place.name} (${formatQuantity(said.seen)} before): ${said.reason}`,
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
  const spots = await spotsOf(trx, key);
  const there = addQ(
    NONE,
    ...spots.filter((s) => said.binId === undefined || s.binId === said.binId).map((s) => s.quantity),
  );
  if (there !== said.seen)
    refuse(
      'stores.moved',
      `${saidOf(there, item)} are there by now: it moved since you looked. Count again.`,
      'quantity',
    );
  await binOf(trx, key.placeId, said.binId ?? null);
  const fault = numbersFault(item, said.quantity, said.numbers);
  if (fault !== undefined) throw new Refused([fault]);
  const lots = await countedLots(work, key, item, said);
  const moves = grant(countedMoves(spots, lots, said.binId, item.name));
  const opens = there === 0 && !(await hasMoved(trx, key));
  const value = await bookCount(work, key, item, moves, said);
  if (value !== undefined && !opens) checkLimit(work, minor(Math.abs(value)), item.name);
  return value;
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
  said: { readonly value: Minor | null; readonly reason: string },
): Promise<Minor | undefined> {
  const { trx, touch, today } = work;
  const pile = await pileOf(trx, key);
  const all = addQ(pile.quantity, ...moves.map((m) => m.quantity));
  const whole = grant(count({ name: item.name, unit: item.unit, quantity: all, value: said.value }, pile));
  if (moves.length === 0 && whole.value === 0) return undefined;
  const priced = await pricedMoves(work, key, item, moves, whole.value, said.value);
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
async function countedLots({ trx }: Work, key: PileKey, item: Item, { numbers, quantity: q }: Count) {
  if (item.tracking === 'none') return [{ lotId: null, quantity: q }];
  if (item.tracking === 'serial') {
    const known = await knownLots(
      trx,
      item.id,
      numbers.map((n) => n.number),
    );
    const own = new Set((await spotsOf(trx, key)).map((s) => s.lotId));
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
 * to. Where a value is said for pieces, those that were found bear what the others do not; else all are worth the same.
 *
 * @param all - what the pile gains in value
 */
async function pricedMoves(
  { trx }: Work,
  key: PileKey,
  item: Item,
  moves: readonly Spot[],
  all: Minor,
  said: Minor | null,
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
    ...kept.map((s, k) => ({
      ...{ binId: s.binId, lotId: s.lotId, quantity: NONE },
      value: subtract(shares[found.length + k] ?? ZERO, costOf(s)),
    })),
  ];
}

/** A pile that never was there opens with what is counted: that is no difference. */
const hasMoved = async (trx: Work['trx'], key: PileKey): Promise<boolean> =>
  (await trx('stockMove').where(key).first('id')) !== undefined;

/** A difference that comes to much takes somebody who may agree to it. */
export function checkLimit({ actor, company }: Work, value: Minor, name: string): void {
  if (value <= company.countLimit || may(actor, 'agree counts')) return;
  const words = may(actor, 'see money') ? formatMoney(value, company.currency) : 'more than you may post';
  refuse('stores.limit', `${name}: the difference comes to ${words}. Ask a manager to post it.`, 'quantity');
}

/** The most rows that a file of counts may bring at once. */
const MOST_COUNTED = 20_000;

/** Takes counts and levels from a file, of the company's own stock: all of them or none. */
export const takeCounts = defineAction({
  name: 'takeCounts',
  right: 'keep stores',
  input: z.object({
    once,
    rows: z
      .array(
        z.object({
          itemId: z.number().int(),
          placeId: z.number().int(),
          /** What was there when the file was read. */
          seen: quantitySchema,
          quantity: countFields.shape.quantity.nullable(),
          value: countFields.shape.value,
          keep: keptQuantity.nullable(),
          reason: countFields.shape.reason,
          numbers: numbersField,
        }),
      )
      .max(MOST_COUNTED),
  }),
  run: async (work, { rows }) => {
    const { trx, audit } = work;
    if (rows.length === 0) refuse('stores.none', 'The file says nothing that can be taken.');
    for (const { itemId, placeId, seen, quantity: q, value, keep, reason, numbers } of rows) {
      const item = await goodsItem(trx, itemId);
      const said = { seen, value, reason, numbers };
      if (q !== null) await putRight(work, { itemId, placeId, jobId: null }, item, { ...said, quantity: q });
      if (keep !== null) await writeLevel(trx, item, placeId, keep);
    }
    await audit({
      words: `Took ${counted(rows.length, 'count')} of stores from a file`,
      subjects: rows.map((r) => ['item', r.itemId] as const),
      after: rows,
    });
    return { rows: rows.length };
  },
});
