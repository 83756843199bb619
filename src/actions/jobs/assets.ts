import { z } from 'zod';
import { assetFields, assetWords } from '@/core/records/asset';
import { insertOne } from '@/store/rows';
import type { Asset, Job } from '@/store/tables';
import { defineAction, found, once, sameVersion, type Work } from '../action';

/** Says what of the customer's a job works on: one that the customer is known to have, a new one, or none. */
export const setAsset = defineAction({
  name: 'setAsset',
  right: 'open jobs',
  input: z.object({
    once,
    jobId: z.number().int(),
    version: z.number().int(),
    asset: z.object({ ...assetFields.shape, id: z.number().int().nullable(), version: z.number().int() }).nullable(),
  }),
  run: async (work, { jobId, version, asset }) => {
    const { trx, audit } = work;
    const job = sameVersion(found(await trx('job').where({ id: jobId }).first(), 'This job'), version, 'This job');
    const assetId = asset === null ? null : await saveAsset(work, job, asset);
    await trx('job')
      .where({ id: jobId })
      .update({ assetId, version: version + 1 });
    await audit({
      words:
        asset === null
          ? `Removed equipment of job ${job.number}`
          : `Set equipment of job ${job.number}: ${assetWords(asset)}`,
      subjects: [['job', jobId]],
      before: { assetId: job.assetId },
      after: { assetId, asset },
    });
  },
});

type Given = z.output<typeof assetFields> & Pick<Asset, 'version'> & { readonly id: number | null };

async function saveAsset({ trx }: Work, { customerId }: Job, { id, version, ...fields }: Given): Promise<number> {
  if (id === null) return insertOne(trx, 'asset', { ...fields, customerId });
  const known = found(await trx('asset').where({ id, customerId }).first(), 'This customer’s equipment');
  sameVersion(known, version, 'This equipment');
  const isSame = Object.entries(fields).every(([name, value]) => known[name as keyof Asset] === value);
  if (!isSame)
    await trx('asset')
      .where({ id })
      .update({ ...fields, version: version + 1 });
  return id;
}
