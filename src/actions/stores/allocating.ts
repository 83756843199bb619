import { LIVE } from '@/core/jobs/states';
import { z } from 'zod';
import { addQ, formatQuantity, fromSupplierUnit, NONE, subtractQ } from '@/core/quantity/quantity';
import { exactFactor, unitOf } from '@/core/quantity/units';
import { movedQuantity } from '@/core/records/stock';
import { counted } from '@/core/words';
import { openOf } from '@/core/needs/coverage';
import { dropCounted, loadShortfall, reservationsOf } from '@/store/planning';
import { among, rowsOf } from '@/store/rows';
import { addClaims, settleClaims } from '@/store/stock/claims';
import { pileOf } from '@/store/stock/piles';
import { loadNeedStates } from '@/store/tab/needs';
import { defineAction, found, once, refuse, type Work } from '../action';
import { reservedByOthers } from './issuing';
import { checkLive } from '../jobs/jobs';
import { checkWhole, goodsItem, pileFields, placeOf, saidOf } from './stores';

/** Reserves so much of a pile for a line by hand; what plans only count on gives way. */
export const reserveSome = defineAction({
  name: 'reserveSome',
  right: 'reserve stock',
  input: z.object({ once, needId: z.number().int(), ...pileFields, quantity: movedQuantity }),
  run: async ({ trx, audit, touch }, { needId, itemId, placeId, jobId, quantity: q }) => {
    const key = { itemId, placeId, jobId };
    const item = await goodsItem(trx, itemId);
    const place = await placeOf(trx, placeId);
    await dropCounted(trx, [needId]);
    const need = found((await loadNeedStates(trx, [needId]))[0], 'This line');
    await checkLive(trx, [need.jobId]);
    if (need.itemId !== itemId) refuse('stores.item', `${need.description} is a different item from ${item.number}.`);
    if (jobId !== null && jobId !== need.jobId)
      refuse('stores.owner', 'This is another job’s stock. Transfer it first.');
    checkWhole(q, item);
    const firm = await reservedByOthers(trx, key, null);
    const unreserved = subtractQ((await pileOf(trx, key)).quantity, firm);
    if (q > unreserved)
      refuse(
        'stores.reserved',
        `Only ${formatQuantity(unreserved)} of ${item.name} at ${place.name} can be reserved. Enter ${formatQuantity(unreserved)} or less.`,
        'quantity',
      );
    const factor = exactFactor(item.unit, need.unit) ?? { many: 1, one: 1 };
    const share = fromSupplierUnit(q, factor);
    const open = openOf(need.coverage);
    if (share > open)
      refuse(
        'need.less',
        `${need.description} needs only ${formatQuantity(open)} ${unitOf(need.unit).short} more. Enter that or less.`.replace(
          ' .',
          '.',
        ),
        'quantity',
      );
    await addClaims(trx, [{ needId, ...key, splitId: null, quantity: q, share, firm: 1 }]);
    touch('Reserved', 'job', need.jobId, [needId, ...(await settleClaims(trx, [itemId]))]);
    await audit({
      words: `Reserved ${saidOf(q, item)} at ${place.name}`,
      subjects: [
        ['job', need.jobId],
        ['need', needId],
        ['item', itemId],
      ],
      after: { ...key, quantity: q },
    });
  },
});

/** Lines of live jobs that want an item, or have some of it put by. */
const wanting = async (trx: Work['trx'], itemId: number): Promise<number[]> =>
  (
    await rowsOf<{ id: number }>(
      trx('need as n')
        .join('job as j', 'j.id', 'n.jobId')
        .where({ 'n.itemId': itemId, 'n.kind': 'goods', 'j.state': LIVE })
        .whereRaw('(n.open > 0 or exists (select 1 from reservation r where r.need_id = n.id))')
        .select('n.id'),
    )
  ).map((n) => n.id);

/** Shares what is there of an item anew among all who want it: what is needed first gets first, whoever had it before. */
export const allocateByDate = defineAction({
  name: 'allocateByDate',
  right: 'reserve stock',
  input: z.object({ once, itemId: z.number().int() }),
  run: async ({ trx, today, audit, touch }, { itemId }) => {
    const item = await goodsItem(trx, itemId);
    const needIds = await wanting(trx, itemId);
    const before = await trx('reservation')
      .whereIn('needId', among(trx, needIds))
      .where({ itemId, jobId: null })
      .whereNotNull('placeId');
    await trx('reservation')
      .whereIn(
        'id',
        before.map((r) => r.id),
      )
      .delete();
    await dropCounted(trx, needIds);
    const { covers } = await loadShortfall(trx, needIds, today);
    const there = covers.filter((c) => c.source.kind === 'stock');
    if (there.length === 0) refuse('stores.none', `No free stock of ${item.name} to allocate.`);
    await addClaims(trx, reservationsOf(there, true));
    touch('Reserved', 'item', itemId, needIds);
    const shared = addQ(NONE, ...there.map((c) => c.quantity));
    const lines = new Set(there.map((c) => c.needId)).size;
    await audit({
      words: `Allocated ${saidOf(shared, item)} by date to ${counted(lines, 'line')}`,
      subjects: [['item', itemId], ...needIds.map((id) => ['need', id] as const)],
      before,
      after: there,
    });
    return { lines };
  },
});
