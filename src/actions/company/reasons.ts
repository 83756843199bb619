import { z } from 'zod';
import { REASON_DOES } from '@/core/receiving/reasons';
import { reasonFields } from '@/core/records/settings';
import { insertOne } from '@/store/rows';
import { defineAction, found, once, refuse, sameVersion, type Work } from '../action';

const SUBJECTS = [['company', 1]] as const;
const ref = { once, id: z.number().int(), version: z.number().int() };

const reasonOf = async (trx: Work['trx'], id: number, version: number) =>
  sameVersion(found(await trx('reason').where({ id }).first(), 'This reason'), version, 'This reason');

/** Adds to the company's reasons, in passing; one that was taken out is offered again. */
export const addReason = defineAction({
  name: 'addReason',
  right: 'add reasons',
  input: z.object({ once, does: z.enum(REASON_DOES), ...reasonFields.shape }),
  run: async ({ trx, audit }, { does, name }) => {
    const known = await trx('reason').where({ does, name }).first();
    if (known?.gone === 0) return { id: known.id };
    const id = known?.id ?? (await insertOne(trx, 'reason', { does, name }));
    if (known !== undefined)
      await trx('reason')
        .where({ id })
        .update({ gone: 0, version: known.version + 1 });
    await audit({ words: `Added the reason “${name}”`, subjects: SUBJECTS, after: { does, name } });
    return { id };
  },
});

/** Says a reason in other words; what it does stays. */
export const changeReason = defineAction({
  name: 'changeReason',
  right: 'manage people',
  input: z.object({ ...ref, ...reasonFields.shape }),
  run: async ({ trx, audit }, { id, version, name }) => {
    const before = await reasonOf(trx, id, version);
    if ((await trx('reason').where({ does: before.does, name }).whereNot({ id }).first('id')) !== undefined)
      refuse('reason.known', `There is already a reason “${name}” with that effect.`, 'name');
    await trx('reason')
      .where({ id })
      .update({ name, version: version + 1 });
    await audit({
      words: `Changed the reason “${before.name}”`,
      subjects: SUBJECTS,
      before: { name: before.name },
      after: { name },
    });
    return { id };
  },
});

/** Takes a reason out of what is offered, or into it again; what it was given for keeps it. One of each kind is left. */
export const retireReason = defineAction({
  name: 'retireReason',
  right: 'manage people',
  input: z.object({ ...ref, gone: z.boolean() }),
  run: async ({ trx, audit }, { id, version, gone }) => {
    const { name, does, gone: was } = await reasonOf(trx, id, version);
    await trx('reason')
      .where({ id })
      .update({ gone: gone ? 1 : 0, version: version + 1 });
    if ((await trx('reason').where({ does, gone: 0 }).first('id')) === undefined)
      refuse('reason.last', `“${name}” is the last one with its effect. Add another before you retire it.`, 'gone');
    await audit({
      words: `${gone ? 'Retired' : 'Reinstated'} the reason “${name}”`,
      subjects: SUBJECTS,
      before: { gone: was },
      after: { gone: gone ? 1 : 0 },
    });
  },
});
