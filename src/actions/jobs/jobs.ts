import { isLive } from '@/core/jobs/states';
import { z } from 'zod';
import type { Db } from '@/store/db';
import { insertOne, whereIn, rowsOf } from '@/store/rows';
import { defineAction, once, refuse } from '../action';
import { jobFields } from '@/core/records/job';

/** Money goes on the tab of a live job only: not of one that is quoted, lost or complete. */
export async function checkLive(trx: Db, jobIds: readonly number[]): Promise<void> {
  const jobs = await whereIn(trx, 'job', 'id', jobIds);
  if (jobs.length < new Set(jobIds).size)
    refuse('job.missing', 'A job on one of the lines has been removed. Choose another.');
  const closed = jobs.find((j) => !isLive(j));
  if (closed !== undefined)
    refuse('job.state', `Job ${closed.number} isn’t live, so nothing can be charged to it. Choose another job.`);
}

/** Opens a job with a first quote to write; the job goes on the person's tab rail. */
export const openJob = defineAction({
  name: 'openJob',
  right: 'open jobs',
  input: z.object({ once, ...jobFields.shape }),
  run: async ({ trx, actor, audit }, { once: _, customer, ...input }) => {
    if (await trx('job').where({ number: input.number }).first('id'))
      refuse('job.number', `Job ${input.number} already exists. Choose another number.`, 'number');
    if (input.dueOn !== null && input.startsOn !== null && input.dueOn < input.startsOn)
      refuse('job.dates', 'The due date is before the start date. Correct one of them.', 'dueOn');
    const known = await trx('customer').where({ name: customer }).first('id');
    const customerId = known?.id ?? (await insertOne(trx, 'customer', { name: customer }));
    const job = {
      ...input,
      shortName: input.shortName || input.name.slice(0, 28),
      customerId,
      state: 'quoted' as const,
    };
    const id = await insertOne(trx, 'job', job);
    await insertOne(trx, 'quote', { jobId: id, number: `Q-${input.number}`, state: 'writing' });
    await keepOpen(trx, actor.id, id);
    await audit({
      words: `Created job ${input.number} with quote Q-${input.number}`,
      subjects: [['job', id]],
      after: job,
    });
    return { id, number: input.number };
  },
});

async function keepOpen(trx: Parameters<typeof insertOne>[0], personId: number, jobId: number): Promise<void> {
  const [last] = await rowsOf<{ place: number | null }>(trx('openJob').where({ personId }).max({ place: 'place' }));
  await trx('openJob')
    .insert({ personId, jobId, place: (last?.place ?? 0) + 1 })
    .onConflict()
    .ignore();
}

const jobRef = z.object({ jobId: z.number().int() });

/** Puts a job on the person's tab rail; it is kept until the person closes it. */
export const openOnRail = defineAction({
  name: 'openOnRail',
  right: 'see jobs',
  personal: true,
  input: jobRef,
  run: async ({ trx, actor }, { jobId }) => keepOpen(trx, actor.id, jobId),
});

export const closeOnRail = defineAction({
  name: 'closeOnRail',
  right: 'see jobs',
  personal: true,
  input: jobRef,
  run: async ({ trx, actor }, { jobId }) => void (await trx('openJob').where({ personId: actor.id, jobId }).delete()),
});

export const moveOnRail = defineAction({
  name: 'moveOnRail',
  right: 'see jobs',
  personal: true,
  input: z.object({ jobIds: z.array(z.number().int()).max(60) }),
  run: async ({ trx, actor }, { jobIds }) => {
    for (const [k, jobId] of jobIds.entries())
      await trx('openJob')
        .where({ personId: actor.id, jobId })
        .update({ place: k + 1 });
  },
});
