import { z } from 'zod';
import { minor } from '@/core/money/money';
import { fromSupplierUnit, NONE, quantity } from '@/core/quantity/quantity';
import { exactFactor } from '@/core/quantity/units';
import { text } from '@/core/records/fields';
import { binField, movedQuantity, numbersField } from '@/core/records/stock';
import { settleClaims } from '@/store/stock/claims';
import { addMoves, type NewMove, type PileKey } from '@/store/stock/piles';
import { openTabLines } from '@/store/tabLines';
import { defineAction, found, once, refuse } from '../action';
import { checkFree, takeOff, type Taken } from './issuing';
import { checkLive } from '../jobs/jobs';
import { takenOff } from './owners';
import { binOf, checkWhole, goodsItem, movedNow, pileFields, placeOf, saidOf } from './stores';

const what = { quantity: movedQuantity, binId: binField.optional(), numbers: numbersField };

type Of = PileKey & Pick<NewMove, 'kind' | 'reason' | 'changeId'>;

const off = (of: Of, taken: Taken): NewMove[] =>
  taken.spots.map(({ quantity: q, value, ...spot }) => ({
    ...{ ...of, ...spot },
    ...{ quantity: quantity(-q), value: minor(-value) },
  }));

const onto = (of: Of, taken: Taken, binId?: number | null): NewMove[] =>
  taken.spots.map((spot) => ({ ...of, ...spot, ...(binId === undefined ? {} : { binId }) }));

/** Takes goods from one place or bin to another; what they cost goes with them. */
export const moveStock = defineAction({
  name: 'moveStock',
  right: 'keep stores',
  input: z.object({ once, ...pileFields, ...what, toPlaceId: z.number().int(), toBinId: binField }),
  run: async (work, { itemId, placeId, jobId, toPlaceId, toBinId, ...said }) => {
    const { trx, audit, touch } = work;
    const key = { itemId, placeId, jobId };
    const item = await goodsItem(trx, itemId);
    const [from, to] = [await placeOf(trx, placeId), await placeOf(trx, toPlaceId)];
    const bin = await binOf(trx, toPlaceId, toBinId);
    if (to.kind !== 'own' || to.closed === 1)
      refuse('stores.place', `${to.name} isn’t a stock location in use. Choose one of your locations.`, 'toPlaceId');
    if (toPlaceId === placeId && said.binId === toBinId)
      refuse('stores.same', 'It’s already in that bin. Choose another.', 'toBinId');
    checkWhole(said.quantity, item);
    // What is reserved at a place stays there; within the place it may lie anywhere.
    if (toPlaceId !== placeId) await checkFree(trx, key, item, said.quantity, null);
    const taken = await takeOff(trx, key, item, said);
    const of = { itemId, jobId, kind: 'moved' as const };
    await addMoves(trx, movedNow(work), [
      ...off({ ...of, placeId }, taken),
      ...onto({ ...of, placeId: toPlaceId }, taken, toBinId),
    ]);
    touch('Moved', 'item', itemId, await settleClaims(trx, [itemId]));
    const where = bin === null ? to.name : `${to.name}, ${bin.name}`;
    await audit({
      words: `Moved ${saidOf(said.quantity, item)} from ${from.name} to ${where}`,
      subjects: [['item', itemId], ...(jobId === null ? [] : [['job', jobId] as const])],
      after: { quantity: said.quantity, placeId: toPlaceId, binId: toBinId },
    });
  },
});

/** Takes goods that are good for nothing any more out of stores. */
export const scrapStock = defineAction({
  name: 'scrapStock',
  right: 'keep stores',
  input: z.object({ once, ...pileFields, ...what, reason: text(120, 'Give a reason for scrapping it.') }),
  run: async (work, { itemId, placeId, jobId, reason, ...said }) => {
    const { trx, audit, touch, today } = work;
    const key = { itemId, placeId, jobId };
    const item = await goodsItem(trx, itemId);
    const place = await placeOf(trx, placeId);
    checkWhole(said.quantity, item);
    await checkFree(trx, key, item, said.quantity, null);
    const taken = await takeOff(trx, key, item, said);
    const lost = await takenOff(trx, key, item, said.quantity);
    const [id = 0] = await openTabLines(trx, 'stockChange', [`${item.name} scrapped`]);
    await trx('stockChange').insert({
      ...{ id, kind: 'scrapped', itemId, placeId, jobId, ...lost, quantity: quantity(-said.quantity) },
      ...{ value: minor(-taken.value), reason, day: today, toShare: NONE },
    });
    await addMoves(trx, movedNow(work), off({ ...key, kind: 'scrapped', reason, changeId: id }, taken));
    touch('Scrapped', 'item', itemId, [id, ...(await settleClaims(trx, [itemId]))]);
    await audit({
      words: `Scrapped ${saidOf(said.quantity, item)} at ${place.name}: ${reason}`,
      subjects: [['item', itemId], ...(jobId === null ? [] : [['job', jobId] as const])],
      after: { quantity: said.quantity, value: taken.value },
    });
  },
});

/** Makes goods of a job another job's, or stores'; what they cost goes from tab to tab. */
export const transferStock = defineAction({
  name: 'transferStock',
  right: 'keep stores',
  input: z.object({
    once,
    ...pileFields,
    ...what,
    to: z.union([
      z.object({ stores: z.literal(true) }),
      z.object({ needId: z.number().int() }),
      z.object({ jobId: z.number().int(), costCodeId: z.number().int() }),
    ]),
    reason: text(120, 'Give a reason for the transfer.'),
  }),
  run: async (work, { itemId, placeId, jobId, to, reason, ...said }) => {
    const { trx, audit, touch, today } = work;
    const item = await goodsItem(trx, itemId);
    if (jobId === null)
      return refuse('stores.owner', `Stores stock isn’t transferred: issue it to the job, or reserve it.`);
    const key = { itemId, placeId, jobId };
    const need = 'needId' in to ? found(await trx('need').where({ id: to.needId }).first(), 'This line') : undefined;
    if (need !== undefined && need.itemId !== itemId)
      refuse('stores.item', `${need.description} is a different item from ${item.number}.`);
    const account = need ?? ('jobId' in to ? to : { jobId: null, costCodeId: null });
    if (account.jobId === jobId) refuse('stores.owner', 'It’s already this job’s stock. Choose another job.');
    await checkLive(trx, [jobId, ...(account.jobId === null ? [] : [account.jobId])]);
    checkWhole(said.quantity, item);
    await checkFree(trx, key, item, said.quantity, null);
    const taken = await takeOff(trx, key, item, said);
    const lost = await takenOff(trx, key, item, said.quantity);
    if (lost.costCodeId === null)
      refuse('stores.owner', `${item.name} carries no cost on this job. Correct its value with a count first.`);
    const factor = exactFactor(item.unit, need?.unit ?? item.unit) ?? { many: 1, one: 1 };
    const [id = 0] = await openTabLines(trx, 'stockChange', [`${item.name} transferred`]);
    await trx('stockChange').insert({
      ...{ id, kind: 'transferred', itemId, placeId, jobId, ...lost, quantity: said.quantity, value: taken.value },
      ...{ toJobId: account.jobId, toCodeId: account.costCodeId, toNeedId: need?.id ?? null },
      ...{ toShare: need === undefined ? NONE : fromSupplierUnit(said.quantity, factor), reason, day: today },
    });
    const of = { itemId, placeId, kind: 'transferred' as const, reason, changeId: id };
    await addMoves(trx, movedNow(work), [
      ...off({ ...of, jobId }, taken),
      ...onto({ ...of, jobId: account.jobId }, taken),
    ]);
    touch('Transferred', 'item', itemId, [id, ...(await settleClaims(trx, [itemId]))]);
    const jobs = [jobId, ...(account.jobId === null ? [] : [account.jobId])];
    const numbers = new Map((await trx('job').whereIn('id', jobs).select('id', 'number')).map((j) => [j.id, j.number]));
    const whom = account.jobId === null ? 'stores' : `job ${numbers.get(account.jobId)}`;
    await audit({
      words: `Transferred ${saidOf(said.quantity, item)} from job ${numbers.get(jobId)} to ${whom}: ${reason}`,
      subjects: [['item', itemId], ...jobs.map((j) => ['job', j] as const)],
      after: { quantity: said.quantity, value: taken.value },
    });
  },
});
