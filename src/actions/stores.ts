import { z } from 'zod';
import { isGoods } from '@/core/items/kinds';
import { divideRounded } from '@/core/money/decimal';
import { minor, subtract } from '@/core/money/money';
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
import { exactFactor, unitOf } from '@/core/quantity/units';
import { quantitySchema } from '@/core/quantity/schema';
import { wholeFault } from '@/core/quantity/whole';
import { anyText } from '@/core/records/fields';
import { countFields, keptQuantity, movedQuantity } from '@/core/records/stock';
import { cutTo } from '@/core/stores/claims';
import { counted } from '@/core/words';
import { count, take } from '@/core/stores/pile';
import { openTabLines } from '@/store/ledger';
import { addMove, applyCuts, claimsOf, pileOf, settleStock, type PileKey } from '@/store/stock';
import type { Item, NeedRow } from '@/store/tables';
import { defineAction, found, grant, once, Refused, refuse, sameVersion, type Work } from './action';
import { checkLive } from './jobs';

const pileFields = {
  itemId: z.number().int(),
  placeId: z.number().int(),
  /** Whose it is; null for the company's own. */
  jobId: z.number().int().nullable(),
};

const saidOf = (q: Quantity, item: Item): string =>
  [formatQuantity(q), unitOf(item.unit).short, item.name].filter(Boolean).join(' ');

async function goodsItem(trx: Work['trx'], itemId: number): Promise<Item> {
  const item = found(await trx('item').where({ id: itemId }).first(), 'This item');
  if (!isGoods(item.kind)) refuse('stores.kind', `${item.number} is no material or part, so it lies in no store.`);
  return item;
}

const placeOf = async (trx: Work['trx'], id: number) =>
  found(await trx('deliveryPlace').where({ id }).first(), 'This place');

/** The moment and the person of a move of stock. */
const movedNow = ({ actor, today, now }: Work) => ({ personId: actor.id, day: today, at: now });

/** Puts a pile right: to what was counted, or to what was there when the company began. */
export const countStock = defineAction({
  name: 'countStock',
  right: 'keep stores',
  input: z.object({
    once,
    ...pileFields,
    /** What the person saw on the screen when they counted. */
    seen: quantitySchema,
    ...countFields.shape,
  }),
  run: async (work, { once: _, seen, quantity: q, value, reason, ...key }) => {
    const { trx, audit, touch } = work;
    const item = await goodsItem(trx, key.itemId);
    const place = await placeOf(trx, key.placeId);
    const pile = await pileOf(trx, key);
    const move = await putRight(work, key, item, { seen, quantity: q, value, reason });
    if (move === undefined) refuse('stores.same', 'That is what is there already.', 'quantity');
    touch('Counted', 'item', item.id, await settleStock(trx, item.id));
    await audit({
      words: `Counted ${saidOf(q, item)} at ${place.name} (${formatQuantity(pile.quantity)} before): ${reason}`,
      subjects: [['item', item.id], ...(key.jobId === null ? [] : [['job', key.jobId] as const])],
      before: pile,
      after: { quantity: q, value: pile.value + (move?.value ?? 0) },
    });
  },
});

type Count = z.output<z.ZodObject<typeof countFields.shape>> & { readonly seen: Quantity };

/** Moves a pile to what was counted. @returns the move; undefined where that is what is there already */
async function putRight(work: Work, key: PileKey, item: Item, { seen, quantity: q, value, reason }: Count) {
  const { trx } = work;
  const pile = await pileOf(trx, key);
  if (pile.quantity !== seen)
    refuse(
      'stores.moved',
      `${saidOf(pile.quantity, item)} are there by now: it moved since you looked. Count again.`,
      'quantity',
    );
  const move = grant(count({ name: item.name, unit: item.unit, quantity: q, value }, pile));
  if (move.quantity === 0 && move.value === 0) return undefined;
  const kind = move.quantity === 0 ? 'revalued' : 'counted';
  await addMove(trx, { ...key, ...move, kind, reason, ...movedNow(work) });
  return move;
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
        }),
      )
      .max(MOST_COUNTED),
  }),
  run: async (work, { rows }) => {
    const { trx, audit, touch } = work;
    if (rows.length === 0) refuse('stores.none', 'The file says nothing that can be taken.');
    for (const { itemId, placeId, seen, quantity: q, value, keep, reason } of rows) {
      const item = await goodsItem(trx, itemId);
      if (q !== null) {
        const key = { itemId, placeId, jobId: null };
        await putRight(work, key, item, { seen, quantity: q, value, reason });
        touch('Counted', 'item', itemId, await settleStock(trx, itemId));
      }
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

async function writeLevel(trx: Work['trx'], item: Item, placeId: number, keep: Quantity): Promise<void> {
  const whole = wholeFault(keep, item.unit, item.name, 'keep');
  if (whole !== undefined) throw new Refused([whole]);
  await trx('stockLevel').where({ itemId: item.id, placeId }).delete();
  if (keep > 0) await trx('stockLevel').insert({ itemId: item.id, placeId, keep });
}

/** Says how much of an item is to be kept at a place; none takes the level away. */
export const keepLevel = defineAction({
  name: 'keepLevel',
  right: 'keep stores',
  input: z.object({
    itemId: z.number().int(),
    placeId: z.number().int(),
    keep: keptQuantity,
  }),
  run: async ({ trx, audit }, { itemId, placeId, keep }) => {
    const item = await goodsItem(trx, itemId);
    const place = await placeOf(trx, placeId);
    const before = await trx('stockLevel').where({ itemId, placeId }).first('keep');
    await writeLevel(trx, item, placeId, keep);
    await audit({
      words:
        keep > 0 ? `Keeps ${saidOf(keep, item)} at ${place.name}` : `Keeps no level of ${item.name} at ${place.name}`,
      subjects: [['item', itemId]],
      before: before ?? {},
      after: { keep },
    });
  },
});

/** What others have reserved of a pile; a person's own word, which no issue takes away. */
async function reservedByOthers(trx: Work['trx'], { itemId, placeId, jobId }: PileKey, needId: number | null) {
  const query = trx('reservation').where({ itemId, placeId, jobId, firm: 1 });
  if (needId !== null) void query.whereNot({ needId });
  return addQ(NONE, ...(await query.select('quantity')).map((r) => r.quantity));
}

/** Takes what is issued off what the need has reserved there, or counts on. */
async function spendClaims(trx: Work['trx'], need: NeedRow, key: PileKey, issued: Quantity): Promise<void> {
  const { itemId, placeId, jobId } = key;
  const own = (await claimsOf(trx, [itemId])).filter(
    (c) => c.needId === need.id && c.placeId === placeId && c.jobId === jobId,
  );
  await applyCuts(trx, cutTo(atLeastNone(subtractQ(addQ(NONE, ...own.map((c) => c.quantity)), issued)), own));
}

/** Gives stock out to a job: for a line of its buy list, or charged to one of its cost codes. */
export const issueStock = defineAction({
  name: 'issueStock',
  right: 'keep stores',
  input: z.object({
    once,
    ...pileFields,
    to: z.union([
      z.object({ needId: z.number().int() }),
      z.object({ jobId: z.number().int(), costCodeId: z.number().int() }),
    ]),
    quantity: movedQuantity,
  }),
  run: async (work, { once: _, to, quantity: q, ...key }) => {
    const { trx, today, audit, touch } = work;
    const item = await goodsItem(trx, key.itemId);
    const place = await placeOf(trx, key.placeId);
    const need = 'needId' in to ? found(await trx('need').where({ id: to.needId }).first(), 'This line') : undefined;
    const account = need ?? (to as { jobId: number; costCodeId: number });
    const { jobId, costCodeId } = account;
    await checkLive(trx, [jobId]);
    if (need !== undefined && need.itemId !== item.id)
      refuse('stores.item', `${need.description} is another part than ${item.number}.`);
    if (key.jobId !== null && key.jobId !== jobId)
      refuse('stores.owner', 'This stock belongs to another job. It has to be transferred before it is issued.');
    const whole = wholeFault(q, item.unit, item.name, 'quantity');
    if (whole !== undefined) throw new Refused([whole]);
    const pile = await pileOf(trx, key);
    const move = grant(take(q, pile, item.name));
    const others = await reservedByOthers(trx, key, need?.id ?? null);
    const free = subtractQ(pile.quantity, others);
    if (q > free)
      refuse(
        'stores.reserved',
        `${saidOf(others, item)} of what is there ${others === 10_000 ? 'is' : 'are'} reserved for others, so at most ${formatQuantity(free)} can go.`,
        'quantity',
      );
    const factor = exactFactor(item.unit, need?.unit ?? item.unit) ?? { many: 1, one: 1 };
    const [id = 0] = await openTabLines(trx, 'issue', [`${item.name} from ${place.name}`]);
    const value = minor(-move.value);
    const row = { jobId, costCodeId, itemId: item.id, placeId: key.placeId, quantity: q, value, day: today };
    await trx('issue').insert({ ...row, id, needId: need?.id ?? null, share: fromSupplierUnit(q, factor) });
    await addMove(trx, { ...key, ...move, kind: 'issued', issueId: id, ...movedNow(work) });
    if (need !== undefined) await spendClaims(trx, need, key, q);
    touch('Issued', 'issue', id, [id, ...(await settleStock(trx, item.id))]);
    await audit({
      words: `Issued ${saidOf(q, item)} from ${place.name}`,
      subjects: [
        ['job', jobId],
        ['item', item.id],
        ['issue', id],
        ...(need === undefined ? [] : [['need', need.id] as const]),
      ],
      after: row,
    });
    return { id };
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
  }),
  run: async (work, { issueId, version, quantity: q, reason }) => {
    const { trx, audit, touch } = work;
    const issue = sameVersion(
      found(await trx('issue').where({ id: issueId }).first(), 'This issue'),
      version,
      'This issue',
    );
    const item = await goodsItem(trx, issue.itemId);
    const whole = wholeFault(q, item.unit, item.name, 'quantity');
    if (whole !== undefined) throw new Refused([whole]);
    if (q > issue.quantity)
      refuse('stores.returned', `Only ${formatQuantity(issue.quantity)} of it are with the job still.`, 'quantity');
    await checkLive(trx, [issue.jobId]);
    const rest = subtractQ(issue.quantity, q);
    const stays = minor(divideRounded(BigInt(issue.value) * BigInt(rest), BigInt(issue.quantity)));
    const share = quantity(divideRounded(BigInt(issue.share) * BigInt(rest), BigInt(issue.quantity)));
    const [move] = await trx('stockMove').where({ issueId, kind: 'issued' }).select('jobId');
    await trx('issue')
      .where({ id: issueId })
      .update({ quantity: rest, share, value: stays, version: version + 1 });
    const { itemId, placeId } = issue;
    const back = { quantity: q, value: subtract(issue.value, stays) };
    await addMove(trx, {
      itemId,
      placeId,
      jobId: move?.jobId ?? null,
      ...back,
      kind: 'returned',
      issueId,
      reason,
      ...movedNow(work),
    });
    touch('Returned to stores', 'issue', issueId, [issueId, ...(await settleStock(trx, itemId))]);
    await audit({
      words: `Took ${saidOf(q, item)} back into stores${reason === '' ? '' : `: ${reason}`}`,
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
