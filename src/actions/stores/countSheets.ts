import { z } from 'zod';
import { add, minor, ZERO, type Minor } from '@/core/money/money';
import { NONE, ONE, quantity, type Quantity } from '@/core/quantity/quantity';
import { anyText, optionalDay, text } from '@/core/records/fields';
import { binField, countFields } from '@/core/records/stock';
import { groupBy } from '@/core/group';
import { LONGEST_NUMBER, numbersFault } from '@/core/stores/numbers';
import { differenceOf } from '@/core/stores/sheet';
import type { Spot } from '@/core/stores/spots';
import { counted } from '@/core/words';
import { insertMany, insertOne, nextCount } from '@/store/rows';
import { knownLots, lotIds, whereAre } from '@/store/stock/lots';
import { pileKey, type PileKey } from '@/store/stock/piles';
import type { StockCount, StockCountLine } from '@/store/tables';
import { defineAction, found, once, Refused, refuse, sameVersion, type Work } from '../action';
import { bookCount, checkLimit } from './counting';
import { binOf, checkWhole, goodsItem, placeOf, saidOf } from './stores';

/** The most spots that one sheet has; a larger place is counted bin by bin. */
const MOST_SPOTS = 5000;

/** What lies at a spot by the book. */
async function lies({ trx }: Work, at: PileKey & { readonly binId: number | null; readonly lotId: number | null }) {
  const spot = { itemId: at.itemId, placeId: at.placeId, jobId: at.jobId ?? 0 };
  const row = await trx('stockSpot')
    .where({ ...spot, binId: at.binId ?? 0, lotId: at.lotId ?? 0 })
    .first('quantity');
  return row?.quantity ?? NONE;
}

/** Begins to count a place, or one bin of it: what lies there by the book is written down. */
export const beginCount = defineAction({
  name: 'beginCount',
  right: 'keep stores',
  input: z.object({
    once,
    placeId: z.number().int(),
    /** null for all of the place. */
    binId: binField,
    /** Whether who counts is not told what the book says. */
    blind: z.boolean(),
  }),
  run: async (work, { placeId, binId, blind }) => {
    const { trx, actor, today, audit } = work;
    const place = await placeOf(trx, placeId);
    const bin = await binOf(trx, placeId, binId);
    const under = await trx('stockCount')
      .where({ placeId })
      .whereIn('state', ['open', 'counted'])
      .where((q) => (binId === null ? q : q.whereNull('binId').orWhere({ binId })))
      .first('number');
    if (under !== undefined)
      refuse('count.twice', `Count ${under.number} already covers some of this. Post or cancel it first.`, 'placeId');
    const spots = await trx('stockSpot')
      .where({ placeId })
      .where('quantity', '>', 0)
      .where((q) => (binId === null ? q : q.where({ binId })))
      .limit(MOST_SPOTS + 1);
    if (spots.length > MOST_SPOTS)
      refuse(
        'count.large',
        `${place.name} has more than ${MOST_SPOTS} lines to count. Count it bin by bin.`,
        'placeId',
      );
    const year = today.slice(0, 4);
    const number = `C${year.slice(2)}-${String(await nextCount(trx, `count ${year}`)).padStart(4, '0')}`;
    const row = { number, placeId, binId, blind: Number(blind), begunBy: actor.id, begunOn: today };
    const id = await insertOne(trx, 'stockCount', { ...row, state: 'open' });
    await insertMany(
      trx,
      'stockCountLine',
      spots.map((s) => ({
        ...{ countId: id, itemId: s.itemId, jobId: s.jobId || null, binId: s.binId || null, lotId: s.lotId || null },
        begun: s.quantity,
      })),
    );
    await audit({
      words: `Started count ${number} of ${bin === null ? place.name : `bin ${bin.name}`}, ${counted(spots.length, 'line')}`,
      subjects: [['company', 1]],
      after: row,
    });
    return { id, number };
  },
});

const countedLine = z.object({
  lineId: z.number().int(),
  /** What stood there when it was typed over; null for nothing. */
  was: countFields.shape.quantity.nullable(),
  /** null for not counted. */
  counted: countFields.shape.quantity.nullable(),
  /** Whether it was counted before what moved since the count began. */
  before: z.boolean().default(false),
});

/** A count that is being counted. */
async function openCount({ trx }: Work, id: number): Promise<StockCount> {
  const count = found(await trx('stockCount').where({ id }).first(), 'This count');
  return count.state === 'open' ? count : refuse('count.state', `Count ${count.number} is closed. Start a new count.`);
}

/** Writes down what was counted, line by line as it is typed; others may count lines of the same sheet. */
export const countLines = defineAction({
  name: 'countLines',
  right: 'keep stores',
  input: z.object({ countId: z.number().int(), lines: z.array(countedLine).min(1).max(MOST_SPOTS) }),
  run: async (work, { countId, lines }) => {
    const { trx, audit } = work;
    const { placeId, number } = await openCount(work, countId);
    for (const { lineId, was, counted: now, before } of lines) {
      const line = found(await trx('stockCountLine').where({ id: lineId, countId }).first(), 'This line');
      const item = await goodsItem(trx, line.itemId);
      if (line.counted !== was && line.counted !== now)
        refuse(
          'count.clash',
          `Someone else has counted ${saidOf(line.counted ?? NONE, item)} here. Check, then keep theirs or enter yours.`,
        );
      if (now !== null) checkWhole(now, item);
      if (item.tracking === 'serial' && now !== null && now > ONE)
        refuse('count.serial', `${item.name} is tracked by serial number: mark each found or not found.`);
      const book = now === null ? null : before ? line.begun : await lies(work, { ...line, placeId });
      await trx('stockCountLine').where({ id: lineId }).update({ counted: now, book });
    }
    await audit({
      words: `Counted ${counted(lines.length, 'line')} of count ${number}`,
      subjects: [['company', 1]],
      after: lines,
    });
  },
});

/** Puts something on the sheet that was found and does not stand on it. */
export const countFound = defineAction({
  name: 'countFound',
  right: 'keep stores',
  input: z.object({
    once,
    countId: z.number().int(),
    itemId: z.number().int(),
    binId: binField,
    number: anyText(LONGEST_NUMBER),
    expiresOn: optionalDay.default(null),
    quantity: countFields.shape.quantity.refine((q) => q > 0, 'Enter a quantity above zero.'),
  }),
  run: async (work, { countId, itemId, binId, number, expiresOn, quantity: q }) => {
    const { trx, audit } = work;
    const { placeId, binId: only, number: sheet } = await openCount(work, countId);
    const item = await goodsItem(trx, itemId);
    if (only !== null && binId !== only)
      refuse('count.bin', 'This sheet covers another bin. Add it on the sheet of that bin.', 'binId');
    await binOf(trx, placeId, binId);
    checkWhole(q, item);
    const numbers = number === '' ? [] : [{ number, expiresOn, quantity: q }];
    const fault = numbersFault(item, q, numbers);
    if (fault !== undefined) throw new Refused([{ ...fault, field: 'number' }]);
    if (item.tracking === 'serial') await checkNowhereElse(work, itemId, number, placeId, binId);
    const lotId = (await lotIds(trx, itemId, numbers))[0] ?? null;
    const twin = await trx('stockCountLine').where({ countId, itemId, jobId: null, binId, lotId }).first('id');
    if (twin !== undefined) refuse('count.there', `${item.name} is already on the sheet. Count it there.`, 'itemId');
    const at = { itemId, placeId, jobId: null, binId, lotId };
    const book = await lies(work, at);
    const line = { countId, itemId, jobId: null, binId, lotId, begun: book, counted: q, book };
    const id = await insertOne(trx, 'stockCountLine', line);
    await audit({
      words: `Found ${saidOf(q, item)}, count ${sheet}`,
      subjects: [['item', itemId]],
      after: { ...line, number },
    });
    return { id };
  },
});

/** A serial number that lies elsewhere by the book says where. */
async function checkNowhereElse(
  { trx }: Work,
  itemId: number,
  number: string,
  placeId: number,
  binId: number | null,
): Promise<void> {
  const [lot] = await knownLots(trx, itemId, [number]);
  if (lot === undefined) return;
  const here = await trx('stockSpot')
    .where({ lotId: lot.id, placeId, binId: binId ?? 0 })
    .where('quantity', '>', 0)
    .first('itemId');
  const where = (await whereAre(trx, [lot.id])).get(lot.id);
  if (here === undefined && where !== undefined && where.is !== 'away')
    refuse('numbers.elsewhere', `${where.number} ${where.words}.`, 'number');
}

const countRef = { countId: z.number().int(), version: z.number().int() };

/** Moves a count from one of its states to another. */
async function moveTo(
  work: Work,
  { countId: id, version }: { countId: number; version: number },
  to: StockCount['state'],
) {
  const { trx, actor, today, audit } = work;
  const count = sameVersion(found(await trx('stockCount').where({ id }).first(), 'This count'), version, 'This count');
  if (count.state === 'posted' || count.state === 'dropped')
    refuse('count.state', `${count.number} is already ${count.state === 'posted' ? 'posted' : 'cancelled'}.`);
  const ends = to === 'posted' || to === 'dropped' ? { endedBy: actor.id, endedOn: today } : {};
  await trx('stockCount')
    .where({ id })
    .update({ state: to, ...ends, version: version + 1 });
  const words = { open: 'Continued', counted: 'Counted', posted: 'Posted', dropped: 'Cancelled' }[to];
  return {
    count,
    told: (after?: unknown, items: readonly number[] = []) =>
      audit({
        words: `${words} count ${count.number}`,
        subjects: [['company', 1], ...items.map((i) => ['item', i] as const)],
        before: { state: count.state },
        after: { state: to, ...(after === undefined ? {} : { lines: after }) },
      }),
  };
}

/** Ends the counting of a sheet, so that its differences are looked over; or goes on with it. */
export const endCounting = defineAction({
  name: 'endCounting',
  right: 'keep stores',
  input: z.object({ ...countRef, again: z.boolean().default(false) }),
  run: async (work, { again, ...ref }) => {
    const { count, told } = await moveTo(work, ref, again ? 'open' : 'counted');
    const some = await work.trx('stockCountLine').where({ countId: count.id }).whereNotNull('counted').first('id');
    if (!again && some === undefined) refuse('count.none', 'Count at least one line first.');
    await told();
  },
});

/** Gives a count up: nothing of it is posted. */
export const dropCount = defineAction({
  name: 'dropCount',
  right: 'keep stores',
  input: z.object(countRef),
  run: async (work, ref) => (await moveTo(work, ref, 'dropped')).told(),
});

/** Posts what a count differs by, with a reason for each difference; what was not counted stays as the book says. */
export const postCount = defineAction({
  name: 'postCount',
  right: 'keep stores',
  input: z.object({
    once,
    ...countRef,
    /** Why, of all that has no reason of its own. */
    reason: text(120, 'Give a reason for the difference: earlier miscount, not booked, lost.'),
    reasons: z
      .array(z.object({ lineId: z.number().int(), reason: anyText(120) }))
      .max(MOST_SPOTS)
      .default([]),
  }),
  run: async (work, { once: _, reason, reasons, ...ref }) => {
    const { trx } = work;
    const { count, told } = await moveTo(work, ref, 'posted');
    if (count.state !== 'counted') refuse('count.state', `Finish counting ${count.number} before you post it.`);
    const own = new Map(reasons.map((r) => [r.lineId, r.reason]));
    const lines = (await trx('stockCountLine').where({ countId: count.id })).filter(
      (l) => (differenceOf(l) ?? 0) !== 0,
    );
    const piles = groupBy(lines, (l) => pileKey({ ...l, placeId: count.placeId }));
    let sum: Minor = ZERO;
    for (const pile of piles.values())
      sum = add(sum, await postPile(work, count, pile, (l) => own.get(l.id) || reason));
    checkLimit(work, sum, count.number);
    for (const l of lines)
      await trx('stockCountLine')
        .where({ id: l.id })
        .update({ reason: own.get(l.id) || reason });
    await told(
      lines.map((l) => ({ itemId: l.itemId, book: l.book, counted: l.counted, reason: own.get(l.id) || reason })),
      lines.map((l) => l.itemId),
    );
    return { lines: lines.length };
  },
});

/** Posts the differences of one pile. @returns what it comes to, above zero whichever way */
async function postPile(
  work: Work,
  { placeId }: StockCount,
  lines: readonly StockCountLine[],
  reasonOf: (line: StockCountLine) => string,
): Promise<Minor> {
  const [first] = lines;
  if (first === undefined) return ZERO;
  const item = await goodsItem(work.trx, first.itemId);
  const moves: Spot[] = [];
  for (const line of lines) {
    const by = quantity(differenceOf(line) ?? 0);
    const now: Quantity = await lies(work, { ...line, placeId });
    if (now + by < 0)
      refuse(
        'count.moved',
        `Only ${saidOf(now, item)} in stock now, so ${saidOf(quantity(-by), item)} can’t be missing. Count it again.`,
      );
    moves.push({ binId: line.binId, lotId: line.lotId, quantity: by });
  }
  const key = { itemId: first.itemId, placeId, jobId: first.jobId };
  const reasons = [...new Set(lines.map(reasonOf))].join('; ').slice(0, 240);
  const value = await bookCount(work, key, item, moves, { value: null, reason: reasons });
  return minor(Math.abs(value ?? 0));
}
