import { z } from 'zod';
import { placeFields, placeKept, type PlaceKept } from '@/core/records/place';
import type { Db } from '@/store/db';
import { insertOne, type Written } from '@/store/rows';
import type { DeliveryPlace } from '@/store/tables';
import { defineAction, found, once, refuse, sameVersion, type Subject } from '../action';

/** Adds a place of delivery. One of a customer's addresses takes the place of the one that was there. */
export const addPlace = defineAction({
  name: 'addPlace',
  right: 'draft orders',
  input: z.object({ once, kept: placeKept, ...placeFields.shape }),
  run: async ({ trx, audit }, { once: _, kept, ...said }) => {
    const belongs = await belongingOf(trx, kept);
    if (kept.as !== 'once' && (await nameIsTaken(trx, said.name, belongs.columns.customerId ?? null)))
      refuse('place.name', `There is already a location called ${said.name}. Choose another name.`, 'name');
    const { customerId = null, whatFor } = belongs.columns;
    if (customerId !== null)
      await trx('deliveryPlace')
        .where({ customerId, whatFor: whatFor ?? '' })
        .update({ closed: 1 });
    const id = await insertOne(trx, 'deliveryPlace', { ...said, ...belongs.columns });
    await audit({ words: `Added delivery address ${said.name}`, subjects: belongs.subjects, after: said });
    return { id, name: said.name };
  },
});

const ownRef = { once, id: z.number().int(), version: z.number().int() };

const ownPlace = async (trx: Db, id: number, version: number): Promise<DeliveryPlace> =>
  sameVersion(
    found(await trx('deliveryPlace').where({ id, kind: 'own' }).first(), 'This location'),
    version,
    'This location',
  );

const checkName = async (trx: Db, name: string, but?: number): Promise<void> => {
  if (await nameIsTaken(trx, name, null, but))
    refuse('place.name', `There is already a location called ${name}. Choose another name.`, 'name');
};

/** Adds a place of our own, where goods come in and lie. */
export const addOwnPlace = defineAction({
  name: 'addOwnPlace',
  right: 'manage people',
  input: z.object({ once, ...placeFields.shape }),
  run: async ({ trx, audit }, { once: _, ...said }) => {
    await checkName(trx, said.name);
    await insertOne(trx, 'deliveryPlace', { ...said, kind: 'own' });
    await audit({ words: `Added location ${said.name}`, subjects: [['company', 1]], after: said });
  },
});

/** Changes a place of our own. Orders that go there show it as it is now; what was sent stays as it was. */
export const changeOwnPlace = defineAction({
  name: 'changeOwnPlace',
  right: 'manage people',
  input: z.object({ ...ownRef, ...placeFields.shape }),
  run: async ({ trx, audit }, { once: _, id, version, ...said }) => {
    const { name, address, instructions } = await ownPlace(trx, id, version);
    await checkName(trx, said.name, id);
    await trx('deliveryPlace')
      .where({ id })
      .update({ ...said, version: version + 1 });
    const before = { name, address, instructions };
    await audit({ words: `Changed location ${name}`, subjects: [['company', 1]], before, after: said });
  },
});

/** Offers a place of our own no more, or again. One where something lies, and the last, stay. */
export const retireOwnPlace = defineAction({
  name: 'retireOwnPlace',
  right: 'manage people',
  input: z.object({ ...ownRef, gone: z.boolean() }),
  run: async ({ trx, audit }, { id, version, gone }) => {
    const { name, closed } = await ownPlace(trx, id, version);
    if (gone && (await trx('stockSum').where({ placeId: id }).where('quantity', '<>', 0).first('itemId')) !== undefined)
      refuse('place.stock', `${name} still has stock. Move it or count it out first.`, 'gone');
    await trx('deliveryPlace')
      .where({ id })
      .update({ closed: gone ? 1 : 0, version: version + 1 });
    if ((await trx('deliveryPlace').where({ kind: 'own', closed: 0 }).first('id')) === undefined)
      refuse('place.last', 'This is your only location. Add another first.', 'gone');
    await audit({
      words: `${gone ? 'Retired' : 'Reinstated'} location ${name}`,
      subjects: [['company', 1]],
      before: { gone: closed },
      after: { gone: gone ? 1 : 0 },
    });
  },
});

const nameIsTaken = async (trx: Db, name: string, customerId: number | null, but = 0): Promise<boolean> => {
  const twin = await trx('deliveryPlace')
    .whereRaw('name = ? collate nocase', [name])
    .where({ closed: 0 })
    .whereNot({ kind: 'once' })
    .whereNot({ id: but })
    .first('customerId');
  return twin !== undefined && (customerId === null || twin.customerId !== customerId);
};

async function belongingOf(
  trx: Db,
  kept: PlaceKept,
): Promise<{
  columns: Pick<Written<'deliveryPlace'>, 'kind' | 'jobId' | 'customerId' | 'whatFor'>;
  subjects: Subject[];
}> {
  if (kept.as === 'site') {
    found(await trx('job').where({ id: kept.jobId }).first('id'), 'This job');
    return { columns: { kind: 'site', jobId: kept.jobId }, subjects: [['job', kept.jobId]] };
  }
  if (kept.as === 'customer') {
    found(await trx('customer').where({ id: kept.customerId }).first('id'), 'This customer');
    const columns = { kind: 'customer' as const, customerId: kept.customerId, whatFor: kept.which };
    return { columns, subjects: [['company', 1]] };
  }
  return { columns: { kind: kept.as }, subjects: [['company', 1]] };
}
