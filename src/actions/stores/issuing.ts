import { z } from 'zod';
import { divideRounded } from '@/core/money/decimal';
import { minor, subtract, ZERO, type Minor } from '@/core/money/money';
import { spreadMoney } from '@/core/money/spread';
import {
  addQ,
  atLeastNone,
  formatQuantity,
  fromSupplierUnit,
  NONE,
  quantity,
  subtractQ,
  type Quantity,
} from '@/core/quantity/quantity';
import { exactFactor } from '@/core/quantity/units';
import { anyText } from '@/core/records/fields';
import { binField, movedQuantity, numbersField } from '@/core/records/stock';
import { cutTo } from '@/core/stores/claims';
import { numbersFault, type Numbered } from '@/core/stores/numbers';
import { take } from '@/core/stores/pile';
import { takeFrom, type Spot } from '@/core/stores/spots';
import { counted } from '@/core/words';
import { whereIn, rowsOf } from '@/store/rows';
import { applyCuts, claimsOf, settleClaims } from '@/store/stock/claims';
import { knownLots } from '@/store/stock/lots';
import { addMoves, pileOf, spotsOf, worthOfLots, type PileKey } from '@/store/stock/piles';
import { openTabLines } from '@/store/tabLines';
import type { DeliveryPlace, Item, NeedRow } from '@/store/tables';
import { defineAction, found, grant, once, Refused, refuse, sameVersion, type Subject, type Work } from '../action';
import { checkLive } from '../jobs/jobs';
import { binOf, checkWhole, goodsItem, isOrAre, movedNow, pileFields, placeOf, saidOf } from './stores';

/** What others have reserved of a pile; a person's own word, which nothing takes away. */
export async function reservedByOthers(
  trx: Work['trx'],
  { itemId, placeId, jobId }: PileKey,
  needId: number | null,
): Promise<Quantity> {
  const query = trx('reservation').where({ itemId, placeId, jobId, firm: 1 });
  if (needId !== null) void query.whereNot({ needId });
  return addQ(NONE, ...(await query.select('quantity')).map((r) => r.quantity));
}

/** Ends the act when more is taken off a pile than is there and not reserved for others. */
export async function checkFree(trx: Work['trx'], key: PileKey, item: Item, q: Quantity, needId: number | null) {
  const pile = await pileOf(trx, key);
  const others = await reservedByOthers(trx, key, needId);
  const unreserved = subtractQ(pile.quantity, others);
  if (q <= pile.quantity && q > unreserved)
    refuse(
      'stores.reserved',
      `${saidOf(others, item)} ${isOrAre(others)} reserved for other jobs: issue ${formatQuantity(unreserved)} or less, or unreserve first.`,
      'quantity',
    );
  return pile;
}

/** Where goods are taken off a pile, and what each of those spots gives up in value. */
export type Taken = { readonly spots: readonly (Spot & { readonly value: Minor })[]; readonly value: Minor };

/** Takes goods off a pile: by their numbers where they have some, from a bin where one is said. */
export async function takeOff(
  trx: Work['trx'],
  key: PileKey,
  item: Item,
  {
    quantity: q,
    numbers,
    binId,
  }: { quantity: Quantity; numbers: readonly Numbered[]; binId?: number | null | undefined },
): Promise<Taken> {
  const pile = await pileOf(trx, key);
  const whole = grant(take(q, pile, item.name));
  const spots = await spotsOf(trx, key);
  // Goods that lay here before their numbers were followed go without them.
  const unnumbered = item.tracking !== 'none' && numbers.length === 0 && spots.every((s) => s.lotId === null);
  // Lots go by their dates unless one is asked for.
  const byDate = item.tracking === 'lot' && numbers.length === 0;
  const fault = unnumbered || byDate ? undefined : numbersFault(item, q, numbers);
  if (fault !== undefined) throw new Refused([fault]);
  const from = binId === undefined ? {} : { binId };
  const lots = new Map(
    (
      await knownLots(
        trx,
        item.id,
        numbers.map((n) => n.number),
      )
    ).map((l) => [l.number.toUpperCase(), l.id]),
  );
  const wanted = numbers.map((n) => ({
    lotId:
      lots.get(n.number.toUpperCase()) ??
      refuse('numbers.unknown', `${n.number} of ${item.name} isn’t in stock there. Check the number.`, 'numbers'),
    quantity: n.quantity,
    ...from,
  }));
  const taken = grant(
    takeFrom(spots, wanted.length === 0 ? [{ lotId: null, quantity: q, ...from }] : wanted, item.name),
  );
  if (item.tracking === 'serial' && !unnumbered) {
    const worth = await worthOfLots(
      trx,
      taken.flatMap((t) => t.lotId ?? []),
    );
    const valued = taken.map((t) => ({ ...t, value: worth.get(t.lotId ?? 0) ?? ZERO }));
    return { spots: valued, value: minor(valued.reduce((sum, t) => sum + t.value, 0)) };
  }
  const value = minor(-whole.value);
  const values = spreadMoney(
    value,
    taken.map((t) => t.quantity),
  );
  return { spots: taken.map((t, k) => ({ ...t, value: values[k] ?? ZERO })), value };
}

/** Takes what is issued off what the need has reserved there, or counts on. */
async function spendClaims(trx: Work['trx'], need: NeedRow, key: PileKey, issued: Quantity): Promise<void> {
  const { itemId, placeId, jobId } = key;
  const own = (await claimsOf(trx, [itemId])).filter(
    (c) => c.needId === need.id && c.placeId === placeId && c.jobId === jobId,
  );
  await applyCuts(trx, cutTo(atLeastNone(subtractQ(addQ(NONE, ...own.map((c) => c.quantity)), issued)), own));
}

const toFields = z.union([
  z.object({ needId: z.number().int() }),
  z.object({ jobId: z.number().int(), costCodeId: z.number().int() }),
]);

/** What is given out: off which pile, for which line or on which account of a live job, how much, and which pieces. */
type Issuing = {
  /** Its line of the tab. */
  readonly id: number;
  readonly key: PileKey;
  readonly item: Item;
  readonly need: NeedRow | undefined;
  readonly account: { readonly jobId: number; readonly costCodeId: number };
  readonly quantity: Quantity;
  readonly binId?: number | null | undefined;
  readonly numbers: readonly Numbered[];
};

/** Gives out some of one pile; who calls it settles its claims, and saw that the job is live. */
async function issueOne(work: Work, { id, key, item, need, account, ...what }: Issuing) {
  const { trx, today, touch } = work;
  const { itemId, placeId, jobId: ownerId } = key;
  const { jobId, costCodeId } = account;
  if (need !== undefined && need.itemId !== item.id)
    refuse('stores.item', `${need.description} is a different item from ${item.number}.`);
  if (ownerId !== null && ownerId !== jobId) refuse('stores.owner', 'This is another job’s stock. Transfer it first.');
  const q = what.quantity;
  checkWhole(q, item);
  await checkFree(trx, key, item, q, need?.id ?? null);
  const taken = await takeOff(trx, key, item, what);
  const factor = exactFactor(item.unit, need?.unit ?? item.unit) ?? { many: 1, one: 1 };
  const row = { jobId, costCodeId, itemId, placeId, ownerId, quantity: q, value: taken.value, day: today };
  await trx('issue').insert({ ...row, id, needId: need?.id ?? null, share: fromSupplierUnit(q, factor) });
  await addMoves(
    trx,
    movedNow(work),
    taken.spots.map(({ quantity: part, value, ...spot }) => ({
      ...{ ...key, ...spot, kind: 'issued' as const, issueId: id },
      ...{ quantity: quantity(-part), value: minor(-value) },
    })),
  );
  if (need !== undefined) await spendClaims(trx, need, key, q);
  touch('Issued', 'issue', id, [id]);
  const subjects: readonly Subject[] = [
    ['job', jobId],
    ['item', itemId],
    ['issue', id],
    ...(need === undefined ? [] : [['need', need.id] as const]),
  ];
  return { subjects, after: { ...row, numbers: what.numbers.map((n) => n.number) } };
}

/** Gives stock out to a job: for a line of its buy list, or charged to one of its cost codes. */
export const issueStock = defineAction({
  name: 'issueStock',
  right: 'keep stores',
  input: z.object({
    once,
    ...pileFields,
    to: toFields,
    quantity: movedQuantity,
    binId: binField.optional(),
    numbers: numbersField,
  }),
  run: async (work, { once: _, to, itemId, placeId, jobId, ...what }) => {
    const { trx, audit, touch } = work;
    const [item, place] = [await goodsItem(trx, itemId), await placeOf(trx, placeId)];
    const need = 'needId' in to ? found(await trx('need').where({ id: to.needId }).first(), 'This line') : undefined;
    const account = need ?? (to as Exclude<typeof to, { needId: number }>);
    await checkLive(trx, [account.jobId]);
    const [id = 0] = await openTabLines(trx, 'issue', [lineWords(item, place)]);
    const issuing = { id, key: { itemId, placeId, jobId }, item, need, account, ...what };
    const { subjects, after } = await issueOne(work, issuing);
    touch('Issued', 'issue', id, await settleClaims(trx, [itemId]));
    await audit({ words: `Issued ${saidOf(what.quantity, item)} from ${place.name}`, subjects, after });
    return { id };
  },
});

const lineWords = (item: Pick<Item, 'name'>, place: Pick<DeliveryPlace, 'name'>) => `${item.name} from ${place.name}`;

/** So many lines of a picking list are issued at once. */
const MOST_PICKED = 1000;

const pickedLine = z.object({
  needId: z.number().int(),
  itemId: z.number().int(),
  placeId: z.number().int(),
  /** Whose it is: null for the company's, else the job's own. */
  ownerId: z.number().int().nullable(),
  quantity: movedQuantity,
  numbers: numbersField,
});

/** Gives out to a job what was picked for it: all of it, or none. */
export const issuePicked = defineAction({
  name: 'issuePicked',
  right: 'keep stores',
  input: z.object({ once, jobId: z.number().int(), lines: z.array(pickedLine).max(MOST_PICKED) }),
  run: async (work, { jobId, lines }) => {
    const { trx, audit, touch } = work;
    if (lines.length === 0) refuse('pick.none', 'Pick at least one line first.');
    await checkLive(trx, [jobId]);
    const job = found(await trx('job').where({ id: jobId }).first('number'), 'This job');
    const byId = async <T extends 'need' | 'item' | 'deliveryPlace'>(table: T, of: readonly number[]) =>
      new Map((await whereIn(trx, table, 'id', of)).map((row) => [row.id, row]));
    const needs = await byId(
      'need',
      lines.map((l) => l.needId),
    );
    const items = await byId(
      'item',
      lines.map((l) => l.itemId),
    );
    const places = await byId(
      'deliveryPlace',
      lines.map((l) => l.placeId),
    );
    const known = lines.map((l) => ({
      ...l,
      need: found(needs.get(l.needId), 'This line'),
      item: found(items.get(l.itemId), 'This item'),
      place: found(places.get(l.placeId), 'This location'),
    }));
    if (known.some((l) => l.need.jobId !== jobId)) refuse('need.job', 'A line is on another job’s buy list.');
    const ids = await openTabLines(
      trx,
      'issue',
      known.map((l) => lineWords(l.item, l.place)),
    );
    const issued = [];
    for (const [k, { itemId, placeId, ownerId, item, need, quantity: q, numbers }] of known.entries()) {
      const key = { itemId, placeId, jobId: ownerId };
      issued.push(await issueOne(work, { id: ids[k] ?? 0, key, item, need, account: need, quantity: q, numbers }));
    }
    touch('Issued', 'job', jobId, await settleClaims(trx, [...items.keys()]));
    await audit({
      words: `Issued ${counted(issued.length, 'picked line')} to job ${job.number}`,
      subjects: issued.flatMap((i) => i.subjects),
      after: issued.map((i) => i.after),
    });
    return { lines: issued.length, job: job.number };
  },
});

/** Takes back into stores what a job did not use of an issue, at what it cost. */
export const returnIssue = defineAction({
  name: 'returnIssue',
  right: 'keep stores',
  input: z.object({
    once,
    issueId: z.number().int(),
    version: z.number().int(),
    quantity: movedQuantity,
    reason: anyText(120),
    binId: binField.default(null),
    numbers: numbersField,
  }),
  run: async (work, { issueId, version, quantity: q, reason, binId, numbers }) => {
    const { trx, audit, touch } = work;
    const issue = sameVersion(
      found(await trx('issue').where({ id: issueId }).first(), 'This issue'),
      version,
      'This issue',
    );
    const { itemId, placeId, ownerId } = issue;
    const item = await goodsItem(trx, itemId);
    checkWhole(q, item);
    if (q > issue.quantity)
      refuse(
        'stores.returned',
        `The job still has only ${formatQuantity(issue.quantity)}. Enter ${formatQuantity(issue.quantity)} or less.`,
        'quantity',
      );
    await checkLive(trx, [issue.jobId]);
    await binOf(trx, placeId, binId);
    const rest = subtractQ(issue.quantity, q);
    const back = await comesBack(trx, issue, item, q, numbers);
    const stays = subtract(issue.value, minor(back.reduce((sum, b) => sum + b.value, 0)));
    const share = quantity(divideRounded(BigInt(issue.share) * BigInt(rest), BigInt(issue.quantity)));
    await trx('issue')
      .where({ id: issueId })
      .update({ quantity: rest, share, value: stays, version: version + 1 });
    await addMoves(
      trx,
      movedNow(work),
      back.map((b) => ({ itemId, placeId, jobId: ownerId, binId, ...b, kind: 'returned' as const, issueId, reason })),
    );
    touch('Returned to stores', 'issue', issueId, [issueId, ...(await settleClaims(trx, [itemId]))]);
    await audit({
      words: `Returned ${saidOf(q, item)} to stores${reason === '' ? '' : `: ${reason}`}`,
      subjects: [
        ['job', issue.jobId],
        ['item', itemId],
        ['issue', issueId],
      ],
      before: issue,
      after: { ...issue, quantity: rest, share, value: stays },
    });
  },
});

type Back = { readonly lotId: number | null; readonly quantity: Quantity; readonly value: Minor };

/** What comes back of an issue: by its numbers, each at the value that it left with. */
async function comesBack(
  trx: Work['trx'],
  issue: { readonly id: number; readonly quantity: Quantity; readonly value: Minor },
  item: Item,
  q: Quantity,
  numbers: readonly Numbered[],
): Promise<Back[]> {
  const stays = divideRounded(BigInt(issue.value) * BigInt(subtractQ(issue.quantity, q)), BigInt(issue.quantity));
  const value = minor(issue.value - stays);
  const out = await rowsOf<Back & { lotId: number; number: string }>(
    trx('stockMove as m')
      .join('lot as l', 'l.id', 'm.lotId')
      .where('m.issueId', issue.id)
      .groupBy('m.lotId', 'l.number')
      .select('m.lotId', 'l.number')
      .sum({ quantity: 'm.quantity', value: 'm.value' }),
  );
  const [only] = out.filter((o) => o.quantity < 0);
  // What went out of one lot comes back to it.
  const sole = item.tracking === 'lot' && numbers.length === 0 && out.filter((o) => o.quantity < 0).length === 1;
  if (sole && only !== undefined) return [{ lotId: only.lotId, quantity: q, value }];
  // What went out before its numbers were followed comes back only with them, by a count.
  const fault = numbersFault(item, q, numbers);
  if (fault !== undefined) throw new Refused([fault]);
  if (numbers.length === 0) return [{ lotId: null, quantity: q, value }];
  const outBy = new Map(out.map((o) => [o.number.toUpperCase(), o]));
  const backs = numbers.map((n) => {
    const known = outBy.get(n.number.toUpperCase());
    if (known === undefined || -known.quantity < n.quantity)
      return refuse(
        'numbers.unknown',
        `${n.number} wasn’t part of this issue, or is already returned. Check the number.`,
        'numbers',
      );
    return { ...known, back: n.quantity };
  });
  if (item.tracking === 'serial')
    return backs.map(({ lotId, back, value: gave }) => ({ lotId, quantity: back, value: minor(-gave) }));
  const values = spreadMoney(
    value,
    backs.map((f) => f.back),
  );
  return backs.map(({ lotId, back }, k) => ({ lotId, quantity: back, value: values[k] ?? ZERO }));
}
