import { z } from 'zod';
import { placeFields, placeKept, type PlaceKept } from '@/core/records/place';
import type { Db } from '@/store/connection';
import { insertOne } from '@/store/rows';
import { defineAction, found, once, refuse, type Subject } from './action';

/** Adds a place of delivery. One of a customer's addresses takes the place of the one that was there. */
export const addPlace = defineAction({
  name: 'addPlace',
  right: 'draft orders',
  input: z.object({ once, kept: placeKept, ...placeFields.shape }),
  run: async ({ trx, audit }, { once: _, kept, ...said }) => {
    const belongs = await belongingOf(trx, kept);
    if (kept.as !== 'once' && (await nameIsTaken(trx, said.name, belongs.columns.customerId ?? null)))
      refuse('place.name', `There is a place called ${said.name} already.`, 'name');
    const { customerId = null, whatFor = '' } = belongs.columns;
    if (customerId !== null) await trx('deliveryPlace').where({ customerId, whatFor }).update({ closed: 1 });
    const id = await insertOne(trx, 'deliveryPlace', { ...said, ...belongs.columns });
    await audit({ words: `Added place of delivery ${said.name}`, subjects: belongs.subjects, after: said });
    return { id, name: said.name };
  },
});

const nameIsTaken = async (trx: Db, name: string, customerId: number | null): Promise<boolean> => {
  const twin = await trx('deliveryPlace')
    .whereRaw('name = ? collate nocase', [name])
    .where({ closed: 0 })
    .whereNot({ kind: 'once' })
    .first('customerId');
  return twin !== undefined && (customerId === null || twin.customerId !== customerId);
};

async function belongingOf(
  trx: Db,
  kept: PlaceKept,
): Promise<{ columns: { kind: string; jobId?: number; customerId?: number; whatFor?: string }; subjects: Subject[] }> {
  if (kept.as === 'site') {
    found(await trx('job').where({ id: kept.jobId }).first('id'), 'This job');
    return { columns: { kind: 'site', jobId: kept.jobId }, subjects: [['job', kept.jobId]] };
  }
  if (kept.as === 'customer') {
    found(await trx('customer').where({ id: kept.customerId }).first('id'), 'This customer');
    const columns = { kind: 'customer', customerId: kept.customerId, whatFor: kept.which };
    return { columns, subjects: [['company', 1]] };
  }
  return { columns: { kind: kept.as }, subjects: [['company', 1]] };
}
