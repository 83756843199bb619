import { z } from 'zod';
import { text } from '@/core/records/fields';
import { insertOne } from '@/store/rows';
import { defineAction, found, once, refuse, sameVersion } from '../action';
import { placeOf } from './stores';

const binName = text(30, 'Give the bin a name.');

/** Adds a bin to a place of ours; one that was closed is used again. */
export const addBin = defineAction({
  name: 'addBin',
  right: 'manage people',
  input: z.object({ once, placeId: z.number().int(), name: binName }),
  run: async ({ trx, audit }, { placeId, name }) => {
    const place = await placeOf(trx, placeId);
    if (place.kind !== 'own')
      refuse('bin.place', `${place.name} is a delivery address, not a stock location. Choose one of your locations.`);
    const known = await trx('bin').where({ placeId, name }).first();
    if (known?.closed === 0)
      refuse('bin.known', `${place.name} already has bin ${known.name}. Choose another name.`, 'name');
    const id = known?.id ?? (await insertOne(trx, 'bin', { placeId, name }));
    if (known !== undefined)
      await trx('bin')
        .where({ id })
        .update({ closed: 0, version: known.version + 1 });
    await audit({ words: `Added bin ${name} to ${place.name}`, subjects: [['company', 1]], after: { placeId, name } });
    return { id };
  },
});

/** Closes a bin that is empty. */
export const closeBin = defineAction({
  name: 'closeBin',
  right: 'manage people',
  input: z.object({ binId: z.number().int(), version: z.number().int() }),
  run: async ({ trx, audit }, { binId, version }) => {
    const bin = sameVersion(found(await trx('bin').where({ id: binId }).first(), 'This bin'), version, 'This bin');
    const full = await trx('stockSpot')
      .where({ placeId: bin.placeId, binId })
      .where('quantity', '>', 0)
      .first('itemId');
    if (full !== undefined) refuse('bin.full', `Bin ${bin.name} still has stock. Move it first.`);
    await trx('bin')
      .where({ id: binId })
      .update({ closed: 1, version: version + 1 });
    await audit({ words: `Retired bin ${bin.name}`, subjects: [['company', 1]], after: { closed: 1 } });
  },
});
