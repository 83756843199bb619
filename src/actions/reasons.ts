import { z } from 'zod';
import { text } from '@/core/records/fields';
import { insertOne } from '@/store/rows';
import { defineAction, found, once, refuse, sameVersion } from './action';

/** What may be the matter with a delivery, and what that does. */
const DOES = ['toCome', 'cancelled', 'missing', 'damaged', 'elsewhere', 'rejected'] as const;

/** Adds to the company's reasons, in passing; one that was taken out is offered again. */
export const addReason = defineAction({
  name: 'addReason',
  right: 'receive',
  input: z.object({ once, does: z.enum(DOES), name: text(60, 'Say it in a few words.') }),
  run: async ({ trx, audit }, { does, name }) => {
    const known = await trx('reason').where({ does, name }).first();
    if (known?.gone === 0) return { id: known.id };
    const id = known?.id ?? (await insertOne(trx, 'reason', { does, name }));
    if (known !== undefined)
      await trx('reason')
        .where({ id })
        .update({ gone: 0, version: known.version + 1 });
    await audit({ words: `Added the reason “${name}”`, subjects: [['company', 1]], after: { does, name } });
    return { id };
  },
});

/** Takes a reason out of what is offered; what it was given for keeps it. */
export const retireReason = defineAction({
  name: 'retireReason',
  right: 'manage people',
  input: z.object({ reasonId: z.number().int(), version: z.number().int() }),
  run: async ({ trx, audit }, { reasonId, version }) => {
    const reason = sameVersion(
      found(await trx('reason').where({ id: reasonId }).first(), 'This reason'),
      version,
      'This reason',
    );
    const others = await trx('reason').where({ does: reason.does, gone: 0 }).whereNot({ id: reasonId }).first('id');
    if (others === undefined) refuse('reason.last', `“${reason.name}” is the last of its kind. Add another one first.`);
    await trx('reason')
      .where({ id: reasonId })
      .update({ gone: 1, version: version + 1 });
    await audit({ words: `Took the reason “${reason.name}” out`, subjects: [['company', 1]] });
  },
});
